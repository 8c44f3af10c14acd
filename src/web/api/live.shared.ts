import { GONE, keepStream, type LiveSays } from './live';

/** One stream to the server for every window of a browser, told on to each of them. */
const windows = new Set<MessagePort>();
let stands: string | null = null;

const tellAll = (says: LiveSays): void => {
  stands = says.mark;
  for (const port of windows) port.postMessage(says);
};

// A shared worker's own scope, which the types of a page do not know.
(globalThis as unknown as { onconnect: (event: Pick<MessageEvent, 'ports'>) => void }).onconnect = ({
  ports,
}) => {
  const [port] = ports;
  if (!port) return;
  windows.add(port);
  const drop = (): void => {
    windows.delete(port);
    port.close();
  };
  // The lock a window holds as long as it is there: once it comes here, the window is gone.
  port.onmessage = ({ data }: MessageEvent<string>) =>
    data === GONE ? drop() : void navigator.locks.request(data, drop);
  // Who comes later reads what was written before, like the first.
  if (stands !== null) port.postMessage({ mark: stands, news: null } satisfies LiveSays);
};

keepStream(tellAll);
