import type { LiveSays } from './live';

type Connect = (event: { readonly ports: readonly unknown[] }) => void;

/** A window at the other end of a port: what it heard, and the lock it holds. */
class Window {
  readonly heard: LiveSays[] = [];
  isClosed = false;
  onmessage: (message: { readonly data: string }) => void = () => undefined;
  postMessage(says: LiveSays): void {
    this.heard.push(says);
  }
  close(): void {
    this.isClosed = true;
  }
}

const streams: { onmessage: (message: { readonly lastEventId: string; readonly data: string }) => void }[] =
  [];
/** Who waits for the lock of a window. */
const waiting = new Map<string, () => void>();

beforeAll(async () => {
  Object.assign(globalThis, {
    EventSource: class {
      static readonly CLOSED = 2;
      readonly readyState = 1;
      onmessage = (): void => undefined;
      constructor() {
        streams.push(this);
      }
    },
  });
  Object.defineProperty(globalThis, 'navigator', {
    value: { locks: { request: (name: string, granted: () => void) => void waiting.set(name, granted) } },
  });
  await import('./live.shared');
});

it('a window that closed is told nothing more; the others are', () => {
  const connect = (globalThis as unknown as { onconnect: Connect }).onconnect;
  const [first, second] = [new Window(), new Window()];
  connect({ ports: [first] });
  connect({ ports: [second] });
  first.onmessage({ data: 'the lock of the first' });
  second.onmessage({ data: 'the lock of the second' });
  const [stream] = streams;
  stream?.onmessage({ lastEventId: 'run-1', data: 'null' });
  stream?.onmessage({ lastEventId: 'run-2', data: '{"jobId":null,"what":"shop"}' });
  expect(first.heard).toEqual([
    { mark: 'run-1', news: null },
    { mark: 'run-2', news: { jobId: null, what: 'shop' } },
  ]);
  // The browser gives a lock on once the window that held it is gone.
  waiting.get('the lock of the first')?.();
  stream?.onmessage({ lastEventId: 'run-3', data: '{"jobId":"j","what":"job"}' });
  expect(first.heard).toHaveLength(2);
  expect(first.isClosed).toBe(true);
  expect(second.heard).toHaveLength(3);
  // Without encryption a browser has no locks: a window says that it goes.
  second.onmessage({ data: 'gone' });
  stream?.onmessage({ lastEventId: 'run-4', data: '{"jobId":"k","what":"job"}' });
  expect(second.heard).toHaveLength(3);
  const late = new Window();
  connect({ ports: [late] });
  // Who comes later is told as of when the stream stands.
  expect(late.heard).toEqual([{ mark: 'run-4', news: null }]);
});
