import { samples } from '../../testing/samples';
import { admit, signatureOf } from '../../testing/admitted';
import {
  context,
  dryTest,
  dryTestAt,
  idOf,
  type Logbook,
  lot,
  readyJob,
  readingOf,
  takenIn,
  wetTest,
} from '../../testing/fixtures';
import type { Lot } from '../craft/stock';
import { judgeEntry } from './judgeEntry';
import { LEFT_BY, type Payloads } from '../logbook';

const kitLot: Lot = { ...lot, id: idOf('kits'), item: 'kit', code: 'KT-V21', lotCode: 'K-7' };
const ringLot: Lot = { ...lot, id: idOf('rings'), item: 'gasket', code: '30.5 × 0.70', lotCode: 'R-2' };

const fitting = (change: Partial<Payloads['cell.fitted']> = {}): Payloads['cell.fitted'] => ({
  cellCode: 'SR621SW',
  lotId: null,
  supplier: '',
  lotCode: '',
  alkalineAgreed: false,
  ownersOwn: (change.lotId ?? null) === null,
  ...change,
});
const kit = (change: Partial<Payloads['cell.accumulator']> = {}): Payloads['cell.accumulator'] => ({
  kitCode: 'KT-V21',
  lotId: null,
  supplier: '',
  lotCode: '',
  way: 'kit with tabs',
  tabContactOhm: null,
  unchargedBecause: 'it swelled',
  ...change,
});
const back: Payloads['open.back'] = {
  kind: 'screwed, notched',
  openedWith: 'bench wrench',
  protection: 'film',
  went: 'freely',
  spotClock: null,
  lipClock: null,
  seenFrom: 'behind',
  toolIds: ['bench-wrench'],
  separationMm: 24,
  rearMm: 20,
};
const gasket: Payloads['seal.gasket'] = {
  state: 'renewed',
  findings: [],
  ageYears: 2,
  meetsWater: false,
  greased: true,
  greasedBy: 'not noted',
  profile: 'round',
  size: '',
  lotId: null,
  reason: 'sound',
};
/** A light-charged movement on the tray. */
const light = () => takenIn('recharge or new accumulator', 'vessarin-210s');
/** A movement nobody knows, so that nothing is known of its place either. */
const nobodys = () => takenIn('cell only', null);
/** The same with a cell found. */
const found = (marking: string): Logbook => {
  const job = nobodys();
  job.add('cell.found', { marking, condition: 'clean' });
  return job;
};
/** The same with its well measured: what lies in it is 9.5 × 3.6 mm. */
const measured = (): Logbook => {
  const job = nobodys();
  job.add('cell.well-measured', { diameterMm: 9.7, depthMm: 3.8 });
  return job;
};
const twoPlaces: Payloads['cell.places'] = { first: 'hands', second: 'display' };
/** The same with two places seen, and a cell found in the second. */
const atSecond = (): Logbook => {
  const job = nobodys();
  job.add('cell.places', twoPlaces);
  job.add('cell.found', { marking: 'CR1216', condition: 'clean' }, { well: 'display' });
  return job;
};
const withSigned = (job: Logbook): Logbook => {
  job.add('handback.signed', signatureOf(job));
  return job;
};

type Case = readonly [
  name: string,
  job: () => Logbook,
  add: (job: Logbook) => void,
  reason: string | readonly string[],
  whatToDo: string,
  lots?: readonly Lot[],
];

const fit = (change?: Partial<Payloads['cell.fitted']>, well?: string) => (job: Logbook) =>
  void job.add('cell.fitted', fitting(change), well === undefined ? {} : { well });
const asFound = 'If this cell was in the watch already, record it as found.';

