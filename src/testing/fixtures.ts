import { v5 } from 'uuid';
import { calibres, caseTypes, gaskets, makers } from '../../demo/book';
import { tools } from '../../demo/tools';
import { type NewEntry, makeEntry } from '../contract';
import { type Book, openBook } from '../core/craft/book';
import {
  type Entry,
  type EntryKind,
  foldJob,
  type JobContext,
  type JobState,
  type Payloads,
} from '../core/logbook';
import { DEFAULT_POLICY, type Service } from '../core/craft/policy';
import type { Lot } from '../core/craft/stock';
import { readShippedCells } from '../server/store/shippedCells';
import { recordOf } from './leakRecords';

/** What tests of every room start from: the invented book, one context, and entries made in a line. */
export const book: Book = openBook({
  revision: 7,
  cells: readShippedCells(),
  makers,
  calibres,
  caseTypes,
  gaskets,
  ...tools,
});

export const context: JobContext = {
  catalogue: book,
  policy: DEFAULT_POLICY,
  shop: { name: 'Test counter', place: 'Pier 9', zone: 'Europe/Lisbon' },
  nowUtc: '2026-03-17T12:00:00.000Z',
};

export function idOf(name: string): string {
  return v5(name, '7b0b8a3e-52a1-4f7d-8f0c-2d3f3a1c9e55');
}

interface More {
  readonly id?: string;
  readonly technicianId?: string;
  readonly well?: string | null;
  readonly supersedes?: readonly string[];
  readonly withdraws?: string | null;
  readonly occurredAt?: string;
  readonly attachments?: readonly string[];
}

/** A small logbook under construction: each `add` is one entry in sequence. */
export class Logbook {
  readonly entries: Entry[] = [];

  add<K extends EntryKind>(kind: K, payload: Payloads[K], more: More = {}): Entry {
    const sequence = this.entries.length + 1;
    const entry = {
      id: more.id ?? idOf(`entry ${sequence}`),
      jobId: idOf('job'),
      kind,
      payload,
      occurredAt: more.occurredAt ?? '2026-03-17T10:00:00.000Z',
      sequence,
      recordedAt: '2026-03-17T10:00:01.000Z',
      counter: null,
      technicianId: more.technicianId ?? idOf('technician'),
      bench: 'bench 1',
      well: more.well ?? null,
      supersedes: more.supersedes ?? [],
      withdraws: more.withdraws ?? null,
      attachments: [],
    } as unknown as Entry;
    this.entries.push(entry);
    return entry;
  }

  state(over: Partial<JobContext> = {}): JobState {
    return foldJob(this.entries, { ...context, ...over });
  }
}

/** A reading as the form records it where no load is stated. */
export function readingOf(
  measure: Payloads['check.reading']['measure'],
  value: number,
): Payloads['check.reading'] {
  return { measure, value, loadKOhm: null, loadSeconds: null };
}

/** A movement named, no revision told apart. */
export function movementOf(
  calibreId: string | null,
  code: string,
  by: Payloads['identify.movement']['by'] = 'hand',
): Payloads['identify.movement'] {
  return { calibreId, revision: null, code, by, note: '' };
}

export const lot: Lot = {
  lasts: null,
  quarantined: null,
  unbooked: 0,
  id: idOf('lot'),
  item: 'cell',
  code: 'SR621SW',
  supplier: 'Saltmarsh Wholesale',
  lotCode: 'S-1',
  madeOn: '2025-09-17',
  bestBefore: '2028-09-30',
  priceMinor: 60,
  balance: 5,
  toBeCounted: false,
};

/** A wet test at which nothing rose, for a test to change. */
export const wetTest: Payloads['test.made'] = {
  method: 'wet',
  pressureBar: 3,
  seconds: 60,
  outcome: 'no leak seen',
  record: null,
  deflectionStartUm: null,
  deflectionEndUm: null,
  testerNoiseUm: null,
  usualUmPerBar: null,
  places: [],
  fogSeconds: null,
  temperatureC: null,
  note: '',
  retestOf: [],
  excessReason: '',
};

