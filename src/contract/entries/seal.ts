import { z } from 'zod';
import { VIEWS } from '../../core/craft/cases';
import { pressContradictions } from '../../core/craft/closing';
import {
  GASKET_FINDINGS,
  grooveContradictions,
  RING_STATES,
  SEATS,
  oldRingContradictions,
} from '../../core/craft/gaskets';
import { GASKET_PROFILES, GREASED_BY, SEAL_STATES, type SealPayloads } from '../../core/logbook';
import { anyOf, clock, id, number, oneOf, optionalText, several, text, yesNo } from '../fields';
import type { KindDefinitions } from './define';

const lengthMm = (words: string, max: number, example: number, min = 0.1) =>
  number({ words, min, max, unit: 'mm', example });

/** Each contradiction at its field. */
function name(
  wrong: { addIssue: (issue: { code: 'custom'; path: string[]; message: string }) => void },
  found: readonly { readonly path: string; readonly reason: string }[],
): void {
  for (const { path, reason } of found) wrong.addIssue({ code: 'custom', path: [path], message: reason });
}

export const sealKinds: KindDefinitions<SealPayloads> = {
  'seal.gasket': {
    version: 3,
    upcasters: {
      1: (payload) => ({ ...(payload as object), profile: 'not seen', size: '', lotId: null }),
      2: (payload) => ({ ...(payload as object), greasedBy: 'not noted' }),
    },
    schema: z.strictObject({
      state: oneOf('What was done', RING_STATES),
      findings: anyOf('Found on the ring', GASKET_FINDINGS),
      ageYears: number({ words: 'Age of the ring', min: 0, max: 80, unit: 'years', example: 2 }).nullable(),
      meetsWater: yesNo('It will meet water').nullable(),
      greased: yesNo('Silicone grease'),
      greasedBy: oneOf('Grease by', GREASED_BY),
      profile: oneOf('Profile', GASKET_PROFILES),
      size: optionalText({ words: 'Size', max: 40, example: '30.5 × 0.70' }),
      lotId: id.nullable(),
      reason: optionalText({
        words: 'Reason for not following the advice',
        max: 500,
        example: 'sound and two years old',
      }),
    }),
  },
  'seal.groove': {
    version: 1,
    schema: z
      .strictObject({
        innerMm: lengthMm('Groove inside', 80, 31),
        outerMm: lengthMm('Groove outside', 82, 32.9),
        depthMm: lengthMm('Depth in the case', 5, 0.55, 0.05),
        stepMm: lengthMm('So far the back enters it', 5, 0.1, 0),
        seat: oneOf('The ring lies on the', SEATS),
        depthWithinMm: lengthMm('Depth is good to ±', 0.2, 0.03, 0.001),
        sectionWithinMm: lengthMm('Sections are good to ±', 0.2, 0.03, 0.001),
      })
      .superRefine((groove, wrong) => name(wrong, grooveContradictions(groove))),
  },
  'seal.old-ring': {
    version: 2,
    upcasters: {
      1: (payload) => ({ ...(payload as object), insideMm: null, outsideMm: null, profile: 'not seen' }),
    },
    schema: z
      .strictObject({
        heightMm: lengthMm('Ring height', 5, 0.6).nullable(),
        widthMm: lengthMm('Ring width', 8, 0.77).nullable(),
        insideMm: lengthMm('Ring inside diameter', 80, 30.5).nullable(),
        outsideMm: lengthMm('Ring outside diameter', 82, 32).nullable(),
        profile: oneOf('Profile', GASKET_PROFILES),
      })
      .superRefine((ring, wrong) => name(wrong, oldRingContradictions(ring))),
  },
  'seal.inside': {
    version: 1,
    schema: z.strictObject({
      innerCover: oneOf('Seal of the inner cover', SEAL_STATES),
      hatch: oneOf('Seal of the hatch', SEAL_STATES),
    }),
  },
  'seal.press': {
    version: 1,
    schema: z
      .strictObject({
        crystalMm: lengthMm('Crystal across', 60, 28).nullable(),
        bezelMm: lengthMm('Bezel outside', 70, 32).nullable(),
        crystalAboveMm: lengthMm('Crystal over its bezel', 10, 0.4, -3).nullable(),
        caseMm: lengthMm('Case across', 80, 36).nullable(),
        backMm: lengthMm('Back across', 80, 32.8).nullable(),
        backBulgeMm: lengthMm('Bulge of the back', 10, 0.6, 0).nullable(),
        glassMm: lengthMm('Glass in the back', 60, 22).nullable(),
        glassAboveMm: lengthMm('Glass over its rim', 5, 0.2, -3).nullable(),
      })
      .superRefine((measures, wrong) => name(wrong, pressContradictions(measures))),
  },
  'seal.steps': {
    version: 1,
    schema: z.strictObject({
      steps: z
        .array(z.string().regex(/^[a-z][a-z0-9-]{0,39}$/))
        .min(1)
        .max(40),
      asShown: z.boolean(),
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
      note: optionalText({
        words: 'What this shop changed',
        max: 500,
        example: 'insulator renewed, contact straightened',
      }),
    }),
  },
  'seal.closed': {
    version: 3,
    upcasters: {
      1: (payload) => ({ ...(payload as object), raisedClocks: [], interim: false }),
      2: (payload) => ({ ...(payload as object), seenFrom: null }),
    },
    schema: z
      .strictObject({
        how: text({ words: 'Closed', max: 80, example: 'thumbs' }),
        seamEven: yesNo('Looked along the whole seam: it is'),
        raisedClocks: several(
          'It stands up, or the ring shows, at',
          clock('It stands up, or the ring shows, at'),
          24,
        ),
        seenFrom: oneOf('Seen from', VIEWS).nullable(),
        interim: yesNo('For the time being, on its old seal'),
      })
      .refine((closed) => !closed.seamEven || closed.raisedClocks.length === 0, {
        path: ['seamEven'],
        error:
          'Looked along the whole seam: it is not even all round where it stands up at the places marked.',
      }),
  },
};
