import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import type { z } from 'zod';
import { demoId } from '../demo/build';
import { readyDemo } from '../demo/ready';
import { DEMO_START_UTC } from '../demo/scenario';
import * as contract from '../src/contract';
import type { JobFile, JobSummary } from '../src/contract';
import { openConnection } from '../src/server/store/database';
import { newEntryOf } from '../src/testing/fixtures';
import { newJob } from '../src/testing/jobs';
import { SAMPLE_KINDS, samples } from '../src/testing/samples';
import { startServer } from '../src/testing/serverProcess';
import { bodiesOf, spoiltOnce } from '../src/testing/bodies';

export interface Fuzzed {
  readonly requests: number;
  /** How many were answered with each status. */
  readonly statuses: Readonly<Record<string, number>>;
  /** Requests answered with 500 or more, or not at all, with what was sent. */
  readonly failures: readonly string[];
  /** What no longer holds in the folder afterwards. */
  readonly broken: readonly string[];
}

interface Asked {
  readonly method: 'GET' | 'POST';
  readonly path: string;
  readonly type?: string;
  readonly body?: string;
}

const MOST_SHOWN = 20;
const AT_ONCE = 4;
const ANSWERS_WITHIN_MS = 30_000;

const technicianId = demoId('technician', 'edda');

/** Every door for writing, with what it takes. */
const DOORS: readonly (readonly [path: string, schema: z.ZodType])[] = [
  ['/api/jobs', contract.newJob],
  ['/api/jobs/:job/entries', contract.newEntry],
  ['/api/policy', contract.policyWrite],
  ['/api/technicians', contract.newTechnician],
  ['/api/catalogue/records', contract.recordWrite],
  ['/api/lots', contract.newLot],
  ['/api/lots/count', contract.lotCount],
  ['/api/lots/quarantine', contract.lotQuarantine],
  ['/api/lots/sample', contract.lotSample],
  ['/api/lots/give-away', contract.lotReturn],
  ['/api/orders', contract.newOrder],
  ['/api/deliveries', contract.newDelivery],
  ['/api/collections', contract.collection],
  ['/api/day/close', contract.newDayClose],
  ['/api/customers/:customer/details', contract.ownerRevision],
  ...contract.DEVICE_IDS.flatMap((device) => [
    [`/api/devices/${device}`, contract.deviceChange] as const,
    [`/api/devices/${device}/ask`, contract.deviceAsk] as const,
  ]),
];

const READS: readonly string[] = [
  '/api/health',
  '/api/rack',
  '/api/shop',
  '/api/stock',
  '/api/day',
  '/api/devices',
  '/api/catalogue',
  '/api/movements/seen',
  '/api/policy/revisions',
  '/api/tools/served',
  '/api/jobs/:job',
  '/api/jobs/:job/job.json',
  '/api/jobs/:job/logbook.csv',
  '/api/jobs/:job/record.pdf',
  '/api/jobs/:job/label.pdf',
  '/api/jobs/:job/label/:word.svg',
  '/api/jobs/:job/next-visit.ics',
  '/api/visits/:job/receipt.pdf',
  '/api/visits/:job/visit.json',
  '/api/customers/:customer',
  '/api/customers/:customer/jobs.csv',
  '/api/watches/:job',
  '/api/watches/:job/visits.csv',
  '/api/lots/:job/ledger',
  '/api/lots/carried?supplier=:word&lot=:word',
  '/api/lots/empty?page=:word',
  '/api/lists/:word.csv',
  '/api/find?q=:word',
  '/api/tickets/:word',
  '/api/attachments/:word',
  '/api/attachments/:word/thumb',
  '/api/catalogue/:word/:word/history',
  '/api/catalogue/tables/:word.csv',
  '/api/orders/:job/note.csv',
  '/assets/:word',
  '/:word',
];

