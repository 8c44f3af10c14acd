import { z } from 'zod';
import { GASKET_FINDINGS } from '../../core/gaskets';
import type { SealPayloads } from '../../core/logbook/facts/seal';
import { number, oneOf, text } from '../fields';
import type { KindDefinitions } from './define';

export const sealKinds: KindDefinitions<SealPayloads> = {
  'seal.gasket': {
    version: 1,
    schema: z.strictObject({
      state: oneOf('Gasket', ['renewed', 'reused', 'left in place']),
      findings: z.array(oneOf('Finding', GASKET_FINDINGS)).max(GASKET_FINDINGS.length),
      ageYears: number({ words: 'Age of the ring', min: 0, max: 80, unit: 'years', example: 2 }).nullable(),
      meetsWater: z.boolean().nullable(),
      greased: z.boolean(),
      reason: text({ words: 'Reason', max: 500, example: 'sound and two years old' }),
    }),
  },
  'seal.closed': {
    version: 1,
    schema: z.strictObject({
      how: text({ words: 'Closed', max: 80, example: 'thumbs' }),
      seamEven: z.boolean(),
    }),
  },
};
