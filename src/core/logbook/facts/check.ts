import { type Measure, measures } from '../../health';
import { figure } from '../../judgement';
import { quantities } from '../../units';
import type { FactKinds } from '../entry';

export interface CheckPayloads {
  'check.reading': { readonly measure: Measure; readonly value: number };
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
};
