import { createHmac, timingSafeEqual } from 'node:crypto';
import { hostname, networkInterfaces } from 'node:os';
import { parseCookie } from 'cookie';
import { type Request, type RequestHandler, Router } from 'express';
import { z } from 'zod';
import { forbidden, parsed, unauthorised } from '../problem';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];
const COOKIE = 'wax_session';
const SHORTEST_KEY = 12;

export function isLoopback(host: string): boolean {
  return LOOPBACK.includes(host);
}

/** Why the server may not listen on this host with this key, or null. */
export function refusalToListen(host: string, key: string | null): string | null {
  if (isLoopback(host)) return null;
  if (key === null)
    return `HOST=${host} is reachable from other machines: set WAX_KEY to a long secret, or leave HOST unset.`;
  return key.length < SHORTEST_KEY ? `WAX_KEY is too short: at least ${SHORTEST_KEY} characters.` : null;
}

/** The names this server goes by: loopback always; off loopback its own name and addresses, and those it was given. */
function ownNames(host: string, given: readonly string[]): ReadonlySet<string> {
  if (isLoopback(host)) return new Set([...LOOPBACK, ...given]);
  const addresses = Object.values(networkInterfaces()).flatMap((each) =>
    (each ?? []).map(({ address }) => address),
  );
  return new Set([...LOOPBACK, host, hostname(), ...addresses, ...given]);
}

function nameOf(hostHeader: string | undefined): string | null {
  if (!hostHeader) return null;
  try {
    return new URL(`http://${hostHeader}`).hostname.replace(/^\[|\]$/g, '');
  } catch {
    return null;
  }
}

/** Refuses requests under a foreign Host name (a page elsewhere that resolves to here) and writes from a foreign Origin. */
export function onlyOwnNames(host: string, given: readonly string[] = []): RequestHandler {
  const names = ownNames(host, given);
  return (request, _response, next) => {
    const name = nameOf(request.headers.host);
    if (name === null || !names.has(name)) {
      next(
        forbidden(
          'The request names another host than this counter.',
          'Open the counter by the address it printed at start.',
        ),
      );
      return;
    }
    const { origin } = request.headers;
    const writes = !['GET', 'HEAD'].includes(request.method);
    if (
      writes &&
      origin !== undefined &&
      origin !== `http://${request.headers.host}` &&
      origin !== `https://${request.headers.host}`
    ) {
      next(forbidden('The request comes from another site’s page.', 'Work from the counter’s own page.'));
      return;
    }
    next();
  };
}

function same(a: string, b: string): boolean {
  const [left, right] = [a, b].map((text) => createHmac('sha256', 'wax-lantern').update(text).digest()) as [
    Buffer,
    Buffer,
  ];
  return timingSafeEqual(left, right);
}

function tokenOf(key: string): string {
  return createHmac('sha256', key).update('session').digest('hex');
}

function carriesKey(request: Request, key: string): boolean {
  const bearer = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
  if (bearer !== undefined && same(bearer, key)) return true;
  const cookie = parseCookie(request.headers.cookie ?? '')[COOKIE];
  return cookie !== undefined && same(cookie, tokenOf(key));
}

const KEY_PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Wax Lantern: key wanted</title>
<body style="font:18px/1.5 sans-serif;background:#FBF6EA;color:#22252B;max-width:30rem;margin:15vh auto;padding:0 1rem">
<main><h1>Key wanted</h1><p>This counter is reached over a network. Type the key the shop set.</p>
<form method="post" action="/api/session"><label>Key <input name="key" type="password" autofocus required
 style="font:inherit;padding:.4rem"></label> <button style="font:inherit;padding:.4rem 1rem">Enter</button></form></main></body></html>`;

/** Asks every request for the key: as a bearer token, or as the session cookie that giving the key once sets. */
export function keyRequired(key: string | null): Router {
  const router = Router();
  if (key === null) return router;
  router.post('/api/session', (request, response) => {
    const body = parsed(z.object({ key: z.string().max(500) }), request.body);
    if (!same(body.key, key)) throw unauthorised();
    response.cookie(COOKIE, tokenOf(key), { httpOnly: true, sameSite: 'strict', path: '/' });
    response.redirect(303, '/');
  });
  router.use((request, response, next) => {
    if (carriesKey(request, key)) {
      next();
      return;
    }
    if (!request.path.startsWith('/api/') && request.accepts(['json', 'html']) === 'html') {
      response.status(401).type('html').send(KEY_PAGE);
      return;
    }
    next(unauthorised());
  });
  return router;
}
