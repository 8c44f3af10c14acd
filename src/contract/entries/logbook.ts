import { z } from 'zod';
import type { LogbookPayloads } from '../../core/logbook';
import { STAGES } from '../../core/craft/policy';
import { oneOf, text } from '../fields';
import { type KindDefinitions, kind } from './define';
const reason = text({ words: 'Reason', max: 300, example: 'typed into the wrong job' });

export const logbookKinds: KindDefinitions<LogbookPayloads> = {
  'logbook.withdrawn': kind({ version: 1, schema: () => z.strictObject({ reason }) }),
  'logbook.stage-skipped': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        stage: oneOf('Stage', STAGES).refine((stage) => stage !== 'arrive' && stage !== 'handback', {
          error: 'Arriving and handing back cannot be skipped.',
        }),
        reason,
      }),
  }),
};
