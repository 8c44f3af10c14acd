import type { Payloads } from '../src/core/logbook';
import type { Shop } from '../src/core/policy';
import type { StockItem } from '../src/core/stock';

/** A made-up counter in a made-up ferry terminal, on one fixed morning. */
export const shop: Shop = {
  name: 'The Lamp Counter',
  place: 'Varnholm Ferry Terminal, Pier 3',
  zone: 'Europe/Lisbon',
};

/** Tuesday 17 March 2026, 09:40 at the counter. */
export const DEMO_START_UTC = '2026-03-17T09:40:00.000Z';

export const technicians = [
  { key: 'edda', name: 'Edda Vinterhal', initials: 'EV' },
  { key: 'jorun', name: 'Jorun Askeby', initials: 'JA' },
  { key: 'milo', name: 'Milo Tarnquist', initials: 'MT' },
] as const;
export type TechnicianKey = (typeof technicians)[number]['key'];

export interface DemoLot {
  readonly item: StockItem;
  readonly code: string;
  readonly supplier: string;
  readonly lotCode: string;
  readonly madeOn: string | null;
  readonly bestBefore: string | null;
  readonly priceMinor: number;
  readonly count: number;
}

const lot = (
  code: string,
  supplier: string,
  lotCode: string,
  bestBefore: string,
  count: number,
  priceMinor: number,
  madeOn: string | null = null,
): DemoLot => ({ item: 'cell', code, supplier, lotCode, madeOn, bestBefore, priceMinor, count });

const [SALTMARSH, NETTLE] = ['Saltmarsh Wholesale', 'Nettle & Quay Supplies'];

export const lots: DemoLot[] = [
  lot('SR621SW', SALTMARSH, 'S-6104', '2027-08-31', 14, 62),
  lot('SR621SW', NETTLE, 'NQ-118', '2026-02-28', 3, 41),
  lot('SR621W', SALTMARSH, 'S-6112', '2028-01-31', 6, 70),
  lot('LR621', NETTLE, 'NQ-204', '2027-05-31', 20, 12),
  lot('SR626SW', SALTMARSH, 'S-6220', '2028-04-30', 18, 58, '2025-04-14'),
  lot('SR626SW', NETTLE, 'NQ-131', '2027-01-31', 4, 44),
  lot('SR521SW', SALTMARSH, 'S-5107', '2028-02-29', 9, 66),
  lot('SR616SW', SALTMARSH, 'S-6031', '2027-11-30', 7, 64),
  lot('SR716SW', SALTMARSH, 'S-7002', '2027-09-30', 5, 72),
  lot('SR920SW', SALTMARSH, 'S-9208', '2028-03-31', 10, 78),
  lot('SR920W', SALTMARSH, 'S-9214', '2027-12-31', 6, 84),
  lot('SR927SW', SALTMARSH, 'S-9270', '2028-05-31', 8, 88),
  lot('SR927W', NETTLE, 'NQ-142', '2027-10-31', 5, 79),
  lot('CR1616', SALTMARSH, 'S-1616', '2032-06-30', 12, 95),
  lot('CR1216', SALTMARSH, 'S-1216', '2031-09-30', 6, 99),
  lot('CR1612', NETTLE, 'NQ-160', '2031-02-28', 4, 104),
];

type Step = {
  [K in keyof Payloads]: {
    readonly minutes: number;
    readonly kind: K;
    readonly payload: Payloads[K];
    readonly by?: TechnicianKey;
    readonly well?: string;
    readonly corrects?: keyof Payloads;
  };
}[keyof Payloads];

