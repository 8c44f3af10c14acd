import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { BAD_FIGURES, BAD_TEXTS, placesIn, put, strangeIn } from '../testing/badFigures';
import { book, context, idOf, Logbook, lot } from '../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../testing/samples';
import { judgeAddedByFile, judgeEntry, judgeHistory } from './admission';
import { needsOf, promiseAfterParts, readyToOpen } from './advice/arrival';
import {
  fitByMeasure,
  fitForWell,
  guidesOf,
  placeWants,
  oldCellAway,
  putBackRefusal,
  refusalOf,
  serviceGainOf,
  witnessesOf,
} from './advice/cell';
import {
  chargeUnderLight,
  daysStood,
  judgeAccumulator,
  lightRack,
  litOf,
  litWords,
  placesFor,
  startOnRecord,
  waitsInShade,
  woundHere,
} from './advice/charging';
import {
  dueWords,
  isToRemind,
  nextVisitNoted,
  openAt,
  orderRack,
  promiseWords,
  remindedOf,
  remindFrom,
  waitsFor,
} from './advice/dayplan';
import { followUpOf, handback } from './advice/handback';
import {
  diagnosesOf,
  judgeJobReadings,
  leakAdviceOf,
  pulsesComeFirst,
  readingOfMovement,
} from './advice/health';
import { evidenceOfJob, seenMovement, wentUnnamed } from './advice/identify';
import {
  freeVolumeOf,
  judgeTests,
  leakCaseOf,
  leakReport,
  leakTrend,
  testInWords,
  usualStiffness,
} from './advice/leaks';
import { cellVisitOf, fittedAdviceOf, lifeQuestion, nextVisit, shopLifeOf, visitWords } from './advice/life';
import { openingOf, partsComingOff } from './advice/opening';
import { priceOf } from './advice/price';
import {
  movementToSet,
  orderOfProofs,
  proofSteps,
  runningOf,
  runsOfRack,
  whereItStands,
} from './advice/proving';
import {
  assortmentOf,
  chooseRing,
  closingOf,
  diesOf,
  gasketAdvice,
  pressMeasuresOf,
  ringOffers,
  staysClosedYears,
  wornOf,
  fittedRing,
  isClosingStepDone,
  typedSizeContradictions,
} from './advice/seal';
import { supplyOf } from './advice/supply';
import {
  leakPlace,
  notToBeRun,
  testExcess,
  testNotYet,
  testPlanOf,
  waterStatement,
  wetRisk,
} from './advice/tightness';
import { earlierReadings, trendsOfWatch, watchHistory } from './advice/watches';
import {
  type Entry,
  entryInWords,
  type EntryKind,
  type JobState,
  looseCells,
  lyingOpen,
  partProofs,
  partsToOrder,
  proofsOf,
  runOf,
  stockMoves,
  unproved,
  wayBack,
  failedProofs,
  freshLoose,
  insideContradictions,
  leakMarkWords,
  markPlace,
  mayCloseDay,
  openParts,
  pairBack,
  positionsToNote,
  ranBeforeClosing,
  sealsInside,
  seenRunning,
  settingOf,
  activeRing,
  watchedLongEnough,
} from './logbook';

/**
 * Every floor above the craft, given a job in which one figure or date of one fact cannot be. No door lets such a fact in; a file
 * of an older program, or a slip of ours, may. Whatever is asked answers, throws nothing and shows no figure that is none.
 */
const DAY = '2026-03-17';
/** The craft below is asked with every bad figure; here one of each sort is enough. */
const BAD_HERE = BAD_FIGURES.filter((each) => each !== 0 && each !== -Infinity);
/** What would close or empty the job, so that nothing more is asked of it. */
const LEFT_OUT: readonly EntryKind[] = [
  'logbook.withdrawn',
  'logbook.stage-skipped',
  'handback.signed',
  'arrive.decision',
];

