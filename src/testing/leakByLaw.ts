import { normalFrom, seededUniform } from '../core/craft/life';
import {
  insideAfter,
  type LeakRecord,
  type LeakSetting,
  limitConstant,
  standardTest,
} from '../core/craft/tightness';

/** What a test is judged in: a measured case on a good tester, with no blank run. */
export const SETTING: LeakSetting = {
  volume: { cm3: 1.5, factor: 1.1, how: 'measured' },
  temperatureC: 23,
  drift: null,
  usualUmPerBar: null,
  testerNoiseUm: 0.01,
};

export interface Made {
  readonly ofLimit?: number;
  readonly overBar?: number;
  readonly watchS?: number;
  readonly noiseUm?: number;
  readonly umPerBar?: number;
  readonly driftUmPerS?: number;
  readonly seed?: number;
  readonly times?: Pick<LeakRecord, 'atS' | 'overBar'>;
}

/** A record of the law alone, with noise. */
export function madeRecord({
  ofLimit = 0,
  overBar = 2,
  watchS = 180,
  noiseUm = 0.03,
  umPerBar = 5,
  driftUmPerS = 0,
  seed = 1,
  times = standardTest(overBar, watchS, Infinity),
}: Made = {}): LeakRecord {
  const uniform = seededUniform(seed);
  const constant = ofLimit * limitConstant({ volumeCm3: 1.5, temperatureC: 23 });
  let inside = 1;
  return {
    ...times,
    deflectionUm: times.atS.map((at, i) => {
      const before = i === 0 ? 0 : (times.atS[i - 1] ?? 0);
      const outside = 1 + ((times.overBar[i] ?? 0) + (times.overBar[i - 1] ?? 0)) / 2;
      if (i > 0) inside = insideAfter(inside, outside, constant, at - before);
      return (
        umPerBar * (1 + (times.overBar[i] ?? 0) - inside) + driftUmPerS * at + noiseUm * normalFrom(uniform)
      );
    }),
  };
}
