import { Worker } from 'node:worker_threads';

/** How the search for the next best look grows with the book, in a worker, against the same work on the smallest. */
const SIZES = [500, 5000, 50_000] as const;
const ROUNDS = 7;

interface Timed {
  readonly size: number;
  readonly identifyMs: number;
  readonly lookMs: number;
}

const timed = await new Promise<Timed[]>((resolve, reject) => {
  // A worker reads TypeScript only once tsx is registered in it.
  const code = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(new URL('./looksWorker.ts', import.meta.url).href)}); })`;
  const worker = new Worker(code, { eval: true, workerData: { sizes: SIZES, rounds: ROUNDS } });
  worker.once('message', resolve);
  worker.once('error', reject);
});
const [least] = timed;
if (!least) throw new Error('Nothing was timed.');
for (const { size, identifyMs, lookMs } of timed) {
  const growth = lookMs / least.lookMs / (size / least.size);
  console.log(
    `${size} calibres: next best look ${lookMs.toFixed(2)} ms in a worker, ${growth.toFixed(2)} × in line with its size; identification ${identifyMs.toFixed(2)} ms.`,
  );
  if (growth > 1.25) process.exitCode = 1;
}
