import { z } from 'zod';
import { VIEWS } from '../../core/craft/cases';
import { GASKET_FINDINGS } from '../../core/craft/gaskets';
import { GASKET_PROFILES, SEAL_STATES, type SealPayloads } from '../../core/logbook';
import { clock, id, number, oneOf, optionalText, text, yesNo } from '../fields';
import type { KindDefinitions } from './define';
export const sealKinds: KindDefinitions<SealPayloads> = {
  'seal.gasket': {
    version: 2,
    raise: { 1: (payload) => ({ ...(payload as object), profile: 'not seen', size: '', lotId: null }) },
    schema: z.strictObject({
      state: oneOf('Gasket', ['renewed', 'reused', 'left in place']),
      findings: z.array(oneOf('Finding', GASKET_FINDINGS)).max(GASKET_FINDINGS.length),
      ageYears: number({ words: 'Age of the ring', min: 0, max: 80, unit: 'years', example: 2 }).nullable(),
      meetsWater: z.boolean().nullable(),
      greased: yesNo('Grease'),
      profile: oneOf('Profile', GASKET_PROFILES),
      size: optionalText({ words: 'Size', max: 40, example: '30.5 × 0.70' }),
      lotId: id.nullable(),
      reason: optionalText({ words: 'Reason', max: 500, example: 'sound and two years old' }),
    }),
  },
  'seal.other': {
    version: 1,
    schema: z.strictObject({
      crown: oneOf('Crown seal', SEAL_STATES),
      pushers: oneOf('Pusher seals', SEAL_STATES),
      crystal: oneOf('Crystal seal', SEAL_STATES),
    }),
  },
  'seal.paired': {
    version: 1,
    schema: z.strictObject({
      inBack: optionalText({ words: 'Serial in the back', max: 60, example: '4471902' }),
    }),
  },
  'seal.now': {
    version: 1,
    schema: z.strictObject({
      note: optionalText({ words: 'Note', max: 500, example: 'insulator renewed, contact straightened' }),
    }),
  },
  'seal.closed': {
    version: 3,
    raise: {
      1: (payload) => ({ ...(payload as object), raisedClocks: [], interim: false }),
      2: (payload) => ({ ...(payload as object), seenFrom: null }),
    },
    schema: z
      .strictObject({
        how: text({ words: 'Closed', max: 80, example: 'thumbs' }),
        seamEven: yesNo('The seam even all round'),
        raisedClocks: z.array(clock).max(24),
        seenFrom: oneOf('Seen from', VIEWS).nullable(),
        interim: z.boolean(),
      })
      .refine((closed) => !closed.seamEven || closed.raisedClocks.length === 0, {
        path: ['seamEven'],
        error: 'Seam: it stands up at the places marked, so it is not even all round.',
      }),
  },
};
