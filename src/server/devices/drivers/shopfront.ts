import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import type { Driver, DriverSettings } from '../../../contract';
import { simulateDelivery } from '../../../core/craft/devices';
import { addMinutes, localDay } from '../../../core/craft/time';
import { here } from '../../here';
import type { World } from './world';

const PICTURES: Readonly<Record<DriverSettings['camera-stand-in']['shows'], string>> = {
  movement: 'movement.png',
  back: 'back.png',
  'leaked cell': 'leaked-cell.png',
};

export const camera: Driver<'camera-stand-in', World> = {
  async *ask(asked, settings, { attachments }) {
    if (asked.ask !== 'picture') return;
    const picture = readFileSync(here(import.meta.url, 'pictures', PICTURES[settings.shows]));
    const kept = await attachments.keep(Readable.from([picture]), {
      name: `${settings.shows}.png`,
      technicianId: asked.technicianId,
    });
    if (kept.outcome === 'kept') yield { says: 'picture', attachment: kept.attachment };
  },
};

export const labelPrinter: Driver<'label-printer-stand-in', World> = {
  async *ask(asked, _settings, { ticketOf, write }) {
    if (asked.ask !== 'print label') return;
    const ticket = ticketOf(asked.jobId);
    if (ticket === null) {
      yield { says: 'fault', words: 'There is no such job.', whatToDo: 'Open the job and print from there.' };
      return;
    }
    write(`Label ${ticket}`, asked.jobId, asked.technicianId);
    yield await Promise.resolve({ says: 'done', words: `Label ${ticket} printed.` });
  },
};

const MESSAGES = {
  ready: 'your watch is ready to collect',
  'part awaited': 'your watch waits for a part',
  'please ring': 'please ring us about your watch',
  'next visit': 'your watch is due for its next cell: come by before it stops',
} as const;

export const messageOutbox: Driver<'message-outbox-stand-in', World> = {
  async *ask(asked, _settings, { ticketOf, reach, write }) {
    if (asked.ask !== 'tell the owner') return;
    const way = reach(asked.jobId);
    const ticket = ticketOf(asked.jobId);
    if (way === null || ticket === null) {
      yield {
        says: 'fault',
        words: 'The owner left neither phone nor e-mail.',
        whatToDo: 'Tell them when they come by.',
      };
      return;
    }
    // The record names no person: the address is looked up when the message goes.
    const words = `By ${way} to the owner of ${ticket}: ${MESSAGES[asked.what]}`;
    write(words, asked.jobId, asked.technicianId);
    yield await Promise.resolve({ says: 'done', words: `${words}.` });
  },
};

const HOUR_MINUTES = 60;

export const supplier: Driver<'supplier-stand-in', World> = {
  async *ask(asked, { leadHours, wrongPercent, shortPercent }, { nowUtc, table, zone }) {
    if (asked.ask !== 'order') return;
    const now = nowUtc();
    const dueAt = addMinutes(now, leadHours * HOUR_MINUTES);
    // An order always comes to the same delivery, however often it is asked about.
    const seed = Number.parseInt(asked.order.id.replaceAll('-', '').slice(-8), 16);
    yield await Promise.resolve({
      says: 'order taken',
      dueAt,
      noteNumber: `DN-${(seed % 90_000) + 10_000}`,
      lines: simulateDelivery(
        asked.order.lines,
        { wrongShare: wrongPercent / 100, shortShare: shortPercent / 100 },
        table(),
        localDay(dueAt, zone()),
        seed,
      ),
    });
  },
};
