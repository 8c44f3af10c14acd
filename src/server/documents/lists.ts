import { stringify } from 'csv-stringify/sync';
import type { CarriedLot, JobSummary, UnreadableEntry } from '../../contract';
import { leakReport } from '../../core/advice/leaks';
import { type Entry, entryInWords } from '../../core/logbook';
import { STAGE_WORDS } from '../../core/craft/policy';
import { notFound } from '../problem';
import type { Store } from '../store/store';

type Row = Readonly<Record<string, string | number | null>>;

/** Rows as CSV with a heading; a field that a spreadsheet would take for a formula is made harmless. */
function csv(columns: readonly string[], rows: readonly Row[]): string {
  return stringify([columns, ...rows.map((row) => columns.map((column) => row[column] ?? ''))], {
    record_delimiter: '\r\n',
    escape_formulas: true,
  });
}

const JOB_COLUMNS = [
  'ticket',
  'received_at',
  'owner',
  'watch',
  'movement',
  'service',
  'promised_at',
  'stage',
  'waits_for',
  'signed_by',
  'collected',
];

function jobRow(job: JobSummary): Row {
  return {
    ticket: job.ticket,
    received_at: job.receivedAt,
    owner: job.customerName,
    watch: job.watch,
    movement: job.movement,
    service: job.service,
    promised_at: job.promisedAt,
    stage: job.current === null ? '' : STAGE_WORDS[job.current],
    waits_for: job.waitsFor,
    signed_by: job.signedBy,
    collected: job.collected ? 'yes' : 'no',
  };
}

export const LISTS = ['rack', 'jobs', 'stock', 'ledger', 'collections', 'leaks'] as const;

function stockCsv(store: Store): string {
  return csv(
    [
      'item',
      'code',
      'left',
      'lot',
      'supplier',
      'made_on',
      'best_before',
      'price_minor',
      'to_be_counted',
      'quarantined',
    ],
    store.stock.lots().map((lot) => ({
      item: lot.item,
      code: lot.code,
      left: lot.balance,
      lot: lot.lotCode,
      supplier: lot.supplier,
      made_on: lot.madeOn,
      best_before: lot.bestBefore,
      price_minor: lot.priceMinor,
      to_be_counted: lot.toBeCounted ? 'yes' : 'no',
      quarantined: lot.quarantined ?? '',
    })),
  );
}

function ledgerCsv(store: Store): string {
  return csv(
    ['sequence', 'recorded_at', 'item', 'code', 'lot', 'delta', 'reason', 'ticket', 'technician'],
    store.stock.ledger().map(({ recordedAt, ...line }) => ({ ...line, recorded_at: recordedAt })),
  );
}

function leaksCsv(store: Store): string {
  return csv(
    [
      'case',
      'year',
      'tested',
      'leaked',
      'leaked_from',
      'leaked_to',
      'where',
      'ring_age_years',
      'mended',
      'ring_renewed_tested',
      'ring_renewed_leaked',
      'ring_kept_tested',
      'ring_kept_leaked',
    ],
    leakReport(store.leaks.all()).map((group) => ({
      case: group.caseCode,
      year: group.year,
      tested: group.leaked.among,
      leaked: group.leaked.of,
      leaked_from: Number(group.leaked.from.toFixed(3)),
      leaked_to: Number(group.leaked.to.toFixed(3)),
      where: group.seats.map(({ seat, jobs }) => `${seat} ${jobs}`).join('; '),
      ring_age_years: group.medianRingAgeYears,
      mended: group.mended.of,
      ring_renewed_tested: group.ringRenewed.among,
      ring_renewed_leaked: group.ringRenewed.of,
      ring_kept_tested: group.ringKept.among,
      ring_kept_leaked: group.ringKept.of,
    })),
  );
}

function collectionsCsv(store: Store): string {
  return csv(
    ['collected_on', 'count', 'weight_g', 'receipt'],
    store.stock.collections().map((each) => ({
      collected_on: each.collectedOn,
      count: each.count,
      weight_g: each.weightG,
      receipt: each.receipt,
    })),
  );
}

const LIST_CSV: Readonly<Record<(typeof LISTS)[number], (store: Store) => string>> = {
  rack: (store) => jobsCsv(store.logbook.rack()),
  jobs: (store) => jobsCsv(store.logbook.all()),
  stock: stockCsv,
  ledger: ledgerCsv,
  collections: collectionsCsv,
  leaks: leaksCsv,
};

/** A list of the shop as CSV. Times are UTC, sums minor units. */
export function listCsv(store: Store, list: (typeof LISTS)[number]): string {
  return LIST_CSV[list](store);
}

/** The watches that carry a lot now, as a list to ring by. */
export function carriedCsv({ supplier, lotCode, watches }: CarriedLot): string {
  return csv(
    [
      'supplier',
      'lot',
      'cell',
      'fitted_at',
      'ticket',
      'watch',
      'well',
      'owner',
      'phone',
      'email',
      'later_elsewhere',
    ],
    watches.map((each) => ({
      supplier,
      lot: lotCode,
      cell: each.cellCode,
      fitted_at: each.fittedAt,
      ticket: each.ticket,
      watch: each.watch,
      well: each.well,
      owner: each.customerName,
      phone: each.phone,
      email: each.email,
      later_elsewhere: each.laterElsewhere
        ? `${each.laterElsewhere.cellCode}, ${each.laterElsewhere.fittedAt}, ${each.laterElsewhere.counter}`
        : '',
    })),
  );
}

/** Jobs of one owner or one watch as CSV. */
export function jobsCsv(jobs: readonly JobSummary[]): string {
  return csv(JOB_COLUMNS, jobs.map(jobRow));
}

/** The logbook of one job as CSV, every entry with what it says. */
export function logbookCsv(store: Store, jobId: string): { readonly ticket: string; readonly text: string } {
  const resource = store.logbook.job(jobId);
  if (!resource) throw notFound('such job');
  const about = (line: Entry | UnreadableEntry) => ({
    sequence: line.sequence,
    occurred_at: line.occurredAt,
    recorded_at: line.recordedAt,
    technician: store.shops.technician(line.technicianId)?.initials ?? '',
    kind: line.kind,
  });
  const text = csv(
    [
      'sequence',
      'occurred_at',
      'recorded_at',
      'technician',
      'counter',
      'bench',
      'kind',
      'words',
      'supersedes',
      'withdraws',
    ],
    [
      ...resource.entries.map((entry) => ({
        ...about(entry),
        counter: entry.counter,
        bench: entry.bench,
        words: entryInWords(entry),
        supersedes: entry.supersedes.join(' '),
        withdraws: entry.withdraws,
      })),
      ...resource.unreadable.map((line) => ({
        ...about(line),
        words: `cannot be read by this version: ${line.reason}`,
      })),
    ].sort((a, b) => (a.sequence ?? 0) - (b.sequence ?? 0)),
  );
  return { ticket: resource.job.ticket, text };
}
