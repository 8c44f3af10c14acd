import { existsSync, realpathSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import { join, resolve, sep } from 'node:path';
import { pino } from 'pino';
import { refusalToListen } from './access/access';
import { createApp } from './app';
import { localTime } from '../core/craft/time';
import { here } from './here';
import { LONGEST_MS } from './offLoop/bodies';
import { checkDataDir, DataDirRefused, lockDataDir } from './store/dataDir';
import { openStore, runningClock, type Store } from './store/store';

const log = pino({ name: 'wax-lantern' });
const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 4310);
const key = process.env.WAX_KEY ?? null;
const names = (process.env.WAX_NAMES ?? '').split(/[\s,]+/).filter(Boolean);
const dataDir = resolve(process.env.WAX_DATA ?? './data');
/** Where a tester that writes files puts them; it may lie outside the data folder, so it is not chosen over the wire. */
const testerFolder = process.env.WAX_TESTER_FOLDER;
/** Set by the demo: the instant its clock starts at. */
const demoStart = process.env.WAX_DEMO_START ?? null;

/** What is being answered when a signal comes has so long to finish, ms. */
const FINISH_WITHIN_MS = 4000;
const HOUR_MS = 3600 * 1000;
/** Of the shop’s day: nobody is at the bench. */
const LOOKED_AT_HOUR = '3';

const refusal = refusalToListen(host, key);
if (refusal !== null) {
  log.fatal(refusal);
  process.exit(1);
}
if (!Number.isInteger(port) || port < 0 || port > 65_535) {
  log.fatal(`PORT=${process.env.PORT} is not a port: give a number from 0 to 65535.`);
  process.exit(1);
}

/** Says in plain words why it does not start, and ends. */
function refuse(words: string): never {
  log.fatal(words);
  process.exit(1);
}

/** The pages built when it starts, by their own folder: a later build takes the place of the link, not of them. */
const built = here(import.meta.url, '../../dist/web');
const webDir = existsSync(built) ? realpathSync(built) : null;

/** Says in the folders of this build that they are in use, so that no later build clears them away. */
const inUse = [here(import.meta.url), ...(webDir === null ? [] : [webDir])]
  .filter((folder) => folder.includes(`${sep}dist${sep}`))
  .map((folder) => join(folder, `in-use-${process.pid}`));
for (const mark of inUse) {
  try {
    writeFileSync(mark, '');
  } catch {
    // A folder that cannot be written to is cleared away by nobody either.
  }
}
process.on('exit', () => {
  for (const mark of inUse) rmSync(mark, { force: true });
});

/** Nothing is read or changed before folder and port are this server's. */
let unlock: () => void;
try {
  unlock = lockDataDir(dataDir);
} catch (error) {
  refuse(error instanceof Error ? error.message : String(error));
}
let app: RequestListener = (_request, response) => {
  response.writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '1' });
  response.end('Starting.');
};
const server = createServer((request, response) => app(request, response));
// How long a body may take is decided where it is taken, with words for its sender; this ends what gets past it.
server.requestTimeout = LONGEST_MS + 60_000;
server.on('error', (error: NodeJS.ErrnoException) => {
  refuse(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Set PORT to a free one.` : error.message);
});
server.listen(port, host, () => {
  const store = opened();
  app = createApp({ store, host, key, names, webDir, log });
  // From a terminal a signal comes twice: to the server, and passed on by whoever started it.
  let stopping = false;
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (!stopping) stop(store);
      stopping = true;
    });
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  process.stdout.write(
    `Wax Lantern is ready at http://${host.includes(':') ? `[${host}]` : host}:${actual}\n`,
  );
  lookThroughFiles(store);
  store.logbook.fresh
    .all()
    .catch((error: unknown) =>
      log.error({ err: error }, 'The answers of older jobs could not be worked out.'),
    );
  setInterval(() => {
    if (localTime(store.clock.nowUtc(), store.shops.shop().zone, 'H') === LOOKED_AT_HOUR)
      lookThroughFiles(store);
  }, HOUR_MS).unref();
});

function opened(): Store {
  try {
    checkDataDir(dataDir);
    return openStore({
      dataDir,
      clock: runningClock(demoStart),
      demo: demoStart !== null,
      ...(testerFolder === undefined ? {} : { testerFolder: resolve(testerFolder) }),
    });
  } catch (error) {
    if (!(error instanceof DataDirRefused)) log.fatal({ err: error }, 'The shop could not be opened.');
    refuse(
      error instanceof DataDirRefused ? error.message : 'The server did not start. No data was changed.',
    );
  }
}

/** At start and then nightly: what lies in the folder and what is missing from it. */
function lookThroughFiles(store: Store): void {
  store.health.lookThroughFiles().then(
    ({ brokenOff, unnamed, gone, damaged }) => {
      if (brokenOff.length + unnamed.length > 0)
        log.info({ brokenOff, unnamed }, 'Swept uploads that broke off and files that no record names.');
      if (gone.length + damaged.length > 0)
        log.error(
          { gone, damaged },
          'Files of records are gone or damaged. Put them back from the last copy of the folder attachments, or add them again.',
        );
    },
    (error: unknown) => log.error({ err: error }, 'The files could not be looked through.'),
  );
}

/** What is being answered is finished; windows that only listen are let go, and come back to the next server. */
function stop(store: Store): void {
  server.close(() => {
    store.close();
    unlock();
    process.exit(0);
  });
  store.hangUp();
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), FINISH_WITHIN_MS).unref();
}
