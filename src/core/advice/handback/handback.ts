import { chemistries } from '../../craft/cells';
import { figure, type Judged } from '../../craft/judgement';
import { expectedLife, type LifeForecast } from '../../craft/life';
import { lifeQuestion } from '../life';
import {
  causesWords,
  type JobContext,
  type JobState,
  leakWords,
  openParts,
  partsSettledAs,
  partsToOrder,
  type Payloads,
  type Statement,
  type WellState,
} from '../../logbook';
import { STAGE_WORDS } from '../../craft/policy';
import type { Lot } from '../../craft/stock';
import { judgeRun, type RunVerdict } from '../../craft/setting';
import { addMonths, dayInWords, localDay } from '../../craft/time';
import { priceOf, type PriceVerdict } from '../price';

export type WaterStatement = Judged<'tested' | 'not tested' | 'not water resistant'> & {
  readonly statement: string;
};

/**
 * What may be said about water: never more than was tested. A leak seen, or a seam that is not even, makes it
 * *not water resistant*; without a pressure test that showed no leak nothing is claimed.
 */
export function waterStatement(state: JobState): WaterStatement {
  const { tests, closed, gasket } = state.facts;
  const working = tests.map((test) => ({
    what: `${test.payload.method} test`,
    rule: 'as recorded at the bench',
    figures: `${test.payload.pressureBar === null ? '' : `${figure(test.payload.pressureBar)} bar, `}${figure(test.payload.seconds)} s: ${test.payload.outcome}`,
  }));
  if (closed?.payload.interim) {
    return {
      verdict: 'not tested',
      statement:
        'Closed for the time being on its old seal, until the part is here. Keep the watch away from water.',
      reasons: ['Closed interim: nothing is claimed about water.'],
      working,
    };
  }
  const leaked = tests.at(-1)?.payload.outcome === 'leak seen';
  if (leaked || closed?.payload.seamEven === false) {
    const reason = leaked ? 'The last test showed a leak.' : 'The seam is not even.';
    return {
      verdict: 'not water resistant',
      statement: 'This watch is not water resistant. Keep it away from water.',
      reasons: [reason],
      working,
    };
  }
  const passed = tests.filter(
    (test) => test.payload.outcome === 'no leak seen' && test.payload.pressureBar !== null,
  );
  const last = passed.at(-1);
  if (last) {
    return {
      verdict: 'tested',
      statement: `Tested at ${figure(last.payload.pressureBar ?? 0)} bar, ${last.payload.method}, for ${figure(last.payload.seconds)} seconds: no leak was seen. More than that was not tested.`,
      reasons: ['A pressure test was recorded after closing.'],
      working,
    };
  }
  return {
    verdict: 'not tested',
    statement: `Water resistance was not tested${gasket?.payload.state === 'renewed' ? ', though the gasket was renewed' : ''}. Keep the watch away from water.`,
    reasons: ['No pressure test was made in this visit.'],
    working,
  };
}

/** The life forecast of the cell fitted in a well, from its lot's age and the measured or book current. */
export function fittedLife(
  state: JobState,
  well: WellState,
  lots: readonly Pick<Lot, 'id' | 'madeOn' | 'bestBefore'>[],
  context: JobContext,
): LifeForecast {
  const refused = (reason: string): LifeForecast => ({
    verdict: 'no forecast',
    reasons: [reason],
    working: [],
  });
  const fitted = well.fitted;
  if (well.putBack) return refused('The cell that was in the watch went in again, and its age is not known.');
  if (!fitted) {
    const asked = state.progress.find(({ stage }) => stage === 'cell')?.status !== 'not needed';
    return refused(asked ? 'No cell is fitted yet.' : 'The cell was not changed, and its age is not known.');
  }
  const question = lifeQuestion(
    state,
    fitted.payload.cellCode,
    lots.find((each) => each.id === fitted.payload.lotId) ?? null,
    localDay(fitted.occurredAt, context.shop.zone),
    context.catalogue,
  );
  return typeof question === 'string' ? refused(question) : expectedLife(question);
}

