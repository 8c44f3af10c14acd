import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { randomUUID } from 'node:crypto';
import { type Logger, pino } from 'pino';
import { keyRequired, onlyOwnNames } from './access/access';
import { MOST_DEPTH, MOST_VALUES, shapeOf, STALLED_AFTER_MS } from './offLoop/bodies';
import { noteAcknowledged, onlyItsDatabase } from './acknowledge';
import { freshFirst } from './fresh';
import { notFound, notUtf8, problemHandler, stoppedComing, tooDeep, tooLarge } from './problem';
import { bookRoutes } from './routes/book';
import { deviceRoutes } from './routes/devices';
import { jobImportRoutes } from './routes/jobImport';
import { keptRoutes } from './routes/kept';
import { jobRoutes } from './routes/jobs';
import { shopRoutes } from './routes/shop';
import { stockRoutes } from './routes/stock';
import type { Store } from './store/store';

export interface AppOptions {
  readonly store: Store;
  readonly host: string;
  readonly key: string | null;
  /** Names it is reached by beside its own: of a proxy before it, or of what a container runs on. */
  readonly names?: readonly string[];
  /** The built web application; null serves the API alone. */
  readonly webDir: string | null;
  readonly log?: Logger;
}

const YEAR_S = 365 * 24 * 3600;

/** A body read whole that stops coming is given up in words; what is streamed looks to itself. */
const bodyKeepsComing: RequestHandler = (request, response, next) => {
  if (request.headers['content-type']?.includes('json')) {
    request.setTimeout(STALLED_AFTER_MS, () => {
      if (request.complete || response.headersSent) return;
      response.setHeader('connection', 'close');
      next(stoppedComing());
    });
    request.on('end', () => request.setTimeout(0));
  }
  next();
};

const headers = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      // The theme writes its styles at run time.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      upgradeInsecureRequests: null,
    },
  },
  // With no referrer at all a browser sends the key form as from Origin “null”.
  referrerPolicy: { policy: 'same-origin' },
  strictTransportSecurity: false,
});

const packed = compression({
  filter: (request, response) =>
    // What is said bit by bit must not wait in the compressor.
    !/^\/api\/(news|attachments\/|catalogue\/tables\/|devices\/)/.test(request.originalUrl) &&
    // Films and photographs in it are packed already: packing them again takes ten times as long as sending.
    !/^\/api\/(jobs|visits)\/[^/]+\/(job|visit)\.json/.test(request.originalUrl) &&
    compression.filter(request, response),
});

const jsonBody = express.json({
  limit: '1mb',
  verify: (_request, _response, body, encoding) => {
    // In another, depth and count could not be told before it is parsed.
    if (encoding !== 'utf-8') throw notUtf8();
    const { depth, values } = shapeOf(body);
    if (depth > MOST_DEPTH) throw tooDeep();
    if (values > MOST_VALUES) throw tooLarge(`It holds ${values} values; at most ${MOST_VALUES} are taken.`);
  },
});

/** The built application: its files for ever, its one document anew each time. */
function serveWeb(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(join(webDir, 'assets'), { immutable: true, maxAge: YEAR_S * 1000, fallthrough: false }),
  );
  app.use(express.static(webDir, { index: false, maxAge: 0 }));
  // The pages' own addresses all load the one document; its router takes over.
  app.get(/^\/(?!api\/)/, (_request, response) => {
    response.sendFile(join(webDir, 'index.html'), { headers: { 'cache-control': 'no-cache' } });
  });
}

/** The whole HTTP application over an open store. */
export function createApp({
  store,
  host,
  key,
  names = [],
  webDir,
  log = pino({ level: 'silent' }),
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', 'strong');
  app.use((_request, response, next) => {
    response.setHeader('x-request-id', randomUUID());
    next();
  });
  app.use(headers);
  app.use(onlyOwnNames(host, names));
  app.use(packed);
  app.use(bodyKeepsComing);
  app.use(jsonBody);
  app.use('/api/session', express.urlencoded({ extended: false, limit: '4kb' }));
  app.use(keyRequired(key));
  app.use('/api', (_request, response, next) => {
    response.setHeader('cache-control', 'no-cache');
    // Taken before anything is read: what is written meanwhile is told through the stream.
    response.setHeader('x-news', store.newsMark());
    next();
  });
  app.use('/api', onlyItsDatabase(store), noteAcknowledged(store), freshFirst(store));
  app.use(
    '/api',
    // What is asked at every bench all day comes first: a router that does not answer costs a turn of the loop.
    jobRoutes(store),
    stockRoutes(store),
    bookRoutes(store),
    shopRoutes(store),
    deviceRoutes(store),
    jobImportRoutes(store),
    keptRoutes(store),
  );
  app.use('/api', () => {
    throw notFound('such address');
  });
  if (webDir !== null && existsSync(webDir)) serveWeb(app, webDir);
  app.use(() => {
    throw notFound('such page');
  });
  app.use(problemHandler(log));
  return app;
}