const REFUSED: readonly Case[] = [
  [
    'a primary cell where an accumulator is charged',
    light,
    fit(),
    'V-210S charges its accumulator. A primary cell in its place would be charged too, and leak or burst.',
    'Fit the kit KT-V21. If a primary cell was in the watch, record it as found.',
  ],
  [
    'a place the movement has not',
    () => takenIn('cell only', 'quillbeck-22-4'),
    fit({}, 'third'),
    'This movement has no place for a cell called “third”.',
    'Its places: hands, display.',
  ],
  [
    'what is no cell of the table',
    () => takenIn('cell only'),
    fit({ cellCode: 'XY77' }),
    '“XY77” is not a primary cell in the table; this place takes SR621SW.',
    `Fit SR621SW or an equal. ${asFound}`,
  ],
  [
    'mercury where nothing is known of the place',
    nobodys,
    fit({ cellCode: 'MR44' }),
    'MR44 is never fitted to a watch.',
    'Take a silver oxide or lithium cell of the right size.',
  ],
  [
    'zinc-air where nothing is known of the place',
    nobodys,
    fit({ cellCode: 'PR44' }),
    'PR44 is never fitted to a watch.',
    'Take a silver oxide or lithium cell of the right size.',
  ],
  [
    'any cell where nothing tells what belongs there',
    nobodys,
    fit(),
    'It is not known which cell belongs here. No cell was read and the well is not measured.',
    'Measure the diameter and depth of the well, or read the cell found.',
  ],
  [
    'what no table knows, where the book knows nothing',
    () => found('364'),
    fit({ cellCode: 'XY77' }),
    '“XY77” is not a primary cell in the table; this place takes SR621SW.',
    `Fit SR621SW or an equal. ${asFound}`,
  ],
  [
    'a cell of another voltage than was found',
    () => found('CR2016'),
    fit({ cellCode: 'SR621SW' }),
    [
      '1.55 V instead of 3 V. Never fit it, even if the size is equal.',
      'Diameter 6.8 mm instead of 20 mm. It does not fit the well.',
      '0.55 mm too thick. It strains the contacts and the back.',
    ],
    `Fit CR2016 or an equal. ${asFound} If the cell found was the wrong one, measure the well or record the print inside. It counts more than the cell found.`,
  ],
  [
    'a cell that does not lie in the well measured',
    measured,
    fit(),
    'SR621SW is 6.8 × 2.15 mm; the well is 9.7 mm across and 3.8 mm deep.',
    'Take a cell that fits, or measure the well again without the insulator.',
  ],
  [
    'an alkaline cell where nothing but the well is known',
    () => {
      const job = nobodys();
      job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.3 });
      return job;
    },
    fit({ cellCode: 'LR621' }),
    'The owner has not agreed to an alkaline cell. Its voltage falls steadily, its life is shorter, and it is more likely to leak.',
    'Take silver oxide, or ask the owner for agreement.',
  ],
  [
    'a primary cell where a rechargeable one was found, whatever the service',
    () => found('MT621'),
    fit(),
    'This watch is charged: the cell found is “MT621”. A primary cell under charge leaks or bursts.',
    'Renew the accumulator by its kit. If it does run on a primary cell, record that with the reason under “Power source”.',
  ],
  [
    'a primary cell where what was found may be rechargeable',
    () => found('?2016'),
    fit({ cellCode: 'CR2016' }),
    'This watch may be charged: the cell found reads only “?2016”, and it may be rechargeable. A primary cell under charge leaks or bursts.',
    'Read the old cell in full and measure its voltage, or record the power source with the reason.',
  ],
  [
    'a cell from no lot that is not the owner’s own',
    () => takenIn('cell only'),
    fit({ ownersOwn: false }),
    'No lot is given, so the date, the supplier and the stock count would be unknown.',
    'Choose the lot of the cell, or record the cell as the owner’s own.',
  ],
  [
    'an accumulator where a primary cell was found',
    () => found('SR621SW'),
    (job) => void job.add('cell.accumulator', kit()),
    'This watch runs on a primary cell: the cell found is SR621SW. An accumulator has another voltage and runs down within months.',
    'Fit a primary cell. If it does charge an accumulator, record that with the reason under “Power source”.',
  ],
  [
    'a missing ring that was reused, and dry',
    () => takenIn('cell and reseal'),
    (job) => void job.add('seal.gasket', { ...gasket, state: 'reused', findings: ['missing', 'dry'] }),
    [
      'The ring is recorded as missing and as reused. Both cannot be true. Correct the wrong one.',
      'The ring is recorded as missing and as dry. Both cannot be true. Correct the wrong one.',
    ],
    'Correct what was found or what was done.',
  ],
  [
    'a ring greased and left in place',
    () => takenIn('cell and reseal'),
    (job) => void job.add('seal.gasket', { ...gasket, state: 'left in place' }),
    'The ring is recorded as left in place and as greased. Both cannot be true. Correct the wrong one.',
    'Correct what was found or what was done.',
  ],
  [
    'a ring reused where none was counted',
    () => {
      const job = takenIn('cell and reseal');
      job.add('open.seals', { rim: 0, innerCover: 0, hatch: 0 });
      return job;
    },
    (job) => void job.add('seal.gasket', { ...gasket, state: 'reused' }),
    'No ring was counted at the rim, but one is recorded as reused. Both cannot be true. Correct the wrong one.',
    'Correct what was found or what was done.',
  ],
  [
    'a seal of a hatch that was counted and is not there, and one inspected that nobody counted',
    () => {
      const job = takenIn('cell and reseal');
      job.add('open.seals', { rim: 1, innerCover: 0, hatch: 1 });
      return job;
    },
    (job) => void job.add('seal.inside', { innerCover: 'inspected', hatch: 'none there' }),
    [
      'No seal of an inner cover was counted at opening, but one is recorded as inspected. Both cannot be true. Correct the wrong one.',
      '1 seal of a hatch was counted at opening, but none is recorded now. Both cannot be true. Correct the wrong one.',
    ],
    'Check the seals again. Correct the count, or what was done with them.',
  ],
  [
    'a ring typed that its groove never touched',
    () => {
      const job = takenIn('cell and reseal');
      job.add('seal.groove', samples['seal.groove']);
      return job;
    },
    (job) => void job.add('seal.gasket', { ...gasket, size: '30.5 × 0.50' }),
    'The ring is 0.5 mm thick and its groove leaves 0.55 mm, so the back would never touch it. Measure section or depth again.',
    'Correct the ring size or the groove.',
  ],
  [
    'a reading of a place the movement has not',
    () => takenIn('cell only'),
    (job) => void job.add('check.reading', readingOf('restVoltageV', 1.5), { well: 'attic' }),
    'This movement has no place for a cell called “attic”.',
    'Its places: main.',
  ],
  [
    'a finding of a place the movement has not',
    () => takenIn('diagnose'),
    (job) =>
      void job.add(
        'check.diagnosis',
        { cause: 'spent cell', also: null, next: 'new cell', words: '' },
        { well: 'attic' },
      ),
    'This movement has no place for a cell called “attic”.',
    'Its places: main.',
  ],
  [
    'a cell found in one of two places, and not said in which',
    () => takenIn('cell only', 'quillbeck-22-4'),
    (job) => void job.add('cell.found', { marking: '395', condition: 'clean' }),
    'This movement has several cell places, but the entry names none.',
    'Its places: hands, display.',
  ],
  [
    'the old cell back in a place nobody knows',
    nobodys,
    (job) => void job.add('cell.put-back', { reason: 'good' }, { well: 'other' }),
    'This movement has no place for a cell called “other”.',
    'Its places: main.',
  ],
  [
    'two places where the book has them',
    () => takenIn('cell only'),
    (job) => void job.add('cell.places', twoPlaces),
    'The book lists the cell places of OR 41.2: main.',
    'If this watch is different, it has another movement. Choose it at stage 3, or correct the book.',
  ],
  [
    'another name for a place at which something is recorded',
    atSecond,
    (job) => void job.add('cell.places', { first: 'hands', second: 'light' }),
    'A record exists at “display”: cell found: CR1216, clean.',
    'Keep this name, or withdraw that record first.',
  ],
  [
    'two places taken back while something is recorded at one',
    atSecond,
    (job) =>
      void job.add(
        'logbook.withdrawn',
        { reason: 'one only' },
        { withdraws: job.state().facts.places?.id ?? null },
      ),
    'A record exists at “display”: cell found: CR1216, clean.',
    'Withdraw the record at one of the two places first.',
  ],
  [
    'a test before anybody said what crown it has',
    () => takenIn('reseal and test'),
    (job) => void job.add('test.made', dryTest),
    'The kind of crown is not recorded. A screw-down crown that is left up lets water into the case.',
    'Record the kind of crown, then test.',
  ],
  [
    'a test of a watch that lies open',
    () => {
      const job = takenIn('reseal and test');
      job.add('arrive.crown', { crown: 'pushed home' });
      job.add('cell.found', { marking: '377', condition: 'clean' });
      return job;
    },
    (job) => void job.add('test.made', dryTest),
    'The watch is still open.',
    'Close it before you test it.',
  ],
  [
    'a cell of which nobody recorded how it looked',
    () => takenIn('cell only'),
    (job) => job.add('cell.found', { marking: '377', condition: null }),
    'The condition of the cell found is missing.',
    'Choose what you see on the cell, for example “clean”.',
  ],
  [
    'a cracked ring that was reused, and no reason',
    () => takenIn('cell and reseal'),
    (job) =>
      job.add('seal.gasket', {
        ...samples['seal.gasket'],
        state: 'reused',
        findings: ['cracked'],
        reason: '',
        lotId: null,
        size: '',
      }),
    'This differs from the advice. Enter the reason.',
    'If the record is wrong, correct what was done.',
  ],
  [
    'no crown where one was noted',
    () => takenIn('cell only'),
    (job) => void job.add('arrive.crown', { crown: 'no crown' }),
    'A crown was noted at 3 o’clock, seen from the dial, but no crown is recorded now. Both cannot be true. Correct the wrong one.',
    'Look again. Correct the intake record or the record of the crown.',
  ],
  [
    'a seam that stands up, seen from nowhere',
    () => takenIn('cell only'),
    (job) =>
      void job.add('seal.closed', {
        how: 'thumbs',
        seamEven: false,
        raisedClocks: [4],
        seenFrom: null,
        interim: false,
      }),
    'The seam is raised somewhere, but the side it was seen from is missing.',
    'Choose the side: from the dial or from behind.',
  ],
  [
    'a closing while nobody noted where a part sat',
    () => {
      const job = takenIn('cell only');
      const off = { part: 'back', position: 'notch over the stem, to be noted', count: 1 } as const;
      job.add('open.part', { ...off, serves: [], step: 'lift' });
      return job;
    },
    (job) =>
      void job.add('seal.closed', {
        how: 'thumbs',
        seamEven: true,
        raisedClocks: [],
        seenFrom: null,
        interim: false,
      }),
    'The position of this part is not recorded: back, notch over the stem, to be noted.',
    'Record it at the parts tray. If nobody remembers it, record that.',
  ],
  [
    'a test beyond what the watch is rated for',
    () => toTest(),
    (job) => void job.add('test.made', dryTestAt(5)),
    '5 bar is more than this watch is rated for: 3 bar.',
    'Test at a lower pressure, or give the reason for exceeding the limit.',
  ],
  [
    'a test beyond shop and tester',
    () => toTest(),
    (job) => void job.add('test.made', { ...wetTest, pressureBar: 20 }),
    [
      '20 bar is more than this watch is rated for: 3 bar.',
      '20 bar is more than this shop tests at: 10 bar.',
      '20 bar is more than its tester is made for: 12.5 bar.',
    ],
    'Test at a lower pressure, or give the reason for exceeding the limit.',
  ],
  [
    'more vacuum than the tester is made for',
    () => toTest(),
    (job) => void job.add('test.made', dryTestAt(-0.85)),
    '0.85 bar below outside air is beyond the range of the tester: 0.7 bar.',
    'Test at a lower pressure, or give the reason for exceeding the limit.',
  ],
  [
    'a finding by a test of another job',
    () => toTest(),
    (job) =>
      void job.add('test.finding', {
        seat: 'crown',
        foundBy: [idOf('elsewhere')],
        done: 'nothing',
        note: '',
      }),
    'The test that found the leak belongs to another job.',
    'Choose a test from the list of this job.',
  ],
  [
    'a retest of a test of another job',
    () => takenIn('reseal and test'),
    (job) => void job.add('test.made', { ...dryTest, retestOf: [idOf('elsewhere')], note: 'ring renewed' }),
    'The test being repeated belongs to another job.',
    'Choose a test from the list of this job.',
  ],
  [
    'a lot of another shop',
    () => takenIn('cell only'),
    fit({ lotId: idOf('elsewhere') }),
    'This lot is not in the stock.',
    'Choose a lot from the list.',
  ],
  [
    'a lot of another cell',
    () => takenIn('cell only'),
    fit({ lotId: lot.id }),
    'Lot S-1 holds SR626SW, not SR621SW.',
    'Choose the lot the cell was taken from.',
    [{ ...lot, code: 'SR626SW' }],
  ],
  [
    'a lot of another thing that has the name',
    () => takenIn('cell only'),
    fit({ lotId: lot.id }),
    'Lot S-1 holds SR621SW, not SR621SW.',
    'Choose the lot the cell was taken from.',
    [{ ...lot, item: 'gasket' }],
  ],
  [
    'a lot in quarantine',
    () => takenIn('cell only'),
    fit({ lotId: lot.id }),
    'Lot S-1 is in quarantine: two leaked.',
    'Take a cell from another lot, or release the lot on the stock page once it is cleared.',
    [{ ...lot, quarantined: 'two leaked' }],
  ],
  [
    'a lot past its date',
    () => takenIn('cell only'),
    fit({ lotId: lot.id }),
    'Lot S-1 is past its best-before date (16 Mar 2026).',
    'Take a cell from a lot that is in date.',
    [{ ...lot, bestBefore: '2026-03-16' }],
  ],
  [
    'an accumulator where a primary cell runs',
    () => takenIn('cell only'),
    (job) => job.add('cell.accumulator', kit()),
    'OR 41.2 runs on a primary cell and cannot charge an accumulator.',
    'Fit the primary cell named in the book.',
  ],
  [
    'the kit of another calibre',
    light,
    (job) => job.add('cell.accumulator', kit({ kitCode: 'KT-V33' })),
    ['The kit for V-210S is KT-V21, not KT-V33.', 'KT-V33 is for V-330R: 2.7 mm high and not 2.1 mm.'],
    'Each kit is for one calibre. Never use another kit of the same size.',
  ],
  [
    'a ring out of a lot that was set aside',
    () => takenIn('cell and reseal'),
    (job) => job.add('seal.gasket', { ...gasket, size: '30.5 × 0.70', lotId: ringLot.id }),
    'Lot R-2 is in quarantine: sticky.',
    'Take a ring from another lot, or release the lot on the stock page once it is cleared.',
    [{ ...ringLot, quarantined: 'sticky' }],
  ],
  [
    'a ring past its date',
    () => takenIn('cell and reseal'),
    (job) => job.add('seal.gasket', { ...gasket, size: '30.5 × 0.70', lotId: ringLot.id }),
    'Lot R-2 is past its best-before date (16 Mar 2026).',
    'Take a ring from a lot that is in date.',
    [{ ...ringLot, bestBefore: '2026-03-16' }],
  ],
  [
    'a charge by what does nothing for it',
    light,
    (job) => job.add('cell.charged', { by: 'rotor', hours: 60, outcome: 'low-supply steps' }),
    'V-210S is charged by light, not by its rotor.',
    'Record how it was charged. If the movement is another one, correct the movement.',
  ],
  [
    'a charge of a primary cell',
    () => takenIn('cell only'),
    (job) => job.add('cell.charged', { by: 'charger', hours: 2, outcome: 'steps normally' }),
    'This watch runs on a primary cell: the book has OR 41.2 with a primary cell. A primary cell that is charged leaks or bursts.',
    'If it does charge an accumulator, record that with the reason under “Power source”. Take out a primary cell that was charged.',
  ],
  [
    'an accumulator that was never charged',
    light,
    (job) => job.add('cell.accumulator', kit({ unchargedBecause: null })),
    'No test charge is recorded and no leak was found. The accumulator may only be discharged.',
    'Charge it and record the result, or enter the reason for skipping the test charge.',
  ],
  [
    'a transferred tab nobody measured',
    light,
    (job) => job.add('cell.accumulator', kit({ way: 'old tab transferred' })),
    'The contact of the transferred tab is not measured.',
    'Press the tab on, measure between tab and accumulator, and enter the value.',
  ],
  [
    'a transferred tab that lies badly',
    light,
    (job) => job.add('cell.accumulator', kit({ way: 'old tab transferred', tabContactOhm: 1.4 })),
    '1.4 Ω between tab and accumulator, and 1 Ω is the limit.',
    'Align it, press it again and measure again, or use the kit with its own tabs.',
  ],
  [
    'a cell changed after the watch was taken in',
    light,
    (job) => job.add('arrive.cell-history', { changedBy: 'another shop', changedOn: '2027' }),
    'It was taken in on 17 Mar 2026, and its cell would have been changed after that.',
    'Say when it was changed before it came, or leave it blank.',
  ],
  [
    'a day it stopped after it was taken in',
    light,
    (job) => job.add('arrive.stopped', { stoppedOn: '2026-04' }),
    'It was taken in on 17 Mar 2026, and would stop after that.',
    'Say when it stopped before it came, or leave it blank.',
  ],
  [
    'a kit from a lot of cells',
    light,
    (job) => job.add('cell.accumulator', kit({ lotId: lot.id })),
    'This lot does not contain this kit.',
    'Choose the lot the kit was taken from.',
    [{ ...lot, code: 'KT-V21' }],
  ],
  [
    'a kit from a lot of other kits',
    light,
    (job) => job.add('cell.accumulator', kit({ lotId: kitLot.id })),
    'This lot does not contain this kit.',
    'Choose the lot the kit was taken from.',
    [{ ...kitLot, code: 'KT-V33' }],
  ],
  [
    'a kit from no lot of this stock',
    light,
    (job) => job.add('cell.accumulator', kit({ lotId: kitLot.id })),
    'This lot does not contain this kit.',
    'Choose the lot the kit was taken from.',
    [lot],
  ],
  [
    'a kit from a lot in quarantine',
    light,
    (job) => job.add('cell.accumulator', kit({ lotId: kitLot.id })),
    'Lot K-7 is in quarantine: bent tabs.',
    'Take a kit from another lot, or release the lot on the stock page once it is cleared.',
    [{ ...kitLot, quarantined: 'bent tabs' }],
  ],
  [
    'a kit from a lot past its date',
    light,
    (job) => job.add('cell.accumulator', kit({ lotId: kitLot.id })),
    'Lot K-7 is past its best-before date (16 Mar 2026).',
    'Take a kit from a lot that is in date.',
    [{ ...kitLot, bestBefore: '2026-03-16' }],
  ],
  [
    'the old cell back where a fresh one went in',
    () => {
      const job = takenIn('cell only', 'quillbeck-22-4');
      job.add('cell.fitted', fitting({ cellCode: 'SR920SW' }), { well: 'display' });
      return job;
    },
    (job) => job.add('cell.put-back', { reason: 'good' }, { well: 'display' }),
    'A SR920SW is recorded as fitted here.',
    'Withdraw the fitting first, so that the cell returns to its lot.',
  ],
  [
    'the same cell where none was found',
    () => {
      const job = takenIn('cell only');
      job.add('cell.found', { marking: null, condition: 'clean' });
      return job;
    },
    (job) => job.add('cell.put-back', { reason: 'good' }),
    'The record says that no cell was found here, so there is no cell to put back.',
    'Fit a cell. If there was a cell, correct the record of the cell found first.',
  ],
  [
    'a taped cell out of the bin',
    () => {
      const job = takenIn('cell only');
      job.add('cell.found', { marking: '364', condition: 'clean' });
      job.add('cell.old-settled', { taped: true, to: 'spent bin' });
      return job;
    },
    (job) => job.add('cell.put-back', { reason: 'good' }),
    'This cell is taped and in the bin. A taped cell is spent and is never used again.',
    'Fit a fresh one. If it never went into the bin, withdraw that first.',
  ],
  ...(
    [
      ['a fresh cell from a lot of another', 'SR626SW', [lot]],
      ['a fresh cell from a lot of kits that has its name', 'SR621SW', [{ ...lot, item: 'gasket' }]],
      ['a kit from a lot of another', 'KT-V33', [{ ...kitLot, id: lot.id }]],
      ['what is in no lot here', 'SR621SW', []],
    ] as const
  ).map(([name, cellCode, lots]): Case => [
    name,
    () => takenIn('cell only'),
    (job) => job.add('cell.out', { cellCode, lotId: lot.id, lotCode: '' }),
    'This lot does not contain this cell.',
    'Choose the lot the cell was taken from.',
    lots,
  ]),
  [
    'a fresh cell settled that was never out',
    () => takenIn('cell only'),
    (job) => job.add('cell.out-settled', { outEntryId: idOf('entry 1'), to: 'spent bin' }),
    'This cell is not recorded as out of its blister in this job.',
    'Choose one that is shown as loose.',
  ],
  [
    'a drop settled that never was',
    () => takenIn('cell only'),
    (job) =>
      job.add('cell.dropped-settled', { droppedEntryId: idOf('entry 1'), outcome: 'found', words: '' }),
    'This cell is not recorded as dropped in this job.',
    'Choose one that is shown as dropped.',
  ],
  [
    'parts that arrive before they were asked for',
    () => takenIn('cell only'),
    (job) => job.add('arrive.parts-arrived', { note: '' }),
    'This job is not waiting for parts.',
    'Record the request first.',
  ],
  [
    'a wrench set wider than it opens',
    () => takenIn('cell only'),
    (job) => job.add('open.back', { ...back, separationMm: 40 }),
    '40 mm is outside the travel of bench wrench, three jaws, 14 to 36 mm: measure again, or enter the tool that was used.',
    'Correct the setting, or choose the tool that was used.',
  ],
  [
    'a part settled that is not on the tray',
    () => takenIn('cell only'),
    (job) =>
      job.add('open.part-settled', { partEntryId: idOf('entry 1'), outcome: 'back in place', note: '' }),
    'That part is not on the tray of this job.',
    'Choose a part from the tray.',
  ],
  [
    'a mark on no photo of this job',
    () => takenIn('cell only'),
    (job) =>
      job.add('open.photo-mark', {
        photo: 'a'.repeat(64),
        xPercent: 10,
        yPercent: 10,
        kind: 'residue',
        by: LEFT_BY[0],
        note: '',
      }),
    'That photo is not among the files of this job.',
    'Add the photo first.',
  ],
  [
    'a ring from a lot of cells',
    () => takenIn('reseal and test'),
    (job) => job.add('seal.gasket', { ...gasket, lotId: lot.id }),
    'This lot is not a gasket lot of the stock.',
    'Choose a gasket lot from the list.',
    [lot, ringLot],
  ],
  [
    'a ring from no lot here',
    () => takenIn('reseal and test'),
    (job) => job.add('seal.gasket', { ...gasket, lotId: ringLot.id }),
    'This lot is not a gasket lot of the stock.',
    'Choose a gasket lot from the list.',
    [lot],
  ],
  [
    'the end of a run that never began',
    () => takenIn('cell only'),
    (job) => job.add('set.run-ended', { toSee: 'how it keeps time', shows: '09:00:00', stillRuns: true }),
    'No proving run was started since the watch was closed.',
    'Record what the hands show at the start.',
  ],
  [
    'the end of a watching that never began',
    () => takenIn('cell only'),
    (job) => job.add('set.run-ended', { toSee: 'that it runs', shows: '', stillRuns: true }),
    'No observation was started since the watch was closed.',
    'Record what the hands show at the start.',
  ],
  [
    'a run that ends before it began',
    () => {
      const job = takenIn('cell only');
      job.add(
        'set.run-began',
        { toSee: 'how it keeps time', shows: '09:00' },
        { occurredAt: '2026-03-17T11:00:00.000Z' },
      );
      return job;
    },
    (job) => job.add('set.run-ended', { toSee: 'how it keeps time', shows: '09:00', stillRuns: true }),
    'The end is before the start.',
    'Record the end when you read the watch.',
  ],
  [
    'a crown said not to be there that was seen',
    () => readyJob(),
    (job) =>
      job.add('set.outside', {
        proved: { 'crown in every position': 'not applicable' },
        handedBackSo: '',
      }),
    'As far as is recorded, this watch has a crown. Check it: pull it, turn it, push it home.',
    'Record the result. If there is no crown, record that at the crown first.',
  ],
  [
    'a correction of what the job does not hold',
    () => takenIn('cell only'),
    (job) => job.add('set.time', { set: true }, { supersedes: [idOf('nowhere')] }),
    'The entry to correct is not in this job.',
    'Reload the job and correct the entry shown there.',
  ],
  [
    'a withdrawal of what the job does not hold',
    () => takenIn('cell only'),
    (job) => job.add('logbook.withdrawn', { reason: 'wrong watch' }, { withdraws: idOf('nowhere') }),
    'The entry to correct is not in this job.',
    'Reload the job and correct the entry shown there.',
  ],
  [
    'a correction of another kind',
    () => takenIn('cell only'),
    (job) => job.add('set.time', { set: true }, { supersedes: [job.entries[0]?.id ?? ''] }),
    'A correction must have the same kind as the entry it corrects.',
    'Withdraw the wrong entry and record the right one.',
  ],
  [
    'a signature withdrawn',
    () => withSigned(readyJob()),
    (job) =>
      job.add('logbook.withdrawn', { reason: 'too soon' }, { withdraws: job.entries.at(-1)?.id ?? '' }),
    'A signature cannot be withdrawn.',
    'Record what has changed. This reopens the job, and you can sign again.',
  ],
  [
    'a signature corrected',
    () => withSigned(readyJob()),
    (job) => job.add('handback.signed', signatureOf(job), { supersedes: [job.entries.at(-1)?.id ?? ''] }),
    'A signature cannot be withdrawn.',
    'Record what has changed. This reopens the job, and you can sign again.',
  ],
  [
    'a withdrawal of nothing',
    () => takenIn('cell only'),
    (job) => job.add('logbook.withdrawn', { reason: 'x' }),
    'A withdrawal must name exactly one entry.',
    'Name the entry to withdraw.',
  ],
  [
    'another fact that withdraws one',
    () => takenIn('cell only'),
    (job) => job.add('set.time', { set: true }, { withdraws: job.entries[0]?.id ?? '' }),
    'A withdrawal must name exactly one entry.',
    'Name the entry to withdraw.',
  ],
  [
    'a second signature',
    () => withSigned(readyJob()),
    (job) => job.add('handback.signed', signatureOf(readyJob())),
    'The job is signed already, by EV.',
    'Nothing more is needed.',
  ],
  [
    'a signature under what was not read',
    readyJob,
    (job) => job.add('handback.signed', { ...signatureOf(job), restsOnSequence: 3 }),
    'The job has changed since you opened the record.',
    'Read the record again, then sign.',
  ],
  [
    'a signature on an older book',
    readyJob,
    (job) => job.add('handback.signed', { ...signatureOf(job), catalogueRevision: 1 }),
    'The book or the policy has changed since the record was made.',
    'Reload the job, read the record again, then sign.',
  ],
  [
    'a signature on an older policy',
    readyJob,
    (job) => job.add('handback.signed', { ...signatureOf(job), policyRevision: 99 }),
    'The book or the policy has changed since the record was made.',
    'Reload the job, read the record again, then sign.',
  ],
  [
    'a signature under other words',
    readyJob,
    (job) => {
      const good = signatureOf(job);
      job.add('handback.signed', { ...good, statement: { ...good.statement, water: 'Good to 100 metres.' } });
    },
    'The signed text does not match the entries.',
    'Reload the job, read the record again, then sign.',
  ],
  [
    'a watch handed over unsigned',
    readyJob,
    (job) => job.add('handback.collected', { by: 'the owner', paidMinor: 1400 }),
    'The job is not signed.',
    'Sign the record before the watch is handed over.',
  ],
];

