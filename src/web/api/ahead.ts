/** By which the revision of the book that is kept here is known before the code that reads it is there. */
const KEPT_BOOK = 'wax.book';

interface BookMark {
  readonly revision: number;
  readonly mark: string;
}

/** Where it is read what changed in the book since a revision; since none: everything. */
export function bookPath({ revision, mark }: BookMark): string {
  return `/api/catalogue/changes?${new URLSearchParams({ since: String(revision), mark }).toString()}`;
}

/** Notes which revision of the book is kept here. */
export function noteKeptBook({ revision, mark }: BookMark): void {
  localStorage.setItem(KEPT_BOOK, JSON.stringify({ revision, mark }));
}

/** Where the book will be read from, as far as it can be told by now. */
function bookPathAhead(): string {
  try {
    return bookPath(JSON.parse(localStorage.getItem(KEPT_BOOK) ?? '') as BookMark);
  } catch {
    return bookPath({ revision: 0, mark: '' });
  }
}

/** Answers asked for before anything wants them, each given once. */
const asked = new Map<string, Promise<Response>>();

/** An answer that was asked for ahead; undefined where it was not, or was given already. */
export function takeAhead(path: string): Promise<Response> | undefined {
  const answer = asked.get(path);
  asked.delete(path);
  return answer;
}

/** One that nobody wanted by then would be old, ms. */
const KEPT_FOR_MS = 5000;
/** As long as any other answer is waited for, ms. */
const LONGEST_MS = 10_000;

/** What the page of an address reads first, asked for together before the code of the page is there. */
export function askAhead(pathname: string): void {
  const [, jobId] = /^\/jobs\/([^/]+)/.exec(pathname) ?? [];
  const paths = [
    '/api/shop',
    '/api/rack',
    ...(jobId === undefined ? [] : [`/api/jobs/${jobId}`, bookPathAhead(), '/api/stock']),
  ];
  for (const path of paths) {
    const answer = fetch(path, {
      headers: { accept: 'application/json' },
      signal: AbortSignal.timeout(LONGEST_MS),
    });
    // Whoever takes it is told of what fails.
    answer.catch(() => undefined);
    asked.set(path, answer);
  }
  setTimeout(() => asked.clear(), KEPT_FOR_MS);
}
