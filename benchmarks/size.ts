import { mkdtempSync, rmSync } from 'node:fs';
import { readingOf } from '../src/testing/fixtures';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v5 } from 'uuid';
import { writeBook } from '../demo/build';
import { makeEntry, type NewEntry } from '../src/contract';
import { seededUniform } from '../src/core/craft/life';
import type { EntryKind, Payloads } from '../src/core/logbook';
import { openConnection } from '../src/server/store/database';
import { openStore } from '../src/server/store/store';
import { startServer } from '../src/testing/serverProcess';

/** What the bench, the search and a watch's page ask of the server, at 20,000 jobs against 100, in one run. */
const FEW = 100;
const MANY = 20_000;
/** Envelopes on the rack, in the large shop as in the small one. */
const OPEN = 30;
/** The watch that is asked for was here so often. */
const VISITS = 4;
const ROUNDS = 120;
const NAMES = ['Amberlock', 'Birchwater', 'Coldharrow', 'Driftwood', 'Elmsgate', 'Fairwhistle', 'Glasswick'];
const FIRST = ['Aud', 'Birk', 'Carsta', 'Dagny', 'Einar', 'Frode', 'Gudrun', 'Hauk', 'Idunn'];

const idOf = (...names: readonly (string | number)[]): string =>
  v5(names.join('/'), '2f0c1d0e-4a57-4a0e-8a55-6a1d5b7c9e11');

/** A shop with so many jobs, built through the store that the application writes with. */
function make(count: number): string {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-size-'));
  const store = openStore({ dataDir });
  const technicianId = idOf('technician');
  store.shops.addTechnician({ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
  writeBook(store);
  const uniform = seededUniform(count);
  const pick = (from: readonly string[]): string => from[Math.floor(uniform() * from.length)] ?? '';
  const entry = <K extends EntryKind>(job: number, kind: K, payload: Payloads[K]): NewEntry =>
    makeEntry(kind, payload, {
      id: idOf(job, kind),
      occurredAt: '2026-01-05T09:00:00.000Z',
      technicianId,
      bench: 'bench',
    });
  store.inOne(() => {
    for (let number = 1; number <= count; number += 1) {
      const returning = number > count - VISITS;
      const taken = store.logbook.takeIn({
        id: idOf('job', number),
        visitId: idOf('visit', number),
        watchId: returning ? idOf('watch') : idOf('watch', number),
        customer: {
          id: idOf('customer', number),
          name: `${pick(FIRST)} ${pick(NAMES)}${number % 97}`,
          phone: `0555 ${1_000_000 + number}`,
          email: '',
        },
        entries: [
          entry(number, 'arrive.watch', {
            maker: 'Orrelin',
            reference: 'C2140-3',
            serial: String(4_000_000 + number * 7),
            engraved: '',
            ratingBar: 3,
            crownClock: 3,
          }),
          entry(number, 'arrive.service', { service: 'cell only', priceMinor: 1400 }),
          entry(number, 'check.reading', readingOf('currentUA', 1)),
        ],
      });
      if (!('job' in taken)) throw new Error(JSON.stringify(taken));
    }
  });
  store.close();
  const db = openConnection(join(dataDir, 'wax-lantern.db'));
  db.prepare('UPDATE job_summary SET on_rack = 0 WHERE job_id IN (SELECT id FROM job WHERE number <= ?)').run(
    count - OPEN,
  );
  db.close();
  return dataDir;
}

const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

async function time(url: string, paths: readonly string[]): Promise<number> {
  const started = process.hrtime.bigint();
  for (const path of paths) {
    const response = await fetch(url + path);
    await response.arrayBuffer();
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
  }
  return Number(process.hrtime.bigint() - started) / 1e6;
}

/** What each page asks for, in a shop of so many jobs; another query each round. */
const PAGES: Readonly<Record<string, (count: number, round: number) => readonly string[]>> = {
  'bench page': (count) => ['/api/shop', '/api/rack', '/api/stock', `/api/jobs/${idOf('job', count)}`],
  find: (count, round) => {
    const number = 1 + ((round * 7919) % count);
    const serial = String(4_000_000 + number * 7);
    const slipped = serial.slice(0, 3) + serial.slice(4);
    return [
      `/api/find?q=${encodeURIComponent([serial, `${NAMES[round % NAMES.length]}${number % 97}`, slipped][round % 3] ?? serial)}`,
    ];
  },
  'watch page': () => [`/api/watches/${idOf('watch')}`],
};

const shops = [];
for (const count of [FEW, MANY]) {
  const dataDir = make(count);
  shops.push({ count, dataDir, server: await startServer(dataDir) });
}
for (const [page, paths] of Object.entries(PAGES)) {
  const took: number[][] = shops.map(() => []);
  for (let round = -20; round < ROUNDS; round += 1) {
    for (const [index, { count, server }] of shops.entries()) {
      const ms = await time(server.url, paths(count, Math.abs(round)));
      // The first rounds only warm up.
      if (round >= 0) took[index]?.push(ms);
    }
  }
  const [few = Number.NaN, many = Number.NaN] = took.map(middle);
  console.log(
    `${page} at ${MANY} jobs: ${(many / few).toFixed(2)} × at ${FEW} (aim 1.5); ${many.toFixed(2)} against ${few.toFixed(2)} ms.`,
  );
}
for (const { dataDir, server } of shops) {
  await server.end('SIGTERM');
  rmSync(dataDir, { recursive: true, force: true });
}
