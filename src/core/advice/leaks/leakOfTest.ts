import {
  driftOf,
  type FreeVolume,
  freeVolume,
  judgeLeak,
  type LeakJudgement,
  type LeakSetting,
  ROOM_C,
} from '../../craft/tightness';
import type { JobFacts, Payloads } from '../../logbook';

type Facts = Pick<JobFacts, 'caseSize' | 'blank' | 'measured'>;
type Made = Payloads['test.made'];

/** A tester whose book nobody looked into, µm. */
export const USUAL_TESTER_NOISE_UM = 0.1;

/** The free volume of the case of a job: as measured, from its size, or guessed. */
export function freeVolumeOf({ caseSize, measured }: Pick<Facts, 'caseSize' | 'measured'>): FreeVolume {
  const size = caseSize?.payload;
  return freeVolume({
    measuredCm3: size?.freeVolumeCm3 ?? null,
    withinPercent: size?.withinPercent ?? null,
    diameterMm: size?.diameterMm ?? measured?.payload.caseMm ?? null,
    thicknessMm: size?.thicknessMm ?? null,
  });
}

/** What a dry test of a job is judged in: volume, temperature, the tester's drift and noise. */
export function leakSettingOf(
  test: Pick<Made, 'temperatureC' | 'testerNoiseUm' | 'usualUmPerBar'>,
  facts: Facts,
): LeakSetting {
  const noise = test.testerNoiseUm ?? USUAL_TESTER_NOISE_UM;
  const blank = facts.blank?.payload ?? null;
  const run = blank?.record ?? blank?.typed ?? null;
  return {
    volume: freeVolumeOf(facts),
    temperatureC: test.temperatureC ?? ROOM_C,
    drift: run === null ? null : driftOf(run, noise),
    usualUmPerBar: test.usualUmPerBar,
    testerNoiseUm: noise,
  };
}

/** What the figures of a dry test show of a leak; null for another method, and where nothing was measured. */
export function leakOfTest(test: Made, facts: Facts): LeakJudgement | null {
  if (test.method !== 'dry air') return null;
  const setting = leakSettingOf(test, facts);
  if (test.record !== null) {
    const { atS, overBar, deflectionUm } = test.record;
    return judgeLeak({ record: { atS, overBar, deflectionUm } }, setting);
  }
  const { deflectionStartUm: startUm, deflectionEndUm: endUm, seconds, pressureBar } = test;
  return startUm === null || endUm === null || pressureBar === null
    ? null
    : judgeLeak({ startUm, endUm, seconds, overBar: pressureBar }, setting);
}
