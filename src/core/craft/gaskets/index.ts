export type { Gasket } from './gasket';
export {
  GASKET_FINDINGS,
  type GasketFinding,
  isForLicensed,
  isAsAdvised,
  renewOrReuse,
  ringContradictions,
} from './renewOrReuse';
