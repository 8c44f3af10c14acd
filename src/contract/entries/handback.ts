import { z } from 'zod';
import { AGREED_HOW, type HandbackPayloads } from '../../core/logbook';
import { calendarDay, money, number, oneOf, optionalText, priceMinor, text } from '../fields';
import { type KindDefinitions, kind } from './define';
const lines = z.array(z.string().max(400)).max(60);
const sentence = z.string().max(600);

export const statement = z.strictObject({
  found: lines,
  done: lines,
  fitted: lines,
  tested: lines,
  notDone: lines,
  water: sentence,
  nextVisitOn: calendarDay.nullable(),
  nextVisit: sentence,
  warranty: sentence,
  priceMinor,
});

const revision = number({ words: 'Revision', min: 0, max: Number.MAX_SAFE_INTEGER, example: 1 }).int();

export const handbackKinds: KindDefinitions<HandbackPayloads> = {
  'handback.price': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        priceMinor,
        reason: text({ words: 'Reason', max: 200, example: 'comeback, no charge' }),
      }),
  }),
  'handback.signed': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        initials: text({ words: 'Initials', max: 6, example: 'EV' }),
        catalogueRevision: revision,
        policyRevision: revision,
        restsOnSequence: revision,
        statement,
      }),
  }),
  'handback.collected': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        by: text({ words: 'Collected by', max: 80, example: 'the owner' }),
        paidMinor: money('Paid'),
      }),
  }),
  'handback.reminded': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        how: oneOf('Reminded', AGREED_HOW),
        words: optionalText({ words: 'What was said', max: 200, example: 'comes next week' }),
      }),
  }),
};
