import { z } from 'zod';
import { BACK_KINDS } from '../../core/backs';
import { AS_FOUND, PARTS } from '../../core/logbook';
import type { OpenPayloads } from '../../core/logbook/facts/open';
import { clock, id, number, oneOf, optionalText, text } from '../fields';
import type { KindDefinitions } from './define';

const note = optionalText({ words: 'Note', max: 500, example: 'scratch beside the coil' });

export const openKinds: KindDefinitions<OpenPayloads> = {
  'open.back': {
    version: 1,
    schema: z.strictObject({
      kind: oneOf('Kind of back', BACK_KINDS),
      openedWith: text({ words: 'Opened with', max: 80, example: 'case knife' }),
      spotClock: clock.nullable(),
      lipClock: clock.nullable(),
    }),
  },
  'open.part': {
    version: 1,
    schema: z.strictObject({
      part: oneOf('Part', PARTS),
      position: optionalText({ words: 'Position', max: 80, example: '12 o’clock, third hole' }),
      count: number({ words: 'Count', min: 1, max: 40, example: 4 }).int(),
    }),
  },
  'open.part-settled': {
    version: 1,
    schema: z.strictObject({
      partEntryId: id,
      outcome: oneOf('Outcome', ['back in place', 'replaced', 'lost']),
      note,
    }),
  },
  'open.technique': {
    version: 1,
    schema: z.strictObject({
      note: text({ words: 'For next time', max: 300, example: 'press at 7 o’clock, it clicks late' }),
    }),
  },
  'open.as-found': {
    version: 1,
    schema: z
      .strictObject({ found: z.array(oneOf('As found', AS_FOUND)).max(AS_FOUND.length), note })
      .refine((found) => found.found.length > 0 || found.note !== '', {
        path: ['found'],
        error: 'As found: pick at least one, e.g. “nothing unusual”.',
      }),
  },
};
