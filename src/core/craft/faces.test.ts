import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { BAD_FIGURES, BAD_TEXTS, placesIn, put, strangeIn } from '../../testing/badFigures';
import { book, lot } from '../../testing/fixtures';
import { back as backOf } from '../../testing/backs';
import { strikes } from './cases';
import { isForLicensed } from './gaskets';
import { leakReachesCoil } from './health';
import { chooseOpener } from './opening';
import { DEFAULT_POLICY } from './policy';
import { bestSupplier, isPastDate, runningLow } from './stock';
import { pressureExcess } from './tightness';
import { isDay, isMoment } from './time';

/**
 * Every public function of the craft, given what no bench can give it: no number, no end, nothing, less than nothing, a size or a
 * date that cannot be. It answers that it cannot say, and never throws, and never shows a figure that is none.
 */
type Face = Readonly<Record<string, (...args: readonly unknown[]) => unknown>>;
/** What a function is asked where nothing is wrong; where it only opens something, how that is asked. */
type Sample =
  | readonly unknown[]
  | { readonly asked: readonly unknown[]; readonly by: (face: Face, args: readonly unknown[]) => unknown };
type Samples = Readonly<Record<string, Readonly<Record<string, Sample>>>>;

const cell = book.cell('SR621SW');
const wanted = {
  chemistry: 'silver-oxide',
  diameterMm: 6.8,
  heightMm: 2.15,
  otherHeightsMm: [],
  drain: 'low',
  code: 'SR621SW',
  nominalV: 1.55,
  place: 'primary',
};
const calibre = book.calibre('orrelin-41-2');
const seen = [
  { look: 'widthMm', value: 23.7, withinMm: 0.05 },
  { look: 'jewels', value: '2', withinMm: 0 },
];
const simulated = {
  stiffnessUmPerBar: 4,
  settlesShare: 0.1,
  settlesInS: 20,
  volumeCm3: 1.5,
  leakUgPerMin: 300,
  gross: false,
  noiseUm: 0.05,
  driftUmPerMin: 0,
};
const groove = {
  innerMm: 30,
  outerMm: 32,
  depthMm: 0.9,
  stepMm: 0.35,
  seat: 'inner wall',
  depthWithinMm: 0.03,
};
const ring = { profile: 'round', insideMm: 29.2, sectionMm: 0.7, widthMm: null, sectionWithinMm: 0.03 };
const place = { lux: 9500, measuredAtMm: 180, caseRiseK: 14 };
const leakSetting = {
  volume: { cm3: 1.5, factor: 1.2, how: 'measured' },
  temperatureC: 23,
  drift: null,
  usualUmPerBar: 4,
  testerNoiseUm: 0.05,
};
const times = [
  { lux: 600, steppingH: 2.6, dayH: 4.4, fullH: 210 },
  { lux: 6000, steppingH: 0.55, dayH: 0.95, fullH: 45 },
];
const current = { whose: 'this movement', of: 'OR 41.2', typicalUA: 1, limitUA: 1.4 };
const life = {
  chemistry: 'silver-oxide',
  capacityMinMAh: 18,
  capacityMaxMAh: 23,
  baseUA: 1,
  drainKnownBy: 'measured',
  functions: [{ name: 'light', drawUA: 3000, secondsPerDay: 5 }],
  yearsSinceMade: 0.5,
  ageKnownBy: 'its date',
  kept: 'worn',
  seed: 1,
};
const forecast = {
  verdict: 'forecast',
  p10Months: 20,
  p50Months: 24,
  p90Months: 30,
  nextVisitMonths: 20,
  bars: { monthsEach: 1, shares: [] },
  reasons: [],
  working: [],
};
const cellLife = {
  medianMonths: 30,
  spread: 0.12,
  ranMonths: 20,
  spentByMonths: 22,
  broughtMonths: 24,
  outMonths: null,
  seenAgain: true,
};
const visitOf = (cameOn: string, fitted: object | null) => ({
  cameOn,
  stopped: null,
  changedBy: 'this shop',
  placesKnown: true,
  places: [{ well: 'main', shows: 'spent', foundCode: '364', cameOut: true, fitted }],
});
const back = backOf({
  kind: 'screwed, notched',
  notchCount: 6,
  pitchMm: 24,
  notchWidthMm: 2,
  diameterMm: 30,
});
const wrench = book.wrenches[0];
const days = DEFAULT_POLICY.hours;
const record = {
  atS: Array.from({ length: 120 }, (_, at) => at),
  overBar: Array.from({ length: 120 }, (_, at) => (at < 12 ? 0 : 2)),
  deflectionUm: Array.from({ length: 120 }, (_, at) => (at < 12 ? 0 : 8 - at / 100)),
};

