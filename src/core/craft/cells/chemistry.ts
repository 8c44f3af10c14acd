import type { Chemistry } from './types';

/** What the program knows of a chemistry. Voltages: IEC 60086-3; self-discharge and shelf life: trade figures. */
export interface ChemistryFacts {
  readonly words: string;
  readonly nominalV: number;
  /** Share of its capacity lost in a year on the shelf or at work. */
  readonly selfDischargePerYear: number;
  /** From manufacture to the printed best-before, where only that is known. */
  readonly shelfYears: number;
}

export const chemistries: Readonly<Record<Chemistry, ChemistryFacts>> = {
  'silver-oxide': { words: 'silver oxide', nominalV: 1.55, selfDischargePerYear: 0.02, shelfYears: 3 },
  alkaline: { words: 'alkaline', nominalV: 1.5, selfDischargePerYear: 0.04, shelfYears: 3 },
  lithium: { words: 'lithium', nominalV: 3.0, selfDischargePerYear: 0.01, shelfYears: 8 },
  mercury: { words: 'mercury', nominalV: 1.35, selfDischargePerYear: 0.02, shelfYears: 3 },
  'zinc-air': { words: 'zinc-air', nominalV: 1.4, selfDischargePerYear: 0.04, shelfYears: 3 },
  accumulator: { words: 'accumulator', nominalV: 1.5, selfDischargePerYear: 0.05, shelfYears: 8 },
};
