export type { Gasket } from './gasket';
export {
  GASKET_FINDINGS,
  type GasketFinding,
  isForLicensed,
  renewOrReuse,
  ringContradictions,
} from './renewOrReuse';