/** A dry test whose record shows a tight case, at 3 bar, for a test to change. */
export const dryTest: Payloads['test.made'] = dryTestAt(3);

/** The same at another pressure. */
export function dryTestAt(pressureBar: number): Payloads['test.made'] {
  return {
    ...wetTest,
    method: 'dry air',
    pressureBar,
    seconds: 300,
    outcome: null,
    record: recordOf(pressureBar),
    testerNoiseUm: 0.02,
  };
}

/** The free volume of the case of a test’s watch, as it was measured. */
export const measuredCase: Payloads['test.case'] = {
  freeVolumeCm3: 1.3,
  withinPercent: 10,
  diameterMm: null,
  thicknessMm: null,
};

/** A cell job on an OR 41.2, recorded from arrival to the proof, ready to be signed. */
export function readyJob(): Logbook {
  const job = new Logbook();
  job.add('arrive.received', {
    customerId: idOf('customer'),
    watchId: idOf('watch'),
    visitId: idOf('visit'),
  });
  job.add('arrive.watch', {
    maker: 'Orrelin',
    reference: 'C2140-3',
    serial: '4471902',
    engraved: '',
    ratingBar: 3,
    crownClock: 3,
  });
  job.add('arrive.complaint', { picked: ['stopped'], words: '' });
  job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
  job.add('arrive.promise', { promisedAt: '2026-03-17T11:00:00.000Z' });
  job.add('arrive.consent', { risks: ['old parts'], given: true });
  job.add('open.back', {
    kind: 'snap-on',
    openedWith: 'case knife',
    protection: 'film',
    went: 'freely',
    spotClock: 6.5,
    lipClock: 6.5,
    seenFrom: 'behind',
    toolIds: ['knife'],
    separationMm: null,
    rearMm: null,
  });
  job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2', 'engraving'));
  job.add('check.reading', readingOf('restVoltageV', 1.21));
  job.add('check.reading', readingOf('currentUA', 0.95));
  job.add('cell.found', { marking: '364', condition: 'clean' });
  job.add('cell.fitted', {
    cellCode: 'SR621SW',
    lotId: lot.id,
    supplier: lot.supplier,
    lotCode: lot.lotCode,
    alkalineAgreed: false,
    ownersOwn: false,
  });
  job.add('cell.old-settled', { taped: true, to: 'spent bin' });
  job.add('seal.gasket', {
    state: 'reused',
    findings: [],
    ageYears: 2,
    meetsWater: false,
    greased: true,
    greasedBy: 'not noted',
    profile: 'round',
    size: '',
    lotId: null,
    reason: 'sound',
  });
  job.add('seal.closed', { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false });
  job.add('test.case', measuredCase);
  job.add('set.runs', { runs: true, watchedSeconds: 60 });
  job.add('set.time', { set: true });
  job.add('set.functions', { proved: { hands: 'works', 'seconds hand': 'works' }, handedBackSo: '' });
  job.add('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
  return job;
}

/** An entry as the browser would send it. */
export function newEntryOf<K extends EntryKind>(
  kind: K,
  payload: Payloads[K],
  more: More & { readonly technicianId: string } & { readonly id: string },
): NewEntry {
  return makeEntry(kind, payload, { occurredAt: '2026-03-17T10:00:00.000Z', bench: 'bench 1', ...more });
}

/** A watch taken in for a service, as far as the counter. */
export function takenIn(service: Service, calibreId: string | null = 'orrelin-41-2'): Logbook {
  const job = new Logbook();
  job.add('arrive.watch', {
    maker: 'Orrelin',
    reference: 'C2140-3',
    serial: '1',
    engraved: '',
    ratingBar: 3,
    crownClock: 3,
  });
  job.add('arrive.complaint', { picked: ['stopped'], words: '' });
  job.add('arrive.service', { service, priceMinor: DEFAULT_POLICY.services[service].priceMinor });
  job.add('arrive.promise', { promisedAt: '2026-03-17T16:00:00.000Z' });
  job.add('arrive.consent', { risks: ['old parts'], given: true });
  if (calibreId) job.add('identify.movement', movementOf(calibreId, calibreId));
  return job;
}
