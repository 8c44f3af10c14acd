import { z } from 'zod';
import { type Measure, measures } from '../../core/health';
import { CAUSES, LEAK_DECISIONS, LEAK_PLACES, LEAK_SEVERITIES, NEXT_STEPS } from '../../core/logbook';
import type { CheckPayloads } from '../../core/logbook/facts/check';
import { quantities } from '../../core/units';
import { number, oneOf, optionalText } from '../fields';
import type { KindDefinitions } from './define';

const onLayout = number({
  words: 'Place on the layout',
  min: -40,
  max: 40,
  unit: 'mm',
  example: 4.2,
}).nullable();

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
  'check.pulses': {
    version: 1,
    schema: z.strictObject({
      there: z.boolean(),
      through: oneOf('Picked up through', ['the closed watch', 'the open watch']),
    }),
  },
  'check.leakage': {
    version: 1,
    schema: z.strictObject({
      place: oneOf('Place', LEAK_PLACES),
      severity: oneOf('Severity', LEAK_SEVERITIES),
      xMm: onLayout,
      yMm: onLayout,
      treated: optionalText({ words: 'What was done', max: 200, example: 'weak acid, alcohol, dried' }),
      decision: oneOf('Decision', LEAK_DECISIONS),
      supplier: optionalText({ words: 'Supplier of the leaked cell', max: 80, example: 'not known' }),
      lotCode: optionalText({ words: 'Its lot', max: 40, example: 'N-204' }),
    }),
  },
  'check.diagnosis': {
    version: 1,
    schema: z.strictObject({
      cause: oneOf('Cause', CAUSES),
      next: oneOf('Next', NEXT_STEPS),
      words: optionalText({ words: 'In words', max: 400, example: 'draws 4.1 µA with the motor stopped' }),
    }),
  },
};
