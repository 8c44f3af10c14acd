import { createServer } from 'node:http';
import { resolve } from 'node:path';
import { pino } from 'pino';
import { refusalToListen } from './access/access';
import { createApp } from './app';
import { here } from './here';
import { openStore, runningClock } from './store/store';

const log = pino({
  name: 'wax-lantern',
  // Neither key nor cookie of a session belongs into a log.
  redact: ['req.headers.authorization', 'req.headers.cookie'],
});
const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 4310);
const key = process.env.WAX_KEY ?? null;
const dataDir = resolve(process.env.WAX_DATA ?? './data');
/** Set by the demo: the instant its clock starts at. */
const demoStart = process.env.WAX_DEMO_START ?? null;

const refusal = refusalToListen(host, key);
if (refusal !== null) {
  log.fatal(refusal);
  process.exit(1);
}
if (!Number.isInteger(port) || port < 0 || port > 65_535) {
  log.fatal(`PORT=${process.env.PORT} is not a port: give a number from 0 to 65535.`);
  process.exit(1);
}

const store = openStore({ dataDir, clock: runningClock(demoStart), demo: demoStart !== null });
void store.attachments.tidy();
const server = createServer(
  createApp({ store, host, key, webDir: here(import.meta.url, '../../dist/web'), log }),
);
server.on('error', (error: NodeJS.ErrnoException) => {
  log.fatal(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Set PORT to a free one.` : error.message);
  process.exit(1);
});
server.listen(port, host, () => {
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  process.stdout.write(
    `Wax Lantern is ready at http://${host.includes(':') ? `[${host}]` : host}:${actual}\n`,
  );
});

function stop(): void {
  server.close(() => {
    store.close();
    process.exit(0);
  });
  server.closeAllConnections();
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
