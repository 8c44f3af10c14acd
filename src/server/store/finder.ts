import type { Customer, JobSummary } from '../../contract';
import { findable, findWords, rankFound, triples } from '../../core/craft/find';
import { toSummary } from './summary';
import type { Db } from './database';

const MOST_FOUND = 20;
/** Candidates with a slip come from the rarest triples of each word, as long as they name no more jobs than this. */
const TRIPLES_OF_A_WORD = 4;
const MOST_CANDIDATES = 600;
const CANDIDATES_RANKED = 60;
/** A word shorter than a triple is looked for among the open jobs only. */
const SHORTEST_WORD = 3;

interface Row {
  text: string;
  summary: string;
}

/** Quoted for the full-text language: a phrase of triples, which is a run of letters anywhere in the text. */
function phrase(text: string): string {
  return `"${text.replaceAll('"', '""')}"`;
}

/** Words long enough to be looked for by their triples. */
function longWords(query: string): string[] {
  return findWords(query).filter((word) => word.length >= SHORTEST_WORD);
}

const MOST_OWNERS = 8;

/** Finds owners by name, phone or e-mail as typed; by a word or two letters long through the names alone. */
export function ownerFinder(db: Db) {
  const owner = 'customer.id, name, phone, email';
  const holding = db.prepare<[string, number], Customer>(
    `SELECT ${owner} FROM
       (SELECT customer_id FROM customer_find WHERE customer_find MATCH ? ORDER BY rowid DESC LIMIT ?) AS hit
     JOIN customer ON customer.id = hit.customer_id WHERE erased_at IS NULL ORDER BY name`,
  );
  const begun = db.prepare<[string, number], Customer>(
    `SELECT ${owner} FROM customer WHERE erased_at IS NULL AND name LIKE ? ESCAPE '\\' LIMIT ?`,
  );
  const forget = db.prepare<[string]>('DELETE FROM customer_find WHERE customer_id = ?');
  const remember = db.prepare<[string, string]>(
    'INSERT INTO customer_find (customer_id, text) VALUES (?, ?)',
  );
  const tidy = db.prepare("INSERT INTO customer_find (customer_find) VALUES ('optimize')");
  return {
    remember({ id, name, phone, email }: Customer): void {
      forget.run(id);
      remember.run(id, findable([name, phone.replaceAll(' ', ''), email].join(' ')));
    },
    /** Takes an owner out for good, down to the letters in the index. */
    forget(id: string): void {
      forget.run(id);
      tidy.run();
    },
    find(query: string): Customer[] {
      const long = longWords(query);
      if (long.length > 0) return holding.all(long.map(phrase).join(' AND '), MOST_OWNERS);
      const like = query.trim().replace(/[\\%_]/g, (character) => `\\${character}`);
      return like === '' ? [] : begun.all(`%${like}%`, MOST_OWNERS);
    },
  };
}

/** Finds jobs by what is typed: those that hold every word as typed, the newest first; where none does, those nearly so. */
export function jobFinder(db: Db) {
  const remember = db.prepare<[number, string]>(
    'INSERT OR REPLACE INTO job_find (rowid, text) VALUES (?, ?)',
  );
  const columns = `job_summary.search AS text, job_summary.summary AS summary`;
  const holding = db.prepare<[string, number], Row>(
    `SELECT ${columns} FROM (SELECT rowid FROM job_find WHERE job_find MATCH ? ORDER BY rowid DESC LIMIT ?) AS hit
     JOIN job ON job.number = hit.rowid JOIN job_summary ON job_summary.job_id = job.id ORDER BY hit.rowid DESC`,
  );
  const nearly = db.prepare<[string, number], Row>(
    `SELECT ${columns} FROM (SELECT rowid, rank FROM job_find WHERE job_find MATCH ? ORDER BY rank LIMIT ?) AS hit
     JOIN job ON job.number = hit.rowid JOIN job_summary ON job_summary.job_id = job.id ORDER BY hit.rank`,
  );
  const onRack = db.prepare<[], Row>(`SELECT ${columns} FROM job_summary WHERE on_rack = 1`);
  const jobsWith = db.prepare<[string], number>('SELECT doc FROM job_find_triple WHERE term = ?').pluck();

  const rareTriples = (words: readonly string[]): string[] => {
    let candidates = 0;
    return words.flatMap((word) =>
      triples(word)
        .map((triple) => ({ triple, jobs: jobsWith.get(triple) ?? 0 }))
        .filter(({ jobs }) => jobs > 0)
        .sort((a, b) => a.jobs - b.jobs)
        .slice(0, TRIPLES_OF_A_WORD)
        .filter(({ jobs }) => (candidates += jobs) <= MOST_CANDIDATES)
        .map(({ triple }) => triple),
    );
  };

  const tidy = db.prepare("INSERT INTO job_find (job_find) VALUES ('optimize')");

  return {
    /** Drops for good the letters of texts that were replaced: they linger in the index otherwise. */
    tidy: (): void => void tidy.run(),
    remember: (number: number, text: string): void => void remember.run(number, text),
    find(query: string): JobSummary[] {
      const words = findWords(query);
      if (words.length === 0) return [];
      const long = longWords(query);
      const toSummaries = (rows: readonly Row[]): JobSummary[] => rows.map((row) => toSummary(row.summary));
      if (long.length === 0) return toSummaries(rankFound(query, onRack.all(), MOST_FOUND));
      const exact = rankFound(query, holding.all(long.map(phrase).join(' AND '), MOST_FOUND * 2), MOST_FOUND);
      if (exact.length > 0) return toSummaries(exact);
      const rare = rareTriples(long);
      if (rare.length === 0) return [];
      return toSummaries(
        rankFound(query, nearly.all(rare.map(phrase).join(' OR '), CANDIDATES_RANKED), MOST_FOUND),
      );
    },
  };
}
