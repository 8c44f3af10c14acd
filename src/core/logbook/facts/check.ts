import { type Measure, measures } from '../../health';
import { figure } from '../../judgement';
import { quantities } from '../../units';
import type { FactKinds } from '../entry';

export const LEAK_PLACES = ['cell', 'contact', 'well', 'track', 'coil', 'dial side'] as const;
export type LeakPlace = (typeof LEAK_PLACES)[number];
/** From the lightest to the gravest. */
export const LEAK_SEVERITIES = ['bloom', 'crust', 'corrosion', 'broken track'] as const;
export type LeakSeverity = (typeof LEAK_SEVERITIES)[number];
export const LEAK_DECISIONS = ['cleaned, observe', 'new circuit', 'new movement', 'not decided yet'] as const;

export const CAUSES = [
  'spent cell',
  'stop lever on',
  'coil severed',
  'mechanical',
  'short circuit',
  'contact does not touch',
  'electrolyte or damp on the circuit',
  'old oil and dirt',
  'reset contact not used',
  'tired accumulator',
  'no fault found',
  'not found yet',
] as const;
export const NEXT_STEPS = [
  'nothing more',
  'new cell',
  'clean',
  'service of the movement',
  'new circuit',
  'new movement',
  'refer',
] as const;

export interface CheckPayloads {
  'check.reading': { readonly measure: Measure; readonly value: number };
  /** Motor pulses heard or picked up. */
  'check.pulses': { readonly there: boolean; readonly through: 'the closed watch' | 'the open watch' };
  'check.leakage': {
    readonly place: LeakPlace;
    readonly severity: LeakSeverity;
    /** On the layout, millimetres from the movement's centre seen from behind; null where it was not marked. */
    readonly xMm: number | null;
    readonly yMm: number | null;
    readonly treated: string;
    readonly decision: (typeof LEAK_DECISIONS)[number];
    /** Of the cell that leaked, where it is known. */
    readonly supplier: string;
    readonly lotCode: string;
  };
  'check.diagnosis': {
    readonly cause: (typeof CAUSES)[number];
    readonly next: (typeof NEXT_STEPS)[number];
    readonly words: string;
  };
}

export const checkFacts: FactKinds<CheckPayloads> = {
  'check.reading': {
    words: ({ measure, value }) => {
      const { words, quantity } = measures[measure];
      return `${words}: ${figure(value, quantities[quantity].digits)} ${quantities[quantity].unit}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.readings.set(entry.payload.measure, entry),
  },
  'check.pulses': {
    words: ({ there, through }) => `${there ? 'motor pulses' : 'no motor pulses'} through ${through}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.pulses = entry),
  },
  'check.leakage': {
    words: ({ place, severity, decision }) => `leaked: ${severity} at the ${place}, ${decision}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.leakages.push(entry),
  },
  'check.diagnosis': {
    words: ({ cause, next, words }) => `finding: ${cause}; next: ${next}${words && `; ${words}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.diagnosis = entry),
  },
};