const pressed = {
  crystalMm: 28,
  bezelMm: 32,
  crystalAboveMm: 0.4,
  caseMm: 36,
  backMm: 32,
  backBulgeMm: 0,
  glassMm: 20,
  glassAboveMm: 0.2,
};

const SAMPLES: Samples = {
  cases: {
    clockDistance: [3, 5],
    clockWords: [3, 'behind'],
    notchAngles: [6, []],
    strikes: [
      3,
      { crownClock: 3, noCrown: false, pusherClocks: [2, 4], lugClocks: [], lipClock: 7, seenFrom: 'behind' },
    ],
    turnClock: [3, 'dial', 'behind'],
    contradictions: [back],
    pitchCircleMm: [back],
    measureWords: [back],
    prySpot: [
      { from: 'behind', crownClock: 3, noCrown: false, lipClock: 7, pusherClocks: [2], seenFrom: 'behind' },
    ],
    differsFromBook: [back, { backKind: back.kind, lipClock: 3, lipSeenFrom: 'behind', back }],
  },
  charging: {
    chargingPlan: [
      {
        book: { times, dayIs: 'exposure from flat', reserveDays: 180 },
        factor95: 1.5,
        lux: 5000,
        hours: days,
        zone: 'Europe/Lisbon',
        fromUtc: '2026-03-17T10:00:00.000Z',
        start: 20,
        handBackShare: 0.5,
        seen: [{ atUtc: '2026-03-17T12:00:00.000Z', stepsNormally: true }],
      },
    ],
    errorsOf: [times],
    hoursAt: [times, 'fullH', 3000],
    lightNow: [place, 8000],
    lightThere: [place, 200, 21],
    questionsOf: [{ times, dayIs: 'exposure from flat', reserveDays: 180 }],
    rotorPlan: [{ perHourWornH: 12, perThousandTurnsH: 10, figuresAre: 'gross' }, 90, 10, 0.5, 900],
  },
  closing: {
    closingPlan: [
      {
        kind: 'snap-on',
        wayBack: [],
        lipClock: 7,
        lipSeenFrom: 'behind',
        crownClock: 9,
        backNoted: null,
        screwCount: 4,
        hatchOpens: null,
        panelLayers: [],
        inside: [],
        coverSealed: false,
        greased: null,
        insulators: [],
        way: null,
        grease: 'pad',
        ring: 'renewed',
        dies: null,
      },
    ],
    fitDies: [
      {
        pressed: 'back',
        measures: pressed,
        tools: book,
      },
    ],
    pressContradictions: [pressed],
    crosswise: [6],
  },
  gaskets: {
    freeDepthMm: [groove],
    grooveWidthMm: [groove],
    stretchLimits: [groove],
    fitGasket: [ring, groove],
    bestRings: [[{ size: ring }], groove],
    ringWanted: [groove],
    grooveContradictions: [groove],
    measuredRingContradictions: [ring, groove],
    wornContradictions: [{ heightMm: 0.6, widthMm: 0.75 }],
    wornRing: [{ heightMm: 0.6, widthMm: 0.75, profile: 'round', groove, sectionOfTypeMm: 0.7 }],
    oldRingContradictions: [
      { heightMm: 0.6, widthMm: 0.75, insideMm: 30.6, outsideMm: 32.1, profile: 'round' },
    ],
    likeliestRings: [
      { heightMm: 0.6, widthMm: 0.75, insideMm: 30.6, outsideMm: 32.1, profile: 'round' },
      [{ size: ring }],
    ],
    sectionsLeft: [[0.5, 0.6, 0.7], { sectionMm: 0.68 }],
    readRingCode: ['30.5 × 0.70'],
    renewOrReuse: [
      {
        findings: [],
        ageYears: 3,
        ratingBar: 5,
        meetsWater: true,
        staysClosedYears: 2,
        chargesItself: false,
        worn: null,
        rule: 'inspect and decide',
        unknownAge: 'look at it',
      },
    ],
    isForLicensed: [20],
  },
  health: {
    leakReachesCoil: [calibre, { xMm: 3, yMm: 4 }],
    judgeRestVoltage: [1.5, 'silver-oxide'],
    judgeLoadedVoltage: [1.45, 1.55, 'silver-oxide', { loadKOhm: 2, seconds: 1 }],
    judgeCurrent: [1.1, current],
    judgeStoppedCurrent: [0.3, current],
    judgeCoil: [1.8, { whose: 'this movement', of: 'OR 41.2', minKOhm: 1.5, maxKOhm: 2 }],
    judgeLowestRunning: [1.15, { whose: 'this movement', of: 'OR 41.2', volts: 1.2 }],
    judgeRate: [0.4],
    gaugeOf: [
      { measure: 'currentUA', value: 1.1, reference: { whose: 'general', min: 0, max: 1.4 } },
      [1, 1.2],
    ],
    trendOf: [
      [
        { atUtc: '2024-03-01T00:00:00.000Z', value: 1 },
        { atUtc: '2025-03-01T00:00:00.000Z', value: 1.2 },
        { atUtc: '2026-03-01T00:00:00.000Z', value: 1.3 },
      ],
      { value: 1.4, eitherWay: false },
      'µA',
    ],
    leakOptions: [
      {
        leaks: [{ place: 'contact', severity: 'crust' }],
        coil: 'good',
        currentAfterUA: 1.2,
        figures: current,
        originalMatters: false,
        byCoil: false,
        chemistry: 'silver-oxide',
        priceOf: () => 1000,
      },
    ],
    diagnose: [
      {
        observed: new Map([['shows', 'dead']]),
        freshCell: false,
        changedLately: false,
        charges: false,
        lowSupplySignal: null,
        hasReset: null,
        hasHands: true,
        stepIntervalS: 1,
        watchedSeconds: 10,
        originalMatters: false,
        priceOf: () => 1000,
      },
    ],
  },
  judgement: {
    figure: [1.5, 2],
    percent: [0.5],
    invalidFigures: [[{ path: 'a', what: 'The ring', value: 1, unit: 'mm', over: 0, to: 9 }]],
    invalidLengths: [[['a', 'The ring', 1]]],
  },
  cells: {
    crossReference: [wanted, cell, { alkalineAgreed: false }],
    liesInWell: [cell, { diameterMm: 7, depthMm: 2.3 }],
    lookAlikes: [cell, book.cellTable],
    looksLike: [cell, book.cell('SR621W')],
    wantedFromType: [cell, { drain: 'low', otherHeightsMm: [2.1] }],
    weighWitnesses: [
      { book: wanted, print: null, found: cell, well: { diameterMm: 7, depthMm: 2.3 } },
      book.cellTable,
    ],
    openFinder: {
      asked: [{ name: '364', diameterMm: 6.8, heightMm: 2.15 }],
      by: (face, [query]) =>
        (face.openFinder?.(book.cellTable) as { find: (query: unknown) => unknown }).find(query),
    },
    readCellMarking: ['364', book.cellTable],
  },
  devices: {
    caliperText: [7.02, 'mm'],
    simulateReading: [1.55, 0.01, 0.01, 7],
    simulateTrace: [simulated, 2, 30, 7],
    simulateTest: [simulated, { atS: [0, 1, 2], overBar: [0, 2, 2] }, 7],
    simulateDelivery: [
      [{ item: 'cell', code: 'SR621SW', count: 10 }],
      { wrongShare: 0.1, shortShare: 0.1 },
      book.cellTable,
      '2026-03-17',
      7,
    ],
  },
  fitting: {
    fittingGuide: [
      {
        movement: calibre,
        place: calibre?.wells[0],
        notSeen: [],
        above: { off: [], on: [] },
        cellDiameterMm: 6.8,
        schools: DEFAULT_POLICY.schools,
        prints: [],
        fromFront: false,
        noneFound: false,
        foundClean: true,
        further: false,
        ofPair: null,
        last: true,
      },
    ],
  },
  identify: {
    openIdentifier: {
      asked: [seen],
      by: (face, [evidence]) => {
        const found = (
          face.openIdentifier?.(book, []) as {
            identifyMovement: (evidence: unknown) => { candidates: readonly object[]; reasons?: unknown };
          }
        ).identifyMovement(evidence);
        return {
          ...found,
          candidates: found.candidates.slice(0, 3).map((each) => ({ ...each, calibre: null })),
        };
      },
    },
    nextBestLook: {
      asked: [seen],
      by: (face, [evidence]) =>
        face.nextBestLook?.(
          (face.openIdentifier?.(book, []) as { believe: (evidence: unknown) => unknown }).believe(evidence),
          [],
        ),
    },
    seenWords: [seen[0]],
    pickLikelihood: ['jewels', ['1', '2'], 1, 1],
    unknownCalibre: {
      asked: [seen],
      by: (face, [evidence]) => (face.unknownCalibre?.(evidence, book) as { words?: unknown }).words ?? '',
    },
  },
  movements: {
    feedsByName: ['light'],
    isNearCoil: [calibre?.coils[0], 3, 4, 2],
    unknownCodeLikelihood: ['OR 41.2', ['LL dd.d']],
  },
  life: {
    expectedLife: [life],
    lifeWords: [20],
    lifeRange: [forecast],
    compareLives: [[{ id: 'a', priceMinor: 300 }], [forecast], []],
    judgeFitted: [
      {
        cell,
        rest: 'good',
        loaded: 'good',
        leaked: false,
        life: forecast,
        fittedOn: '2025-03-01',
        today: '2026-03-17',
      },
    ],
    serviceGain: [life, 2.5, 1],
    usualDrainUA: [{ cell, functions: ['hands'], notLookedAt: false, cells: 1 }],
    openDraws: {
      asked: [life],
      by: (face, [input]) => {
        const draws = face.openDraws?.(input) as {
          draw: (count: number) => unknown;
          forecast: () => unknown;
        };
        draws.draw(500);
        return draws.forecast();
      },
    },
    forecastAsFitted: [forecast],
    estimateLives: [[cellLife, cellLife, cellLife, cellLife, cellLife, cellLife]],
    judgeShopLife: [
      { verdict: 'factor', factor: 0.8, from: 0.7, to: 0.9, fitted: 9, seenAgain: 7, spent: 5 },
      forecast,
      'X',
    ],
    livesOf: [
      [
        visitOf('2024-03-01', {
          code: '364',
          supplier: 'S',
          on: '2024-03-01',
          forecast: { medianMonths: 30, spread: 0.1 },
        }),
        { ...visitOf('2026-01-10', null), stopped: { from: '2025-12-01', to: '2025-12-31' } },
      ],
      '2026-03-17',
    ],
  },
  money: { amount: [1200], money: [1200, 'EUR'] },
  opening: {
    chooseOpener: [{ back, tools: book, crownClock: 3, noCrown: false }],
    jawSetting: [{ count: 6, pitchMm: 24, widthMm: 2, clocks: [], of: 'notches', wrenches: book.wrenches }],
    overTravel: [wrench, { separationMm: 20, rearMm: 10 }],
    openingPlan: [
      {
        back,
        opener: chooseOpener({ back, tools: book, crownClock: 3, noCrown: false }),
        tools: book,
        schools: DEFAULT_POLICY.schools,
        keepsFilm: false,
        functions: ['hands'],
        movementMm: 23.7,
        innerCovers: 1,
        lastTime: null,
      },
    ],
  },
  parts: { countOf: ['spring bar', 2] },
  setting: {
    changeOverOf: [{ fromClock: '22:00', toClock: '02:00' }],
    readShown: [{ hands: '9:42', half: 'a.m.', weekday: 2, date: 17, language: 0 }, true],
    settingAdvice: [
      {
        functions: ['hands', 'date'],
        dial: [],
        dateQuickSet: true,
        dayQuickSet: null,
        recipes: [],
        cautions: [],
        crownPositions: [],
        changeOver: null,
      },
      '2026-03-17',
      { plan: null, wantedMinutes: 620 },
    ],
    planSetting: [
      { dialMinutes: 100, half: 'a.m.', weekday: 1, date: 12, language: 0 },
      { minutes: 620, weekday: 2, date: 17, language: 0 },
      { quickSet: 'date', changeOver: { from: 1200, to: 120 } },
    ],
    judgeRun: [
      { shows: '10:00:00', atUtc: '2026-03-17T10:00:00.000Z' },
      { shows: '20:00:00', atUtc: '2026-03-17T20:00:00.000Z', stillRuns: true },
      null,
    ],
    watchSeconds: [{ stepIntervalS: 1, functions: ['hands', 'seconds hand'] }],
  },
  stock: {
    checkDelivery: [
      [{ item: 'cell', code: 'SR621SW', count: 10 }],
      [
        {
          item: 'cell',
          code: 'SR621SW',
          count: 9,
          lotCode: 'A',
          madeOn: '2025-09-01',
          bestBefore: '2028-09-01',
          priceMinor: 60,
        },
      ],
      () => cell,
    ],
    readBoxLabel: ['(240)CR1216(10)SM-77(17)320930(30)20', '2026-03-17', () => true],
    whatToFit: [
      {
        wanted,
        lots: [lot],
        table: book.cellTable,
        cellOf: book.cell,
        day: '2026-03-17',
        alkalineAgreed: false,
        priceOf: () => 1200,
      },
    ],
    lotAge: [{ madeOn: '2025-09-01', bestBefore: '2028-09-01' }, cell, '2026-03-17'],
    isPastDate: [{ bestBefore: '2028-09-01' }, '2026-03-17'],
    setAside: [{ quarantined: null, bestBefore: '2028-09-01' }, '2026-03-17'],
    doubtfulDates: [{ madeOn: '2025-09-01', bestBefore: '2028-09-01' }, '2026-03-17'],
    judgeSample: [{ restVoltageV: 1.56, print: 'clean' }, cell],
    recordWords: [
      { supplier: 'A', deliveries: 5, wrong: 1, short: 0, fitted: 40, leaked: 1, supplies: ['SR621SW'] },
    ],
    bestSupplier: [
      [{ supplier: 'A', deliveries: 5, wrong: 1, short: 0, fitted: 40, leaked: 1, supplies: ['SR621SW'] }],
    ],
    runningLow: [[lot], [], '2026-03-17'],
    sinceCounted: [
      { balance: 5, unbooked: 0 },
      [{ delta: -1, reason: 'fitted' }],
      { balanceSeen: 6, unbookedSeen: 0 },
    ],
  },
  tightness: {
    phasesOf: [record],
    pressedAt: [record],
    driftOf: [record, 0.05],
    insideAfter: [1, 3, 4e-4, 60],
    limitConstant: [{ volumeCm3: 1.5, temperatureC: 23 }],
    standardTest: [2, 60],
    deflectionKept: [{ deflectionStartUm: 8, deflectionEndUm: 7 }],
    apart: [
      { share: 0.2, from: 0.1, to: 0.3, of: 20 },
      { share: 0.6, from: 0.5, to: 0.7, of: 20 },
    ],
    judgeTest: [
      { method: 'wet', pressureBar: 3, seconds: 60, outcome: 'no leak seen' },
      { sinceClosing: true, ringMissing: false, leak: null },
    ],
    planLeakTest: [
      {
        ratingBar: 5,
        use: 'swimming',
        ageYears: 3,
        damage: [],
        notRenewed: [],
        screwedCrown: false,
        volume: { cm3: 1.5, factor: 1.2, how: 'measured' },
        temperatureC: 23,
        usualUmPerBar: 4,
      },
      { dryMostBar: 10, dryVacuumBar: 0.7, wetMostBar: 12.5, mostBar: 10, noiseUm: 0.05 },
    ],
    residualsOf: [record, leakSetting],
    judgeLeak: [{ record, blank: null, opposite: null }, leakSetting],
    outlookOf: [record, leakSetting, 100],
    freeVolume: [{ measuredCm3: 1.5, withinPercent: 10, diameterMm: 36, thicknessMm: 10 }],
    flowFigure: [350],
    massFlow: [4e-4, { volumeCm3: 1.5, temperatureC: 23 }, 2],
    recordContradictions: [record],
    volumeContradiction: [1.5, 36, 10],
    pressureExcess: [
      3,
      { mostTestBar: 10, dryTesterMostBar: 10, wetTesterMostBar: 12.5, dryTesterVacuumBar: 0.7 },
    ],
    pressureWords: [3],
    pressureInOtherUnits: [3],
    carriedBy: [record],
    heldPhases: [record],
    heldOf: [{ record, pressureBar: 2, seconds: 100 }],
    shareOf: [3, 20],
    watchTime: [
      {
        noiseShare: 0.005,
        correlation: 0,
        overBar: 2,
        of: { volumeCm3: 1.5, temperatureC: 23 },
        factor: 1.5,
        shareOfLimit: 0.5,
      },
    ],
  },
  time: {
    dayInWords: ['2026-03-17'],
    localDayInWords: ['2026-03-17T10:00:00.000Z', 'UTC'],
    localMoment: ['2026-03-17T10:00:00.000Z', 'UTC'],
    addDays: ['2026-03-17', 3],
    daysBetween: ['2026-03-17', '2026-03-20'],
    yearsBetween: ['2026-03-17', '2028-03-20'],
    minutesBetween: ['2026-03-17T10:00:00.000Z', '2026-03-17T11:00:00.000Z'],
    daysInMonth: ['2026-03-17'],
    instantAt: ['2026-03-17', '09:30', 'Europe/Lisbon'],
    isDay: ['2026-03-17'],
    isMoment: ['2026-03-17'],
    minutesOfClock: ['09:30'],
    saidDays: ['2026-03-17'],
    localDay: ['2026-03-17T10:00:00.000Z', 'Europe/Lisbon'],
    localTime: ['2026-03-17T10:00:00.000Z', 'Europe/Lisbon'],
    addMonths: ['2026-03-17', 3],
    addMinutes: ['2026-03-17T10:00:00.000Z', 30],
    nextDay: ['2026-03-17'],
    noMoments: [[['The day it was made', '2026-03-17']]],
    nextDateCorrection: ['2026-03-17'],
  },
  tools: {
    paidBack: [{ costMinor: 5000, jobs: 4, gainMinor: 700 }],
    paybackOfJob: [
      { ownCostMinor: 500, referralMarginMinor: 300 },
      { toolCostMinor: 5000, priceMinor: 1400, jobsPerMonth: 3 },
    ],
    usualCostMinor: [[{ costMinor: 5000 }]],
  },
  units: { formatLignes: [23.7], readQuantity: ['23.7 mm', 'lengthMm'], readSize: ['10½‴'] },
  tickets: { makeTicket: [427], readTicket: ['T0427-5'] },
};

