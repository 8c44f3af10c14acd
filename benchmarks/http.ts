import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { createInterface } from 'node:readline';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v7 } from 'uuid';
import { buildDemo, demoId } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import { startServer } from '../src/testing/serverProcess';

/**
 * Reading a job and adding an entry over HTTP, against a bare Express and better-sqlite3 handler that runs the
 * same SQL on a copy of the same database, both as processes of their own, their requests taking turns.
 */
const ROUNDS = 1500;
const WARM_UP = 150;
const AIM = 1.3;
const agent = new Agent({ keepAlive: true });

function call(method: string, url: string, body?: unknown): Promise<number> {
  return new Promise((resolve, reject) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const started = process.hrtime.bigint();
    const sent = request(
      url,
      {
        method,
        agent,
        headers: text
          ? { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }
          : {},
      },
      (response) => {
        response.resume();
        response.on('end', () => {
          if ((response.statusCode ?? 500) >= 400)
            reject(new Error(`${method} ${url}: ${response.statusCode}`));
          else resolve(Number(process.hrtime.bigint() - started) / 1e6);
        });
      },
    );
    sent.on('error', reject);
    sent.end(text);
  });
}

function startBare(file: string): Promise<{ url: string; end: () => void }> {
  const child = spawn(process.execPath, ['--import', 'tsx', join('benchmarks', 'bareServer.ts'), file], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve) => {
    createInterface({ input: child.stdout }).once('line', (url) =>
      resolve({ url, end: () => void child.kill() }),
    );
  });
}

const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

const ours = mkdtempSync(join(tmpdir(), 'wax-bench-'));
const theirs = mkdtempSync(join(tmpdir(), 'wax-bare-'));
await buildDemo(ours);
await buildDemo(theirs);
const server = await startServer(ours, { WAX_DEMO_START: DEMO_START_UTC });
const bare = await startBare(join(theirs, 'wax-lantern.db'));

const job = demoId('job', 'ready-to-sign');
const entry = (): unknown => ({
  id: v7(),
  kind: 'arrive.promise',
  payload: { promisedAt: '2026-03-17T11:00:00.000Z' },
  payloadVersion: 1,
  occurredAt: '2026-03-17T09:45:00.000Z',
  technicianId: demoId('technician', 'edda'),
  bench: 'window bench',
  well: null,
  supersedes: [],
  withdraws: null,
  attachments: [],
});

async function compare(
  what: string,
  once: (url: string, round: number) => Promise<number>,
  rounds: number,
): Promise<void> {
  const times = { ours: [] as number[], bare: [] as number[] };
  for (let round = 0; round < rounds + WARM_UP; round += 1) {
    const [a, b] = [await once(server.url, round), await once(bare.url, round)];
    if (round >= WARM_UP) {
      times.ours.push(a);
      times.bare.push(b);
    }
  }
  const ratio = middle(times.ours) / middle(times.bare);
  console.log(
    `${what}: ${ratio.toFixed(2)} × a bare handler (aim at most ${AIM}); ${middle(times.ours).toFixed(2)} ms against ${middle(times.bare).toFixed(2)} ms, median of ${rounds}.`,
  );
}

await compare('Reading a job', (url) => call('GET', `${url}/api/jobs/${job}`), ROUNDS);
// Few enough that the job keeps the length of a real one: spread over the demo's open jobs.
const open = [
  'ready-to-sign',
  'to-close',
  'two-cells',
  'draws-too-much',
  'overdue-at-the-cell',
  'worn-engraving',
  'just-arrived',
  'no-consent',
];
await compare(
  'Adding an entry',
  (url, round) =>
    call('POST', `${url}/api/jobs/${demoId('job', open[round % open.length] as string)}/entries`, entry()),
  250,
);

bare.end();
await server.end('SIGTERM');
agent.destroy();
rmSync(ours, { recursive: true, force: true });
rmSync(theirs, { recursive: true, force: true });
