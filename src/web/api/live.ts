import { v7 } from 'uuid';
import type { LiveNews } from '../../contract';

/** What comes through the live stream: that it stands again, or that something was written; and how much was told by then. */
export interface LiveSays {
  readonly mark: string;
  readonly news: LiveNews | null;
}

/** A stream that was turned away is asked for again after so long. */
const AGAIN_AFTER_MS = 3000;

/** Keeps one live stream to the server, however often it breaks off. Gives the way to end it. */
export function keepStream(tell: (says: LiveSays) => void): () => void {
  let ended = false;
  let stream: EventSource;
  const connect = (): void => {
    if (ended) return;
    stream = new EventSource('/api/news');
    stream.onmessage = (message: MessageEvent<string>) =>
      tell({ mark: message.lastEventId, news: JSON.parse(message.data) as LiveNews | null });
    stream.onerror = () => {
      // What broke off the browser mends by itself; what was answered with a refusal it gives up.
      if (stream.readyState === EventSource.CLOSED) setTimeout(connect, AGAIN_AFTER_MS);
    };
  };
  connect();
  return () => {
    ended = true;
    stream.close();
  };
}

/** What a window says as it goes; one that is killed says nothing, and its lock comes free. */
export const GONE = 'gone';

/** Holds a lock as long as the window is there, however it goes, where the browser has any: not without encryption. */
function tellWhenGone(port: MessagePort): void {
  const { locks } = navigator as Partial<Pick<Navigator, 'locks'>>;
  const name = `wax-lantern-window-${v7()}`;
  void locks?.request(name, () => {
    port.postMessage(name);
    return new Promise(() => undefined);
  });
}

/**
 * Listens to the server, through one stream for every window of this browser: a browser holds six connections to a
 * server, and the seventh window would never load. Where windows cannot share, each has its own. Gives the way to stop.
 */
export function listen(tell: (says: LiveSays) => void): () => void {
  if (!('SharedWorker' in globalThis)) return keepStream(tell);
  let own: (() => void) | null = null;
  const shared = new SharedWorker(new URL('./live.shared.ts', import.meta.url), {
    type: 'module',
    name: 'wax-lantern-live',
  });
  shared.onerror = () => (own ??= keepStream(tell));
  shared.port.onmessage = (message: MessageEvent<LiveSays>) => tell(message.data);
  const gone = (): void => shared.port.postMessage(GONE);
  window.addEventListener('pagehide', gone);
  tellWhenGone(shared.port);
  return () => {
    window.removeEventListener('pagehide', gone);
    gone();
    shared.port.close();
    own?.();
  };
}
