import { z } from 'zod';
import { type Measure, measures } from '../../core/health';
import type { CheckPayloads } from '../../core/logbook/facts/check';
import { quantities } from '../../core/units';
import { oneOf } from '../fields';
import type { KindDefinitions } from './define';

export const checkKinds: KindDefinitions<CheckPayloads> = {
  'check.reading': {
    version: 1,
    schema: z
      .strictObject({ measure: oneOf('Measure', Object.keys(measures) as Measure[]), value: z.number() })
      .superRefine(({ measure, value }, context) => {
        const range = measures[measure];
        if (value >= range.min && value <= range.max) return;
        const { unit, example } = quantities[range.quantity];
        context.addIssue({
          code: 'custom',
          path: ['value'],
          message: `${range.words}: plausible is ${range.min} to ${range.max} ${unit}; ${value} is a slip of the key or the meter. A good value: ${example}.`,
        });
      }),
  },
};
