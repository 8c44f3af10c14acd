import { overTravel } from '../craft/opening';
import { crossReference, mayBeFitted } from '../craft/cells';
import { handback } from '../advice/handback';
import { capital } from '../craft/judgement';
import { bareCode } from '../craft/movements';
import { isPastDate, type Lot } from '../craft/stock';
import { localDay } from '../craft/time';
import { type Entry, type JobContext, type JobState, openDrops, type Statement, wellOf } from '../logbook';
export type Admission =
  | { readonly verdict: 'admitted' }
  | { readonly verdict: 'refused'; readonly reasons: readonly string[]; readonly whatToDo: string };

/** Field by field, since the order of fields means nothing once a statement has crossed the wire. */
function sameStatement(a: Statement, b: Statement): boolean {
  return (Object.keys(a) as (keyof Statement)[]).every(
    (key) => JSON.stringify(a[key]) === JSON.stringify(b[key]),
  );
}

/** What must not be done while a dropped cell lies where nobody knows. */
const PAUSED_BY_A_DROP: readonly Entry['kind'][] = [
  'cell.fitted',
  'cell.put-back',
  'cell.accumulator',
  'seal.closed',
  'handback.signed',
];

const ADMITTED: Admission = { verdict: 'admitted' };

function refuse(reasons: readonly string[], whatToDo: string): Admission {
  return { verdict: 'refused', reasons, whatToDo };
}

/** Why an accumulator may not go into this movement, or null where it may. */
function refuseAccumulator(
  { kitCode, lotId }: Extract<Entry, { kind: 'cell.accumulator' }>['payload'],
  { calibre }: JobState,
  lots: () => readonly Lot[],
  context: JobContext,
): Admission | null {
  if (calibre && calibre.charge === null) {
    return refuse(
      [`${calibre.code} runs from a primary cell and has nothing to charge an accumulator with.`],
      'Fit the primary cell the book names.',
    );
  }
  if (calibre?.charge && bareCode(calibre.charge.kitCode) !== bareCode(kitCode)) {
    return refuse(
      [`The kit for ${calibre.code} is ${calibre.charge.kitCode}, not ${kitCode}.`],
      'A kit is for one calibre: never improvise with another of the same size.',
    );
  }
  if (lotId === null) return null;
  const lot = lots().find((each) => each.id === lotId);
  if (lot?.item !== 'kit' || bareCode(lot.code) !== bareCode(kitCode)) {
    return refuse(['The lot named does not hold this kit.'], 'Choose the lot the kit was taken from.');
  }
  return isPastDate(lot, localDay(context.nowUtc, context.shop.zone))
    ? refuse(
        [`Lot ${lot.lotCode} is past its date since ${lot.bestBefore}.`],
        'Take a kit from a lot in date.',
      )
    : null;
}

/**
 * May this entry be written to a job that stands so? What was found or done is always admitted; refused is only
 * what must not be done: fitting a cell that would harm, from a lot past its date, signing a job that is not
 * ready or has moved on, correcting an entry of another job or kind. `lots` is asked only when the stock matters.
 */
