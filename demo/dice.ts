import { seededUniform } from '../src/core/craft/life';

/** Made-up chance that falls the same way in every build. */
export interface Dice {
  /** A number from 0 up to 1. */
  readonly uniform: () => number;
  /** True in this share of throws. */
  readonly chance: (share: number) => boolean;
  readonly pick: <T>(from: readonly T[]) => T;
  readonly between: (low: number, high: number) => number;
}

export function seededDice(seed: number): Dice {
  const uniform = seededUniform(seed);
  return {
    uniform,
    chance: (share) => uniform() < share,
    pick: <T>(from: readonly T[]): T => {
      const chosen = from[Math.floor(uniform() * from.length)];
      if (chosen === undefined) throw new RangeError('Nothing to pick from.');
      return chosen;
    },
    between: (low, high) => low + uniform() * (high - low),
  };
}
