import type { RequestHandler, Response } from 'express';
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

/** Calls before the answer is on its way. */
function beforeEnd(response: Response, call: () => void): void {
  const end = response.end.bind(response) as (...given: unknown[]) => Response;
  response.end = ((...given: unknown[]) => {
    if (response.statusCode < 300) call();
    return end(...given);
  }) as typeof response.end;
}

/** Notes every write beside the database before it is acknowledged, so that it outlives a database that is lost. */
export function noteAcknowledged(store: Store): RequestHandler {
  return (request, response, next) => {
    const { originalUrl: path } = request;
    if (METHODS.includes(request.method) && !NOT_NOTED.test(path)) {
      const write = { method: request.method as Acknowledged['method'], path };
      let file: Attachment | null = null;
      if (path.startsWith('/api/attachments')) {
        const json = response.json.bind(response);
        response.json = (sent: Attachment) => {
          if (response.statusCode < 300) file = sent;
          return json(sent);
        };
      }
      beforeEnd(response, () => {
        const atUtc = store.clock.nowUtc();
        store.acknowledged.note(
          file === null ? { ...write, atUtc, body: request.body as unknown } : { ...write, atUtc, file },
        );
      });
    }
    next();
  };
}
