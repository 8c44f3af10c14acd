export { openAt, orderRack, promiseWords, type Urgency, waitsFor } from './dayPlan';