/** Taken in for a test, its crown seen. */
const toTest = (): Logbook => {
  const job = takenIn('reseal and test');
  job.add('arrive.crown', { crown: 'pushed home' });
  return job;
};

/** The field each stands at; what is not here concerns the form as a whole. */
const AT_FIELD: Readonly<Record<string, readonly string[]>> = {
  cellCode: [
    'a primary cell where an accumulator is charged',
    'what is no cell of the table',
    'mercury where nothing is known of the place',
    'zinc-air where nothing is known of the place',
    'any cell where nothing tells what belongs there',
    'what no table knows, where the book knows nothing',
    'a cell of another voltage than was found',
    'a cell that does not lie in the well measured',
    'an alkaline cell where nothing but the well is known',
    'a primary cell where a rechargeable one was found, whatever the service',
    'a primary cell where what was found may be rechargeable',
  ],
  state: [
    'a missing ring that was reused, and dry',
    'a ring greased and left in place',
    'a ring reused where none was counted',
  ],
  size: ['a ring typed that its groove never touched'],
  crown: ['no crown where one was noted'],
  seenFrom: ['a seam that stands up, seen from nowhere'],
  excessReason: [
    'a test beyond what the watch is rated for',
    'a test beyond shop and tester',
    'more vacuum than the tester is made for',
  ],
  changedOn: ['a cell changed after the watch was taken in'],
  stoppedOn: ['a day it stopped after it was taken in'],
  separationMm: ['a wrench set wider than it opens'],
  condition: ['a cell of which nobody recorded how it looked'],
  reason: ['a cracked ring that was reused, and no reason'],
  innerCover: ['a seal of a hatch that was counted and is not there, and one inspected that nobody counted'],
  unchargedBecause: ['an accumulator that was never charged'],
  tabContactOhm: ['a transferred tab nobody measured', 'a transferred tab that lies badly'],
};
const fieldOf = (name: string): string | null =>
  Object.entries(AT_FIELD).find(([, names]) => names.includes(name))?.[0] ?? null;

