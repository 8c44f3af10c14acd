import { z } from 'zod';
import {
  BACK_KINDS,
  BRACELETS,
  contradictions,
  NOTHING_MEASURED,
  turnClock,
  VIEWS,
} from '../../core/craft/cases';
import {
  AS_FOUND,
  LEFT_BY,
  OPENED_HOW,
  type OpenPayloads,
  PHOTO_MARKS,
  PROTECTIONS,
  PART_OUTCOMES,
} from '../../core/logbook';
import { type Part, PARTS, SERVED, serves } from '../../core/craft/parts';
import { backMeasureFields, schemasOf } from '../book';
import { anyOf, clock, clocks, fileHash, id, number, oneOf, optionalText, text } from '../fields';
import { addsFields, changes, type KindDefinitions, kind } from './define';
const note = optionalText({ words: 'Note', max: 500, example: 'scratch beside the coil' });

const seals = (words: string) => number({ words, min: 0, max: 6, example: 1 }).int();

const setting = (words: string) => number({ words, min: 0, max: 120, unit: 'mm', example: 24.2 });
const share = (words: string) => number({ words, min: 0, max: 100, unit: '%', example: 50 });

/** The first program kept the lip seen from behind and the pushers from the dial, and knew fewer measures. */
function seenFromBehind(payload: object): object {
  const old = payload as { readonly pusherClocks?: readonly number[] };
  return {
    ...NOTHING_MEASURED,
    ...old,
    seenFrom: 'behind',
    pusherClocks: (old.pusherClocks ?? []).map((each) => turnClock(each, 'the dial', 'behind')),
  };
}

export const openKinds: KindDefinitions<OpenPayloads> = {
  'open.back': kind({
    version: 4,
    upcasts: [
      addsFields('protection, and how it opened', { protection: 'not noted', went: 'not noted' }),
      addsFields('tools and their setting', { toolIds: [], separationMm: null, rearMm: null }),
      addsFields('the side it was seen from', { seenFrom: 'behind' }),
    ],
    schema: () =>
      z.strictObject({
        kind: oneOf('Kind of back', BACK_KINDS),
        openedWith: text({ words: 'Opened with', max: 80, example: 'case knife' }),
        protection: oneOf('Protection of the back', PROTECTIONS),
        went: oneOf('How it opened', OPENED_HOW),
        spotClock: clock('Position of the tool').nullable(),
        lipClock: clock('Position of lip or nick').nullable(),
        seenFrom: oneOf('Seen from', VIEWS),
        toolIds: z.array(z.string().min(1).max(60)).max(6),
        separationMm: setting('Jaws set to').nullable(),
        rearMm: setting('Rear jaw set to').nullable(),
      }),
  }),
  'open.measured': kind({
    version: 2,
    upcasts: [changes('the side it was seen from', seenFromBehind)],
    schema: () =>
      z
        .strictObject({
          ...schemasOf(backMeasureFields),
          kind: oneOf('Kind of back', BACK_KINDS),
          chordMm: setting('Distance to the farthest notch').nullable(),
          lipClock: clock('Position of lip or nick').nullable(),
          bracelet: oneOf('Bracelet or strap', BRACELETS).nullable(),
          pusherClocks: clocks('Pusher positions', 8),
          seenFrom: oneOf('Seen from', VIEWS),
        })
        .superRefine((back, refinement) => {
          for (const { path, reason } of contradictions(back))
            refinement.addIssue({ code: 'custom', path: [path], message: reason });
        }),
  }),
  'open.steps': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        steps: z
          .array(z.string().regex(/^[a-z][a-z-]{0,39}$/))
          .min(1)
          .max(40),
        asShown: z.boolean(),
      }),
  }),
  'open.photo-mark': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        photo: fileHash,
        xPercent: share('Across'),
        yPercent: share('Down'),
        kind: oneOf('What it shows', PHOTO_MARKS),
        by: oneOf('Left by', LEFT_BY),
        note,
      }),
  }),
  'open.inside-serial': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        serial: optionalText({ words: 'Serial inside the back', max: 60, example: '4471902' }),
      }),
  }),
  'open.together': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        otherJobId: id,
        otherTicket: text({ words: 'Ticket', max: 20, example: '1042-7' }),
        otherSerial: optionalText({ words: 'Serial', max: 60, example: '4471902' }),
      }),
  }),
  'open.part': kind({
    version: 2,
    upcasts: [
      changes('what a part is used for, and its step', (payload) => ({
        ...payload,
        serves: serves((payload as { readonly part: Part }).part),
        step: '',
      })),
    ],
    schema: () =>
      z.strictObject({
        part: oneOf('Part', PARTS),
        position: optionalText({ words: 'Where it sat', max: 80, example: '12 o’clock, third hole' }),
        count: number({ words: 'How many', min: 1, max: 40, example: 4 }).int(),
        serves: anyOf('Used for', SERVED),
        step: z.string().max(40),
      }),
  }),
  'open.part-settled': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        partEntryId: id,
        outcome: oneOf('Outcome', PART_OUTCOMES),
        note,
      }),
  }),
  'open.print': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        text: text({ words: 'Printed inside', max: 200, example: 'CR1616, reset AC' }),
      }),
  }),
  'open.seals': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        rim: seals('Seals at the rim'),
        innerCover: seals('Seals on an inner cover'),
        hatch: seals('Seals at a hatch'),
      }),
  }),
  'open.technique': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        note: text({
          words: 'Note for next time',
          max: 300,
          example: 'press at 7 o’clock, it clicks late',
        }),
      }),
  }),
  'open.as-found': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          found: anyOf('Traces of earlier work', AS_FOUND),
          note,
        })
        .refine((found) => found.found.length > 0 || found.note !== '', {
          path: ['found'],
          error: 'Traces of earlier work: choose at least one, e.g. “nothing unusual”.',
        }),
  }),
};
