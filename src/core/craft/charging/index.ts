export {
  CHARGE_STATES,
  chargingPlan,
  type ChargingPlan,
  type ChargingQuestion,
  type ChargeState,
  type MarkAt,
  type StepsSeen,
} from './chargingPlan';
export {
  CHARGE_MARKS,
  type ChargeMark,
  DAY_IS,
  type DayIs,
  errorsOf,
  hoursAt,
  type LightBook,
  type LightTimes,
  MOST_LUX,
  questionsOf,
} from './light';
export { GENERAL_FACTOR, GENERAL_LIGHT_TIMES, GENERAL_RESERVE_DAYS } from './general';
export { type LightHours } from './lit';
export { FIGURES_ARE, type RotorFigures, type RotorPlan, rotorPlan, MOST_WINDER_TURNS } from './rotor';
export { lightNow, type LightPlace, lightThere, type LightThere, MOST_CASE_C } from './place';
