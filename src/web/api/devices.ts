import type { Ask, Attachment, DeviceAsk, DeviceId, DeviceSays, DeviceState } from '../../contract';
import { expectTyped } from './drivers/typed';
import { Refused, sendFile, sendLines } from './http';
import { useResource } from './resource';

export const DEVICES_PATH = '/api/devices';

/** How the bench's devices stand. */
export function useDevices() {
  return useResource<DeviceState[]>(DEVICES_PATH, { kept: false });
}

/** Whether a device is connected, in a way that can be asked this. */
export function useConnected(id: DeviceId, ask: Ask): boolean {
  const { data } = useDevices();
  return data?.some((device) => device.id === id && device.connected && device.does.includes(ask)) ?? false;
}

const AWAY: DeviceSays = {
  says: 'fault',
  words: 'The server is away, so no device can be reached.',
  whatToDo: 'Enter the figure by hand, or wait.',
};

const STOPPED: DeviceSays = {
  says: 'fault',
  words: 'The test was stopped by hand. Nothing was recorded.',
  whatToDo: 'Release the pressure. Run the test again when the watch is ready.',
};
const NEVER = new AbortController().signal;

/** Asks a device through the server, or at this computer where it hangs on that, and hears what it says bit by bit. Whatever goes wrong is said like a fault; gives the last word. */
export async function askDevice(
  id: DeviceId,
  asked: DeviceAsk,
  onSaid: (says: DeviceSays) => void = () => undefined,
  signal: AbortSignal | null = null,
): Promise<DeviceSays> {
  let last: DeviceSays = AWAY;
  const note = (says: DeviceSays): void => {
    last = says;
    if (says.says !== 'at the bench') onSaid(says);
  };
  // A caliper may type before it is known that it does.
  const typed = asked.ask === 'length' ? expectTyped(signal ?? NEVER) : null;
  try {
    await sendLines<DeviceSays>(
      `${DEVICES_PATH}/${id}/ask`,
      new Blob([JSON.stringify(asked)]),
      'application/json',
      note,
      signal,
    );
    if (last.says === 'at the bench') await atThisBench(last, asked, note, signal ?? NEVER);
    if (signal?.aborted) note(STOPPED);
  } catch (error) {
    if (signal?.aborted) note(STOPPED);
    else if (error instanceof Refused)
      note({ says: 'fault', words: error.message, whatToDo: error.problem.whatToDo ?? '' });
    else note(AWAY);
  } finally {
    typed?.();
  }
  return last;
}

/** The device hangs on this computer: what reaches it comes only where it is wanted. */
async function atThisBench(
  { driver, settings }: DeviceSays & { says: 'at the bench' },
  asked: DeviceAsk,
  note: (says: DeviceSays) => void,
  signal: AbortSignal,
): Promise<void> {
  const { askAtBench, theBench } = await import('./drivers/atBench');
  for await (const says of askAtBench(driver, settings, asked, theBench(signal))) note(says);
}

/** A fault as one says it, or null where there is none. */
export function faultWords(says: DeviceSays): string | null {
  return says.says === 'fault' ? `${says.words} ${says.whatToDo}`.trim() : null;
}

/** Sends a file to be kept; gives what it is known by. Throws `Refused` or `ServerAway`. */
export async function keepFile(file: File, technicianId: string): Promise<Attachment> {
  const query = new URLSearchParams({ technicianId, name: file.name || 'picture' });
  return sendFile<Attachment>(`/api/attachments?${query.toString()}`, file);
}
