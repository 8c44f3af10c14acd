import {
  closeSync,
  existsSync,
  fstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { z } from 'zod';
import type { KeptWrites } from '../../contract';
import { parsedJson } from '../json';
import type { Db } from './database';
import { keptIn } from './guard';

/** A write as it was sent and acknowledged. What came as a file is named alone: who sent it has it. */
const acknowledged = z.strictObject({
  atUtc: z.iso.datetime(),
  method: z.enum(['POST', 'PUT', 'PATCH', 'DELETE']),
  path: z.string().regex(/^\/api\//),
  body: z.unknown().optional(),
  file: z
    .strictObject({ hash: z.string(), name: z.string(), contentType: z.string(), bytes: z.number() })
    .optional(),
});
export type Acknowledged = z.infer<typeof acknowledged>;

export interface AcknowledgedStore {
  /** Notes a write before it is acknowledged. */
  note(write: Acknowledged): void;
  /** What was noted so far is kept as a file of its own: the database is lost. */
  setAside(): void;
  /** The files of writes to be taken in again, the oldest first. */
  kept(): readonly KeptWrites[];
  /** The writes of such a file; null where there is none of this name. */
  read(name: string): readonly Acknowledged[] | null;
  /** What of a file is left to be taken in; nothing removes it. */
  replace(name: string, left: readonly Acknowledged[]): void;
  /** Offers a file no longer; it stays in the folder. False where there is none of this name. */
  discard(name: string): boolean;
  /** Removes every write that names an owner whose details are erased, and the logs set aside, which may name anybody. */
  forget(customerId: string): void;
  /** The server ends by its own hand: all that was acknowledged is in the database. */
  end(): void;
}

/** Larger than this the file begins anew: what it held is in the database and in its copies. */
const MOST_BYTES = 64 * 1024 * 1024;
const CURRENT = 'acknowledged.jsonl';
const KEPT = /^writes-[0-9TZ-]+-[0-9a-f-]+\.jsonl$/;
const DISCARDED = 'discarded-';
/** Logs of databases that were replaced (`guardDatabase`): whole pages, which name anybody. */
const LOG_ASIDE = /-(wal|shm)$/;

interface Noted {
  readonly writes: readonly Acknowledged[];
  /** Lines that this program cannot read, as a newer one wrote them. */
  readonly unread: readonly string[];
}

/** What a file notes; a last line that broke off was never acknowledged. */
function notedIn(path: string): Noted {
  const whole = existsSync(path) ? readFileSync(path, 'utf8').split('\n').slice(0, -1) : [];
  const read = whole.map((line) => ({ line, write: acknowledged.safeParse(parsedJson(line)) }));
  return {
    writes: read.flatMap(({ write }) => (write.success ? [write.data] : [])),
    unread: read.flatMap(({ line, write }) => (write.success ? [] : [line])),
  };
}

const lines = ({ writes, unread }: Noted): string =>
  [...writes.map((write) => JSON.stringify(write)), ...unread].map((line) => `${line}\n`).join('');

/** Writes whose body carries an id that the database knows them by. */
const KNOWN_BY_ID =
  /^\/api\/(technicians|jobs|jobs\/[^/]+\/entries|lots|lots\/(count|give-away)|orders|deliveries|collections)$/;
const withId = z.object({ id: z.string() });

/** Whether a database lacks a write that it would know by its id. */
function missingIn(db: Db): (write: Acknowledged) => boolean {
  const held = db
    .prepare<[{ id: string }], number>(
      `SELECT EXISTS (SELECT 1 FROM (SELECT @id AS id) WHERE id IN (
         SELECT id FROM entry WHERE id = @id UNION SELECT id FROM job WHERE id = @id
         UNION SELECT id FROM technician WHERE id = @id UNION SELECT id FROM written_once WHERE id = @id))`,
    )
    .pluck();
  return ({ path: to, body }) => {
    const named = withId.safeParse(body);
    return KNOWN_BY_ID.test(to) && named.success && held.get({ id: named.data.id }) === 0;
  };
}

function keptFiles(folder: string): string[] {
  return existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => KEPT.test(name))
        .sort()
    : [];
}

/**
 * Notes in the data folder, beside the database, what is acknowledged, so that it outlives a database that is put back or
 * taken away under the running server. At the start what an earlier server left is compared with the database; where it
 * lacks any of it, all is kept to be taken in again.
 */
export function acknowledgedStore(db: Db, dataDir: string, nowUtc: () => string): AcknowledgedStore {
  const path = join(dataDir, CURRENT);
  const folder = keptIn(dataDir);
  const pathOf = (name: string): string => join(folder, name);

  const keep = (): void => {
    mkdirSync(folder, { recursive: true });
    renameSync(path, pathOf(`writes-${nowUtc().replace(/[:.]/g, '-')}-${randomUUID()}.jsonl`));
  };
  const left = notedIn(path);
  if (left.writes.some(missingIn(db)) || left.unread.length > 0) keep();
  let handle = openSync(path, 'w');
  let bytes = 0;
  let isEnded = false;
  const restart = (noted: Noted): void => {
    closeSync(handle);
    writeFileSync(path, lines(noted));
    handle = openSync(path, 'a');
    bytes = fstatSync(handle).size;
  };
  const put = (name: string, noted: Noted): void => {
    if (noted.writes.length + noted.unread.length === 0) {
      rmSync(pathOf(name), { force: true });
      return;
    }
    writeFileSync(`${pathOf(name)}.new`, lines(noted));
    renameSync(`${pathOf(name)}.new`, pathOf(name));
  };
  const names = (): string[] => keptFiles(folder);

  return {
    note(write) {
      if (isEnded) return;
      if (bytes > MOST_BYTES) restart({ writes: [], unread: [] });
      bytes += writeSync(handle, `${JSON.stringify(write)}\n`);
    },
    setAside() {
      if (isEnded || bytes === 0) return;
      closeSync(handle);
      keep();
      handle = openSync(path, 'w');
      bytes = 0;
    },
    kept: () =>
      names().flatMap((name) => {
        const { writes } = notedIn(pathOf(name));
        const [first] = writes;
        const last = writes.at(-1);
        return first && last
          ? [{ name, fromUtc: first.atUtc, untilUtc: last.atUtc, writes: writes.length }]
          : [];
      }),
    read: (name) => (names().includes(name) ? notedIn(pathOf(name)).writes : null),
    replace: (name, writes) => put(name, { writes, unread: notedIn(pathOf(name)).unread }),
    discard(name) {
      if (!names().includes(name)) return false;
      renameSync(pathOf(name), pathOf(`${DISCARDED}${name}`));
      return true;
    },
    forget(customerId) {
      const others = ({ writes, unread }: Noted): Noted => ({
        writes: writes.filter((write) => !JSON.stringify(write).includes(customerId)),
        unread: unread.filter((line) => !line.includes(customerId)),
      });
      restart(others(notedIn(path)));
      for (const name of existsSync(folder) ? readdirSync(folder) : [])
        if (LOG_ASIDE.test(name)) rmSync(pathOf(name), { force: true });
        else if (KEPT.test(name.replace(DISCARDED, ''))) put(name, others(notedIn(pathOf(name))));
    },
    end() {
      if (isEnded) return;
      isEnded = true;
      closeSync(handle);
      rmSync(path, { force: true });
    },
  };
}
