import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Counter, newJob } from '../../testing/counter';
import { createApp } from '../app';
import { refusalToListen } from './access';

/** A request with headers fetch does not let one set. */
function raw(url: string, method: string, headers: Record<string, string>): Promise<number> {
  return new Promise((resolve, reject) => {
    const call = request(url, { method, headers }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    });
    call.on('error', reject);
    call.end(method === 'POST' ? JSON.stringify(newJob('raw')) : undefined);
  });
}

describe('listening', () => {
  it('listens off loopback only with a key of some length', () => {
    expect(refusalToListen('127.0.0.1', null)).toBeNull();
    expect(refusalToListen('localhost', null)).toBeNull();
    expect(refusalToListen('0.0.0.0', null)).toContain('WAX_KEY');
    expect(refusalToListen('0.0.0.0', 'short')).toContain('too short');
    expect(refusalToListen('192.168.1.4', 'a-long-enough-secret')).toBeNull();
  });
});

describe('names and origins', () => {
  let counter: Counter;
  beforeAll(async () => {
    counter = await Counter.open();
  });
  afterAll(() => counter.close());
  const own = () => new URL(counter.url).host;

  it('refuses a foreign Host, and writes from a foreign Origin', async () => {
    const json = { 'content-type': 'application/json' };
    expect(await raw(`${counter.url}/api/rack`, 'GET', { host: 'evil.example' })).toBe(403);
    expect(await raw(`${counter.url}/api/jobs`, 'POST', { ...json, host: 'evil.example' })).toBe(403);
    expect(
      await raw(`${counter.url}/api/jobs`, 'POST', { ...json, host: own(), origin: 'http://evil.example' }),
    ).toBe(403);
    expect(await raw(`${counter.url}/api/jobs`, 'POST', { ...json, host: own(), origin: 'null' })).toBe(403);
    expect(
      await raw(`${counter.url}/api/jobs`, 'POST', { ...json, host: own(), origin: `http://${own()}` }),
    ).toBe(201);
  });

  it('refuses files, imports and devices from another site’s page', async () => {
    for (const path of [
      '/api/attachments?technicianId=x&name=y',
      '/api/jobs/import',
      '/api/catalogue/tables/cells',
      '/api/devices/caliper',
      '/api/policy',
    ]) {
      const headers = { host: own(), origin: 'http://evil.example', 'content-type': 'text/plain' };
      expect([path, await raw(`${counter.url}${path}`, 'POST', headers)]).toEqual([path, 403]);
    }
  });

  it('sends a content security policy and does not say what it is made with', async () => {
    const response = await fetch(`${counter.url}/api/health`);
    expect(response.headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(response.headers.get('x-powered-by')).toBeNull();
  });
});

describe('with a key', () => {
  const key = 'a-long-enough-secret';
  let counter: Counter;
  beforeAll(async () => {
    counter = await Counter.open({ host: '0.0.0.0', key });
  });
  afterAll(() => counter.close());

  it('answers nothing without it, not even its health', async () => {
    for (const path of ['/api/health', '/api/rack', '/api/news', '/api/jobs/x/record.pdf', '/']) {
      expect([path, (await counter.get(path)).status]).toEqual([path, 401]);
    }
    for (const path of [
      '/api/attachments/00',
      '/api/devices',
      '/api/lists/jobs.csv',
      '/api/catalogue/tables/cells.csv',
      '/api/policy/revisions',
    ])
      expect([path, (await counter.get(path)).status]).toEqual([path, 401]);
    for (const path of [
      '/api/attachments',
      '/api/jobs/import',
      '/api/policy',
      '/api/catalogue/records',
      '/api/catalogue/tables/cells',
      '/api/devices/caliper',
      '/api/devices/camera/ask',
      '/api/lots/count',
      '/api/collections',
    ])
      expect([path, (await counter.post(path, {})).status]).toEqual([path, 401]);
    expect((await counter.post('/api/jobs', newJob('k'))).status).toBe(401);
    expect((await counter.get('/api/rack', { authorization: 'Bearer wrong-secret-given' })).status).toBe(401);
  });

  it('goes by the names it was given, and by no other', async () => {
    const app = createApp({
      store: counter.store,
      host: '0.0.0.0',
      key: null,
      names: ['counter.lan'],
      webDir: null,
    });
    const server = createServer(app);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const statusAs = (name: string) => raw(`http://127.0.0.1:${port}/api/rack`, 'GET', { host: name });
    expect([await statusAs('counter.lan'), await statusAs('elsewhere.lan')]).toEqual([200, 403]);
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  });

  it('shows a page that asks for it, and remembers it in a cookie scripts cannot read', async () => {
    expect((await counter.get<string>('/', { accept: 'text/html' })).body).toContain('Key wanted');
    const wrong = await fetch(`${counter.url}/api/session`, {
      method: 'POST',
      body: new URLSearchParams({ key: 'no' }),
      redirect: 'manual',
    });
    expect(wrong.status).toBe(401);
    const right = await fetch(`${counter.url}/api/session`, {
      method: 'POST',
      body: new URLSearchParams({ key }),
      redirect: 'manual',
    });
    expect(right.status).toBe(303);
    const cookie = right.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
    expect(cookie).not.toContain(key);
    expect((await counter.get('/api/rack', { cookie: cookie.split(';')[0] ?? '' })).status).toBe(200);
    expect((await counter.get('/api/rack', { authorization: `Bearer ${key}` })).status).toBe(200);
  });
});
