import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobFile } from '../src/contract';
import { newJob, technicianId } from '../src/testing/jobs';
import { startServer } from '../src/testing/serverProcess';

/**
 * How long others wait for an answer while the largest things come in: 100,000 lines of a table, read dry and then
 * written, and a job with 180 MB of files. The server has a heap of 1 GB.
 */
const LINES = 100_000;
const FILES = 30;
const FILE_BYTES = 4.5 * 1024 * 1024;
const AIM_MS = 100;
const PAUSE_MS = 5;

const dataDir = mkdtempSync(join(tmpdir(), 'wax-health-'));
const server = await startServer(dataDir, { NODE_OPTIONS: '--max-old-space-size=1024' });
process.on('exit', () => void server.child.kill());
const send = (path: string, type: string, body: string | Uint8Array<ArrayBuffer>): Promise<Response> =>
  fetch(server.url + path, { method: 'POST', headers: { 'content-type': type }, body });

await send(
  '/api/technicians',
  'application/json',
  JSON.stringify({ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' }),
);

/** Asks for health as fast as it is answered, until the work is done. Gives every wait, and what the work gave. */
async function meanwhile<T>(work: Promise<T>): Promise<{ waits: number[]; result: T; tookMs: number }> {
  const waits: number[] = [];
  const started = performance.now();
  let isDone = false;
  const result = work.finally(() => (isDone = true));
  while (!isDone) {
    const asked = performance.now();
    const { status } = await fetch(`${server.url}/api/health`);
    if (status !== 200) throw new Error(`health answered ${status}`);
    waits.push(performance.now() - asked);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
  return { waits, result: await result, tookMs: performance.now() - started };
}

const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.ceil(values.length * share) - 1)] ?? NaN;

function tell(what: string, { waits, tookMs }: { waits: number[]; tookMs: number }): void {
  const p99 = percentile(waits, 0.99);
  console.log(
    `${what}: ${(tookMs / 1000).toFixed(1)} s, health asked ${waits.length} times, half within ${percentile(waits, 0.5).toFixed(1)} ms, 99 % within ${p99.toFixed(0)} ms, the longest ${Math.max(...waits).toFixed(0)} ms (aim ${AIM_MS} ms at 99 %).`,
  );
  if (!(p99 <= AIM_MS)) process.exitCode = 1;
}

tell('Nothing else', await meanwhile(new Promise((resolve) => setTimeout(resolve, 3000))));

const table = [
  'id,name,sign',
  ...Array.from({ length: LINES }, (_, index) => `bulk-${index},Bulk ${index},kite`),
].join('\r\n');
for (const dryRun of ['yes', 'no']) {
  const read = await meanwhile(
    send(
      `/api/catalogue/tables/makers?technicianId=${technicianId}&dryRun=${dryRun}`,
      'text/csv',
      table,
    ).then((response) => response.text()),
  );
  const last = JSON.parse(read.result.trim().split('\n').at(-1) ?? '') as { report: { added: number } };
  if (last.report.added !== LINES) throw new Error(read.result.slice(-500));
  tell(`${LINES} lines of a table, ${dryRun === 'yes' ? 'read' : 'read and written'}`, read);
}

await send('/api/jobs', 'application/json', JSON.stringify(newJob('a')));
const saved = (await (await fetch(`${server.url}/api/jobs/${newJob('a').id}/job.json`)).json()) as JobFile;
const attachments = Array.from({ length: FILES }, (_, index) => {
  const content = randomBytes(FILE_BYTES);
  return {
    hash: createHash('sha256').update(content).digest('hex'),
    name: `file ${index}`,
    contentType: 'application/octet-stream',
    bytes: content.length,
    base64: content.toString('base64'),
  };
});
const file = new TextEncoder().encode(JSON.stringify({ ...saved, attachments }));
const job = await meanwhile(
  send('/api/jobs/import', 'application/octet-stream', file).then(async (response) => {
    if (response.status !== 201) throw new Error(await response.text());
  }),
);
tell(`A job of ${(file.length / 1e6).toFixed(0)} MB`, job);

await server.end('SIGTERM');
rmSync(dataDir, { recursive: true, force: true });
