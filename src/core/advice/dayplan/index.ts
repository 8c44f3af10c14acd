export { openAt, orderRack, promiseWords, type Urgency, urgencyOf, waitsFor } from './dayPlan';