const asked = Object.entries(SAMPLES).flatMap(([room, functions]) =>
  Object.entries(functions).map(([name, args]) => [room, name, args] as const),
);

/** What a judgement answers where it cannot judge. */
const CANNOT = [
  'cannot say',
  'cannot tell',
  'not judged',
  'not known',
  'not yet known',
  'no forecast',
  'no verdict',
  'refused',
  'impossible',
  'measures disagree',
  'not readable',
  'proves nothing',
];
/** How the figure or date that cannot be is named. */
const NAMED =
  /is no (number|measure|date|day|time)|is not an? (number|measurement|date|time of day)|(is|are) not valid|not a (valid|possible)|Not a valid|cannot be|is not known|no forecast/;

/** What is not weighed where it stands, with why; a figure that cannot be changes nothing there. */
const NOT_WEIGHED: Readonly<Record<string, readonly (readonly [where: RegExp, why: string])[]>> = {
  lightNow: [[/measuredAtMm|caseRiseK/, 'what the meter shows now counts; lightThere judges the place']],
  wornRing: [[/depthWithinMm/, 'the old ring alone is measured there']],
  judgeStoppedCurrent: [[/limitUA/, 'held against what is typical']],
  likeliestRings: [[/sectionWithinMm/, 'each ring is taken by the size it is named by']],
  leakOptions: [[/typicalUA/, 'held against the limit']],
  crossReference: [[/capacity/, 'a cell fits by size, voltage, chemistry and drain']],
  weighWitnesses: [[/capacity/, 'witnesses are weighed by size and voltage']],
  outlookOf: [[/^[01]\./, 'told as far as it goes; judgeLeak judges record and setting']],
  openIdentifier: [[/0\.1\.withinMm/, 'what is picked is not measured']],
  nextBestLook: [[/./, 'asked with a belief: identifyMovement names what does not count']],
  expectedLife: [[/seed/, 'where the drawing begins']],
  openDraws: [[/seed/, 'where the drawing begins']],
  serviceGain: [[/seed|0\.baseUA/, 'the two currents stand beside it']],
  judgeFitted: [
    [/cell\.|p90Months|nextVisitMonths|bars/, 'its chemistry, its early end and its middle count'],
  ],
  compareLives: [[/p90Months|nextVisitMonths|bars/, 'its early end and its middle are told']],
  judgeShopLife: [[/nextVisitMonths|bars/, 'the percentiles are corrected']],
  estimateLives: [[/./, 'a life that cannot be is left out, and not among those counted']],
  chooseOpener: [[/crownClock/, 'a screwed back is opened without regard to it']],
  checkDelivery: [
    [/madeOn|bestBefore|priceMinor/, 'doubtfulDates judges the dates; a price is no part of an order'],
  ],
  whatToFit: [[/unbooked|madeOn|priceMinor|capacity/, 'what lies there, its date and its cell decide']],
  judgeSample: [[/diameterMm|heightMm|capacity/, 'a sample is judged by voltage and print']],
};

