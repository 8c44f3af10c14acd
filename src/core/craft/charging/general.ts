import type { LightTimes } from './light';

/** What an accumulator takes at 10,000 lx from flat where no book says it, hours, and the days it runs when full. */
const AT_10000_LX = { steppingH: 0.7, dayH: 0.2, fullH: 36 } as const;
export const GENERAL_RESERVE_DAYS = 180;
/** The times of movements nobody knows are good to this factor. */
export const GENERAL_FACTOR = 4.3;
/** Where a solar cell gives no more for more light, lx. */
const SATURATES_LX = 20_000;
const LINES_LX = [100, 300, 1000, 3000, 10_000, 30_000, 100_000] as const;

const rate = (lux: number): number => lux / (1 + lux / SATURATES_LX);

/**
 * Charging times of a light-charged movement nobody knows: those of accumulators in general, by a solar cell that gives less
 * and less for more light. Hours from flat. Source: general figures, ours; marked so where shown.
 */
export const GENERAL_LIGHT_TIMES: readonly LightTimes[] = LINES_LX.map((lux) => {
  const slower = rate(10_000) / rate(lux);
  return {
    lux,
    steppingH: AT_10000_LX.steppingH * slower,
    dayH: AT_10000_LX.dayH * slower,
    fullH: AT_10000_LX.fullH * slower,
  };
});
