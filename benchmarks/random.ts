/** Chance that a run repeats from its seed: a 32-bit mix, of which the core knows nothing. */
export interface Chance {
  /** Evenly between 0 and 1, neither of them. */
  readonly uniform: () => number;
  readonly between: (from: number, to: number) => number;
  readonly one: <T>(of: readonly T[]) => T;
  /** One of some things, each with its weight. */
  readonly drawn: <T>(of: readonly (readonly [T, number])[]) => T;
  readonly normal: () => number;
}

export function chance(seed: number): Chance {
  let state = seed >>> 0;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return (((mixed ^ (mixed >>> 14)) >>> 0) + 0.5) / 4_294_967_296;
  };
  return {
    uniform,
    between: (from, to) => from + (to - from) * uniform(),
    one: (of) => of[Math.floor(uniform() * of.length)] as (typeof of)[number],
    drawn: (of) => {
      let left = uniform() * of.reduce((sum, [, weight]) => sum + weight, 0);
      for (const [each, weight] of of) {
        left -= weight;
        if (left <= 0) return each;
      }
      return (of[of.length - 1] as (typeof of)[number])[0];
    },
    normal: () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}