/** What may be there all the same, less than nothing or far off. */
const MAY_BE: Readonly<
  Record<string, readonly (readonly [where: RegExp, bad: number | string, why: string])[]>
> = {
  fitDies: [[/Above|Bulge/, -1, 'a crystal lies under its bezel, a back is hollow']],
  judgeRate: [[/./, -1, 'a watch loses']],
  trendOf: [
    [/value/, -1, 'a watch loses'],
    [/value/, 1e12, 'in a unit of its own'],
  ],
  expectedLife: [[/yearsSinceMade/, -1, 'a lot is dated to the month']],
  openDraws: [[/yearsSinceMade/, -1, 'a lot is dated to the month']],
  serviceGain: [[/yearsSinceMade/, -1, 'a lot is dated to the month']],
  compareLives: [[/priceMinor/, 1e12, 'a price']],
  judgeShopLife: [[/fitted|seenAgain|spent/, 1e12, 'a count']],
  settingAdvice: [[/./, '9999-12-31', 'a day of the calendar']],
  readBoxLabel: [[/./, '9999-12-31', 'the day it is read']],
  whatToFit: [
    [/bestBefore/, '9999-12-31', 'doubtfulDates judges it'],
    [/balance/, 1e12, 'a count'],
  ],
  judgeTest: [[/pressureBar/, -1, 'a vacuum']],
  planLeakTest: [
    [/ageYears/, -1, 'of this year'],
    [/temperatureC/, -1, 'a cold day'],
  ],
  paidBack: [
    [/./, 1e12, 'a sum'],
    [/gainMinor/, -1, 'a loss'],
  ],
  paybackOfJob: [[/./, 1e12, 'a sum']],
};

