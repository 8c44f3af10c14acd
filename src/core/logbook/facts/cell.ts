import { figure } from '../../judgement';
import { type FactKinds, wellOf } from '../entry';

export const CELL_CONDITIONS = ['clean', 'bloom', 'crust', 'leaked into the movement'] as const;
export type CellCondition = (typeof CELL_CONDITIONS)[number];

export const ACCUMULATOR_WAYS = ['kit with tabs', 'old tab transferred'] as const;
export const CHARGE_OUTCOMES = ['steps normally', 'low-supply steps', 'does not run'] as const;

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
  /** The cell that was in the watch goes in again: a reseal, or a good cell. */
  'cell.put-back': { readonly reason: string };
  'cell.accumulator': {
    readonly kitCode: string;
    readonly lotId: string | null;
    readonly supplier: string;
    readonly lotCode: string;
    readonly way: (typeof ACCUMULATOR_WAYS)[number];
  };
  'cell.charged': {
    readonly by: 'light' | 'rotor' | 'charger';
    readonly hours: number;
    readonly outcome: (typeof CHARGE_OUTCOMES)[number];
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
    fold: (facts, entry) => {
      facts.cellsFitted.set(wellOf(entry), entry);
      facts.putBack.delete(wellOf(entry));
    },
  },
  'cell.put-back': {
    words: ({ reason }) => `the same cell put back: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.putBack.set(wellOf(entry), entry),
  },
  'cell.accumulator': {
    words: ({ kitCode, lotCode, way }) => `accumulator: ${kitCode}${lotCode && `, lot ${lotCode}`}, ${way}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.accumulator = entry),
  },
  'cell.charged': {
    words: ({ by, hours, outcome }) => `charged by ${by} for ${figure(hours, 1)} h: ${outcome}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.charges.push(entry),
  },
  'cell.old-settled': {
    words: ({ taped, to }) => `old cell ${taped ? 'taped, ' : ''}to the ${to}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.oldSettled.set(wellOf(entry), entry),
  },
};
