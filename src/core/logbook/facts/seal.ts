import type { GasketFinding } from '../../gaskets';
import type { FactKinds } from '../entry';

export interface SealPayloads {
  'seal.gasket': {
    readonly state: 'renewed' | 'reused' | 'left in place';
    readonly findings: readonly GasketFinding[];
    readonly ageYears: number | null;
    readonly meetsWater: boolean | null;
    readonly greased: boolean;
    /** Why, in particular where the advice was not followed. */
    readonly reason: string;
  };
  'seal.closed': { readonly how: string; readonly seamEven: boolean };
}

export const sealFacts: FactKinds<SealPayloads> = {
  'seal.gasket': {
    words: ({ state, greased }) => `gasket ${state}${greased ? ', greased' : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.gasket = entry),
  },
  'seal.closed': {
    words: ({ how, seamEven }) => `closed: ${how}, seam ${seamEven ? 'even all round' : 'not even'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.closed = entry),
  },
};
