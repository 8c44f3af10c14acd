import { createReadStream } from 'node:fs';
import { appendFile, mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { DeviceSays, Driver } from '../../../contract';
import { here } from '../../here';
import type { World } from './world';

/** Looked at again after so long, ms: folders on a network tell nobody of their changes. */
const LOOK_MS = 300;
/** A file that stays as it is for so long is written to its end, ms: a tester may pause between its lines. A recording does not. */
const STILL_MS = { tester: 5000, recording: 1200 } as const;
/** Whoever asked is told every so often that it is waited, which also shows whether they are still there. */
const TELL_MS = 2000;
/** Nobody waits for a tester longer than this, ms. */
const GIVE_UP_MS = 4 * 3_600_000;
const MOST_BYTES = 50 * 1024 ** 2;
const RECORDS: readonly string[] = ['.csv', '.txt', '.tsv', '.json'];

/** The records in a folder, each with what shows that it was written on. */
async function recordsIn(folder: string): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  for (const entry of await readdir(folder, { withFileTypes: true })) {
    // No link: it may lead out of the folder.
    if (!entry.isFile() || !RECORDS.includes(extname(entry.name).toLowerCase())) continue;
    const seen = await stat(join(folder, entry.name)).catch(() => null);
    if (seen !== null) found.set(entry.name, `${seen.size} ${seen.mtimeMs}`);
  }
  return found;
}

const fault = (words: string, whatToDo: string): DeviceSays => ({ says: 'fault', words, whatToDo });

/** A file as it is sent, piece by piece. */
async function* sent(folder: string, name: string): AsyncGenerator<DeviceSays> {
  const { size } = await stat(join(folder, name));
  if (size > MOST_BYTES) {
    yield fault(
      `The tester’s file ${name} is larger than 50 MB.`,
      'Set the tester to save each test as a file of its own.',
    );
    return;
  }
  for await (const text of createReadStream(join(folder, name), { encoding: 'utf8' }))
    yield { says: 'record part', text: text as string };
  yield { says: 'record', name };
}

/** Who waits for the next file: the last one who asked, for one test makes one record. */
let asker = 0;

/** Waits for the next file that is written into a folder, and sends it once it is whole. */
async function* nextRecord(folder: string, stillMs: number): AsyncGenerator<DeviceSays> {
  asker += 1;
  const own = asker;
  const before = await recordsIn(folder);
  let [coming, seen] = ['', ''];
  let since = 0;
  const waiting = `Waiting for the tester’s file in ${folder}`;
  yield { says: 'waiting', words: waiting };
  const began = performance.now();
  let saidAt = began;
  while (performance.now() - began < GIVE_UP_MS) {
    await pause(LOOK_MS);
    if (own !== asker) {
      yield fault(
        'Another window or watch is now waiting for the next file of the tester.',
        'When that test is finished, press “Take the record from the tester” here again.',
      );
      return;
    }
    const now = await recordsIn(folder);
    const fresh = [...now].filter(([name, stamp]) => before.get(name) !== stamp);
    const names = fresh.map(([name]) => name);
    if (names.length > 1) {
      yield fault(
        `Several files changed at once: ${names.slice(0, 3).join(', ')}.`,
        'Press “From a file” below and choose the file of this test.',
      );
      return;
    }
    const [name = '', stamp = ''] = fresh[0] ?? [];
    if (name !== coming || stamp !== seen) [coming, seen, since] = [name, stamp, performance.now()];
    if (name !== '' && !stamp.startsWith('0 ') && performance.now() - since >= stillMs) {
      yield* sent(folder, name);
      return;
    }
    if (performance.now() - saidAt >= TELL_MS) {
      saidAt = performance.now();
      yield { says: 'waiting', words: name === '' ? waiting : `${name} is being written` };
    }
  }
  yield fault('The tester wrote no file within four hours.', 'Start the test again.');
}

const RECORDED = 'recorded-test.csv';
const CHUNKS = 20;
/** How long the recorded test took, ms. */
const RECORDED_MS = 165_000;

/** Writes the recorded test into a folder as its tester did, piece by piece. Stops once `isOver`. */
async function playInto(folder: string, speed: number, isOver: () => boolean): Promise<void> {
  const text = await readFile(here(import.meta.url, 'recordings', RECORDED), 'utf8');
  const size = Math.ceil(text.length / CHUNKS);
  await pause(LOOK_MS * 2);
  for (let from = 0; from < text.length && !isOver(); from += size) {
    await appendFile(join(folder, RECORDED), text.slice(from, from + size));
    await pause(RECORDED_MS / CHUNKS / speed);
  }
}

/** A tester that writes a file of each test: the file that comes after it was asked for is this test’s. */
export const testerFolder: Driver<'leak-tester-folder', World> = {
  async *ask(asked, { from, speed }, { testerFolder: folder, seed }) {
    if (asked.ask !== 'trace') return;
    const played = from === 'recording';
    const own = played ? join(folder, `.recording-${process.pid}-${seed}`) : folder;
    let over = false;
    try {
      await mkdir(own, { recursive: true });
      const playing = played ? playInto(own, speed, () => over) : null;
      // Its failure shows as a file that never comes; the folder itself is asked below.
      playing?.catch(() => undefined);
      yield* nextRecord(own, STILL_MS[from]);
    } catch (error) {
      yield fault(
        `The folder ${folder} cannot be read: ${error instanceof Error ? error.message : String(error)}`,
        'Check that the folder exists and that Wax Lantern is allowed to read it.',
      );
    } finally {
      over = true;
      if (played) await rm(own, { recursive: true, force: true });
    }
  },
};
