import { z } from 'zod';
import type { IdentifyPayloads } from '../../core/logbook/facts/identify';
import { oneOf, optionalText, text } from '../fields';
import type { KindDefinitions } from './define';

export const identifyKinds: KindDefinitions<IdentifyPayloads> = {
  'identify.engraving': {
    version: 1,
    schema: z.strictObject({
      text: text({ words: 'Engraving', max: 120, example: 'OR 41?2 C2140-3' }),
    }),
  },
  'identify.movement': {
    version: 1,
    schema: z.strictObject({
      calibreId: text({ words: 'Calibre', max: 60, example: 'orrelin-41-2' }).nullable(),
      code: text({ words: 'Movement', max: 60, example: 'OR 41.2' }),
      by: oneOf('Identified by', ['engraving', 'hand']),
      note: optionalText({ words: 'Note', max: 300, example: 'second letter worn' }),
    }),
  },
};
