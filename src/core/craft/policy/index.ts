export {
  completePolicy,
  DEFAULT_POLICY,
  type OpenHours,
  type Policy,
  priceInList,
  type PricedItem,
  type PriceLine,
  type Shop,
  type Weekday,
  WEEKDAYS,
} from './policy';
export { SCHOOL_IDS, type SchoolId, SCHOOLS, type Schools, USUAL_SCHOOLS, waysOf, wayTaken } from './schools';
export { type Requirement, REQUIREMENTS, type Service, type ServicePolicy, SERVICES } from './services';
export { STAGE_WORDS, type StageId, STAGES } from './stages';
