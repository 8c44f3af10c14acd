import { z } from 'zod';
import { COMPLAINTS, RISKS, type Risk } from '../../core/logbook';
import { SERVICES } from '../../core/policy';
import type { ArrivePayloads } from '../../core/logbook/facts/arrive';
import { clock, id, instant, number, oneOf, optionalText, priceMinor } from '../fields';
import type { KindDefinitions } from './define';

const words = optionalText({ words: 'In the owner’s words', max: 500, example: 'stops over night' });

export const arriveKinds: KindDefinitions<ArrivePayloads> = {
  'arrive.received': { version: 1, schema: z.strictObject({ customerId: id, watchId: id, visitId: id }) },
  'arrive.watch': {
    version: 1,
    schema: z.strictObject({
      maker: optionalText({ words: 'Maker', max: 60, example: 'Orrelin' }),
      reference: optionalText({ words: 'Reference', max: 40, example: 'C2140-3' }),
      serial: optionalText({ words: 'Serial', max: 60, example: '4471902' }),
      engraved: optionalText({ words: 'Engraving', max: 200, example: 'for I. from the crew' }),
      ratingBar: number({ words: 'Water rating', min: 0, max: 1000, unit: 'bar', example: 3 }).nullable(),
      crownClock: clock.nullable(),
    }),
  },
  'arrive.complaint': {
    version: 1,
    schema: z
      .strictObject({ picked: z.array(oneOf('Complaint', COMPLAINTS)).max(COMPLAINTS.length), words })
      .refine((complaint) => complaint.picked.length > 0 || complaint.words !== '', {
        path: ['picked'],
        error: 'Complaint: pick what the owner sees, or write it, e.g. “stopped”.',
      }),
  },
  'arrive.service': {
    version: 1,
    schema: z.strictObject({ service: oneOf('Service', SERVICES), priceMinor }),
  },
  'arrive.promise': { version: 1, schema: z.strictObject({ promisedAt: instant }) },
  'arrive.consent': {
    version: 1,
    schema: z.strictObject({
      risks: z.array(oneOf('Risk', Object.keys(RISKS) as Risk[])).max(10),
      given: z.boolean(),
    }),
  },
};
