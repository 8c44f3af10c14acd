/** Who waits for what a device types, one at a time: `give` once they listen, `kept` what came before that. */
interface Waiting {
  give: ((text: string) => void) | null;
  kept: string | null;
}
let waiting: Waiting | null = null;

/**
 * From now on what a device types is for whoever asked, until `signal` says that nobody waits any more: also before the way
 * to the device is known, since a hand is quick. Gives the way to end it.
 */
export function expectTyped(signal: AbortSignal): () => void {
  const own: Waiting = { give: null, kept: null };
  const end = (): void => {
    signal.removeEventListener('abort', end);
    if (waiting === own) waiting = null;
  };
  if (signal.aborted) return end;
  waiting = own;
  signal.addEventListener('abort', end, { once: true });
  return end;
}

/** Gives what a device typed to whoever waits for it; false where nobody does. */
export function giveTyped(text: string): boolean {
  if (waiting === null || waiting.kept !== null) return false;
  if (waiting.give === null) waiting.kept = text;
  else waiting.give(text);
  return true;
}

/** The next text that a device types; null once `signal` says that nobody waits any more. */
export function nextTyped(signal: AbortSignal): Promise<string | null> {
  return new Promise((resolve) => {
    const own = waiting ?? { give: null, kept: null };
    waiting = own;
    const give = (text: string | null): void => {
      if (waiting === own) waiting = null;
      signal.removeEventListener('abort', none);
      resolve(text);
    };
    const none = (): void => give(null);
    if (own.kept !== null || signal.aborted) {
      give(signal.aborted ? null : own.kept);
      return;
    }
    signal.addEventListener('abort', none, { once: true });
    own.give = give;
  });
}
