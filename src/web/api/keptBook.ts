import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { asToday, type BookHead, type BookLine } from '../../contract';
import { type Catalogue, type HeldRecords, holdRecords, type RecordChange } from '../../core/craft/book';
import { bookPath, noteKeptBook } from './ahead';
import { browserStore } from './browserStore';
import { breathe, getLines, ServerAway } from './http';
import { noteAway } from './waiting';

interface Schema extends DBSchema {
  /** The head of the kept book, and its records in bundles, a line each. */
  book: { key: string; value: string };
}

/** A database of its own: what waits for the server never waits for the book. */
let opened: Promise<IDBPDatabase<Schema>> | null = null;
function bookStore(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('wax-lantern-book', 1, {
    upgrade(db) {
      db.createObjectStore('book');
    },
  });
  return opened;
}

/** The book is kept in so many bundles: a change rewrites one, and each is read without a pause that a hand would notice. */
const BUNDLES = 64;
const HEAD = 'head';
const RECORDS_A_BREATH = 500;

/** The bundle of a record: always the same one. */
function bundleOf({ kind, id }: Pick<RecordChange, 'kind' | 'id'>): string {
  let hash = 0;
  for (const letter of `${kind}/${id}`) hash = (hash * 31 + (letter.codePointAt(0) ?? 0)) % 1_000_003;
  return String(hash % BUNDLES);
}

interface OwnBook {
  readonly revision: number;
  readonly mark: string;
  readonly held: HeldRecords;
}

const NOTHING: OwnBook = { revision: 0, mark: '', held: holdRecords() };

/** A record that an older program kept or sent knows less. */
function ofToday(change: RecordChange): RecordChange {
  return change.body === null ? change : { ...change, body: asToday(change.kind, change.body) };
}

/** The book as this browser kept it, bundle by bundle; nothing where it kept none, or none that can be read. */
async function readKept(): Promise<OwnBook> {
  try {
    const db = await bookStore();
    const head = await db.get('book', HEAD);
    if (head === undefined) return NOTHING;
    const changes: RecordChange[] = [];
    const keys = (await db.getAllKeys('book')).filter((key) => key !== HEAD);
    let next = keys[0] === undefined ? undefined : db.get('book', keys[0]);
    for (const [at] of keys.entries()) {
      const bundle = await next;
      const following = keys[at + 1];
      next = following === undefined ? undefined : db.get('book', following);
      for (const line of bundle?.split('\n') ?? [])
        if (line !== '') changes.push(ofToday(JSON.parse(line) as RecordChange));
      await breathe();
    }
    // Another window kept a later one meanwhile: these are bundles of both.
    if ((await db.get('book', HEAD)) !== head) return NOTHING;
    const held = holdRecords();
    held.take(changes.sort((a, b) => a.revision - b.revision));
    return { ...(JSON.parse(head) as Omit<OwnBook, 'held'>), held };
  } catch {
    return NOTHING;
  }
}

/** Keeps a book: the bundles that changed, or all of them. What another window kept in between is left in peace. */
async function keep(own: OwnBook, since: number, changes: readonly RecordChange[]): Promise<void> {
  const bundles = new Map<string, string[]>();
  for (const change of changes) bundles.set(bundleOf(change), []);
  let count = 0;
  for (const record of own.held.all()) {
    count += 1;
    if (count % RECORDS_A_BREATH === 0) await breathe();
    bundles.get(bundleOf(record))?.push(JSON.stringify(record));
  }
  const writing = (await bookStore()).transaction('book', 'readwrite');
  const before = await writing.store.get(HEAD);
  const known = before === undefined ? 0 : (JSON.parse(before) as Omit<OwnBook, 'held'>).revision;
  if (since > 0 && known !== since) return;
  if (since === 0) void writing.store.clear();
  for (const [bundle, lines] of bundles) void writing.store.put(lines.join('\n'), bundle);
  void writing.store.put(JSON.stringify({ revision: own.revision, mark: own.mark }), HEAD);
  await writing.done;
  noteKeptBook(own);
  // An older program kept the whole of it among what was seen last.
  await (await browserStore()).delete('seen', '/api/catalogue');
}

/** The book with what the server says has changed since. */
async function broughtUpToDate(known: OwnBook): Promise<OwnBook> {
  const heads: BookHead[] = [];
  const counts: number[] = [];
  const changes: RecordChange[] = [];
  await getLines<BookLine>(bookPath(known), (line) => {
    if ('since' in line) heads.push(line);
    else if ('count' in line) counts.push(line.count);
    else changes.push(ofToday(line));
  });
  const [head] = heads;
  // A list that broke off would be a book with holes.
  if (head === undefined || counts[0] !== changes.length)
    throw new ServerAway('The book was not received completely.');
  const { since, revision, mark } = head;
  if (since === known.revision && revision === since && changes.length === 0) return known;
  const held = since > 0 ? known.held : holdRecords();
  held.take(changes);
  const next = { revision, mark, held };
  // It is kept once the page has drawn it; where there is no room it is read whole next time.
  void keep(next, since, changes).catch(() => undefined);
  return next;
}

let own: OwnBook | null = null;

async function readNow(): Promise<Catalogue> {
  const known = (own ??= await readKept());
  try {
    own = await broughtUpToDate(known);
    noteAway(null);
  } catch (error) {
    if (!(error instanceof ServerAway)) throw error;
    noteAway(error);
    if (known.revision === 0) throw error;
  }
  return own.held.catalogue(own.revision);
}

let reading: Promise<unknown> = Promise.resolve();

/**
 * The catalogue of today: what this browser holds of it, and from the server what changed since. With the server away as it
 * was seen last; throws `ServerAway` where it was never seen.
 */
export function readBook(): Promise<Catalogue> {
  const next = reading.then(readNow, readNow);
  reading = next.catch(() => undefined);
  return next;
}
