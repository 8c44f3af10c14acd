// Taken once: a forecast draws ten thousand times, and a look-up of a global costs more than the sum.
const { cos, imul, log, PI, sqrt } = Math;

/** A seeded stream of uniform numbers in [0, 1): mulberry32. The same seed gives the same stream everywhere. */
export function seededUniform(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** A standard normal draw from a uniform stream (Box–Muller). */
export function normalFrom(uniform: () => number): number {
  const u = 1 - uniform();
  return sqrt(-2 * log(u)) * cos(2 * PI * uniform());
}
