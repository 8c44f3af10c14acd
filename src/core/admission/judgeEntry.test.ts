import { admit, signatureOf } from '../../testing/admitted';
import { takenIn } from '../../testing/fixtures';
import type { Logbook } from '../../testing/fixtures';
import { context, idOf, lot, readingOf, readyJob } from '../../testing/fixtures';
import { type Entry, foldJob } from '../logbook';
import { judgeEntry } from './judgeEntry';
const voltage = (value: number) => readingOf('restVoltageV', value);

const admitted = (job: Logbook, entry: Entry, lots = [lot]) =>
  judgeEntry(
    entry,
    foldJob(
      job.entries.filter((each) => each.id !== entry.id),
      context,
    ),
    job.entries.filter((each) => each.id !== entry.id),
    () => lots,
    context,
  );

describe('what is admitted', () => {
  it('records any cell as found, and refuses to fit one that must never go in', () => {
    const job = readyJob();
    expect(admitted(job, job.add('cell.found', { marking: 'LR621', condition: 'crust' })).verdict).toBe(
      'admitted',
    );
    for (const cellCode of ['SR626SW', 'CR2016', 'LR621', 'MR44', 'ML621', 'XY77']) {
      const refusal = admitted(
        job,
        job.add('cell.fitted', {
          cellCode,
          lotId: null,
          supplier: '',
          lotCode: '',
          alkalineAgreed: false,
          ownersOwn: false,
        }),
      );
      expect(refusal.verdict).toBe('refused');
    }
    expect(
      admitted(
        job,
        job.add('cell.fitted', {
          cellCode: 'LR621',
          lotId: null,
          supplier: '',
          lotCode: '',
          alkalineAgreed: true,
          ownersOwn: true,
        }),
      ).verdict,
    ).toBe('admitted');
  });

  it.each([
    ['past its date', { bestBefore: '2026-03-01' }, 'Lot S-1 is past its best-before date (1 Mar 2026).'],
    ['of another cell', { code: 'SR626SW' }, 'holds SR626SW'],
    ['unknown', { id: idOf('elsewhere') }, 'This lot is not in the stock.'],
  ])('refuses a lot that is %s', (_, change, words) => {
    const job = readyJob();
    const entry = job.add('cell.fitted', {
      cellCode: 'SR621SW',
      lotId: lot.id,
      supplier: '',
      lotCode: 'S-1',
      alkalineAgreed: false,
      ownersOwn: false,
    });
    const refusal = admitted(job, entry, [{ ...lot, ...change }]);
    expect(refusal).toMatchObject({ verdict: 'refused', reasons: [expect.stringContaining(words)] });
  });

  it('keeps a fitting from an empty lot: it was done', () => {
    const job = readyJob();
    const entry = job.add('cell.fitted', {
      cellCode: 'SR621SW',
      lotId: lot.id,
      supplier: '',
      lotCode: 'S-1',
      alkalineAgreed: false,
      ownersOwn: false,
    });
    expect(admitted(job, entry, [{ ...lot, balance: 0 }]).verdict).toBe('admitted');
  });

  it('refuses a place the movement has not', () => {
    const job = readyJob();
    const entry = job.add(
      'cell.fitted',
      {
        cellCode: 'SR621SW',
        lotId: null,
        supplier: '',
        lotCode: '',
        alkalineAgreed: false,
        ownersOwn: false,
      },
      { well: 'display' },
    );
    expect(admitted(job, entry)).toMatchObject({ verdict: 'refused' });
  });

  it('refuses corrections of what is not there, of another kind, or of a signature', () => {
    const job = readyJob();
    expect(
      admitted(job, job.add('check.reading', voltage(1.2), { supersedes: [idOf('nowhere')] })).verdict,
    ).toBe('refused');
    const found = job.entries.find((entry) => entry.kind === 'cell.found') as Entry;
    expect(admitted(job, job.add('check.reading', voltage(1.2), { supersedes: [found.id] })).verdict).toBe(
      'refused',
    );
    expect(admitted(job, job.add('logbook.withdrawn', { reason: 'x' })).verdict).toBe('refused');
  });
});

describe('signing', () => {
  it('signs a ready job, and a later fact reopens it without touching the statement', () => {
    const job = readyJob();
    const signature = signatureOf(job);
    const signed = job.add('handback.signed', signature);
    expect(admitted(job, signed).verdict).toBe('admitted');
    expect(job.state().signature.state).toBe('signed');
    expect(job.state().current).toBeNull();
    job.add('handback.collected', { by: 'the owner', paidMinor: 1400 });
    expect(job.state().signature.state).toBe('signed');
    job.add('check.reading', readingOf('currentUA', 1.3));
    const { signature: after } = job.state();
    expect(after).toMatchObject({
      state: 'reopened',
      entry: { payload: { statement: signature.statement } },
    });
    expect(job.state().current).toBe('handback');
  });

  it.each([
    [
      'a fact is missing',
      (job: Logbook) =>
        job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: job.entries.at(-1)?.id ?? null }),
      'Set and prove',
    ],
    [
      'a part lies on the tray',
      (job: Logbook) =>
        job.add('open.part', { part: 'spring bar', position: '12', count: 1, serves: [], step: '' }),
      'on the tray',
    ],
  ])('refuses while %s', (_, change, words) => {
    const job = readyJob();
    change(job);
    const refusal = admitted(job, job.add('handback.signed', signatureOf(job)));
    expect(refusal).toMatchObject({ verdict: 'refused' });
    if (refusal.verdict === 'refused') expect(refusal.reasons.join(' ')).toContain(words);
  });

  it('refuses a signature that rests on an older state, on other revisions, or on other words', () => {
    const job = readyJob();
    const good = signatureOf(job);
    const refused = (change: Partial<typeof good>) =>
      admitted(job, job.add('handback.signed', { ...good, ...change }));
    expect(refused({ restsOnSequence: 3 })).toMatchObject({ reasons: [expect.stringContaining('changed')] });
    expect(
      admitted(readyJob(), readyJob().add('handback.signed', { ...good, catalogueRevision: 1 })),
    ).toMatchObject({
      reasons: [expect.stringContaining('The book or the policy has changed since the record was made.')],
    });
    const statement = { ...good.statement, water: 'Good to 100 metres.' };
    expect(admitted(readyJob(), readyJob().add('handback.signed', { ...good, statement }))).toMatchObject({
      reasons: [expect.stringContaining('The signed text does not match the entries.')],
    });
  });

  it('lets only one of two signatures in, and hands nothing over unsigned', () => {
    const job = readyJob();
    expect(admitted(job, job.add('handback.collected', { by: 'x', paidMinor: 0 })).verdict).toBe('refused');
    const signed = readyJob();
    signed.add('handback.signed', signatureOf(signed));
    expect(admitted(signed, signed.add('handback.signed', signatureOf(readyJob())))).toMatchObject({
      reasons: [expect.stringContaining('signed already')],
    });
  });
});

describe('parts that are not available', () => {
  it('cannot arrive before they were asked for', () => {
    const job = takenIn('cell only');
    expect(admit(job, () => job.add('arrive.parts-arrived', { note: '' }))).toMatchObject({
      verdict: 'refused',
    });
  });
});
