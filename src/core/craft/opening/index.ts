export { chooseOpener, pryQuestion } from './chooseOpener';
export { type JawChoice, jawSetting, overTravel } from './jawSetting';
export { type OpenerChoice, opens } from './openerChoice';
export { openingPlan, type OpeningPlan } from './openingPlan';
export type { PlanPart, PlanStep } from './planStep';