/** What a technician might send next, and what nobody should. */
function requests(
  jobs: readonly JobSummary[],
  customers: readonly string[],
  file: JobFile,
): fc.Arbitrary<Asked> {
  const job = fc.constantFrom(...jobs.map(({ id }) => id));
  const ids = [technicianId, ...jobs.slice(0, 8).map(({ id }) => id), ...customers.slice(0, 4)];
  const word = fc.oneof(
    fc.string({ maxLength: 40 }),
    fc.constantFrom(
      'jobs',
      'cells',
      'qr',
      'calibre',
      'T0001-8',
      '..',
      '%00',
      '%',
      '../../x',
      'a'.repeat(3000),
    ),
  );
  const filled = (path: string): fc.Arbitrary<string> =>
    fc.tuple(job, fc.constantFrom(...customers), fc.infiniteStream(word)).map(([jobId, customer, words]) =>
      path.replace(/:(job|customer|word)/g, (_, what: string) => {
        if (what === 'job') return jobId;
        return what === 'customer'
          ? customer
          : encodeURIComponent(String(words.next().value).replace(/\p{Surrogate}/gu, '?'));
      }),
    );
  const json = (path: fc.Arbitrary<string>, body: fc.Arbitrary<unknown>): fc.Arbitrary<Asked> =>
    fc.tuple(path, body).map(([to, sent]) => ({
      method: 'POST',
      path: to,
      type: 'application/json',
      body: JSON.stringify(sent) ?? '',
    }));
  const entry = fc.constantFrom(...SAMPLE_KINDS).chain((kind) =>
    fc.uuid().chain((id) => {
      const good = newEntryOf(kind, samples[kind], { id, technicianId, occurredAt: DEMO_START_UTC });
      return fc.oneof(fc.constant(good), spoiltOnce(good));
    }),
  );
  const takenIn = newJob('fuzzed');
  const table = fc
    .tuple(
      word,
      fc.constantFrom('makers', 'cells', 'wells', 'case-types', 'nothing'),
      fc.constantFrom('yes', 'no'),
    )
    .map<Asked>(([text, name, dryRun]) => ({
      method: 'POST',
      path: `/api/catalogue/tables/${name}?technicianId=${technicianId}&dryRun=${dryRun}`,
      type: 'text/csv',
      body: `id,name,sign\n${text},"${text}\n${text},x,kite`,
    }));
  return fc.oneof(
    { weight: 8, arbitrary: json(filled('/api/jobs/:job/entries'), entry) },
    ...DOORS.map(([path, schema]) => ({ weight: 1, arbitrary: json(filled(path), bodiesOf(schema, ids)) })),
    { weight: 3, arbitrary: json(fc.constant('/api/jobs'), spoiltOnce(takenIn)) },
    {
      weight: 1,
      arbitrary: spoiltOnce(file).map<Asked>((sent) => ({
        method: 'POST',
        path: '/api/jobs/import',
        type: 'application/octet-stream',
        body: JSON.stringify(sent) ?? '',
      })),
    },
    { weight: 1, arbitrary: table },
    {
      weight: 2,
      arbitrary: fc.tuple(filled('/api/jobs/:job/entries'), word).map<Asked>(([path, body]) => ({
        method: 'POST',
        path,
        type: 'application/json',
        body,
      })),
    },
    {
      weight: 8,
      arbitrary: fc
        .constantFrom(...READS)
        .chain(filled)
        .map<Asked>((path) => ({ method: 'GET', path })),
    },
  );
}

/** What went wrong by its name: an error of another realm is none of this one's. */
const nameOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'name' in error ? String(error.name) : String(error);