export interface NextVisit {
  readonly onDay: string | null;
  readonly words: string;
  readonly forecasts: readonly { readonly well: string; readonly life: LifeForecast }[];
}

/** When the watch should come back: before the earliest early end of its cells. */
export function nextVisit(
  state: JobState,
  lots: readonly Pick<Lot, 'id' | 'madeOn' | 'bestBefore'>[],
  context: JobContext,
): NextVisit {
  const charge = state.calibre?.charge ?? null;
  if (charge !== null) {
    return {
      onDay: null,
      words: `This watch charges itself by ${charge.by === 'light' ? 'light: give it daylight every week' : 'being worn'}. Come back if its low-supply steps return soon after a full charge.`,
      forecasts: [],
    };
  }
  if (state.facts.decision !== null)
    return { onDay: null, words: 'No further visit is planned here.', forecasts: [] };
  const forecasts = state.wells.map((well) => ({
    well: well.name,
    life: fittedLife(state, well, lots, context),
  }));
  const months = forecasts.flatMap(({ life }) => (life.verdict === 'forecast' ? [life.nextVisitMonths] : []));
  const fittedOn = state.wells.find((well) => well.fitted)?.fitted?.occurredAt;
  if (months.length < forecasts.length || months.length === 0 || !fittedOn) {
    const reason = forecasts.find(({ life }) => life.verdict === 'no forecast')?.life.reasons[0] ?? '';
    return { onDay: null, words: `The next visit cannot be worked out. ${reason}`.trim(), forecasts };
  }
  const soonest = Math.min(...months);
  if (soonest < 1) {
    return {
      onDay: null,
      words: 'This cell may not last a month: the movement draws too much and wants a service.',
      forecasts,
    };
  }
  const onDay = addMonths(localDay(fittedOn, context.shop.zone), soonest);
  return {
    onDay,
    words: `Come back by ${dayInWords(onDay)}, or sooner if it stops: a spent cell left inside may leak.`,
    forecasts,
  };
}

/** What the proving run of a job says. */
export function provingRun(facts: Pick<JobState['facts'], 'runBegan' | 'runEnded'>): RunVerdict {
  const { runBegan, runEnded } = facts;
  return judgeRun(
    runBegan && { shows: runBegan.payload.shows, atUtc: runBegan.occurredAt },
    runEnded && { ...runEnded.payload, atUtc: runEnded.occurredAt },
  );
}

export type Handback = Judged<'ready to sign' | 'not ready'> & {
  readonly statement: Statement;
  readonly water: WaterStatement;
  readonly next: NextVisit;
  readonly price: PriceVerdict;
};

/** A mark seen on arrival, e.g. `scratch on the back at 4 o’clock`. */
function markWords({ view, kind, clock }: Payloads['arrive.mark']): string {
  return `${kind} on the ${view}${clock === null ? '' : ` at ${figure(clock, 1)} o’clock`}`;
}

/**
 * The job in the customer's words: found, done, fitted, tested and *not* done, the water statement and the next
 * visit, and whether it may be signed. Signing is refused while a required fact is missing, a part lies on the
 * tray or a conflict is open.
 */
