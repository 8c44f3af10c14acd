import { type JobFile, kindDefinition } from '../../contract';
import { inflateSync } from 'node:zlib';
import { Counter, delivery } from '../../testing/counter';
import { idOf, movementOf, readingOf } from '../../testing/fixtures';
import { dossierOf, type Dossier } from './dossier';
import { jobFile } from './jobFile';
import { labelCodeSvg, labelPdf } from './labelPdf';
import { nextVisitCalendar } from './nextVisitCalendar';
import { receiptPdf } from './receiptPdf';
import { recordPdf } from './recordPdf';

let counter: Counter;
let job: string;
beforeAll(async () => {
  counter = await Counter.open();
  await counter.post('/api/lots', delivery);
  job = await counter.takeInMeasured();
  await counter.record(job, 'm', 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
  await counter.record(job, 'i', 'check.reading', readingOf('currentUA', 0.9));
  await counter.record(job, 'found', 'cell.found', { marking: '364', condition: 'crust' });
});
afterAll(() => counter.close());

const dossier = (): Dossier => dossierOf(counter.store, job);
const pages = (pdf: Buffer): number => pdf.toString('latin1').match(/\/Type \/Page\b/g)?.length ?? 0;

/** How many glyphs the pages draw: the text is set in embedded fonts, so its amount is what can be read off. */
function glyphs(pdf: Buffer): number {
  const text = pdf.toString('latin1');
  let count = 0;
  for (const match of text.matchAll(/stream\r?\n/g)) {
    const start = (match.index ?? 0) + match[0].length;
    try {
      const drawn = inflateSync(pdf.subarray(start, text.indexOf('endstream', start))).toString('latin1');
      for (const run of drawn.matchAll(/<([0-9a-f]+)>/g)) count += (run[1]?.length ?? 0) / 4;
    } catch {
      // Pictures and fonts are other streams.
    }
  }
  return count;
}

describe('the label', () => {
  it('is one small page, whatever the names', async () => {
    const given = dossier();
    const long = {
      ...given,
      resource: {
        ...given.resource,
        customer: { id: idOf('c'), name: 'A'.repeat(80), phone: '', email: '' },
      },
    };
    for (const each of [given, long]) {
      const pdf = await labelPdf(each);
      expect(pages(pdf)).toBe(1);
      expect(pdf.toString('latin1')).toMatch(/\/MediaBox \[0 0 252\.\d+ 102\.\d+\]/);
    }
  });

  it('draws the ticket as bars and as QR', async () => {
    const [bars, qr] = [await labelCodeSvg('T0042-3', 'bars'), await labelCodeSvg('T0042-3', 'qr')];
    expect(bars).toContain('<svg');
    expect(qr).toContain('<svg');
    expect(bars).not.toBe(await labelCodeSvg('T0043-1', 'bars'));
    expect(qr).not.toBe(await labelCodeSvg('T0043-1', 'qr'));
  });
});

describe('the record', () => {
  it('fits one page for an ordinary job, and runs on for a long one without losing a line', async () => {
    const given = dossier();
    const short = await recordPdf(given);
    expect(pages(short)).toBe(1);
    const statement = {
      ...given.statement,
      notDone: Array.from(
        { length: 60 },
        (_, index) => `Thing number ${index} was not done for want of time.`,
      ),
    };
    const long = await recordPdf({ ...given, statement });
    expect(pages(long)).toBeGreaterThan(1);
    expect(glyphs(long)).toBeGreaterThan(glyphs(short) + 60 * 40);
  });

  it('says that it is a draft until it is signed', async () => {
    const given = dossier();
    const signed = {
      ...given,
      signedBy: { initials: 'TQ', name: 'Tess Quarrymoor', atUtc: '2026-03-17T12:00:00.000Z', where: null },
    };
    expect((await recordPdf(given)).equals(await recordPdf(signed))).toBe(false);
  });
});

describe('the receipt of a visit', () => {
  it('is one small page for a watch or two, and runs on for a boxful without losing one', async () => {
    const given = dossier();
    const one = await receiptPdf([given]);
    const two = await receiptPdf([given, given]);
    const twelve = await receiptPdf(Array.from({ length: 12 }, () => given));
    expect([pages(one), pages(two)]).toEqual([1, 1]);
    expect(pages(twelve)).toBeGreaterThan(1);
    const each = glyphs(two) - glyphs(one);
    expect(each).toBeGreaterThan(40);
    expect(glyphs(twelve)).toBeGreaterThan(glyphs(one) + 9 * each * 0.5);
  });

  it('is never drawn for nothing', async () => {
    await expect(receiptPdf([])).rejects.toThrow(RangeError);
  });
});

describe('calendar and job file', () => {
  it('offers no next visit before a cell is fitted, and one whole day after', async () => {
    expect(nextVisitCalendar(dossier())).toBeNull();
    const fitted = {
      cellCode: 'SR621SW',
      lotId: delivery.id,
      supplier: delivery.supplier,
      lotCode: delivery.lotCode,
      alkalineAgreed: false,
      ownersOwn: false,
    };
    await counter.record(job, 'fit', 'cell.fitted', fitted);
    const given = dossier();
    const calendar = nextVisitCalendar(given) ?? '';
    expect(calendar).toContain(`DTSTART;VALUE=DATE:${given.statement.nextVisitOn?.replaceAll('-', '')}`);
    expect(calendar).toContain('New cell for Orrelin C2140-3');
    expect(calendar).toContain(`UID:next-visit-${job}`);
    // The owner is reminded a month before it.
    expect(calendar).toMatch(/TRIGGER:-P(28|29|30|31)D/);
  });

  it('carries every entry, and the book records they name', async () => {
    const pieces: string[] = [];
    for await (const piece of jobFile(counter.store, dossier())) pieces.push(piece);
    const file = JSON.parse(pieces.join('')) as JobFile;
    expect(file).toMatchObject({
      format: 'wax-lantern-job',
      formatVersion: 2,
      book: { calibre: { id: 'orrelin-41-2' }, maker: { name: 'Orrelin' } },
    });
    expect(file.entries).toEqual(
      counter.store.logbook
        .job(job)
        ?.entries.map((entry) => ({ ...entry, payloadVersion: kindDefinition(entry.kind).version })),
    );
    expect(file.attachments).toEqual([]);
  });

  it('names leaks and readings in what was found', () => {
    expect(dossier().statement.found).toEqual(
      expect.arrayContaining(['Old cell 364, crust.', 'The movement draws 0.9 µA.']),
    );
  });
});