/** What each floor is asked of a job. */
function asksOf(state: JobState, entries: readonly Entry[]): Readonly<Record<string, () => unknown>> {
  const { facts, calibre, caseType, wells } = state;
  const [well] = wells;
  if (!well) throw new Error('a place for a cell wanted');
  const visits = [{ jobId: 'j', ticket: 'T0001-9', receivedAt: '2026-03-17T10:00:00.000Z', state }];
  const history = watchHistory(visits);
  const opening = openingOf({
    state,
    history: null,
    tools: book,
    schools: context.policy.schools,
    typed: null,
  });
  const groove = facts.groove?.payload ?? null;
  return {
    entryInWords: () => entries.map(entryInWords),
    looseCells: () => looseCells(state),
    lyingOpen: () => lyingOpen(facts),
    stockMoves: () => [...stockMoves(state)],
    runOf: () => [runOf(facts, 'that it runs'), runOf(facts, 'how it keeps time')],
    unproved: () => [unproved(facts, calibre), proofsOf(facts, calibre)],
    partProofs: () => [partProofs(facts), partsToOrder(facts), wayBack(facts)],
    judgeEntry: () => entries.map((entry) => judgeEntry(entry, state, [], () => [lot], context)),
    arrival: () => [
      readyToOpen(state),
      promiseAfterParts(state, context),
      needsOf({ state, history, book, lots: [lot], records: [], policy: context.policy, day: DAY }),
    ],
    witnesses: () => witnessesOf(state, well, book),
    fit: () => [
      fitForWell(state, well, {
        lots: [lot],
        records: [],
        book,
        policy: context.policy,
        day: DAY,
        alkalineAgreed: false,
      }),
      fitByMeasure(state, well, [lot], book, DAY),
      placeWants(state, well, book),
      putBackRefusal(state, well, book),
      oldCellAway(well),
      refusalOf(state, well, { cellCode: 'SR621SW', alkalineAgreed: false }, book),
    ],
    guides: () => [...guidesOf(state, book, context.policy.schools)],
    serviceGain: () => serviceGainOf(state, well, 'SR621SW', book, DAY),
    charging: () => [
      chargeUnderLight(state, context),
      judgeAccumulator(state, context),
      litOf(state, context),
      startOnRecord(state, context),
      daysStood(state, context) ?? '',
      calibre ? placesFor(calibre, context) : [],
      woundHere(state, context, null),
    ],
    waitsFor: () => waitsFor(state),
    reminders: () => [
      nextVisitNoted(state)?.dueOn ?? '',
      [...BAD_TEXTS, DAY].map((day) => [
        dueWords(day, DAY),
        remindFrom(day),
        isToRemind(day, DAY),
        remindedOf(day),
      ]),
    ],
    handback: () => handback(state, [lot], context),
    readings: () => [
      judgeJobReadings(state, book),
      readingOfMovement(state, 'restVoltageV') === null,
      pulsesComeFirst(state, context.policy),
    ],
    diagnoses: () => diagnosesOf(state, book, context.policy),
    leakAdvice: () => leakAdviceOf(state, book, context.policy),
    identify: () => [
      evidenceOfJob(state, book).length,
      seenMovement(state, book).functions,
      wentUnnamed(state.facts),
    ],
    leaks: () => {
      const tests = judgeTests(state);
      const seen = leakCaseOf(state);
      return [
        tests.map(({ test }) => testInWords(test)),
        tests.map(({ shows }) => shows),
        freeVolumeOf(facts),
        leakReport(seen ? [seen] : []),
        leakTrend([], state),
        usualStiffness(tests, null, null) ?? '',
      ];
    },
    life: () => {
      const question = lifeQuestion(state, well, 'SR621SW', lot, DAY, book);
      const visit = nextVisit(state, [lot], context);
      return [
        typeof question === 'string' ? question : '',
        visit,
        cellVisitOf(state, [lot], context)?.places,
        fittedAdviceOf(state, well, book, DAY),
        visit.forecasts.map(({ life }) => shopLifeOf(life, lot)),
      ];
    },
    opening: () => [opening.opener, opening.plan, partsComingOff(opening.plan.steps, facts)],
    price: () => priceOf(state, 'EUR'),
    proving: () => [
      movementToSet(state, book),
      orderOfProofs(state),
      proofSteps(state, book),
      runsOfRack([{ running: runningOf(state, book) }], context.policy, context.nowUtc).map(({ due }) => due),
    ],
    seal: () => [
      gasketAdvice(
        state,
        { findings: [], ageYears: facts.gasket?.payload.ageYears ?? null, meetsWater: null },
        2,
        context,
      ),
      groove ? chooseRing(groove, assortmentOf(book, [lot], DAY), wornOf(state, book)) : null,
      closingOf(state, opening, diesOf(state, book, opening), context),
      Object.keys(pressMeasuresOf(state)),
      ringOffers({ caseType }, book, [lot], null, DAY).length,
      staysClosedYears(state, [lot], context) ?? '',
    ],
    supply: () => supplyOf(state, book),
    tightness: () => [
      waterStatement(state, context.shop.zone),
      testPlanOf(state, context.policy, null),
      testNotYet(state),
      wetRisk('wet', 1, judgeTests(state)),
      followUpOf(state, 'T0001-9', context.policy)?.length,
      whereItStands(state),
      facts.tests.map((test) => testExcess(test.payload, state, context.policy)),
    ],
    others: (): unknown => {
      const lit = litOf(state, context);
      const promisedAt = facts.promise?.payload.promisedAt ?? null;
      const life = nextVisit(state, [lot], context).forecasts[0]?.life;
      const seen = seenRunning(facts);
      return [
        lit ? litWords(lit, context.nowUtc, context.shop.zone, waitsInShade(lit, [lit])) : '',
        Object.keys(lightRack([{ lit }], book.lightPlaces, context.nowUtc)),
        promisedAt === null
          ? []
          : [
              openAt(promisedAt, context.policy.hours, context.shop.zone),
              promiseWords(promisedAt, context.nowUtc, context.shop.zone),
              orderRack([{ promisedAt, ticket: 'T' }], context.nowUtc).map(({ urgency }) => urgency),
            ],
        life?.verdict === 'forecast' ? visitWords(life, null, DAY) : '',
        facts.tests.map((test) => [
          notToBeRun(test.payload, state, context.policy),
          test.payload.places.map((mark) => [leakMarkWords(mark), leakPlace(mark, state)]),
        ]),
        insideContradictions(samples['seal.inside'], facts),
        facts.gasket ? typedSizeContradictions(facts.gasket.payload, groove) : [],
        failedProofs(facts),
        pairBack(facts),
        positionsToNote(facts).length,
        [seen === null || watchedLongEnough(seen, calibre), ranBeforeClosing(facts) === null],
        facts.marks.map(({ payload }) => markPlace(payload.view, payload.clock)),
        mayCloseDay(looseCells(state).map((each) => ({ ticket: 'T', cell: each }))),
        [activeRing(facts) === null, sealsInside(facts) > 0],
        fittedRing(state)?.reasons ?? [],
        openParts(facts),
        freshLoose(facts).length,
        entries.map((entry) => judgeAddedByFile(entry, state)),
        judgeHistory(entries, samples['arrive.received'], new Set(), {
          receivedAt: context.nowUtc,
          nowUtc: context.nowUtc,
        }),
        facts.back ? settingOf(facts.back.payload) : '',
        closingOf(state, opening, null, context).map((step) => isClosingStepDone(step, facts)),
      ];
    },
    watches: () => [
      trendsOfWatch(history, state, calibre, book).map(({ limit }) => limit),
      earlierReadings(history, 'currentUA', null).length,
    ],
  };
}

