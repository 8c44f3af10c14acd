export { openAt, orderRack, promiseWords, type Urgency } from './dayPlan';
export { waitsFor } from './waitsFor';
