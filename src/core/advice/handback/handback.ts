import type { Judged } from '../../craft/judgement';
import { STAGE_WORDS } from '../../craft/policy';
import {
  type JobContext,
  type JobState,
  openParts,
  partsToOrder,
  runOf,
  type Statement,
} from '../../logbook';
import { type LotsOfCells, type NextVisit, nextVisit } from '../life';
import { judgeAccumulator } from '../charging';
import { priceOf, type PriceVerdict } from '../price';
import { supplyOf } from '../supply';
import { doneLines, fittedLines, foundLines, notDoneLines, testedLines } from './statement';
import { type WaterStatement, waterStatement } from '../tightness';

export type Handback = Judged<'ready to sign' | 'not ready'> & {
  readonly statement: Statement;
  readonly water: WaterStatement;
  readonly next: NextVisit;
  readonly price: PriceVerdict;
};

/** A cell that went in before it was seen that it must not: recorded in whatever order, it is not handed back so. */
function wrongSupply(state: JobState, { catalogue }: JobContext): readonly string[] {
  const { againstPrimary, againstRechargeable } = supplyOf(state, catalogue);
  // Also what was recorded before the movement was named, and its places with it.
  const primary = state.facts.cellsFitted.size > 0;
  const kit = state.facts.accumulator !== null;
  const undo = 'Open it again, or record the power source with the reason.';
  return [
    ...(primary && againstPrimary.length > 0
      ? [`A primary cell is fitted, and ${againstPrimary.join('; ')}. ${undo}`]
      : []),
    ...(kit && againstRechargeable.length > 0
      ? [`An accumulator is fitted, and ${againstRechargeable.join('; ')}. ${undo}`]
      : []),
    ...(primary && kit
      ? [
          'Both a primary cell and an accumulator are recorded as fitted, but a watch takes only one of them. Withdraw the record that is wrong.',
        ]
      : []),
  ];
}

/** A watch that is still to be charged is not ready beside the plan that says when it will be; skipped with its reason, it goes so. */
function notCharged(state: JobState, context: JobContext): readonly string[] {
  const skipped = state.progress.some(({ stage, status }) => stage === 'cell' && status === 'skipped');
  if (skipped || state.facts.decision !== null || !state.required.includes('cell.charged')) return [];
  const judged = judgeAccumulator(state, context);
  return judged?.verdict === 'charge' ? [`${judged.answer}: ${judged.reasons[0] ?? ''}`] : [];
}

/** What stands in the way of signing; empty where nothing does. */
function standsInTheWay(state: JobState, price: PriceVerdict, context: JobContext): readonly string[] {
  const { facts, progress, conflicts } = state;
  return [
    ...progress
      .filter(
        (stage) => stage.stage !== 'handback' && (stage.status === 'current' || stage.status === 'coming'),
      )
      .map((stage) => `${STAGE_WORDS[stage.stage]}: ${stage.missing.map((each) => each.words).join(', ')}.`),
    ...openParts(facts).map((part) => `Still on the tray: ${part.words}.`),
    ...partsToOrder(facts).map(({ what }) => `Lost and not ordered: ${what}. Add it to the parts request.`),
    ...wrongSupply(state, context),
    ...notCharged(state, context),
    ...(conflicts.length > 0 ? ['Two corrections disagree. Settle them first.'] : []),
    ...(facts.service ? [] : ['No service is chosen.']),
    ...(price.verdict === 'as agreed' ? [] : price.reasons),
  ];
}

/**
 * The job in the customer's words: found, done, fitted, tested and *not* done, the water statement and the next
 * visit, and whether it may be signed. Signing is refused while a required fact is missing, a part lies on the
 * tray or a conflict is open.
 */
export function handback(state: JobState, lots: LotsOfCells, context: JobContext): Handback {
  const { policy } = context;
  const water = waterStatement(state, context.shop.zone);
  const next = nextVisit(state, lots, context);
  const price = priceOf(state, policy.currency);
  const reasons = standsInTheWay(state, price, context);
  return {
    verdict: reasons.length === 0 ? 'ready to sign' : 'not ready',
    reasons,
    price,
    working: [
      ...price.working,
      ...runOf(state.facts, 'how it keeps time').working,
      ...water.working,
      ...next.forecasts.flatMap(({ life, here }) => [...life.working, ...(here?.working ?? [])]),
    ],
    water,
    next,
    statement: {
      found: foundLines(state),
      done: doneLines(state),
      fitted: fittedLines(state, context),
      tested: testedLines(state),
      notDone: notDoneLines(state, context),
      water: water.statement,
      nextVisitOn: next.onDay,
      nextVisit: next.words,
      warranty: `${policy.warrantyMonths} months on the work done. Wear, knocks and water damage are not covered.`,
      priceMinor: price.priceMinor,
    },
  };
}
