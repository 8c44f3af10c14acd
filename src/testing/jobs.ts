import type { NewEntry, NewJob } from '../contract';
import type { EntryKind, Payloads } from '../core/logbook';
import { idOf, newEntryOf } from './fixtures';

export const technicianId = idOf('technician');

export function entryOf<K extends EntryKind>(
  name: string,
  kind: K,
  payload: Payloads[K],
  more: Partial<NewEntry> = {},
): NewEntry {
  return { ...newEntryOf(kind, payload, { id: idOf(`entry ${name}`), technicianId }), ...more } as NewEntry;
}

export function newJob(name: string, change: Partial<NewJob> = {}): NewJob {
  return {
    id: idOf(`job ${name}`),
    visitId: idOf(`visit ${name}`),
    watchId: idOf(`watch ${name}`),
    customer: { id: idOf(`customer ${name}`), name: 'Anders Pellwick', phone: '0555 0199', email: '' },
    entries: [
      entryOf(`${name} watch`, 'arrive.watch', {
        maker: 'Orrelin',
        reference: 'C2140-3',
        serial: '4471902',
        engraved: '',
        ratingBar: 3,
        crownClock: 3,
      }),
      entryOf(`${name} complaint`, 'arrive.complaint', { picked: ['stopped'], words: '' }),
      entryOf(`${name} service`, 'arrive.service', { service: 'cell only', priceMinor: 1400 }),
      entryOf(`${name} promise`, 'arrive.promise', { promisedAt: '2026-03-17T12:30:00.000Z' }),
      entryOf(`${name} consent`, 'arrive.consent', { risks: ['old parts'], given: true }),
    ],
    ...change,
  };
}

export const delivery = {
  id: idOf('lot'),
  item: 'cell' as const,
  code: '364',
  supplier: 'Saltmarsh Wholesale',
  lotCode: 'S-1',
  madeOn: '2025-09-17',
  bestBefore: '2028-09-30',
  priceMinor: 60,
  count: 5,
  technicianId,
};

/** A cell of that delivery, fitted. */
export const fittedFromLot: Payloads['cell.fitted'] = {
  cellCode: 'SR621SW',
  lotId: delivery.id,
  supplier: '',
  lotCode: 'S-1',
  alkalineAgreed: false,
  ownersOwn: false,
};
