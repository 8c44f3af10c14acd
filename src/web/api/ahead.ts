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
    ...(jobId === undefined ? [] : [`/api/jobs/${jobId}`, '/api/catalogue', '/api/stock']),
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