/** Whether this can be no figure and no date of it; nothing at all is weighed by each as it sees fit. */
const cannotBe = (name: string, where: string, bad: number | string): boolean =>
  bad !== 0 &&
  bad !== '' &&
  !(MAY_BE[name] ?? []).some(([places, what]) => places.test(where) && what === bad);

function verdictsIn(answer: unknown, depth = 0): readonly string[] {
  if (answer === null || typeof answer !== 'object' || depth > 3) return [];
  const { verdict } = answer as { readonly verdict?: unknown };
  return [
    ...(typeof verdict === 'string' ? [verdict] : []),
    ...Object.values(answer).flatMap((each) => verdictsIn(each, depth + 1)),
  ];
}

/** Whether something told as asked stays empty now. */
function leavesEmpty(answer: unknown, asAsked: unknown): boolean {
  if (answer === null) return asAsked !== null;
  if (typeof answer !== 'object' || typeof asAsked !== 'object' || asAsked === null) return false;
  return Object.entries(answer).some(([key, each]) =>
    leavesEmpty(each, (asAsked as Record<string, unknown>)[key]),
  );
}

function textsIn(answer: unknown): readonly string[] {
  if (typeof answer === 'string') return [answer];
  return answer === null || typeof answer !== 'object' ? [] : Object.values(answer).flatMap(textsIn);
}

