export { openAt, orderRack, promiseWords, type Urgency, withinHours } from './dayPlan';
export { waitsFor } from './waitsFor';
export { dueWords, isToRemind, nextVisitNoted, remindedOf, remindFrom } from './reminders';
