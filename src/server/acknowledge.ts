import type { RequestHandler } from 'express';
import type { Attachment } from '../contract';
import type { Acknowledged } from './store/acknowledged';
import type { Store } from './store/store';

/** Asked while the database is lost, too: whether the server is ready, and what was kept. */
const WITHOUT_DATABASE = /^\/(health|kept)$/;

/** Answers nothing from a database that is no longer the one at its path. */
export function onlyItsDatabase(store: Store): RequestHandler {
  return (request, _response, next) => {
    if (!WITHOUT_DATABASE.test(request.path)) store.checkDatabase();
    next();
  };
}

const METHODS: readonly string[] = ['POST', 'PUT', 'PATCH', 'DELETE'];
/** What records nothing, or came as a file that its sender has. */
const NOT_NOTED = /^\/api\/(session|kept\/|devices\/|deliveries\/read|jobs\/import|catalogue\/tables\/)/;

/** Notes every write beside the database before it is acknowledged, so that it outlives a database that is lost. */
export function noteAcknowledged(store: Store): RequestHandler {
  return (request, response, next) => {
    const { method, originalUrl: path } = request;
    if (!METHODS.includes(method) || NOT_NOTED.test(path)) {
      next();
      return;
    }
    const json = response.json.bind(response);
    response.json = (said: unknown) => {
      // A file is noted as it was kept: its bytes lie in the folder.
      const what = path.startsWith('/api/attachments')
        ? { file: said as Attachment }
        : { body: request.body as unknown };
      if (response.statusCode < 300)
        store.acknowledged.note({
          atUtc: store.clock.nowUtc(),
          method: method as Acknowledged['method'],
          path,
          ...what,
        });
      return json(said);
    };
    next();
  };
}