export interface DemoJob {
  readonly key: string;
  readonly customer: { readonly name: string; readonly phone: string; readonly email: string };
  readonly technician: TechnicianKey;
  /** The job whose owner and watch this one shares: an earlier visit. */
  readonly sameWatchAs?: string;
  /** Minutes before the demo's start at which the watch came in. */
  readonly arrivedMinutesAgo: number;
  /** Minutes from the demo's start to the promise, negative when overdue. */
  readonly promisedInMinutes: number;
  readonly watch: Payloads['arrive.watch'];
  readonly complaint: Payloads['arrive.complaint'];
  readonly consent?: boolean;
  readonly service?: Payloads['arrive.service'];
  /** What happened since, minutes after arrival. */
  readonly steps: readonly Step[];
  /** Sign it so many minutes after arrival, and hand it over. */
  readonly signedAfter?: number;
  readonly collectedAfter?: number;
}

const watch = (
  maker: string,
  reference: string,
  serial: string,
  more: Partial<Payloads['arrive.watch']> = {},
): Payloads['arrive.watch'] => ({
  maker,
  reference,
  serial,
  engraved: '',
  ratingBar: null,
  crownClock: 3,
  ...more,
});

const stopped: Payloads['arrive.complaint'] = { picked: ['stopped'], words: '' };
const person = (name: string, phone: string, email = ''): DemoJob['customer'] => ({ name, phone, email });

const opened = (
  minutes: number,
  kind: Payloads['open.back']['kind'],
  openedWith: string,
  spotClock: number | null = null,
  lipClock: number | null = null,
): Step => ({
  minutes,
  kind: 'open.back',
  payload: { kind, openedWith, protection: 'film', went: 'freely', spotClock, lipClock },
});
const engraving = (minutes: number, text: string): Step => ({
  minutes,
  kind: 'identify.engraving',
  payload: { text },
});
const movement = (minutes: number, calibreId: string, code: string): Step => ({
  minutes,
  kind: 'identify.movement',
  payload: { calibreId, code, by: 'engraving', note: '' },
});
const reading = (minutes: number, measure: Payloads['check.reading']['measure'], value: number): Step => ({
  minutes,
  kind: 'check.reading',
  payload: { measure, value },
});
const found = (
  minutes: number,
  marking: string,
  condition: Payloads['cell.found']['condition'] = 'clean',
  well?: string,
): Step => ({
  minutes,
  kind: 'cell.found',
  payload: { marking, condition },
  ...(well ? { well } : {}),
});
const fitted = (minutes: number, cellCode: string, lotCode: string): Step => ({
  minutes,
  kind: 'cell.fitted',
  payload: { cellCode, lotId: lotCode, supplier: SALTMARSH ?? '', lotCode, alkalineAgreed: false },
});
const binned = (minutes: number): Step => ({
  minutes,
  kind: 'cell.old-settled',
  payload: { taped: true, to: 'spent bin' },
});
const gasket = (minutes: number, state: Payloads['seal.gasket']['state'], reason: string): Step => ({
  minutes,
  kind: 'seal.gasket',
  payload: {
    state,
    findings: [],
    ageYears: state === 'renewed' ? null : 2,
    meetsWater: false,
    greased: true,
    profile: 'round',
    size: '',
    lotId: null,
    reason,
  },
});
const closed = (minutes: number, how: string): Step => ({
  minutes,
  kind: 'seal.closed',
  payload: { how, seamEven: true, raisedClocks: [], interim: false },
});
const dryTest = (
  pressureBar: number,
  seconds: number,
  more: Partial<Payloads['test.made']> = {},
): Payloads['test.made'] => ({
  method: 'dry air',
  pressureBar,
  seconds,
  outcome: 'no leak seen',
  deflectionStartUm: null,
  deflectionEndUm: null,
  leakClock: null,
  temperatureC: 21,
  note: '',
  ...more,
});
const proved = (
  minutes: number,
  functions: readonly (keyof Payloads['set.functions']['proved'])[],
): Step[] => [
  { minutes, kind: 'set.runs', payload: { runs: true, watchedSeconds: 90 } },
  { minutes: minutes + 1, kind: 'set.time', payload: { set: true } },
  {
    minutes: minutes + 2,
    kind: 'set.functions',
    payload: { proved: Object.fromEntries(functions.map((each) => [each, 'works'])) },
  },
];

