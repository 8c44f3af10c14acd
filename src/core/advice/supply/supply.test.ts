import fc from 'fast-check';
import { admit } from '../../../testing/admitted';
import { book, type Logbook, takenIn } from '../../../testing/fixtures';
import { SERVICES } from '../../craft/policy';
import { primaryBarred } from '../cell';
import { supplyOf } from './supply';

/** Everything that says a watch is charged, as it may be recorded. */
const SAYS_CHARGED: Readonly<Record<string, (job: Logbook) => unknown>> = {
  cell: (job) => job.add('cell.found', { marking: 'MT621', condition: 'clean' }),
  word: (job) => job.add('cell.found', { marking: 'RECHARGEABLE 1620', condition: 'crust' }),
  print: (job) => job.add('open.print', { text: 'USE CTL1616 ONLY' }),
  engraving: (job) => job.add('identify.engraving', { text: 'SOLAR 4471' }),
  outside: (job) =>
    job.add('arrive.watch', {
      maker: '',
      reference: 'X1',
      serial: '',
      engraved: 'light powered',
      ratingBar: null,
      crownClock: 3,
    }),
  complaint: (job) => job.add('arrive.complaint', { picked: ['does not hold its charge'], words: '' }),
  words: (job) => job.add('arrive.complaint', { picked: [], words: 'it is rechargeable, he says' }),
  charge: (job) => job.add('cell.charged', { by: 'light', hours: 8, outcome: 'steps normally' }),
};
/** Everything that says it runs from a primary cell. */
const SAYS_PRIMARY: Readonly<Record<string, (job: Logbook) => unknown>> = {
  cell: (job) => job.add('cell.found', { marking: 'SR626SW', condition: 'clean' }),
  print: (job) => job.add('open.print', { text: 'BATTERY SR626SW' }),
  forbids: (job) => job.add('open.print', { text: 'DO NOT RECHARGE' }),
};
const primary = (job: Logbook) =>
  admit(job, () =>
    job.add('cell.fitted', {
      cellCode: 'SR626SW',
      lotId: null,
      supplier: '',
      lotCode: '',
      alkalineAgreed: false,
      ownersOwn: true,
    }),
  );
const kit = (job: Logbook) =>
  admit(job, () =>
    job.add('cell.accumulator', {
      kitCode: 'KT-1',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: 'it swelled',
    }),
  );
const name = (job: Logbook, runsFrom: 'primary' | 'rechargeable') =>
  job.add('identify.supply', { runsFrom, reason: 'seen under the dial' });

const movements = [null, ...book.calibres.map(({ id }) => id)];
const someOf = (of: Readonly<Record<string, unknown>>, least: number) =>
  fc.subarray(Object.keys(of), { minLength: least });
const after = (job: Logbook, from: typeof SAYS_CHARGED, keys: readonly string[]): Logbook => {
  for (const key of keys) from[key]?.(job);
  return job;
};

describe('what a watch runs from', () => {
  it('bars every primary cell once anything says it is charged, whatever movement, service and order', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...movements),
        fc.constantFrom(...SERVICES),
        someOf(SAYS_PRIMARY, 0),
        fc.constantFrom(...Object.keys(SAYS_CHARGED)),
        fc.boolean(),
        (calibre, service, primaries, charged, first) => {
          const job = takenIn(service, calibre);
          // Named before it was seen: that overrules nothing.
          if (first) name(job, 'primary');
          // A later cell found or complaint replaces an earlier one, so what says it is charged comes last.
          after(job, SAYS_PRIMARY, primaries);
          after(job, SAYS_CHARGED, [charged]);
          return primary(job).verdict === 'refused' && primaryBarred(job.state(), book) !== null;
        },
      ),
      { numRuns: 60 },
    );
  });

  it('lets a primary in once somebody names it after that, unless the book charges the movement', () => {
    for (const says of Object.keys(SAYS_CHARGED)) {
      const job = after(takenIn('cell only', null), SAYS_CHARGED, [says]);
      job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.8 });
      name(job, 'primary');
      expect([says, primary(job).verdict]).toEqual([says, 'admitted']);
      // Seen once more, it speaks once more.
      after(job, SAYS_CHARGED, [says]);
      expect([says, primary(job).verdict]).toEqual([says, 'refused']);
      const light = after(takenIn('cell only', 'vessarin-210s'), SAYS_CHARGED, [says]);
      name(light, 'primary');
      expect([says, primary(light).verdict]).toEqual([says, 'refused']);
    }
  });

  it('bars an accumulator once anything says it runs from a primary cell, until it is named', () => {
    for (const says of Object.keys(SAYS_PRIMARY)) {
      const job = after(takenIn('cell only', null), SAYS_PRIMARY, [says]);
      expect([says, kit(job).verdict]).toEqual([says, 'refused']);
      name(job, 'rechargeable');
      expect([says, kit(job).verdict, primary(job).verdict]).toEqual([says, 'admitted', 'refused']);
    }
  });

  it('goes by the book’s kit where a primary cell was found in its place', () => {
    const job = takenIn('cell only', 'vessarin-210s');
    SAYS_PRIMARY['cell']?.(job);
    expect(supplyOf(job.state(), book).verdict).toBe('rechargeable');
  });

  it('bars both while they contradict each other, and says which says what', () => {
    const job = takenIn('cell only', null);
    SAYS_PRIMARY['cell']?.(job);
    SAYS_CHARGED['print']?.(job);
    const supply = supplyOf(job.state(), book);
    expect(supply).toMatchObject({
      verdict: 'contradicted',
      reasons: ['the print inside says “CTL1616”', 'the cell found is SR626SW'],
    });
    expect([primary(job).verdict, kit(job).verdict]).toEqual(['refused', 'refused']);
  });

  it('never lets an accumulator and a primary cell into one watch', () => {
    const job = takenIn('cell only', null);
    job.add('cell.accumulator', {
      kitCode: 'KT-1',
      lotId: null,
      supplier: '',
      lotCode: '',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: 'it swelled',
    });
    name(job, 'primary');
    job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.8 });
    expect(primary(job)).toMatchObject({
      verdict: 'refused',
      reasons: ['The kit KT-1 is recorded as fitted.'],
    });
  });
});

describe('the same cell put back', () => {
  const back = (job: Logbook) => admit(job, () => job.add('cell.put-back', { reason: 'reseal only' }));
  it.each([
    ['a clean one of the right kind', '364', 'clean', 'admitted'],
    ['one that leaked', '364', 'bloom', 'refused'],
    ['one of another size', 'SR936SW', 'clean', 'refused'],
    ['an accumulator in its own watch', 'MT621', 'clean', 'admitted'],
  ] as const)('%s', (_, marking, condition, verdict) => {
    const job = takenIn('reseal and test', marking === 'MT621' ? null : 'orrelin-41-2');
    job.add('cell.found', { marking, condition });
    expect(back(job).verdict).toBe(verdict);
  });
  it('not a primary cell where the watch is charged', () => {
    const job = takenIn('reseal and test', 'vessarin-210s');
    job.add('cell.found', { marking: '364', condition: 'clean' });
    expect(back(job).verdict).toBe('refused');
  });
});
