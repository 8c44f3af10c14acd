import type { Attachment, DeviceAsk, DeviceId, DeviceSays, DeviceState } from '../../contract';
import { Refused, sendFile, sendLines } from './http';
import { useResource } from './resource';

export const DEVICES_PATH = '/api/devices';

/** How the bench's devices stand. */
export function useDevices() {
  return useResource<DeviceState[]>(DEVICES_PATH, { kept: false });
}

/** Whether a device is there to be asked. */
export function useConnected(id: DeviceId): boolean {
  const { data } = useDevices();
  return data?.some((device) => device.id === id && device.connected) ?? false;
}

const AWAY: DeviceSays = {
  says: 'fault',
  words: 'The server is away, and the devices with it.',
  whatToDo: 'Type the figure, or wait.',
};

const STOPPED: DeviceSays = {
  says: 'fault',
  words: 'Stopped by hand: nothing of it was kept.',
  whatToDo: 'Let the pressure off, and run it again when the watch is ready.',
};

/** Asks a device and hears what it says bit by bit. Whatever goes wrong is said like a fault; gives the last word. */
export async function askDevice(
  id: DeviceId,
  asked: DeviceAsk,
  onSaid: (says: DeviceSays) => void = () => undefined,
  signal: AbortSignal | null = null,
): Promise<DeviceSays> {
  let last: DeviceSays = AWAY;
  const note = (says: DeviceSays): void => {
    last = says;
    onSaid(says);
  };
  try {
    await sendLines<DeviceSays>(
      `${DEVICES_PATH}/${id}/ask`,
      new Blob([JSON.stringify(asked)]),
      'application/json',
      note,
      signal,
    );
  } catch (error) {
    if (signal?.aborted) note(STOPPED);
    else if (error instanceof Refused)
      note({ says: 'fault', words: error.message, whatToDo: error.problem.whatToDo ?? '' });
    else note(AWAY);
  }
  return last;
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