const throughCell = (
  calibreId: string,
  code: string,
  cellCode: string,
  lotCode: string,
  mark: string,
  currentUA = 1.04,
): Step[] => [
  movement(5, calibreId, code),
  reading(7, 'restVoltageV', 1.31),
  reading(8, 'currentUA', currentUA),
  found(9, mark),
  fitted(11, cellCode, lotCode),
  binned(12),
];

const YEAR_MINUTES = 365 * 24 * 60;

/** An earlier visit of the chronograph that draws more each time. */
function earlierVisit(key: string, yearsAgo: number, currentUA: number, note: string): DemoJob {
  return {
    key,
    sameWatchAs: 'draws-too-much',
    customer: person('Corin Wexhollow', '0555 0109'),
    technician: 'milo',
    arrivedMinutesAgo: Math.round(yearsAgo * YEAR_MINUTES),
    promisedInMinutes: -Math.round(yearsAgo * YEAR_MINUTES) + 60,
    watch: watch('Orrelin', 'C2210-1', '4502217', { ratingBar: 10 }),
    complaint: stopped,
    steps: [
      opened(4, 'screwed, notched', 'three-jaw wrench'),
      { minutes: 5, kind: 'open.technique', payload: { note } },
      ...throughCell('orrelin-62-3', 'OR 62.3', 'SR920W', 'S-9214', '370', currentUA),
      gasket(14, 'renewed', 'rated 10 bar'),
      closed(16, 'by hand and wrench'),
      {
        minutes: 17,
        kind: 'test.made',
        payload: dryTest(5, 120),
      },
      ...proved(20, ['hands', 'seconds hand', 'date', 'chronograph']),
    ],
    signedAfter: 25,
    collectedAfter: 90,
  };
}

