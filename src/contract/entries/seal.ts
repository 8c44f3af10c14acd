import { z } from 'zod';
import { VIEWS } from '../../core/craft/cases';
import { PRESS_NAMES, pressContradictions } from '../../core/craft/closing';
import { capital } from '../../core/craft/judgement';
import {
  GASKET_FINDINGS,
  grooveContradictions,
  RING_STATES,
  SEATS,
  oldRingContradictions,
} from '../../core/craft/gaskets';
import { GASKET_PROFILES, GREASED_BY, SEAL_STATES, type SealPayloads } from '../../core/logbook';
import { anyOf, clocks, id, number, oneOf, optionalText, text, yesNo } from '../fields';
import { addsFields, type KindDefinitions, kind } from './define';

const lengthMm = (words: string, max: number, example: number, min = 0.1) =>
  number({ words, min, max, unit: 'mm', example });

const pressMm = (name: keyof typeof PRESS_NAMES, max: number, example: number, min?: number) =>
  lengthMm(capital(PRESS_NAMES[name]), max, example, min).nullable();

/** Each contradiction at its field. */
function name(
  wrong: { addIssue: (issue: { code: 'custom'; path: string[]; message: string }) => void },
  found: readonly { readonly path: string; readonly reason: string }[],
): void {
  for (const { path, reason } of found) wrong.addIssue({ code: 'custom', path: [path], message: reason });
}

export const sealKinds: KindDefinitions<SealPayloads> = {
  'seal.gasket': kind({
    version: 3,
    upcasts: [
      addsFields('profile, size and lot of the ring', { profile: 'not seen', size: '', lotId: null }),
      addsFields('what the grease was applied with', { greasedBy: 'not noted' }),
    ],
    schema: () =>
      z.strictObject({
        state: oneOf('What was done', RING_STATES),
        findings: anyOf('Ring condition', GASKET_FINDINGS),
        ageYears: number({ words: 'Gasket age', min: 0, max: 80, unit: 'years', example: 2 }).nullable(),
        meetsWater: yesNo('Will it get wet?').nullable(),
        greased: yesNo('Silicone grease'),
        greasedBy: oneOf('Grease applied with', GREASED_BY),
        profile: oneOf('Profile', GASKET_PROFILES),
        size: optionalText({ words: 'Size', max: 40, example: '30.5 × 0.70' }),
        lotId: id.nullable(),
        reason: optionalText({
          words: 'Reason for not following the advice',
          max: 500,
          example: 'sound and two years old',
        }),
      }),
  }),
  'seal.groove': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          innerMm: lengthMm('Inner diameter of the groove', 80, 31),
          outerMm: lengthMm('Outer diameter of the groove', 82, 32.9),
          depthMm: lengthMm('Groove depth', 5, 0.55, 0.05),
          stepMm: lengthMm('Step of the back', 5, 0.1, 0),
          seat: oneOf('Ring seat', SEATS),
          depthWithinMm: lengthMm('Depth tolerance ±', 0.2, 0.03, 0.001),
          sectionWithinMm: lengthMm('Section tolerance ±', 0.2, 0.03, 0.001),
        })
        .superRefine((groove, wrong) => name(wrong, grooveContradictions(groove))),
  }),
  'seal.old-ring': kind({
    version: 2,
    upcasts: [addsFields('diameters and profile', { insideMm: null, outsideMm: null, profile: 'not seen' })],
    schema: () =>
      z
        .strictObject({
          heightMm: lengthMm('Ring height', 5, 0.6).nullable(),
          widthMm: lengthMm('Ring width', 8, 0.77).nullable(),
          insideMm: lengthMm('Ring inside diameter', 80, 30.5).nullable(),
          outsideMm: lengthMm('Ring outside diameter', 82, 32).nullable(),
          profile: oneOf('Profile', GASKET_PROFILES),
        })
        .superRefine((ring, wrong) => name(wrong, oldRingContradictions(ring))),
  }),
  'seal.inside': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        innerCover: oneOf('Seal of the inner cover', SEAL_STATES),
        hatch: oneOf('Seal of the hatch', SEAL_STATES),
      }),
  }),
  'seal.press': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          crystalMm: pressMm('crystalMm', 60, 28),
          bezelMm: pressMm('bezelMm', 70, 32),
          crystalAboveMm: pressMm('crystalAboveMm', 10, 0.4, -3),
          caseMm: pressMm('caseMm', 80, 36),
          backMm: pressMm('backMm', 80, 32.8),
          backBulgeMm: pressMm('backBulgeMm', 10, 0.6, 0),
          glassMm: pressMm('glassMm', 60, 22),
          glassAboveMm: pressMm('glassAboveMm', 5, 0.2, -3),
        })
        .superRefine((measures, wrong) => name(wrong, pressContradictions(measures))),
  }),
  'seal.steps': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        steps: z
          .array(z.string().regex(/^[a-z][a-z0-9-]{0,39}$/))
          .min(1)
          .max(40),
        asShown: z.boolean(),
      }),
  }),
  'seal.other': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        crown: oneOf('Crown seal', SEAL_STATES),
        pushers: oneOf('Pusher seals', SEAL_STATES),
        crystal: oneOf('Crystal seal', SEAL_STATES),
      }),
  }),
  'seal.paired': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        inBack: optionalText({ words: 'Serial in the back', max: 60, example: '4471902' }),
      }),
  }),
  'seal.now': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        note: optionalText({
          words: 'Changes made here',
          max: 500,
          example: 'insulator renewed, contact straightened',
        }),
      }),
  }),
  'seal.closed': kind({
    version: 3,
    upcasts: [
      addsFields('raised places, and a temporary closing', { raisedClocks: [], interim: false }),
      addsFields('the side it was seen from', { seenFrom: null }),
    ],
    schema: () =>
      z
        .strictObject({
          how: text({ words: 'Closing method', max: 80, example: 'thumbs' }),
          seamEven: yesNo('Case seam'),
          raisedClocks: clocks('Raised seam or visible ring', 24),
          seenFrom: oneOf('Seen from', VIEWS).nullable(),
          interim: yesNo('Temporary closing on the old seal'),
        })
        .refine((closed) => !closed.seamEven || closed.raisedClocks.length === 0, {
          path: ['seamEven'],
          error:
            'Case seam: it cannot be even all round and raised at the marked places. Change one of the two.',
        }),
  }),
};
