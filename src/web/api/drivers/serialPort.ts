import { type Line, NoLine } from './line';

interface PortInfo {
  readonly usbVendorId?: number;
  readonly usbProductId?: number;
}

/** The browser’s own serial interface, as far as it is needed here. */
interface SerialPort {
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
  getInfo(): PortInfo;
  open(options: { readonly baudRate: number }): Promise<void>;
  close(): Promise<void>;
}
interface Serial {
  getPorts(): Promise<readonly SerialPort[]>;
  requestPort(): Promise<SerialPort>;
}

/** The ports that this browser lets the program use; null where it knows no serial lines. */
function serial(): Serial | null {
  return (navigator as Navigator & { readonly serial?: Serial }).serial ?? null;
}

const CANNOT = 'This browser cannot connect to devices on a serial port.';
const USE_ANOTHER = 'Open this page in Chromium, on the computer that runs the server or over HTTPS.';
/** Which port belongs to which driver is known by the computer it is plugged into. */
const keyOf = (driver: string): string => `wax.port.${driver}`;
const infoWords = ({ usbVendorId = 0, usbProductId = 0 }: PortInfo): string =>
  `${usbVendorId}:${usbProductId}`;

/** Lets the technician choose the port of a driver. Null when it is chosen; otherwise why not, in words. */
export async function choosePort(driver: string): Promise<string | null> {
  const ports = serial();
  if (ports === null) return `${CANNOT} ${USE_ANOTHER}`;
  try {
    const port = await ports.requestPort();
    localStorage.setItem(keyOf(driver), infoWords(port.getInfo()));
    return null;
  } catch {
    return 'No port was selected.';
  }
}

async function portOf(driver: string): Promise<SerialPort> {
  const ports = serial();
  if (ports === null) throw new NoLine(CANNOT, USE_ANOTHER);
  const wanted = localStorage.getItem(keyOf(driver));
  const all = await ports.getPorts();
  const port = all.find((each) => infoWords(each.getInfo()) === wanted);
  if (wanted === null || port === undefined)
    throw new NoLine(
      wanted === null
        ? 'No serial port is selected on this computer.'
        : 'The serial port selected for this device was not found.',
      wanted === null
        ? 'Open the devices page and choose the port of this device.'
        : 'Plug the device in and turn it on. If that does not help, choose its port again on the devices page.',
    );
  return port;
}

/** Opens the port that was chosen for a driver. Throws `NoLine` where that is not possible. */
export async function openPort(driver: string, baud: number, signal: AbortSignal): Promise<Line> {
  const port = await portOf(driver);
  try {
    await port.open({ baudRate: baud });
  } catch {
    throw new NoLine(
      'The serial port could not be opened. Another window or program may be using it.',
      'Close that window or program, then try again.',
    );
  }
  return {
    async *bytes() {
      const reader = port.readable?.getReader();
      if (reader === undefined) return;
      const stop = (): void => void reader.cancel().catch(() => undefined);
      signal.addEventListener('abort', stop, { once: true });
      if (signal.aborted) stop();
      try {
        for (;;) {
          const { done, value } = await reader.read();
          if (done) return;
          yield value;
        }
      } finally {
        signal.removeEventListener('abort', stop);
        await reader.cancel().catch(() => undefined);
        reader.releaseLock();
      }
    },
    async write(text) {
      const writer = port.writable?.getWriter();
      await writer?.write(new TextEncoder().encode(text));
      writer?.releaseLock();
    },
    close: () => port.close().catch(() => undefined),
  };
}
