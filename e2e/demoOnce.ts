import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../demo/ready';
import { openStore } from '../src/server/store/store';
import { readyServer } from '../src/testing/serverProcess';

const FOLDER = 'WAX_E2E_DEMO';

/** Server and demo are built once for the whole run; every test works on a copy of it. */
export default async function demoOnce(): Promise<() => void> {
  readyServer();
  const folder = mkdtempSync(join(tmpdir(), 'wax-demo-'));
  const dataDir = join(folder, 'data');
  await readyDemo(dataDir);
  const store = openStore({ dataDir });
  const tickets = store.logbook.all().map(({ id, ticket }) => [id, ticket]);
  store.close();
  writeFileSync(join(folder, 'tickets.json'), JSON.stringify(tickets));
  process.env[FOLDER] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}

function folder(): string {
  const found = process.env[FOLDER];
  if (found === undefined) throw new Error('The demo was not built before the tests.');
  return found;
}

/** The demo's data, to be copied. */
export function demoData(): string {
  return join(folder(), 'data');
}

/** The tickets of the demo by their job's id. */
export function demoTickets(): ReadonlyMap<string, string> {
  return new Map(JSON.parse(readFileSync(join(folder(), 'tickets.json'), 'utf8')) as [string, string][]);
}
