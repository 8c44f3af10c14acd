import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { buildDemo, demoId } from '../../demo/build';
import { DEMO_START_UTC } from '../../demo/scenario';
import { type CustomerResource, type JobResource, makeEntry } from '../contract';
import { DEFAULT_POLICY } from '../core/craft/policy';
import { addMinutes } from '../core/craft/time';
import type { EntryKind, Payloads } from '../core/logbook';
import { Counter } from '../testing/counter';
import { movementOf } from '../testing/fixtures';
import { samples } from '../testing/samples';
import { FORGET_ANSWERS, RECORDED, STORED_ANSWERS } from '../testing/storedAnswers';
import { LISTS } from './documents/lists';
import { openConnection } from './store/database';

/** One counter through all changes, as on a working day; after each its answers are compared with those worked out anew. */
let counter: Counter;
let nowUtc = addMinutes(DEMO_START_UTC, 1);
const clock = { nowUtc: () => nowUtc };
const technicianId = demoId('technician', 'edda');
const job = (key: string): string => demoId('job', key);

beforeAll(async () => {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-stale-'));
  await buildDemo(dataDir, { withPast: false });
  counter = await Counter.open({ dataDir, clock });
}, 100_000);
afterAll(() => counter.close());

/** Every address that tells something worked out, for all that this shop holds. */
function addresses(): string[] {
  const jobs = counter.store.logbook.all().flatMap(({ id }) => counter.store.logbook.job(id) ?? []);
  const { calibres } = counter.store.catalogue.book();
  const each = <T>(of: readonly T[], to: (one: T) => string): string[] => [...new Set(of.map(to))];
  return [
    ...['shop', 'rack', 'reminders', 'day', 'stock', 'leaks', 'movements/seen', 'tools/served', 'catalogue'],
    ...['policy/revisions', 'lots/empty?page=0', 'find?q=vess', 'find?q=renamed', 'find?q=T00'],
    ...LISTS.map((list) => `lists/${list}.csv`),
    ...counter.store.stock
      .lots()
      .map(
        ({ supplier, lotCode }) =>
          `lots/carried?${new URLSearchParams({ supplier, lot: lotCode }).toString()}`,
      ),
    ...each(jobs, ({ job: { id } }) => `jobs/${id}`),
    ...each(jobs, ({ job: { id } }) => `jobs/${id}/logbook.csv`),
    ...each(jobs, ({ job: { watchId } }) => `watches/${watchId}`),
    ...each(jobs, ({ job: { watchId } }) => `watches/${watchId}/visits.csv`),
    ...each(
      jobs.flatMap(({ customer }) => customer ?? []),
      ({ id }) => `customers/${id}`,
    ),
    ...each(calibres, ({ id }) => `calibres/${id}/history`),
  ];
}

async function allOf(of: Counter): Promise<Record<string, unknown>> {
  const answer: Record<string, unknown> = {};
  for (const address of addresses()) {
    const { status, body } = await of.get(`/api/${address}`);
    answer[address] = { status, body };
  }
  return answer;
}

/** A copy of the folder, by a process of its own: closing a file of a database here would drop the locks held on it. */
function copied(): string {
  const copy = mkdtempSync(join(tmpdir(), 'wax-anew-'));
  expect(spawnSync('cp', ['-r', `${counter.dataDir}/.`, copy]).status).toBe(0);
  rmSync(join(copy, 'in-use.db'), { force: true });
  return copy;
}

/** The same from a copy of the folder in which nothing is stored but what was recorded. */
async function workedOutAnew(): Promise<Record<string, unknown>> {
  const copy = copied();
  const db = openConnection(join(copy, 'wax-lantern.db'));
  db.exec(FORGET_ANSWERS);
  db.close();
  const anew = await Counter.open({ dataDir: copy, clock });
  await anew.store.logbook.fresh.all();
  const answer = await allOf(anew);
  await anew.close();
  return answer;
}