describe('what is refused, with its reason and what to do', () => {
  const cases = REFUSED.map(([name, job, add, reason, whatToDo, lots = [lot]]) => ({
    name,
    job,
    add,
    reason,
    whatToDo,
    lots,
  }));
  it.each(cases)('$name', ({ name, job, add, reason, whatToDo, lots }) => {
    const begun = job();
    expect(admit(begun, () => add(begun), [...lots])).toEqual({
      verdict: 'refused',
      reasons: [reason].flat(),
      whatToDo,
      path: fieldOf(name),
    });
  });

  it('names the wanted cell where what is fitted is of another size or chemistry', () => {
    for (const [cellCode, words] of [
      ['SR626SW', '0.45 mm too thick'],
      ['LR621', 'Alkaline instead of silver oxide'],
      ['ML621', 'ML621'],
    ] as const) {
      const job = takenIn('cell only');
      const refusal = admit(job, () => fit({ cellCode })(job));
      expect(refusal).toMatchObject({
        verdict: 'refused',
        whatToDo: `Fit SR621SW or an equal. ${asFound}`,
      });
      expect(refusal.verdict === 'refused' && refusal.reasons.join(' ')).toContain(words);
    }
  });

  it('says what a job not ready lacks', () => {
    const job = takenIn('cell only');
    expect(admit(job, () => job.add('handback.signed', signatureOf(job)))).toMatchObject({
      verdict: 'refused',
      whatToDo: 'Record what is missing, or skip the stage with a reason.',
      reasons: expect.arrayContaining([expect.stringMatching(/\w/)]) as unknown,
    });
  });
});

