import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NewEntry, NewJob, Problem } from '../contract';
import { writeBook } from '../../demo/build';
import type { EntryKind, Payloads } from '../core/logbook';
import { createApp } from '../server/app';
import type { Clock } from '../server/store/clock';
import { openStore, type Store } from '../server/store/store';
import { entryOf, newJob, technicianId } from './jobs';

export { delivery, entryOf, fittedFromLot, newJob, technicianId } from './jobs';

export const NOW = '2026-03-17T12:00:00.000Z';

const STOPPED: Clock = { nowUtc: () => NOW };

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly type: string;
}

let made: string | null = null;
afterAll(() => {
  if (made !== null) rmSync(made, { recursive: true, force: true });
});

/** A shop with its book and one technician, made once a test file: every write to disk is waited for. */
function template(): string {
  if (made !== null) return made;
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-template-'));
  const store = openStore({
    dataDir,
    clock: { nowUtc: () => NOW },
    shop: { name: 'Test counter', place: 'Pier 9', zone: 'Europe/Lisbon' },
  });
  store.shops.addTechnician({ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
  writeBook(store);
  store.close();
  made = dataDir;
  return dataDir;
}

/** A real counter for tests: real HTTP on a free port over a real database file in a folder of its own. */
export class Counter {
  private constructor(
    readonly dataDir: string,
    readonly store: Store,
    private readonly server: Server,
    readonly url: string,
  ) {}

  /** A counter; in a folder of its own unless `dataDir` names one that was used before. Its clock stands unless one is given. */
  static async open({
    host = '127.0.0.1',
    key = null as string | null,
    dataDir = null as string | null,
    clock = STOPPED,
  } = {}): Promise<Counter> {
    const folder = dataDir ?? mkdtempSync(join(tmpdir(), 'wax-'));
    if (dataDir === null) cpSync(template(), folder, { recursive: true });
    const store = openStore({ dataDir: folder, clock });
    const server = createServer(createApp({ store, host, key, webDir: null }));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return new Counter(folder, store, server, `http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  }

  async close({ keep = false } = {}): Promise<void> {
    this.server.closeAllConnections();
    await new Promise((resolve) => this.server.close(resolve));
    this.store.close();
    if (!keep) rmSync(this.dataDir, { recursive: true, force: true });
  }

  async get<T>(path: string, headers: Record<string, string> = {}): Promise<Answer<T>> {
    return this.answer<T>(await fetch(this.url + path, { headers }));
  }

  async post<T>(path: string, body: unknown, headers: Record<string, string> = {}): Promise<Answer<T>> {
    return this.answer<T>(
      await fetch(this.url + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: typeof body === 'string' ? body : JSON.stringify(body),
      }),
    );
  }

  private async answer<T>(response: Response): Promise<Answer<T>> {
    const type = response.headers.get('content-type') ?? '';
    const text = await response.text();
    return { status: response.status, type, body: (type.includes('json') ? JSON.parse(text) : text) as T };
  }

  /** Takes a watch in and gives the job's id. */
  async takeIn(name = 'job', change: Partial<NewJob> = {}): Promise<string> {
    const job = newJob(name, change);
    const { status, body } = await this.post<Problem>('/api/jobs', job);
    if (status !== 201) throw new Error(`${status}: ${JSON.stringify(body)}`);
    return job.id;
  }

  /** The same with its well measured: without that nothing tells what may go in. */
  async takeInMeasured(name = 'job', change: Partial<NewJob> = {}): Promise<string> {
    const job = await this.takeIn(name, change);
    await this.record(job, `${name} measured`, 'cell.well-measured', { diameterMm: 7, depthMm: 2.3 });
    return job;
  }

  /** Records an entry and gives the answer. */
  record<K extends EntryKind>(
    jobId: string,
    name: string,
    kind: K,
    payload: Payloads[K],
    more: Partial<NewEntry> = {},
  ) {
    return this.post<NewEntry & Problem>(`/api/jobs/${jobId}/entries`, entryOf(name, kind, payload, more));
  }
}
