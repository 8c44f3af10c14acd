import { keepStream, type LiveSays } from './live';

/** One stream to the server for every window of a browser, told on to each of them. */
const windows: MessagePort[] = [];
let isOpen = false;

const tellAll = (says: LiveSays): void => {
  if (says === 'open') isOpen = true;
  for (const port of windows) port.postMessage(says);
};

// A shared worker's own scope, which the types of a page do not know.
(globalThis as unknown as { onconnect: (event: MessageEvent) => void }).onconnect = ({ ports }) => {
  const [port] = ports;
  if (!port) return;
  windows.push(port);
  // Who comes later reads what was written before, like the first.
  if (isOpen) port.postMessage('open' satisfies LiveSays);
};

keepStream(tellAll);