describe('what is admitted beside it', () => {
  const known = (job: Logbook) => job.entries[0]?.id ?? '';
  const cases: readonly (readonly [string, () => Logbook, (job: Logbook) => void, (readonly Lot[])?])[] = [
    [
      'a cell of the size that was found, where the book knows nothing',
      () => found('394'),
      fit({ cellCode: 'SR936SW' }),
    ],
    [
      'a test beyond the rating, with its reason',
      () => toTest(),
      (job) => job.add('test.made', { ...dryTestAt(5), excessReason: 'the owner asks for it' }),
    ],
    ['a cell that lies in the well measured', () => measured(), fit({ cellCode: 'SR936SW' })],
    [
      'a primary cell once somebody says with a reason that it runs from one',
      () => {
        const job = found('MT621');
        job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.3 });
        job.add('identify.supply', {
          runsFrom: 'primary',
          reason: 'no light cell, no rotor: the last hand erred',
        });
        return job;
      },
      fit(),
    ],
    [
      'a kit once a charge was watched, whatever came of it',
      () => {
        const job = light();
        job.add('cell.charged', { by: 'light', hours: 3, outcome: 'low-supply steps' });
        return job;
      },
      (job) => job.add('cell.accumulator', kit({ unchargedBecause: null })),
    ],
    [
      'a kit where the old one leaked',
      () => {
        const job = light();
        job.add('cell.found', { marking: 'MT920', condition: 'bloom' });
        return job;
      },
      (job) =>
        job.add(
          'cell.accumulator',
          kit({ unchargedBecause: null, way: 'old tab transferred', tabContactOhm: 1 }),
        ),
    ],
    [
      'a cell changed in the year it came',
      light,
      (job) => job.add('arrive.cell-history', { changedBy: 'another shop', changedOn: '2026' }),
    ],
    [
      'a watch that stopped in the month it came',
      light,
      (job) => job.add('arrive.stopped', { stoppedOn: '2026-03' }),
    ],
    ['a kit for a movement nobody knows', nobodys, (job) => job.add('cell.accumulator', kit())],
    [
      'a charge by a charger, whatever charges it else',
      light,
      (job) => job.add('cell.charged', { by: 'charger', hours: 2, outcome: 'steps normally' }),
    ],
    [
      'a charge of a movement nobody knows',
      nobodys,
      (job) => job.add('cell.charged', { by: 'light', hours: 2, outcome: 'steps normally' }),
    ],
    [
      'a cell from a lot on its last day',
      () => takenIn('cell only'),
      fit({ lotId: lot.id }),
      [{ ...lot, bestBefore: '2026-03-17' }],
    ],
    [
      'a cell by its number from a lot under its name',
      () => takenIn('cell only'),
      fit({ cellCode: '364', lotId: lot.id }),
    ],
    [
      'a second place of the movement',
      () => takenIn('cell only', 'quillbeck-22-4'),
      fit({ cellCode: 'CR1216' }, 'display'),
    ],
    [
      'the kit written otherwise',
      light,
      (job) => job.add('cell.accumulator', kit({ kitCode: 'kt v21', lotId: kitLot.id })),
      [kitLot],
    ],
    [
      'a fresh cell out of its lot',
      () => takenIn('cell only'),
      (job) => job.add('cell.out', { cellCode: '364', lotId: lot.id, lotCode: '' }),
    ],
    [
      'a kit out of its lot',
      light,
      (job) => job.add('cell.out', { cellCode: 'kt-v21', lotId: kitLot.id, lotCode: '' }),
      [kitLot],
    ],
    [
      'a fresh cell of no lot',
      () => takenIn('cell only'),
      (job) => job.add('cell.out', { cellCode: 'XY77', lotId: null, lotCode: '' }),
    ],
    [
      'the old cell back where only its neighbour was renewed',
      () => {
        const job = takenIn('cell only', 'quillbeck-22-4');
        job.add('cell.fitted', fitting({ cellCode: 'SR920SW' }), { well: 'display' });
        return job;
      },
      (job) => job.add('cell.put-back', { reason: 'good' }, { well: 'hands' }),
    ],
    [
      'a place renamed at which nothing is recorded',
      atSecond,
      (job) => job.add('cell.places', { first: 'motor', second: 'display' }),
    ],
    [
      'two places taken back while nothing is recorded at them',
      () => {
        const job = nobodys();
        job.add('cell.places', twoPlaces);
        return job;
      },
      (job) =>
        job.add(
          'logbook.withdrawn',
          { reason: 'one only' },
          { withdraws: job.state().facts.places?.id ?? null },
        ),
    ],
    [
      'a back opened by no wrench',
      () => takenIn('cell only'),
      (job) => job.add('open.back', { ...back, toolIds: ['knife'], separationMm: 400 }),
    ],
    ['a wrench within its travel', () => takenIn('cell only'), (job) => job.add('open.back', back)],
    [
      'a ring from its lot',
      () => takenIn('reseal and test'),
      (job) => job.add('seal.gasket', { ...gasket, lotId: ringLot.id }),
      [lot, ringLot],
    ],
    ['a ring of no lot', () => takenIn('reseal and test'), (job) => job.add('seal.gasket', gasket)],
    [
      'a correction of its own kind',
      () => takenIn('cell only'),
      (job) =>
        job.add(
          'arrive.watch',
          {
            maker: 'Orrelin',
            reference: '',
            serial: '',
            engraved: '',
            ratingBar: null,
            crownClock: 3,
          },
          { supersedes: [known(job)] },
        ),
    ],
    [
      'a withdrawal of one entry',
      () => takenIn('cell only'),
      (job) => job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: known(job) }),
    ],
    [
      'the end of a run',
      () => {
        const job = takenIn('cell only');
        job.add('set.run-began', { toSee: 'how it keeps time', shows: '09:00:00' });
        return job;
      },
      (job) => job.add('set.run-ended', { toSee: 'how it keeps time', shows: '17:00:00', stillRuns: true }),
    ],
    [
      'parts that were asked for',
      () => {
        const job = takenIn('cell only');
        job.add('arrive.parts-request', {
          lines: [{ what: 'stem', count: 1 }],
          supplier: '',
          expectedOn: null,
        });
        return job;
      },
      (job) => job.add('arrive.parts-arrived', { note: '' }),
    ],
    [
      'a watch handed over once it is signed',
      () => withSigned(readyJob()),
      (job) => job.add('handback.collected', { by: 'the owner', paidMinor: 1400 }),
    ],
  ];
  it.each(cases.map(([name, job, add, lots = [lot]]) => ({ name, job, add, lots })))(
    '$name',
    ({ job, add, lots }) => {
      const begun = job();
      expect(admit(begun, () => add(begun), [...lots])).toEqual({ verdict: 'admitted' });
    },
  );
});

