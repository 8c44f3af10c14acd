import { z } from 'zod';
import { BACK_KINDS } from '../../core/backs';
import { AS_FOUND, OPENED_HOW, PARTS, PROTECTIONS } from '../../core/logbook';
import type { OpenPayloads } from '../../core/logbook/facts/open';
import { clock, id, number, oneOf, optionalText, text } from '../fields';
import type { KindDefinitions } from './define';

const note = optionalText({ words: 'Note', max: 500, example: 'scratch beside the coil' });

const seals = (where: string) => number({ words: `Seals at the ${where}`, min: 0, max: 6, example: 1 }).int();

export const openKinds: KindDefinitions<OpenPayloads> = {
  'open.back': {
    version: 2,
    raise: { 1: (payload) => ({ ...(payload as object), protection: 'not noted', went: 'not noted' }) },
    schema: z.strictObject({
      kind: oneOf('Kind of back', BACK_KINDS),
      openedWith: text({ words: 'Opened with', max: 80, example: 'case knife' }),
      protection: oneOf('Between tool and back', PROTECTIONS),
      went: oneOf('It opened', OPENED_HOW),
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
  'open.print': {
    version: 1,
    schema: z.strictObject({
      text: text({ words: 'Printed inside', max: 200, example: 'CR1616, reset AC' }),
    }),
  },
  'open.seals': {
    version: 1,
    schema: z.strictObject({ rim: seals('rim'), innerCover: seals('inner cover'), hatch: seals('hatch') }),
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
