import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openConnection } from '../src/server/store/database';
import { idOf, readingOf } from '../src/testing/fixtures';
import { delivery, entryOf, fittedFromLot, newJob, technicianId } from '../src/testing/jobs';
import { type ServerProcess, startServer } from '../src/testing/serverProcess';
import { whatIsBrokenIn } from './fuzz';
import { moveLogAway, takeInKept } from './putBack';

export interface Killed {
  readonly kills: number;
  /** How many kills fell among writes. */
  readonly amongWrites: number;
  /** How often a copy of the database was put back, and what was acknowledged since taken in again. */
  readonly putBack: number;
  /** Entries the server said are on disk. */
  readonly acknowledged: number;
  /** Those of them that are not. */
  readonly lost: readonly string[];
  readonly broken: readonly string[];
}

const WRITERS = 4;
/** A job to every so many rounds: a job of thousands of entries is no job. */
const ROUNDS_A_JOB = 5;
const STOCK = 10_000;
/** After so many kills a copy made before the last is put back. */
const PUT_BACK_EACH = 5;

async function post(server: ServerProcess, path: string, body: unknown): Promise<number> {
  const response = await fetch(server.url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return response.status;
}

/** Writes entries one after another until the server is gone; gives the ids it was told are on disk. */
async function writeUntilGone(
  server: ServerProcess,
  job: string,
  writer: string,
  onRecord: () => void,
): Promise<string[]> {
  const acknowledged: string[] = [];
  for (let count = 0; ; count += 1) {
    const entry =
      count % 3 === 2
        ? entryOf(`${writer} fitted ${count}`, 'cell.fitted', fittedFromLot)
        : entryOf(`${writer} ${count}`, 'check.reading', readingOf('restVoltageV', 1 + (count % 50) / 100));
    try {
      if ((await post(server, `/api/jobs/${job}/entries`, entry)) === 201) {
        acknowledged.push(entry.id);
        onRecord();
      }
    } catch {
      return acknowledged;
    }
  }
}

/** Kills a server among its writes, again and again over one folder, and looks for what it said is on disk. */
export async function kill({
  rounds,
  until = Infinity,
}: {
  readonly rounds: number;
  readonly until?: number;
}): Promise<Killed> {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-kills-'));
  const acknowledged: string[] = [];
  let amongWrites = 0;
  let putBack = 0;
  const refused: string[] = [];
  let kills = 0;
  let job = newJob('kill 0');
  for (; kills < rounds && Date.now() < until; kills += 1) {
    const file = join(dataDir, 'wax-lantern.db');
    const isPutBack = kills > 0 && kills % PUT_BACK_EACH === 0;
    // The copy is made at rest, with its log, as one made of the whole folder.
    const copy = isPutBack ? readFileSync(file) : null;
    const log = isPutBack && existsSync(`${file}-wal`) ? readFileSync(`${file}-wal`) : null;
    const server = await startServer(dataDir);
    if (kills === 0) {
      await post(server, '/api/technicians', { id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
      await post(server, '/api/lots', { ...delivery, count: STOCK });
    }
    if (kills % ROUNDS_A_JOB === 0) {
      job = newJob(`kill ${kills}`);
      if ((await post(server, '/api/jobs', job)) !== 201) throw new Error('The job was not taken in.');
      acknowledged.push(...job.entries.map(({ id }) => id));
    }
    let begun: () => void = () => undefined;
    const firstWritten = new Promise<void>((resolve) => (begun = resolve));
    const writing = Promise.all(
      Array.from({ length: WRITERS }, (_, writer) =>
        writeUntilGone(server, job.id, `kill ${kills} writer ${writer}`, begun),
      ),
    );
    // Three of four are killed among the writes however slow the machine is, the others wherever they are.
    if (kills % 4 !== 0) await firstWritten;
    await new Promise((resolve) => setTimeout(resolve, 20 + ((kills * 37) % 160)));
    await server.end('SIGKILL');
    const written = (await writing).flat();
    if (written.length > 0) amongWrites += 1;
    acknowledged.push(...written);
    if (copy === null) continue;
    putBack += 1;
    moveLogAway(dataDir);
    writeFileSync(file, copy);
    if (log !== null) writeFileSync(`${file}-wal`, log);
    const again = await startServer(dataDir);
    refused.push(...(await takeInKept(again)));
    await again.end('SIGKILL');
  }
  // It opens once more, and by its own hand.
  const last = await startServer(dataDir);
  await last.end('SIGTERM');

  const db = openConnection(join(dataDir, 'wax-lantern.db'));
  const held = new Set(db.prepare<[], string>('SELECT id FROM entry').pluck().all());
  const fitted = db
    .prepare<[], number>("SELECT count(*) FROM entry WHERE kind = 'cell.fitted'")
    .pluck()
    .get();
  const lot = db
    .prepare<[string], { balance: number; beyond: number }>(
      'SELECT balance, to_be_counted AS beyond FROM stock_lot WHERE id = ?',
    )
    .get(idOf('lot'));
  db.close();
  const broken = [...whatIsBrokenIn(dataDir), ...refused];
  // Entry and ledger line were written together or not at all.
  if (lot && lot.balance - lot.beyond !== STOCK - (fitted ?? 0))
    broken.push(`${fitted} cells fitted, and ${STOCK - lot.balance + lot.beyond} taken from the lot`);
  rmSync(dataDir, { recursive: true, force: true });
  return {
    kills,
    amongWrites,
    putBack,
    acknowledged: acknowledged.length,
    lost: acknowledged.filter((id) => !held.has(id)),
    broken,
  };
}