const record = async <K extends EntryKind>(
  key: string,
  kind: K,
  payload: Payloads[K],
  more: {
    readonly supersedes?: readonly string[];
    readonly well?: string;
    readonly withdraws?: string;
  } = {},
): Promise<void> => {
  const entry = makeEntry(kind, payload, {
    id: randomUUID(),
    occurredAt: nowUtc,
    technicianId,
    bench: 'window bench',
    ...more,
  });
  const { status, body } = await counter.post<{ readonly detail?: string }>(
    `/api/jobs/${job(key)}/entries`,
    entry,
  );
  expect([status, body.detail]).toEqual([201, undefined]);
};

const decide = async (policy: object, shop: object = {}): Promise<void> => {
  const { shops } = counter.store;
  const { revision, ...stands } = shops.policy();
  const { status, body } = await counter.post<{ readonly detail?: string }>('/api/policy', {
    shop: { ...shops.shop(), ...shop },
    policy: { ...stands, ...policy },
    basedOn: revision,
    technicianId,
  });
  expect([status, body.detail]).toEqual([201, undefined]);
};

const revise = async (
  kind: 'calibre' | 'caseType' | 'maker' | 'gasket' | 'lightPlace',
  id: string,
  change: object,
) => {
  const [stands] = counter.store.catalogue.history(kind, id);
  const { status, body } = await counter.post<{ readonly detail?: string }>('/api/catalogue/records', {
    kind,
    id,
    body: { ...(stands?.body as object), ...change },
    basedOn: stands?.revision,
    technicianId,
  });
  expect([status, body.detail]).toEqual([201, undefined]);
};

const post = async (path: string, body: object, done = 201): Promise<void> => {
  const answer = await counter.post<{ readonly detail?: string }>(`/api/${path}`, { technicianId, ...body });
  expect([answer.status, answer.body.detail]).toEqual([done, undefined]);
};

const lastOf = async (key: string, kind: EntryKind): Promise<JobResource['entries'][number]> => {
  const { body } = await counter.get<JobResource>(`/api/jobs/${job(key)}`);
  const last = body.entries.filter((entry) => entry.kind === kind).at(-1);
  if (last === undefined) throw new Error(`No ${kind} in ${key}`);
  return last;
};

const lotOf = (code: string) => {
  const lot = counter.store.stock.lots().find(({ lotCode }) => lotCode === code);
  if (lot === undefined) throw new Error(`No lot ${code}`);
  return lot;
};

