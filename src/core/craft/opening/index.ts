export { chooseOpener, pryQuestion } from './chooseOpener';
export { jawSetting, overTravel } from './jawSetting';
export type { JawChoice, JawQuestion } from './jawChoices';
export { type OpenerChoice, opens } from './openerChoice';
export { openingPlan, type OpeningPlan } from './openingPlan';
export type { PlanPart, PlanStep } from './planStep';