describe('a dropped cell that nobody has yet', () => {
  const dropped = (build: () => Logbook) => {
    const job = build();
    job.add('cell.dropped', { what: 'the old cell', where: 'under the bench' });
    return job;
  };
  const refusal = {
    verdict: 'refused',
    reasons: ['The old cell was dropped and is not found yet.'],
    whatToDo:
      'Find the cell. If you cannot find it, report the loss to the person in charge. Record which of the two you did. A swallowed cell can kill a child or an animal within hours.',
    path: null,
  };

  it('holds up fitting, putting back, closing and signing, whatever the movement', () => {
    for (const add of [
      fit(),
      (job: Logbook) => job.add('cell.put-back', { reason: 'good' }),
      (job: Logbook) => job.add('cell.accumulator', kit()),
      (job: Logbook) =>
        job.add('seal.closed', {
          how: 'thumbs',
          seamEven: true,
          raisedClocks: [],
          seenFrom: null,
          interim: false,
        }),
      (job: Logbook) => job.add('handback.signed', signatureOf(job)),
    ]) {
      const job = dropped(nobodys);
      expect(admit(job, () => void add(job))).toEqual(refusal);
    }
  });

  it('holds up nothing that only says what was seen', () => {
    const job = dropped(() => takenIn('cell only'));
    expect(admit(job, () => job.add('cell.found', { marking: '364', condition: 'clean' }))).toEqual({
      verdict: 'admitted',
    });
  });

  it('holds up nothing more once it is found, under whichever entry the drop stands now', () => {
    const job = dropped(() => takenIn('cell only'));
    const first = job.entries.at(-1)?.id ?? '';
    job.add('cell.dropped', { what: 'the old cell', where: 'in the drawer' }, { supersedes: [first] });
    const settle = () =>
      job.add('cell.dropped-settled', { droppedEntryId: first, outcome: 'found', words: '' });
    expect(admit(job, settle)).toEqual({ verdict: 'admitted' });
    settle();
    expect(admit(job, () => fit()(job))).toEqual({ verdict: 'admitted' });
  });
});

