import type { RequestHandler } from 'express';
import type { Store } from './store/store';

/** What is told of the rack alone. */
const OF_THE_RACK = /^\/(rack|day)$/;
/** What is told of all jobs together. */
const OF_ALL = /^\/(reminders|lots\/carried|leaks|lists\/|tools\/served|calibres\/[^/]+\/history|movements)/;
/** Asked at every bench all day: of very many jobs what stands is told until the rest is worked out. */
const SOON = /^\/(stock|lots\/empty|find)$/;

/** Answers kept beside the jobs are worked out anew before they are shown, where program, policy or book changed since. */
export function freshFirst({ logbook }: Store): RequestHandler {
  return async (request, _response, next) => {
    if (request.method === 'GET') {
      if (OF_THE_RACK.test(request.path)) await logbook.fresh.rack();
      else if (OF_ALL.test(request.path)) await logbook.fresh.all();
      else if (SOON.test(request.path)) await logbook.fresh.soon();
    }
    next();
  };
}
