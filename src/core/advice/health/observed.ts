import type { Measure, Observable } from '../../craft/health';

/** What is looked at of a watch by each reading. */
export const OBSERVED_BY: Readonly<Record<Measure, Observable>> = {
  restVoltageV: 'rest',
  loadedVoltageV: 'load',
  currentUA: 'current',
  stoppedCurrentUA: 'stopped',
  coilKOhm: 'coil',
  lowestRunningV: 'lowest',
  rateSPerDay: 'rate',
};
