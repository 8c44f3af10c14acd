import { z } from 'zod';
import {
  LEAK_DECISIONS,
  LEAK_PLACES,
  LEAK_SEVERITIES,
  type Measure,
  measures,
  NEXT_STEPS,
  SHOWS,
  SIGNS_OF_FAULT,
} from '../../core/craft/health';
import { AT_FITTING, CAUSES, type CheckPayloads, CROWN_SEEN } from '../../core/logbook';
import { quantities } from '../../core/craft/units';
import { anyOf, figureOf, number, oneOf, optionalText, yesNo } from '../fields';
import { addsFields, type KindDefinitions, kind } from './define';
const onLayout = (clock: 3 | 12) =>
  number({
    words: `To ${clock} o’clock, seen from behind`,
    min: -40,
    max: 40,
    unit: 'mm',
    example: 4.2,
  }).nullable();

const draw = (words: string) =>
  number({ words, min: measures.currentUA.min, max: measures.currentUA.max, unit: 'µA', example: 1.1 });

export const checkKinds: KindDefinitions<CheckPayloads> = {
  'check.reading': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({
          measure: oneOf('Measure', Object.keys(measures) as Measure[]),
          value: figureOf('Reading', 1.55),
          loadKOhm: number({ words: 'Test load', min: 0.1, max: 100, unit: 'kΩ', example: 2 }).nullable(),
          loadSeconds: number({
            words: 'Load duration',
            min: 0.05,
            max: 60,
            unit: 's',
            example: 1,
          }).nullable(),
        })
        .superRefine(({ measure, value }, context) => {
          const range = measures[measure];
          if (value >= range.min && value <= range.max) return;
          const { unit, example } = quantities[range.quantity];
          context.addIssue({
            code: 'custom',
            path: ['value'],
            message: `${range.words}: plausible is ${range.min} to ${range.max} ${unit}; ${value} is probably a typing or meter error. Example: ${example}.`,
          });
        }),
    upcasts: [addsFields('test load of a loaded voltage', { loadKOhm: null, loadSeconds: null })],
  }),
  'check.pulses': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        there: yesNo('Motor pulses'),
        through: oneOf('Picked up through', ['the closed watch', 'the open watch']),
        everyS: number({ words: 'Pulse interval', min: 0.02, max: 120, unit: 's', example: 1 }).nullable(),
      }),
    upcasts: [addsFields('interval of motor pulses', { everyS: null })],
  }),
  'check.looked': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          crown: oneOf('Crown', CROWN_SEEN).nullable(),
          shows: oneOf('Hands or display', SHOWS).nullable(),
          watchedSeconds: number({
            words: 'Watched for',
            min: 1,
            max: 3600,
            unit: 's',
            example: 70,
          }).nullable(),
          atFitting: oneOf('When a cell is inserted', AT_FITTING).nullable(),
          freshCell: yesNo('Fresh cell fitted').nullable(),
          resetUsed: yesNo('Reset used').nullable(),
          signs: anyOf('Seen with the loupe', SIGNS_OF_FAULT).nullable(),
        })
        .refine((looked) => Object.values(looked).some((value) => value !== null), {
          error: 'Looked at: at least one thing, e.g. the crown.',
          path: ['crown'],
        }),
  }),
  'check.leakage': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        place: oneOf('Place of the leak', LEAK_PLACES),
        severity: oneOf('Severity', LEAK_SEVERITIES),
        xMm: onLayout(3),
        yMm: onLayout(12),
        treated: optionalText({ words: 'What was done', max: 200, example: 'weak acid, alcohol, dried' }),
        decision: oneOf('Decided with the owner', LEAK_DECISIONS),
        supplier: optionalText({ words: 'Supplier of the leaked cell', max: 80, example: 'not known' }),
        lotCode: optionalText({ words: 'Lot of the leaked cell', max: 40, example: 'N-204' }),
        currentBeforeUA: draw('Current before cleaning').nullable(),
        currentAfterUA: draw('Current after cleaning').nullable(),
      }),
    upcasts: [
      addsFields('current before and after cleaning', { currentBeforeUA: null, currentAfterUA: null }),
    ],
  }),
  'check.diagnosis': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        cause: oneOf('Cause', CAUSES),
        also: oneOf('Second cause', CAUSES).nullable(),
        next: oneOf('Next step', NEXT_STEPS),
        words: optionalText({ words: 'Note', max: 400, example: 'draws 4.1 µA with the motor stopped' }),
      }),
    upcasts: [addsFields('a second cause', { also: null })],
  }),
};