/** Everything an answer may rest on, changed: entries, what is taken back, policy, shop, book, stock, owners, and the hour. */
const CHANGES: readonly (readonly [string, () => Promise<void>])[] = [
  ['an entry', () => record('just-arrived', 'arrive.wear', { uses: ['swimming'], words: '' })],
  [
    'a movement named',
    () => record('just-arrived', 'identify.movement', movementOf('vessarin-210s', 'V-210S')),
  ],
  [
    'a cell found leaking',
    () =>
      record(
        'to-diagnose',
        'cell.found',
        { marking: '364', condition: 'leaked into the movement' },
        { well: 'main' },
      ),
  ],
  [
    'an entry that contradicts another',
    () => record('recharging', 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2')),
  ],
  [
    'a correction',
    async () => {
      const { id } = await lastOf('recharging', 'identify.movement');
      await record('recharging', 'identify.movement', movementOf('vessarin-210s', 'V-210S'), {
        supersedes: [id],
      });
    },
  ],
  [
    'a leak taken back',
    async () => {
      const { id } = await lastOf('to-diagnose', 'cell.found');
      await record('to-diagnose', 'logbook.withdrawn', samples['logbook.withdrawn'], {
        supersedes: [id],
        withdraws: id,
      });
    },
  ],
  [
    'a policy that asks for more',
    () =>
      decide({
        services: {
          ...DEFAULT_POLICY.services,
          'cell only': { requires: ['arrive.watch', 'arrive.wear', 'test.made'], priceMinor: 1700 },
        },
      }),
  ],
  ['the zone of the shop', () => decide({}, { zone: 'Pacific/Auckland' })],
  ['a calibre that draws more', () => revise('calibre', 'orrelin-41-6', { typicalUA: 2.4, limitUA: 3.9 })],
  ['a calibre by another name', () => revise('calibre', 'vessarin-210s', { code: 'V-210R' })],
  ['a maker by another name', () => revise('maker', 'vessarin', { name: 'Renamed Vess' })],
  ['a case type', () => revise('caseType', 'c2140-3', { ratingBar: 7, crownClock: 4 })],
  ['a light measured anew', () => revise('lightPlace', 'lamp', { lux: 900 })],
  ['a lot set apart', () => post('lots/quarantine', { lotId: lotOf('S-6220').id, reason: 'two leaked' })],
  [
    'a sample of a lot',
    () =>
      post('lots/sample', {
        id: randomUUID(),
        lotId: lotOf('NQ-131').id,
        restVoltageV: 1.31,
        print: 'sharp and whole',
      }),
  ],
  [
    'a lot counted',
    () => {
      const { id, balance, unbooked } = lotOf('S-9214');
      return post('lots/count', {
        id: randomUUID(),
        lotId: id,
        balanceSeen: balance,
        unbookedSeen: unbooked,
        counted: 1,
        reason: 'counted at closing',
      });
    },
  ],
  [
    'a spent cell collected',
    () =>
      post('collections', {
        id: randomUUID(),
        count: 1,
        weightG: 4,
        collectedOn: '2026-03-17',
        receipt: 'VH-2208',
      }),
  ],
  [
    'an owner by another name',
    async () => {
      const id = demoId('customer', 'to-close');
      const { body } = await counter.get<CustomerResource>(`/api/customers/${id}`);
      await post(`customers/${id}/details`, {
        id: randomUUID(),
        name: 'Renamed Owner',
        phone: body.customer.phone,
        email: '',
        supersedes: body.revisions.map((revision) => revision.id),
      });
    },
  ],
  ['an owner erased', () => post(`customers/${demoId('customer', 'signed-and-gone')}/erase`, {}, 200)],
  [
    'a technician more',
    async () => {
      const hand = { id: randomUUID(), name: 'Renamed Hand', initials: 'RH' };
      expect((await counter.post('/api/technicians', hand)).status).toBe(201);
    },
  ],
  [
    'an hour',
    () => {
      nowUtc = addMinutes(nowUtc, 60);
      return Promise.resolve();
    },
  ],
  [
    'four months',
    () => {
      nowUtc = addMinutes(nowUtc, 60 * 24 * 120);
      return Promise.resolve();
    },
  ],
];

/** What was told after the change before. */
let lastTold: Record<string, unknown> | null = null;

describe('what is told after a change is what is worked out anew', () => {
  it('over every table that holds an answer: each is here, or holds what was recorded', () => {
    const copy = copied();
    const db = openConnection(join(copy, 'wax-lantern.db'));
    const tables = db
      .prepare<[], string>("SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE '%VIRTUAL%'")
      .pluck()
      .all()
      .filter((name) => !/_find_(config|content|data|docsize|idx|triple)$|^sqlite_/.test(name));
    db.close();
    rmSync(copy, { recursive: true });
    expect(tables.sort()).toEqual([...STORED_ANSWERS.map(({ table }) => table), ...RECORDED].sort());
  });

  it.each(CHANGES)(
    '%s',
    async (_, change) => {
      const before = lastTold ?? (await allOf(counter));
      await change();
      const answer = await allOf(counter);
      lastTold = answer;
      expect(isDeepStrictEqual(answer, before)).toBe(false);
      const anew = await workedOutAnew();
      const stale = Object.keys(anew).filter((address) => !isDeepStrictEqual(anew[address], answer[address]));
      expect(Object.fromEntries(stale.map((address) => [address, answer[address]]))).toEqual(
        Object.fromEntries(stale.map((address) => [address, anew[address]])),
      );
    },
    60_000,
  );
});
