import { type FactKinds, wellOf } from '../entry';

export const CELL_CONDITIONS = ['clean', 'bloom', 'crust', 'leaked into the movement'] as const;
export type CellCondition = (typeof CELL_CONDITIONS)[number];

export interface CellPayloads {
  'cell.found': {
    /** Null: there was no cell in the watch. */
    readonly marking: string | null;
    readonly condition: CellCondition | null;
  };
  'cell.fitted': {
    readonly cellCode: string;
    /** Null: not from this shop's stock. */
    readonly lotId: string | null;
    readonly supplier: string;
    readonly lotCode: string;
    readonly alkalineAgreed: boolean;
  };
  'cell.old-settled': { readonly taped: boolean; readonly to: 'spent bin' | 'owner' };
}

export const cellFacts: FactKinds<CellPayloads> = {
  'cell.found': {
    words: ({ marking, condition }) =>
      marking === null ? 'no cell found' : `cell found: ${marking}${condition ? `, ${condition}` : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.cellsFound.set(wellOf(entry), entry),
  },
  'cell.fitted': {
    words: ({ cellCode, lotCode }) => `fitted: ${cellCode}${lotCode ? `, lot ${lotCode}` : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.cellsFitted.set(wellOf(entry), entry),
  },
  'cell.old-settled': {
    words: ({ taped, to }) => `old cell ${taped ? 'taped, ' : ''}to the ${to}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.oldSettled.set(wellOf(entry), entry),
  },
};
