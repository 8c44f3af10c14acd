import { DRAWS, expectedLife, type LifeInput, normalFrom, seededUniform } from '../src/core/craft/life';

/** Ten thousand lives drawn against the same loop written out on plain arrays, interleaved in one run. */
const input: LifeInput = {
  chemistry: 'silver-oxide',
  capacityMinMAh: 24,
  capacityMaxMAh: 28,
  baseUA: 1.1,
  drainKnownBy: 'measured',
  functions: [{ name: 'light', drawUA: 4000, secondsPerDay: 6 }],
  yearsSinceMade: 0.5,
  ageKnownBy: 'its date',
  kept: 'not known',
  seed: 11,
};

function plain(): readonly number[] {
  const uniform = seededUniform(11);
  const sigma = Math.log(1.1) / 1.96;
  const secondsSigma = Math.log(2) / 1.96;
  const dischargeSigma = Math.log(1.5) / 1.96;
  const months: number[] = [];
  for (let draw = 0; draw < DRAWS; draw += 1) {
    const capacity = 24 + 4 * uniform();
    const usable = 0.8 + 0.17 * uniform();
    const rises = 1 + (0.15 * uniform()) / 2;
    const base = 1.1 * rises * Math.exp(sigma * normalFrom(uniform));
    const light = ((4000 * 6) / 86_400) * Math.exp(secondsSigma * normalFrom(uniform));
    const years = Math.max(0, 0.5 + 0.1 * (2 * uniform() - 1));
    const discharge = 0.02 * Math.exp(dischargeSigma * normalFrom(uniform));
    const warmth = 2 ** ((18 + 15 * uniform() - 20) / 10);
    const left = usable * capacity * (1 - Math.min(1, discharge * years));
    months.push(left / (0.7305 * (base + light) + (capacity * discharge * warmth) / 12));
  }
  return months.sort((a, b) => a - b);
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

const [own, yardstick]: [number[], number[]] = [[], []];
for (let round = 0; round < 60; round += 1) {
  for (const [times, run] of [
    [own, () => expectedLife(input)],
    [yardstick, plain],
  ] as const) {
    const began = performance.now();
    run();
    times.push(performance.now() - began);
  }
}
const life = expectedLife(input);
const months = plain();
if (life.verdict !== 'forecast' || Math.abs(life.p50Months - (months[DRAWS / 2] ?? 0)) > 0.2)
  throw new Error('The two loops do not draw the same.');
const ratio = median(own) / median(yardstick);
console.log(
  `${DRAWS} draws with percentiles and bars: median ${median(own).toFixed(2)} ms; on plain arrays ${median(yardstick).toFixed(2)} ms: ${ratio.toFixed(2)} × (aim at most 1.2).`,
);
if (ratio > 1.2) process.exitCode = 1;