export function judgeEntry(
  entry: Entry,
  state: JobState,
  known: readonly Entry[],
  lots: () => readonly Lot[],
  context: JobContext,
): Admission {
  for (const id of [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])]) {
    const target = known.find((each) => each.id === id);
    if (!target)
      return refuse(
        ['It corrects an entry this job does not hold.'],
        'Load the job again and correct the entry shown there.',
      );
    if (entry.withdraws === null && target.kind !== entry.kind) {
      return refuse(
        ['A correction must be of the same kind as what it corrects.'],
        'Withdraw the wrong entry and record the right one.',
      );
    }
    if (target.kind === 'handback.signed') {
      return refuse(
        ['A signature is never taken back.'],
        'Record what has changed: that reopens the job, and it is signed again.',
      );
    }
  }
  if ((entry.kind === 'logbook.withdrawn') !== (entry.withdraws !== null)) {
    return refuse(['A withdrawal names exactly one entry.'], 'Name the entry to withdraw.');
  }
  if (PAUSED_BY_A_DROP.includes(entry.kind)) {
    const [drop] = openDrops(state.facts);
    if (drop)
      return refuse(
        [`${capital(drop.dropped.payload.what)} was dropped and nobody has it yet.`],
        'Find it, or tell who is above, and record which: swallowed it can kill a child or an animal within hours.',
      );
  }
  if (
    entry.kind === 'cell.out-settled' &&
    !state.facts.cellsOut.has(state.standsFor(entry.payload.outEntryId))
  )
    return refuse(['No such cell is out of its blister in this job.'], 'Choose one that is shown as loose.');
  if (
    entry.kind === 'cell.dropped-settled' &&
    !state.facts.dropped.has(state.standsFor(entry.payload.droppedEntryId))
  )
    return refuse(['No such cell was dropped in this job.'], 'Choose one that is shown as dropped.');
  if (entry.kind === 'cell.out' && entry.payload.lotId !== null) {
    const lot = lots().find((each) => each.id === entry.payload.lotId);
    const { cellCode } = entry.payload;
    const holds =
      lot?.item === 'kit'
        ? bareCode(lot.code) === bareCode(cellCode)
        : lot?.item === 'cell' &&
          context.catalogue.cell(lot.code)?.code === context.catalogue.cell(cellCode)?.code;
    if (!holds)
      return refuse(['The lot named does not hold this cell.'], 'Choose the lot the cell was taken from.');
  }
  if (entry.kind === 'cell.put-back') {
    const well = state.wells.find((each) => each.name === wellOf(entry));
    if (well?.fitted) {
      return refuse(
        [`A ${well.fitted.payload.cellCode} is recorded as fitted there.`],
        'Withdraw the fitting first, so that its cell goes back to its lot.',
      );
    }
    if (well?.oldSettled?.payload.to === 'spent bin')
      return refuse(
        ['That cell is taped and in the bin: a taped cell is spent and is never offered again.'],
        'Fit a fresh one. If it never went into the bin, withdraw that first.',
      );
  }
  if (entry.kind === 'cell.accumulator') {
    const refusal = refuseAccumulator(entry.payload, state, lots, context);
    if (refusal) return refusal;
  }
  if (entry.kind === 'cell.fitted') {
    if (state.calibre && state.calibre.charge !== null) {
      return refuse(
        [
          `${state.calibre.code} charges its accumulator: a primary cell in its place is driven backwards, leaks or bursts.`,
        ],
        `Fit the kit ${state.calibre.charge.kitCode}. If a primary cell was in the watch, record it as found.`,
      );
    }
    const cell = context.catalogue.cell(entry.payload.cellCode);
    const well = state.wells.find((each) => each.name === wellOf(entry));
    if (!well) {
      return refuse(
        [`This movement has no place for a cell called “${wellOf(entry)}”.`],
        `Its places: ${state.wells.map((each) => each.name).join(', ')}.`,
      );
    }
    if (!cell && well.wanted) {
      return refuse(
        [
          `“${entry.payload.cellCode}” is not a primary cell of the table; this place wants ${well.wanted.code}.`,
        ],
        `Fit ${well.wanted.code} or an equal. If this cell was in the watch already, record it as found.`,
      );
    }
    if (cell && well.wanted) {
      const cross = crossReference(well.wanted, cell, { alkalineAgreed: entry.payload.alkalineAgreed });
      if (!mayBeFitted(cross.verdict)) {
        return refuse(
          cross.reasons,
          `Fit ${well.wanted.code} or an equal. If this cell was in the watch already, record it as found.`,
        );
      }
    }
    if (cell && (cell.chemistry === 'mercury' || cell.chemistry === 'zinc-air')) {
      return refuse(
        [`${cell.code} is never fitted to a watch.`],
        'Take a silver oxide or lithium cell of the right size.',
      );
    }
    if (entry.payload.lotId !== null) {
      const lot = lots().find((each) => each.id === entry.payload.lotId);
      if (!lot) return refuse(['The lot named is not in this stock.'], 'Choose a lot from the list.');
      if (lot.item !== 'cell' || context.catalogue.cell(lot.code)?.code !== cell?.code) {
        return refuse(
          [`Lot ${lot.lotCode} holds ${lot.code}, not ${entry.payload.cellCode}.`],
          'Choose the lot the cell was taken from.',
        );
      }
      if (lot.quarantined !== null) {
        return refuse(
          [`Lot ${lot.lotCode} is in quarantine: ${lot.quarantined}.`],
          'Take a cell from another lot, or release the lot on the stock page once it is cleared.',
        );
      }
      if (isPastDate(lot, localDay(entry.occurredAt, context.shop.zone))) {
        return refuse(
          [`Lot ${lot.lotCode} is past its date since ${lot.bestBefore}.`],
          'Take a cell from a lot in date.',
        );
      }
    }
  }
  if (entry.kind === 'seal.gasket' && entry.payload.lotId !== null) {
    const lot = lots().find((each) => each.id === entry.payload.lotId);
    if (lot?.item !== 'gasket')
      return refuse(['The lot named holds no gaskets of this stock.'], 'Choose a gasket lot from the list.');
  }
  if (entry.kind === 'arrive.parts-arrived' && state.facts.partsRequest === null) {
    return refuse(['This job waits for no parts.'], 'Record the request first.');
  }
  if (entry.kind === 'set.run-ended' && state.facts.runBegan === null) {
    return refuse(['No proving run was begun.'], 'Record what the hands show at its start.');
  }
  if (
    entry.kind === 'open.part-settled' &&
    !state.facts.parts.has(state.standsFor(entry.payload.partEntryId))
  ) {
    return refuse(['That part is not on the tray of this job.'], 'Choose a part from the tray.');
  }
  if (entry.kind === 'open.back') {
    const { toolIds } = entry.payload;
    const wrench = context.catalogue.wrenches.find(({ id }) => toolIds.includes(id));
    const over = wrench ? overTravel(wrench, entry.payload) : null;
    if (over) return refuse([over.reason], 'Correct the setting, or choose the tool that was used.');
  }
  if (entry.kind === 'open.photo-mark') {
    const { photo } = entry.payload;
    if (!known.some((each) => each.attachments.includes(photo)))
      return refuse(['That photo is not among the files of this job.'], 'Add the photo first.');
  }
  if (entry.kind === 'handback.signed') {
    if (state.signature.state === 'signed') {
      return refuse(
        [`The job is signed already, by ${state.signature.entry.payload.initials}.`],
        'Nothing more is needed.',
      );
    }
    if (entry.payload.restsOnSequence !== state.lastSequence) {
      return refuse(
        ['The job has changed since you looked at it.'],
        'Read the record once more and sign again.',
      );
    }
    const now = handback(state, lots(), context);
    if (now.verdict === 'not ready')
      return refuse(now.reasons, 'Record what is missing, or skip the stage with a reason.');
    if (
      entry.payload.catalogueRevision !== context.catalogue.revision ||
      entry.payload.policyRevision !== context.policy.revision
    ) {
      return refuse(
        ['Book or policy has changed since the record was worked out.'],
        'Load the job again and sign what it says now.',
      );
    }
    if (!sameStatement(now.statement, entry.payload.statement)) {
      return refuse(
        ['The statement signed is not what the entries say.'],
        'Load the job again and sign what it says now.',
      );
    }
  }
  if (entry.kind === 'handback.collected' && state.signature.state !== 'signed') {
    return refuse(['The job is not signed.'], 'Sign the record before the watch is handed over.');
  }
  return ADMITTED;
}