export const jobs: DemoJob[] = [
  earlierVisit('draws-too-much-first', 2.3, 1.62, 'back sits tight: fixed holder, weight before torque'),
  earlierVisit('draws-too-much-second', 0.9, 2.31, 'current near its limit: measure again next time'),
  {
    key: 'signed-and-gone',
    customer: person('Tove Lindquarry', '0555 0101'),
    technician: 'jorun',
    arrivedMinutesAgo: 155,
    promisedInMinutes: -100,
    watch: watch('Quillbeck', 'Q150A', '2201-4471', { ratingBar: 3 }),
    complaint: stopped,
    steps: [
      opened(3, 'snap-on', 'case knife', 7, 7),
      engraving(4, 'QB 15-1 2201-4471'),
      ...throughCell('quillbeck-15-1', 'QB 15-1', 'SR626SW', 'S-6220', 'SR626SW'),
      gasket(14, 'reused', 'sound and two years old'),
      closed(15, 'thumbs'),
      ...proved(17, ['hands', 'seconds hand']),
    ],
    signedAfter: 21,
    collectedAfter: 60,
  },
  {
    key: 'waits-for-owner',
    customer: person('Bram Ostervale', '0555 0102', 'bram@pier.example'),
    technician: 'edda',
    arrivedMinutesAgo: 130,
    promisedInMinutes: 20,
    watch: watch('Orrelin', 'C2140-3', '4471902', { ratingBar: 3 }),
    complaint: stopped,
    steps: [
      opened(3, 'snap-on', 'case knife', 6.5, 6.5),
      engraving(4, 'OR 41.6 C2140-3 4471902'),
      ...throughCell('orrelin-41-6', 'OR 41.6', 'SR626SW', 'S-6220', '377'),
      gasket(14, 'renewed', 'nobody knew how old it was'),
      closed(16, 'press'),
      ...proved(18, ['hands', 'seconds hand', 'date', 'low-supply signal']),
    ],
    signedAfter: 24,
  },
  {
    key: 'ready-to-sign',
    customer: person('Signe Hallowmere', '0555 0103'),
    technician: 'edda',
    arrivedMinutesAgo: 75,
    promisedInMinutes: 35,
    watch: watch('Pellorane', 'K61/08', 'B204417', { ratingBar: 5, crownClock: 4 }),
    complaint: { picked: ['stopped', 'loses time'], words: 'stopped on the crossing' },
    steps: [
      opened(3, 'screwed, notched', 'three-jaw wrench'),
      engraving(4, 'PL 61O8 B204417'),
      ...throughCell('pellorane-6108', 'PL 6108', 'SR626SW', 'S-6220', 'SR 626 SW (377)'),
      gasket(14, 'renewed', 'rated 5 bar'),
      closed(16, 'by hand and wrench'),
      ...proved(18, ['hands', 'seconds hand', 'date']),
    ],
  },
  {
    key: 'part-on-the-tray',
    customer: person('Nils Garrowby', '0555 0104'),
    technician: 'jorun',
    arrivedMinutesAgo: 70,
    promisedInMinutes: 65,
    watch: watch('Tasvik', '418D-20', 'KD20417', { ratingBar: 10, crownClock: null }),
    complaint: { picked: ['display fading'], words: '' },
    steps: [
      opened(3, 'plate on screws', 'screwdriver 1.2 mm'),
      { minutes: 3, kind: 'open.part', payload: { part: 'screw', position: 'plate corners', count: 4 } },
      {
        minutes: 4,
        kind: 'open.part',
        payload: { part: 'spring', position: 'buzzer, beside the light pusher', count: 1 },
      },
      engraving(4, 'TK82D'),
      movement(5, 'tasvik-82d', 'TK82D'),
      reading(7, 'restVoltageV', 2.61),
      found(9, 'CR1616'),
      fitted(11, 'CR1616', 'S-1616'),
      binned(12),
      gasket(14, 'renewed', 'rated 10 bar'),
      closed(18, 'screws crosswise in rounds'),
      ...proved(20, ['digital display', 'light', 'alarm', 'date', 'day']),
    ],
  },
  {
    key: 'to-set-and-prove',
    customer: person('Ragna Thistlewick', '0555 0105'),
    technician: 'milo',
    arrivedMinutesAgo: 50,
    promisedInMinutes: 25,
    watch: watch('Tasvik', '402B-11', 'RB11902', { ratingBar: 3 }),
    complaint: { picked: ['hand steps in twos or fours'], words: '' },
    steps: [
      opened(3, 'snap-on', 'case knife', 9),
      engraving(4, 'TK71B RB11902'),
      movement(5, 'tasvik-71b', 'TK71B'),
      reading(7, 'restVoltageV', 1.42),
      reading(8, 'currentUA', 1.36),
      found(9, '371'),
      fitted(11, 'SR920SW', 'S-9208'),
      binned(12),
      gasket(15, 'reused', 'sound, one year old'),
      closed(16, 'thumbs'),
    ],
  },
  {
    key: 'to-close',
    customer: person('Odd Merriwater', '0555 0106'),
    technician: 'edda',
    arrivedMinutesAgo: 40,
    promisedInMinutes: 50,
    watch: watch('Orrelin', 'C0915-2', '3390114', { engraved: 'for O. from the harbour choir' }),
    complaint: stopped,
    steps: [
      opened(3, 'snap-on', 'case knife', 8.5),
      {
        minutes: 3,
        kind: 'open.as-found',
        payload: { found: ['tool marks', 'residue'], note: 'old scratch beside the coil' },
      },
      engraving(4, 'OR 47.1'),
      movement(5, 'orrelin-47-1', 'OR 47.1'),
      reading(7, 'restVoltageV', 0.86),
      found(9, '379', 'bloom'),
      fitted(11, 'SR521SW', 'S-5107'),
      binned(12),
    ],
  },
  {
    key: 'overdue-at-the-cell',
    customer: person('Ilka Farrowdene', '0555 0107'),
    technician: 'jorun',
    arrivedMinutesAgo: 90,
    promisedInMinutes: -15,
    watch: watch('Quillbeck', 'Q150A', '2208-0093', { ratingBar: 3 }),
    complaint: stopped,
    steps: [
      opened(4, 'snap-on', 'case knife', 7, 7),
      engraving(5, 'QB 15-7'),
      movement(6, 'quillbeck-15-7', 'QB 15-7'),
      reading(8, 'restVoltageV', 1.22),
      found(10, 'SR612SW'),
    ],
  },
  {
    key: 'two-cells',
    customer: person('Hedvig Ambersley', '0555 0108'),
    technician: 'milo',
    arrivedMinutesAgo: 35,
    promisedInMinutes: 95,
    watch: watch('Quillbeck', 'Q224B', '2214-7719', { ratingBar: 5 }),
    complaint: { picked: ['display fading'], words: 'the hands still go' },
    steps: [
      opened(3, 'battery hatch', 'coin'),
      engraving(4, 'QB 22-4'),
      movement(5, 'quillbeck-22-4', 'QB 22-4'),
      reading(7, 'restVoltageV', 1.53),
      found(8, '395', 'clean', 'hands'),
    ],
  },
  {
    key: 'draws-too-much',
    customer: person('Corin Wexhollow', '0555 0109'),
    technician: 'edda',
    arrivedMinutesAgo: 30,
    promisedInMinutes: 120,
    watch: watch('Orrelin', 'C2210-1', '4502217', { ratingBar: 10 }),
    complaint: { picked: ['stopped'], words: 'second cell in a year' },
    steps: [
      opened(4, 'screwed, notched', 'three-jaw wrench'),
      engraving(5, 'OR 62.3'),
      movement(6, 'orrelin-62-3', 'OR 62.3'),
      reading(8, 'restVoltageV', 1.38),
      reading(9, 'currentUA', 4.85),
    ],
  },
  {
    key: 'conflict',
    customer: person('Pia Underlow', '0555 0110'),
    technician: 'jorun',
    arrivedMinutesAgo: 28,
    promisedInMinutes: 140,
    watch: watch('Tasvik', '377A-05', 'LM30418'),
    complaint: { picked: ['loses time'], words: '' },
    steps: [
      opened(3, 'opens from the front', 'case knife under the bezel', 6),
      engraving(5, 'TK35A'),
      movement(6, 'tasvik-35a', 'TK35A'),
      reading(8, 'restVoltageV', 1.45),
      { ...reading(10, 'restVoltageV', 1.54), corrects: 'check.reading', by: 'jorun' },
      { ...reading(11, 'restVoltageV', 1.45), corrects: 'check.reading', by: 'milo' },
    ],
  },
  {
    key: 'worn-engraving',
    customer: person('Eskil Dunhaven', '0555 0111'),
    technician: 'edda',
    arrivedMinutesAgo: 18,
    promisedInMinutes: 45,
    watch: watch('Pellorane', '', ''),
    complaint: stopped,
    steps: [opened(4, 'screwed, round holes', 'wrench with pins'), engraving(6, 'PL 6?80')],
  },
  {
    key: 'just-arrived',
    customer: person('Maren Oystrand', '0555 0142', 'maren@quay.example'),
    technician: 'edda',
    arrivedMinutesAgo: 6,
    promisedInMinutes: 30,
    watch: watch('Orrelin', 'C2140-3', '4471355', { ratingBar: 3 }),
    complaint: stopped,
    steps: [],
  },
  {
    key: 'no-consent',
    customer: person('Torvald Kestrelby', '0555 0113'),
    technician: 'milo',
    arrivedMinutesAgo: 55,
    promisedInMinutes: 1500,
    watch: watch('Pellorane', 'K33/02', 'F110724', { ratingBar: 5, crownClock: 4 }),
    complaint: {
      picked: ['light or alarm fails first'],
      words: 'will ring back about the risk to the old back',
    },
    consent: false,
    service: { service: 'cell and reseal', priceMinor: 2900 },
    steps: [],
  },
];