/** Whether a judgement says of what it was asked that it cannot be. */
function saysSo(answer: unknown, asAsked: unknown): boolean {
  const before = new Set(textsIn(asAsked));
  return (
    verdictsIn(answer).some((each) => CANNOT.includes(each)) ||
    textsIn(answer).some((each) => NAMED.test(each) && !before.has(each)) ||
    leavesEmpty(answer, asAsked)
  );
}

describe.each(Object.keys(SAMPLES))('the face of %s', (room) => {
  // Read at run time, as its functions are asked by name.
  const face = jest.requireActual<Face>(`./${room}`);

  it.each(asked.filter(([of]) => of === room))('%s: %s', (_, name, sample) => {
    const call = face[name];
    if (!call) throw new Error(`${room} has no ${name}`);
    const [args, ask] =
      'asked' in sample
        ? [sample.asked, (given: readonly unknown[]) => sample.by(face, given)]
        : [sample, (given: readonly unknown[]) => call(...given)];
    const asAsked = ask(args);
    const judges = verdictsIn(asAsked).length > 0;
    const strange: string[] = [...strangeIn(asAsked)].map((each) => `as asked ${each}`);
    for (const path of placesIn(args)) {
      const was = path.reduce<unknown>((value, key) => (value as Record<string, unknown>)[key], args);
      const weighed = !(NOT_WEIGHED[name] ?? []).some(([where]) => where.test(path.join('.')));
      for (const bad of typeof was === 'number' ? BAD_FIGURES : BAD_TEXTS) {
        const label = `${path.join('.')} = ${String(bad)}`;
        try {
          const answer = ask(put(args, path, bad) as readonly unknown[]);
          if (typeof answer !== 'number')
            strange.push(...strangeIn(answer).map((each) => `${label} ${each}`));
          if (judges && weighed && cannotBe(name, path.join('.'), bad) && !saysSo(answer, asAsked))
            strange.push(`${label}: judged as if it could be: ${verdictsIn(answer).join(', ')}`);
        } catch (error) {
          strange.push(`${label} threw ${String(error)}`);
        }
      }
    }
    expect(strange.slice(0, 12)).toEqual([]);
  });
});

