export { chooseOpener, type OpenerChoice, opens, pryQuestion } from './chooseOpener';
export { type JawChoice, jawSetting, overTravel } from './jawSetting';
export { openingPlan, type OpeningPlan, type PlanPart, type PlanStep } from './openingPlan';