/** A job with a fact of every kind, of a movement of its own. */
function jobOf(
  calibreId: string,
  changed: { readonly kind: EntryKind; readonly payload: unknown } | null,
): Logbook {
  const job = new Logbook();
  for (const kind of SAMPLE_KINDS) {
    if (LEFT_OUT.includes(kind)) continue;
    const payload = kind === 'identify.movement' ? { ...samples[kind], calibreId } : samples[kind];
    job.add(kind, (changed?.kind === kind ? changed.payload : payload) as never, {
      id: idOf(`sample ${kind}`),
    });
  }
  return job;
}

function strangeOf(job: Logbook): readonly string[] {
  let asks: ReturnType<typeof asksOf>;
  try {
    asks = asksOf(job.state(), job.entries);
  } catch (error) {
    return [`folding threw ${String(error)}`];
  }
  return Object.entries(asks).flatMap(([name, ask]) => {
    try {
      return strangeIn(ask(), name);
    } catch (error) {
      return [`${name} threw ${String(error)}`];
    }
  });
}

/** What each movement is walked with: the first with everything, the others with what is of their supply. */
const OF_ITS_SUPPLY = /^(arrive\.(stopped|wear)|check|cell|handback)/;
const WALKED: readonly (readonly [calibreId: string, kinds: RegExp])[] = [
  ['orrelin-41-2', /./],
  ['vessarin-210s', OF_ITS_SUPPLY],
  ['quillbeck-22-4', OF_ITS_SUPPLY],
];