/** Functions that take words, records of the book, or give figures back as they came: nothing is reckoned there with a bench's. */
const TAKES_NONE: Readonly<Record<string, string>> = {
  book: 'catalogueOf changedFields drainNeeded holdRecords judgeRecord openBook recordId recordsIn withRecords withoutRecord',
  cases: 'asBackKind closingSchool measuresOf onlyOfKind panelLayers turnedBack workedFrom',
  cells: 'asMarked buildCellTable cellNamedIn lookAlikesHere mayBeFitted saidTogether supplySaid',
  devices: 'isVented phaseAt readMeterLine recordOfSamples',
  find: 'findWords findable isSearchedFor rankFound editDistance triples',
  gaskets: 'isAsAdvised ringContradictions',
  health: 'figuresFor usualLoad',
  identify: 'cellSizes compareMovements expectedMeasure expectedPick lookSpec standsForIt',
  judgement: 'capital memoizeByValue',
  life: 'normalFrom seededUniform',
  movements:
    'asRevision bareCode byChance calibreWords differences engravedCase inFrameOf kitsFor legible openRevisions readEngraving reserveWith seenProbability sisterProbability stretches symbolsOf takenApart twinsOf',
  opening: 'opens pryQuestion',
  parts: 'asNoted isSeamRing partInWords provedWhenOut partNamedIn serves toBeNoted wantsNoting whatToNote',
  policy: 'completePolicy priceInList wayTaken waysOf',
  setting: 'cautionsAtSetting hasDateWheel proofsToMake recipesAtSetting wayBackOf',
  stock: 'codesOnOrder orderOfNote usualTake',
  tightness: 'condense delimiterOf keepJudgement mayEnd openTraceReader traceRowsOfJson',
  tools: 'litWhen toolsFor',
};

