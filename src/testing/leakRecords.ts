import { recordOfSamples, type SimulatedCase, simulateTrace } from '../core/craft/devices';
import type { KeptRecord } from '../core/logbook';

/** A case in good order, on a tester in good order, for a test to change. */
export const tightCase: SimulatedCase = {
  stiffnessUmPerBar: 5,
  settlesShare: 0.02,
  settlesInS: 5,
  volumeCm3: 1.3,
  leakUgPerMin: null,
  gross: false,
  noiseUm: 0.02,
  driftUmPerMin: 0,
};

const made = new Map<string, KeptRecord>();

/** What a tester recorded of a case at a pressure; the same every time. */
export function recordOf(overBar: number, of: Partial<SimulatedCase> = {}, seconds = 300): KeptRecord {
  const key = JSON.stringify([overBar, of, seconds]);
  const known = made.get(key);
  if (known) return known;
  const samples = simulateTrace({ ...tightCase, ...of }, overBar, seconds, 7);
  const record: KeptRecord = {
    ...recordOfSamples(samples),
    from: 'the tester',
    repairs: [],
  };
  made.set(key, record);
  return record;
}