describe.each(WALKED)('a job on %s', (calibreId, walked) => {
  it('shows nothing strange as it is', () => {
    expect(strangeOf(jobOf(calibreId, null))).toEqual([]);
  });

  const kinds = SAMPLE_KINDS.filter(
    (kind) => walked.test(kind) && !LEFT_OUT.includes(kind) && placesIn(samples[kind]).length > 0,
  );
  it.each(kinds)('with a figure or date of %s that cannot be', (kind) => {
    const strange = placesIn(samples[kind]).flatMap((path) => {
      const was = path.reduce<unknown>(
        (value, key) => (value as Record<string, unknown>)[key],
        samples[kind],
      );
      return (typeof was === 'number' ? BAD_HERE : BAD_TEXTS).flatMap((bad) =>
        strangeOf(jobOf(calibreId, { kind, payload: put(samples[kind], path, bad) })).map(
          (each) => `${path.join('.')} = ${String(bad)}: ${each}`,
        ),
      );
    });
    expect(strange.slice(0, 12)).toEqual([]);
  });
});

/** What is asked inside the answers above, or takes words, records and what those answers gave. */
const ASKED_WITHIN: Readonly<Record<string, string>> = {
  'advice/arrival': 'availability needsInWords promiseFor requestFor worstOf',
  'advice/cell': 'accumulatorInQuestion pairedWith primaryBarred setOf trayOfFitting',
  'advice/charging': 'chargeHere chargedHereBy chargesItself hasLeaked kitLots kitsHere renewalRefusal',
  'advice/dayplan': 'withinHours',
  'advice/handback': 'readyToHandBack',
  'advice/health':
    'chemistryOfJob chemistryOfWell diagnoseJob isLoupeTest isOfACell loupeRecord measureOfTest testAnswers whatShows',
  'advice/identify': 'movementHidden',
  'advice/leaks': 'barOf flowInWords leakOfTest leakSettingOf repairedBetween usualOfCase',
  'advice/life': 'usesOf withForecastsKept',
  'advice/opening': 'asAdvised crownClockOf expectedBack',
  'advice/proving': 'dayOf dueOf notSeenRunning quickSetInBook runsBySight',
  'advice/seal': 'oldRingCanBe reasonWanted ringBoxes ringIsLow',
  'advice/supply': 'supplyInBook',
  'advice/tightness': 'stepPassed useOf',
  logbook:
    'awaitedParts causesWords clockApart crownOf elsewhereWords fellBack foldJob hasCrown isAfter isLeaked lastReading leakWords meetsWater movesBetween nextToSettle notAvailable isOnRack openDrops openedBeside openness tellsOfInside outcomesFor requestWith watchName watchNameWithSerial outcomesOf partsSettledAs readingIn readingsOf reopens replacedBy sameDetails activeRevisions undoable wellKey wellOf',
};

it('asks every function of every upper floor, or says where it is asked', () => {
  const asked = readFileSync(__filename, 'utf8').split('ASKED_WITHIN')[0] ?? '';
  const rooms = readdirSync(join(process.cwd(), 'src/core/advice'), { withFileTypes: true })
    .filter((each) => each.isDirectory())
    .map(({ name }) => `advice/${name}`);
  const open = [...rooms, 'logbook', 'admission'].flatMap((room) =>
    Object.entries(jest.requireActual<Record<string, unknown>>(`./${room}`)).flatMap(([name, value]) =>
      typeof value === 'function' &&
      !new RegExp(`\\b${name}\\(|\\(${name}\\)`).test(asked) &&
      !(ASKED_WITHIN[room] ?? '').split(' ').includes(name)
        ? `${room}: ${name}`
        : [],
    ),
  );
  expect(open).toEqual([]);
});