it('asks every function of every face, or says that it takes no figure', () => {
  const rooms = readdirSync(join(process.cwd(), 'src/core/craft'), { withFileTypes: true })
    .filter((each) => each.isDirectory())
    .map(({ name }) => name);
  const open = rooms.flatMap((room) => {
    const taken = [...Object.keys(SAMPLES[room] ?? {}), ...(TAKES_NONE[room] ?? '').split(' ')];
    return Object.entries(jest.requireActual<Record<string, unknown>>(`./${room}`)).flatMap(
      ([name, value]) => (typeof value === 'function' && !taken.includes(name) ? `${room}: ${name}` : []),
    );
  });
  expect(open).toEqual([]);
});

it('keeps to the safe side where the answer is a word or a figure alone', () => {
  const sides = {
    from: 'behind',
    crownClock: 3,
    noCrown: false,
    lipClock: 7,
    pusherClocks: [2],
    seenFrom: 'behind',
  } as const;
  expect(strikes(Number.NaN, sides)).toBe('an invalid clock position');
  expect(strikes(7, { ...sides, crownClock: Number.NaN })).toBe('an invalid clock position');
  expect(strikes(7, { ...sides, pusherClocks: [14] })).toBe('an invalid clock position');
  const limits = { ratingBar: 3, policyBar: 10, testerBar: 10, testerVacuumBar: 0.7 };
  expect(pressureExcess(Number.NaN, limits)).toHaveLength(1);
  expect(pressureExcess(5, { ...limits, ratingBar: Number.NaN })).toHaveLength(1);
  expect(pressureExcess(-0.5, { ...limits, testerVacuumBar: Number.NaN })).toHaveLength(1);
  expect(leakReachesCoil({ coils: calibre?.coils ?? [], keepClearMm: 1 }, { xMm: Number.NaN, yMm: 0 })).toBe(
    true,
  );
  expect([isForLicensed(Number.NaN), isForLicensed(19.9)]).toEqual([true, false]);
  expect([isDay('no date'), isDay('2026-02-31'), isMoment('2026-02-31T10:00:00.000Z')]).toEqual([
    false,
    false,
    false,
  ]);
  expect(isPastDate({ bestBefore: '2028-02-31' }, '2026-03-17')).toBe(true);
  expect(runningLow([{ ...lot, balance: Number.NaN }], [], '2026-03-17')).toEqual([
    { code: lot.code, left: 0 },
  ]);
  const of = { supplier: 'A', deliveries: 1, wrong: 0, short: 0, fitted: 400, leaked: 0, supplies: [] };
  expect(bestSupplier([{ ...of, supplier: 'B', fitted: Number.NaN }, of])).toBe('A');
  expect(bestSupplier([{ ...of, supplier: 'B', leaked: -40 }, of])).toBe('A');
});
