import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findable } from '../src/core/craft/find';
import { seededUniform } from '../src/core/craft/life';
import { makeTicket } from '../src/core/craft/tickets';
import { openConnection } from '../src/server/store/database';
import { openStore } from '../src/server/store/store';

/** Finding among 20,000 jobs against finding among 100, and against reading every job, in the same run. */
const FEW = 100;
const MANY = 20_000;
const ROUNDS = 40;

const SYLLABLES = [
  'ma',
  'ren',
  'oy',
  'strand',
  'pel',
  'wick',
  'tor',
  'vald',
  'kes',
  'trel',
  'by',
  'lin',
  'quar',
  'ry',
  'har',
  'row',
  'dene',
  'um',
  'ber',
  'sley',
  'gar',
  'dun',
  'ha',
  'ven',
  'mer',
  'wat',
  'er',
];
const MAKERS = ['Orrelin', 'Tasvik', 'Pellorane', 'Quillbeck'];

interface Made {
  readonly dataDir: string;
  readonly texts: readonly string[];
}

function make(count: number): Made {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-find-'));
  openStore({ dataDir }).close();
  const chance = seededUniform(count);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(chance() * items.length)] as T;
  const digits = (length: number): string => Array.from({ length }, () => Math.floor(chance() * 10)).join('');
  const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
  const db = openConnection(join(dataDir, 'wax-lantern.db'));
  const texts: string[] = [];
  db.transaction(() => {
    for (let number = 1; number <= count; number += 1) {
      const name = `${capital(pick(SYLLABLES) + pick(SYLLABLES))} ${capital(pick(SYLLABLES) + pick(SYLLABLES) + pick(SYLLABLES))}`;
      const [id, ticket, phone, maker, serial] = [
        `job-${number}`,
        makeTicket(number),
        `0555${digits(6)}`,
        pick(MAKERS),
        digits(7),
      ];
      const text = [ticket, name, phone, maker, `C${digits(4)}-${digits(1)}`, serial].join(' ');
      texts.push(text);
      db.prepare('INSERT INTO customer (id, name, phone, email, created_at) VALUES (?, ?, ?, ?, ?)').run(
        id,
        name,
        phone,
        '',
        '2026-01-01',
      );
      db.prepare('INSERT INTO customer_find (customer_id, text) VALUES (?, ?)').run(
        id,
        findable(`${name} ${phone}`),
      );
      db.prepare('INSERT INTO visit VALUES (?, ?, ?)').run(id, id, '2026-01-01');
      db.prepare('INSERT INTO watch VALUES (?, ?)').run(id, '2026-01-01');
      db.prepare(
        'INSERT INTO job (id, number, ticket, visit_id, watch_id, created_at) VALUES (?, ?, ?, ?, ?, ?)',
      ).run(id, number, ticket, id, id, '2026-01-01');
      const summary = JSON.stringify({ id, ticket, customerName: name, watch: maker });
      db.prepare(
        'INSERT INTO job_summary (job_id, on_rack, promised_at, search, summary) VALUES (?, ?, ?, ?, ?)',
      ).run(id, number > count - 30 ? 1 : 0, null, text, summary);
      db.prepare('INSERT INTO job_find (rowid, text) VALUES (?, ?)').run(number, findable(text));
    }
  })();
  db.close();
  return { dataDir, texts };
}

/** Queries of every sort, aimed at jobs of this shop: as typed, begun, with a slip, by number. */
function queriesFor({ texts }: Made): string[] {
  return Array.from({ length: ROUNDS }, (_, round) => {
    const words = (texts[Math.floor((round / ROUNDS) * texts.length)] ?? '').split(' ');
    const family = words[2] ?? '';
    switch (round % 5) {
      case 0:
        return words[0] ?? '';
      case 1:
        return family;
      case 2:
        return family.slice(0, 3) + family.slice(4);
      case 3:
        return `${words[1]} ${words[4]}`;
      default:
        return words.at(-1) ?? '';
    }
  });
}

const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

function time(run: () => void): number {
  const started = process.hrtime.bigint();
  run();
  return Number(process.hrtime.bigint() - started) / 1e6;
}

function measure(made: Made): {
  readonly finding: number;
  readonly scanning: number;
  readonly share: number;
} {
  const store = openStore({ dataDir: made.dataDir });
  const db = openConnection(join(made.dataDir, 'wax-lantern.db'));
  const scan = db.prepare('SELECT summary FROM job_summary WHERE search LIKE ? LIMIT 20');
  const queries = queriesFor(made);
  for (const query of queries) store.logbook.find(query);
  const finding = middle(queries.map((query) => time(() => store.logbook.find(query))));
  const scanning = middle(queries.map((query) => time(() => scan.all(`%${query}%`))));
  const share = queries.filter((query) => store.logbook.find(query).jobs.length > 0).length / queries.length;
  db.close();
  store.close();
  return { finding, scanning, share };
}

const [few, many] = [make(FEW), make(MANY)];
const [inFew, inMany] = [measure(few), measure(many)];
console.log(
  `Finding among ${MANY} jobs: ${(inMany.finding / inFew.finding).toFixed(2)} × finding among ${FEW}, and ${(inMany.finding / inMany.scanning).toFixed(2)} × reading every job for the words as typed; ` +
    `${inMany.finding.toFixed(2)} ms against ${inFew.finding.toFixed(2)} and ${inMany.scanning.toFixed(2)} ms. Found something for ${Math.round(inMany.share * 100)} % of the queries.`,
);
for (const { dataDir } of [few, many]) rmSync(dataDir, { recursive: true, force: true });
