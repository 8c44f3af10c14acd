import { z } from 'zod';
import {
  AGREED_HOW,
  type ArrivePayloads,
  CHANGED_BY,
  COMPLAINTS,
  AVAILABILITY,
  MARK_KINDS,
  MARK_VIEWS,
  REFER_REASONS,
  type Risk,
  RISKS,
  WEAR,
} from '../../core/logbook';
import { CROWNS } from '../../core/craft/cases';
import { SERVICES } from '../../core/craft/policy';
import {
  anyOf,
  day,
  clock,
  id,
  instant,
  money,
  number,
  oneOf,
  optionalText,
  priceLine,
  priceMinor,
  fromMemory,
  several,
  text,
  yesNo,
} from '../fields';
import { changes, type KindDefinitions, kind } from './define';
const words = optionalText({ words: 'In the owner’s words', max: 500, example: 'stops over night' });

const noteAs = (words: string, example: string) => optionalText({ words, max: 300, example });
const note = noteAs('Note', 'beside the crown guard');
const availability = (words: string) => oneOf(words, AVAILABILITY);

/* eslint-disable words/plain -- as they were stored */
/** Choices that were worded otherwise before. */
const WORDED_BEFORE: Readonly<Record<string, string>> = {
  'in the house': 'available',
  'not in the house': 'not available',
  'beyond this bench': 'not possible at this bench',
  'the owner decided so': 'owner’s decision',
};
/* eslint-enable words/plain */

const inPlainWords = changes('choices are in plain words', (payload) =>
  Object.fromEntries(
    Object.entries(payload).map(([field, value]: [string, unknown]) => [
      field,
      typeof value === 'string' ? (WORDED_BEFORE[value] ?? value) : value,
    ]),
  ),
);

export const arriveKinds: KindDefinitions<ArrivePayloads> = {
  'arrive.received': kind({
    version: 1,
    schema: () => z.strictObject({ customerId: id, watchId: id, visitId: id }),
  }),
  'arrive.watch': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        maker: optionalText({ words: 'Maker', max: 60, example: 'Orrelin' }),
        reference: optionalText({ words: 'Reference', max: 40, example: 'C2140-3' }),
        serial: optionalText({ words: 'Serial', max: 60, example: '4471902' }),
        engraved: optionalText({
          words: 'Engraved on the outside',
          max: 200,
          example: 'for I. from the crew',
        }),
        ratingBar: number({ words: 'Water rating', min: 0, max: 1000, unit: 'bar', example: 3 }).nullable(),
        crownClock: clock('Crown at').nullable(),
      }),
  }),
  'arrive.crown': kind({
    version: 1,
    schema: () => z.strictObject({ crown: oneOf('Crown', CROWNS) }),
  }),
  'arrive.complaint': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          picked: anyOf('What the owner sees', COMPLAINTS),
          words,
        })
        .refine((complaint) => complaint.picked.length > 0 || complaint.words !== '', {
          path: ['picked'],
          error: 'What the owner sees: pick it, or write it, e.g. “stopped”.',
        }),
  }),
  'arrive.cell-history': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          changedBy: oneOf('Changed by', CHANGED_BY),
          changedOn: fromMemory(
            'Changed on',
            /^(19[5-9]\d|20\d\d)(-(0[1-9]|1[0-2]))?$/,
            'a year, or year-month, e.g. 2023-05.',
          ).nullable(),
        })
        .refine((history) => history.changedBy !== 'nobody knows' || history.changedOn === null, {
          path: ['changedOn'],
          error: 'Changed on: leave it blank if it is not known who changed the cell.',
        }),
  }),
  'arrive.stopped': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        stoppedOn: fromMemory(
          'Stopped since',
          /^(19[5-9]\d|20\d\d)(-(0[1-9]|1[0-2])(-(0[1-9]|[12]\d|3[01]))?)?$/,
          'a year, year-month or day, e.g. 2026-02.',
        ).nullable(),
      }),
  }),
  'arrive.wear': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          uses: anyOf('Worn', WEAR),
          words: noteAs('In the owner’s words', 'on the boat, every day'),
        })
        .refine((wear) => wear.uses.length > 0 || wear.words !== '', {
          path: ['uses'],
          error: 'Worn: pick how, or write it, e.g. “every day”.',
        }),
  }),
  'arrive.originality': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        matters: yesNo('Originality matters'),
        words: noteAs('What the watch means to them', 'an heirloom'),
      }),
  }),
  'arrive.mark': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          view: oneOf('Side of the watch', MARK_VIEWS),
          kind: oneOf('Kind of mark', MARK_KINDS),
          clock: clock('Clock position').nullable(),
          film: oneOf('Original film', ['keep', 'remove']).nullable(),
          note,
        })
        .refine((mark) => mark.kind === 'original film' || mark.film === null, {
          path: ['film'],
          error: 'Original film: choose keep or remove only when the mark is original film.',
        }),
  }),
  'arrive.service': kind({
    version: 1,
    schema: () => z.strictObject({ service: oneOf('Service', SERVICES), priceMinor }),
  }),
  'arrive.estimate': kind({
    version: 1,
    schema: () => z.strictObject({ lines: several('Lines of the estimate', priceLine, 30) }),
  }),
  'arrive.agreement': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        what: text({ words: 'What was agreed', max: 300, example: 'new circuit, old one given back' }),
        upToMinor: money('Maximum price').nullable(),
        by: text({ words: 'Agreed with', max: 60, example: 'the owner' }),
        how: oneOf('How it was agreed', AGREED_HOW),
      }),
  }),
  'arrive.promise': kind({ version: 1, schema: () => z.strictObject({ promisedAt: instant }) }),
  'arrive.consent': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        risks: anyOf('Risks named to the owner', Object.keys(RISKS) as Risk[], 10),
        given: yesNo('The owner’s consent'),
      }),
  }),
  'arrive.decision': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({
          decision: oneOf('Decision', ['referred', 'declined']),
          reason: oneOf('Reason', REFER_REASONS),
          to: optionalText({ words: 'Referred to', max: 120, example: 'the maker’s service at Brennhavn' }),
          told: optionalText({
            words: 'What you told the owner',
            max: 300,
            example: 'free of charge there until May',
          }),
        })
        .refine((decision) => decision.decision === 'declined' || decision.to !== '', {
          path: ['to'],
          error: 'Referred to: say where, e.g. “the maker’s service”.',
        }),
    upcasts: [inPlainWords],
  }),
  'arrive.ready': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        cell: availability('Cell'),
        seal: availability('Seal'),
        closingTool: availability('Closing tool'),
        parts: availability('Parts'),
        riskAccepted: yesNo('Owner accepts a temporary closing'),
      }),
    upcasts: [inPlainWords],
  }),
  'arrive.parts-request': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        lines: several(
          'Parts',
          z.strictObject({
            what: text({ words: 'Part', max: 80, example: 'gasket 27.5 × 0.90' }),
            count: number({ words: 'How many', min: 1, max: 100, example: 1 }).int(),
          }),
          30,
        ).min(1, 'Parts: enter at least one, e.g. “gasket 27.5 × 0.90”.'),
        supplier: optionalText({ words: 'Supplier', max: 80, example: 'Saltmarsh Wholesale' }),
        expectedOn: day('Expected on').nullable(),
      }),
  }),
  'arrive.parts-arrived': kind({ version: 1, schema: () => z.strictObject({ note }) }),
};
