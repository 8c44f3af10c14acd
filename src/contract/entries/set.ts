import { z } from 'zod';
import { OUTSIDE, type SetPayloads } from '../../core/logbook';
import { FUNCTION_KINDS } from '../../core/craft/movements';
import { handsReading, number, oneOf, yesNo } from '../fields';
import type { KindDefinitions } from './define';
const worksOrNot = oneOf('Result', ['works', 'does not work']);

export const setKinds: KindDefinitions<SetPayloads> = {
  'set.runs': {
    version: 1,
    schema: z.strictObject({
      runs: yesNo('It runs'),
      watchedSeconds: number({ words: 'Watched for', min: 1, max: 1_000_000, unit: 's', example: 60 }),
    }),
  },
  'set.time': { version: 1, schema: z.strictObject({ set: yesNo('Set to the signal') }) },
  'set.outside': {
    version: 1,
    schema: z.strictObject({ proved: z.partialRecord(z.enum(OUTSIDE), worksOrNot) }),
  },
  'set.run-began': { version: 1, schema: z.strictObject({ shows: handsReading }) },
  'set.run-ended': {
    version: 1,
    schema: z.strictObject({ shows: handsReading, stillRuns: yesNo('It still runs') }),
  },
  'set.functions': {
    version: 1,
    schema: z.strictObject({
      proved: z.partialRecord(z.enum(FUNCTION_KINDS), worksOrNot),
    }),
  },
};