/** Sends requests of every kind to a server over the demo's data, and looks whether it held. */
export async function fuzz({
  count,
  seed,
}: {
  readonly count: number;
  readonly seed: number;
}): Promise<Fuzzed> {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-attack-'));
  await readyDemo(dataDir);
  const server = await startServer(dataDir, { WAX_DEMO_START: DEMO_START_UTC });
  const get = async <T>(path: string): Promise<T> => (await (await fetch(server.url + path)).json()) as T;
  const jobs = await get<JobSummary[]>('/api/rack');
  const heads = await Promise.all(
    jobs.slice(0, 5).map(({ id }) => get<contract.JobResource>(`/api/jobs/${id}`)),
  );
  const customers = heads.flatMap(({ customer }) => customer?.id ?? []);
  const file = await get<JobFile>(`/api/jobs/${jobs[0]?.id ?? ''}/job.json`);

  const statuses: Record<string, number> = {};
  const failures: string[] = [];
  const ask = async ({ method, path, type, body }: Asked): Promise<void> => {
    let status: number | string;
    const send = (): Promise<Response> =>
      fetch(server.url + path, {
        method,
        ...(body === undefined ? {} : { body, headers: { 'content-type': type ?? '' } }),
        signal: AbortSignal.timeout(ANSWERS_WITHIN_MS),
      });
    try {
      // A connection left idle for seconds, as on a busy machine, is closed by the server as it is used again. What makes
      // the server drop a connection, or end, does so a second time, too.
      const response = await send().catch((error: unknown) => {
        if (nameOf(error) === 'TimeoutError') throw error;
        return send();
      });
      ({ status } = response);
      // A device says what it measures as long as it was asked to: its beginning is enough.
      await (path.endsWith('/ask') ? response.body?.cancel() : response.arrayBuffer());
    } catch (error) {
      status = `no answer: ${nameOf(error)}`;
    }
    statuses[status] = (statuses[status] ?? 0) + 1;
    if (typeof status === 'string' || status >= 500)
      failures.push(`${method} ${path.slice(0, 200)}: ${status}\n  ${(body ?? '').slice(0, 2000)}`);
  };
  const asked = fc.sample(requests(jobs, customers, file), { numRuns: count, seed });
  for (let at = 0; at < asked.length; at += AT_ONCE)
    await Promise.all(asked.slice(at, at + AT_ONCE).map(ask));

  const broken: string[] = [];
  for (const { id, ticket } of await get<JobSummary[]>('/api/rack')) {
    const { status } = await fetch(`${server.url}/api/jobs/${id}/record.pdf`);
    if (status !== 200) broken.push(`the record of ${ticket} answers ${status}`);
  }
  const health = await fetch(`${server.url}/api/health`);
  if (health.status !== 200) broken.push(`health answers ${health.status}`);
  await server.end('SIGTERM');
  broken.push(...whatIsBrokenIn(dataDir));
  rmSync(dataDir, { recursive: true, force: true });
  return { requests: count, statuses, failures: failures.slice(0, MOST_SHOWN), broken };
}

/** What no longer holds in a data folder that no server has open. */
export function whatIsBrokenIn(dataDir: string): string[] {
  const db = openConnection(join(dataDir, 'wax-lantern.db'));
  const integrity: unknown = db.pragma('integrity_check', { simple: true });
  const foreign = db.pragma('foreign_key_check') as unknown[];
  const apart = db
    .prepare<[], string>(
      `SELECT lot_code FROM stock_lot WHERE balance <>
         (SELECT coalesce(sum(delta), 0) FROM stock_ledger WHERE lot_id = stock_lot.id)`,
    )
    .pluck()
    .all();
  const without = db
    .prepare<[], string>('SELECT ticket FROM job WHERE id NOT IN (SELECT job_id FROM job_summary)')
    .pluck()
    .all();
  db.close();
  return [
    ...(integrity === 'ok' ? [] : [`the database is damaged: ${String(integrity)}`]),
    ...(foreign.length === 0 ? [] : [`${foreign.length} rows name what is not there`]),
    ...apart.map((lot) => `lot ${lot} and its ledger disagree`),
    ...without.map((ticket) => `${ticket} has no envelope`),
  ];
}