export function handback(
  state: JobState,
  lots: readonly Pick<Lot, 'id' | 'madeOn' | 'bestBefore'>[],
  context: JobContext,
): Handback {
  const { facts, wells } = state;
  const water = waterStatement(state);
  const next = nextVisit(state, lots, context);
  const several = wells.length > 1;
  const price = priceOf(state, context.policy.currency);
  const found = [
    ...wells.flatMap(({ name, found: cell }) => {
      if (!cell) return [];
      const where = several ? ` (${name})` : '';
      if (cell.payload.marking === null) return [`No cell in the watch${where}.`];
      const condition =
        cell.payload.condition && cell.payload.condition !== 'clean' ? `, ${cell.payload.condition}` : '';
      return [`Old cell ${cell.payload.marking}${where}${condition}.`];
    }),
    ...(facts.readings.has('restVoltageV')
      ? [`Its voltage at rest was ${figure(facts.readings.get('restVoltageV')?.payload.value ?? 0, 2)} V.`]
      : []),
    ...(facts.readings.has('currentUA')
      ? [`The movement draws ${figure(facts.readings.get('currentUA')?.payload.value ?? 0, 2)} µA.`]
      : []),
    ...(facts.asFound && facts.asFound.payload.found.some((each) => each !== 'nothing unusual')
      ? [
          `Inside, from earlier hands: ${facts.asFound.payload.found.filter((each) => each !== 'nothing unusual').join(', ')}.`,
        ]
      : []),
    ...facts.leakages.map(({ payload }) => `Leaked: ${leakWords(payload)}.`),
    ...(facts.diagnosis
      ? [
          `Finding: ${[causesWords(facts.diagnosis.payload), facts.diagnosis.payload.words].filter(Boolean).join(', ')}. Next: ${facts.diagnosis.payload.next}.`,
        ]
      : []),
    ...facts.marks.map(({ payload }) => `On arrival, ${markWords(payload)}.`),
  ];
  const accumulator = facts.accumulator?.payload;
  const fitted = [
    ...(accumulator
      ? [
          `${accumulator.kitCode}, ${accumulator.way}${[
            accumulator.supplier,
            accumulator.lotCode && `lot ${accumulator.lotCode}`,
          ]
            .filter(Boolean)
            .map((each) => `, ${each}`)
            .join('')}.`,
        ]
      : []),
    ...wells.flatMap(({ name, fitted: cell }) => {
      if (!cell) return [];
      const type = context.catalogue.cell(cell.payload.cellCode);
      const from = [cell.payload.supplier, cell.payload.lotCode && `lot ${cell.payload.lotCode}`]
        .filter(Boolean)
        .join(', ');
      return [
        `${cell.payload.cellCode}${type ? ` (${chemistries[type.chemistry].words})` : ''}${several ? ` in ${name}` : ''}${from ? `, ${from}` : ''}.`,
      ];
    }),
  ];
  const replaced = partsSettledAs(facts, 'replaced');
  const lost = partsSettledAs(facts, 'lost');
  const unordered = partsToOrder(facts).map(({ what }) => what);
  const run = provingRun(facts);
  const proved = Object.entries({ ...facts.functions?.payload.proved, ...facts.outside?.payload.proved });
  const working = proved.filter(([, result]) => result === 'works').map(([name]) => name);
  const broken = proved.filter(([, result]) => result !== 'works');
  const gasket = facts.gasket?.payload;
  const done = [
    ...(fitted.length > 0 ? [several ? 'Cells changed.' : 'Cell changed.'] : []),
    ...wells.flatMap(({ name, putBack }) =>
      putBack ? [`The same cell put back${several ? ` (${name})` : ''}: ${putBack.payload.reason}.`] : [],
    ),
    ...(accumulator ? ['Accumulator renewed.'] : []),
    ...facts.charges.map(
      ({ payload }) => `Charged by ${payload.by} for ${figure(payload.hours, 1)} hours: ${payload.outcome}.`,
    ),
    ...(gasket
      ? [
          `Gasket ${gasket.state}${gasket.size && ` (${gasket.size})`}${gasket.greased ? ' and greased' : ''}.`,
        ]
      : []),
    ...(['crown', 'pushers', 'crystal'] as const)
      .filter((seal) => facts.otherSeals?.payload[seal] === 'renewed')
      .map((seal) => `${seal === 'pushers' ? 'Pusher seals' : `Seal of the ${seal}`} renewed.`),
    ...(facts.closed?.payload.interim ? ['Closed for the time being, until the part is here.'] : []),
    ...(facts.decision
      ? [
          `${facts.decision.payload.decision === 'referred' ? `Referred${facts.decision.payload.to && ` to ${facts.decision.payload.to}`}` : 'Declined'}: ${facts.decision.payload.reason}.`,
        ]
      : []),
    ...replaced.map((part) => `Replaced: ${part.off.payload.part}.`),
    ...(facts.timeSet?.payload.set ? ['Time set.'] : []),
  ];
  const tested = [
    ...(facts.runs?.payload.runs
      ? [`Seen running for ${figure(facts.runs.payload.watchedSeconds)} seconds.`]
      : []),
    ...(run.verdict === 'keeps time' || run.verdict === 'off' ? run.reasons : []),
    ...(working.length > 0 ? [`Works: ${working.join(', ')}.`] : []),
    ...facts.tests.map(
      ({ payload }) =>
        `${payload.method} test${payload.pressureBar === null ? '' : ` at ${figure(payload.pressureBar)} bar`}: ${payload.outcome}.`,
    ),
  ];
  const notDone = [
    ...(facts.tests.length === 0 && !facts.decision ? ['No water resistance test.'] : []),
    ...(gasket && gasket.state !== 'renewed' ? ['Gasket not renewed.'] : []),
    ...(facts.readings.has('currentUA') || facts.decision ? [] : ['Current not measured.']),
    ...(run.verdict === 'keeps time' ||
    run.verdict === 'off' ||
    facts.decision ||
    context.policy.provingRunHours === 0
      ? []
      : ['No proving run at our bench.']),
    ...(['crown', 'pushers', 'crystal'] as const)
      .filter((seal) => facts.otherSeals?.payload[seal] === 'not touched')
      .map((seal) => `${seal === 'pushers' ? 'Pusher seals' : `Seal of the ${seal}`} not touched.`),
    ...(state.calibre?.functions ?? [])
      .filter((name) => facts.functions && facts.functions.payload.proved[name] === undefined)
      .map((name) => `Not proved: ${name}.`),
    ...broken.map(([name]) => `Does not work: ${name}.`),
    ...lost.map(({ off: { payload } }) =>
      unordered.includes(payload.part)
        ? `Lost at our bench: ${payload.part}.`
        : `Lost at our bench: ${payload.part}; a new one is on order.`,
    ),
    ...state.progress
      .filter((stage) => stage.status === 'skipped')
      .map((stage) => `${STAGE_WORDS[stage.stage]} not done: ${stage.reason ?? ''}.`),
  ];
  const reasons = [
    ...state.progress
      .filter(
        (stage) => stage.stage !== 'handback' && (stage.status === 'current' || stage.status === 'coming'),
      )
      .map((stage) => `${STAGE_WORDS[stage.stage]}: ${stage.missing.map((each) => each.words).join(', ')}.`),
    ...openParts(facts).map((part) => `Still on the tray: ${part.words}.`),
    ...partsToOrder(facts).map(({ what }) => `Lost and not ordered: ${what}. Put it on the parts request.`),
    ...(state.conflicts.length > 0 ? ['Two corrections disagree: settle them first.'] : []),
    ...(facts.service ? [] : ['No service is chosen.']),
    ...(price.verdict === 'over what was agreed' ? price.reasons : []),
  ];
  return {
    verdict: reasons.length === 0 ? 'ready to sign' : 'not ready',
    reasons,
    price,
    working: [
      ...price.working,
      ...run.working,
      ...water.working,
      ...next.forecasts.flatMap(({ life }) => life.working),
    ],
    water,
    next,
    statement: {
      found,
      done,
      fitted,
      tested,
      notDone,
      water: water.statement,
      nextVisitOn: next.onDay,
      nextVisit: next.words,
      warranty: `${context.policy.warrantyMonths} months on the work done, not on wear, knocks or water.`,
      priceMinor: price.priceMinor,
    },
  };
}