it('takes nothing for a primary cell where the book says no more of a movement than its build', () => {
  const state = light().state();
  const { calibre } = state;
  if (!calibre) throw new Error('no calibre');
  const build = {
    ...calibre,
    charge: null,
    lightTimes: [],
    wells: calibre.wells.map((well) => ({ ...well, cellCode: '' })),
  };
  const said = (kind: 'cell.lit' | 'cell.charged' | 'cell.accumulator', payload: object) => {
    const job = light();
    const entry = job.add(kind, payload as never);
    return judgeEntry(entry, { ...state, calibre: build }, [], () => [], context).verdict;
  };
  expect(said('cell.lit', { ...samples['cell.lit'], placeId: 'lamp' })).toBe('admitted');
  expect(said('cell.charged', { by: 'light', hours: 5, outcome: 'steps normally' })).toBe('admitted');
  expect(said('cell.accumulator', kit())).toBe('admitted');
});

it('lets a fitting be corrected whose lot was set aside since: nothing more is taken from it', () => {
  const job = takenIn('cell only');
  const was = job.add('cell.fitted', fitting({ lotId: lot.id }));
  const aside: Lot = { ...lot, quarantined: 'leaked' };
  const correct = (lotId: string, supersedes: readonly string[]) => {
    const lots = [aside, { ...aside, id: idOf('another'), lotCode: 'other' }];
    const put = () =>
      job.add('cell.fitted', { ...fitting({ lotId }), supplier: 'spelled right' }, { supersedes });
    return admit(job, put, lots).verdict;
  };
  expect(correct(lot.id, [was.id])).toBe('admitted');
  expect(correct(idOf('another'), [was.id])).toBe('refused');
  expect(correct(lot.id, [])).toBe('refused');
});
