import { type Book, drainNeeded } from '../../craft/book';
import {
  type CellType,
  type CellWanted,
  crossReference,
  liesInWell,
  mayBeFitted,
  wantedFromType,
} from '../../craft/cells';
import { figure } from '../../craft/judgement';
import { feedsByName } from '../../craft/movements';
import { type Lot, setAside } from '../../craft/stock';
import { isLeaked, type JobState, type WellState } from '../../logbook';
import { seenMovement } from '../identify';
import { supplyOf } from '../supply';
import { witnessesOf } from './witnesses';

/** What a place takes, and who says so. */
export interface PlaceWants {
  readonly wanted: CellWanted;
  readonly by: 'book' | 'witnesses';
}

/** Cells withdrawn or never made for watches: what stood in such a place before is asked for by its size alone. */
const NEVER_AGAIN = ['mercury', 'zinc-air'];

/**
 * What a place takes: as the book has it, else as cell found, print and measured well say together. Null where they name
 * nothing, or disagree. The drain is that of a print that states it. Else it is what was seen to draw (of several places each by
 * what its name says it feeds): light, alarm or counters ask for high drain, and so does a silver oxide cell found whose name says so, until somebody looked and saw none
 * of them. An alkaline cell found says nothing of it: silver oxide of its size belongs there.
 */
export function placeWants(state: JobState, well: WellState, book: Book): PlaceWants | null {
  if (well.wanted !== null) return { wanted: well.wanted, by: 'book' };
  const { code, said } = witnessesOf(state, well, book);
  const named = code === null ? null : book.cell(code);
  if (!named) return null;
  const printed = said.some(({ kind, says }) => kind === 'print' && says === code);
  const seen = seenMovement(state, book);
  const foundForHigh = named.chemistry === 'silver-oxide' && named.drain === 'high' && !seen.drawsLittle;
  const feeds = state.wells.length > 1 ? feedsByName(well.name) : [];
  const drain = drainNeeded(seen, { feeds }) === 'high' || foundForHigh ? 'high' : 'low';
  if (printed && !NEVER_AGAIN.includes(named.chemistry)) {
    const wanted = wantedFromType(named, { drain });
    return wanted && { wanted, by: 'witnesses' };
  }
  const cell = named.chemistry === 'lithium' ? named : silverOfSize(named, drain, book);
  const wanted = cell && wantedFromType(cell, { drain });
  return wanted && { wanted, by: 'witnesses' };
}

/** The silver oxide cell of a size, for the drain asked for where one is made so; null where none of the size is. */
function silverOfSize(named: CellType, drain: 'low' | 'high', { cellTable }: Book): CellType | null {
  const ofSize = (type: CellType): boolean =>
    type.chemistry === 'silver-oxide' &&
    type.diameterMm === named.diameterMm &&
    type.heightMm === named.heightMm;
  // A name that leaves its drain open, or names both, stays what was found.
  if (ofSize(named) && (named.drain === drain || named.drain === 'both' || named.drain === 'unstated'))
    return named;
  const silver = cellTable.types.filter(ofSize);
  return (
    silver.find((type) => type.drain === drain) ??
    silver[0] ??
    (NEVER_AGAIN.includes(named.chemistry) ? null : named)
  );
}

/** Voltages this close are the same. Source: IEC 60086-3. */
const SAME_VOLTAGE_V = 0.1;

/** Why a primary cell must not go into a place, and what to do instead; null where it may. */
export interface Refusal {
  readonly reasons: readonly string[];
  readonly whatToDo: string;
}

/** Why no primary cell at all may go into this watch: it is charged, or may be; null where nothing says so. */
export function primaryBarred(state: JobState, book: Book): Refusal | null {
  const { calibre, facts } = state;
  if (calibre?.charge)
    return {
      reasons: [
        `${calibre.code} charges its accumulator. A primary cell in its place would be charged too, and leak or burst.`,
      ],
      whatToDo: `Fit the kit ${calibre.charge.kitCode}. If a primary cell was in the watch, record it as found.`,
    };
  if (facts.accumulator !== null)
    return {
      reasons: [`The kit ${facts.accumulator.payload.kitCode} is recorded as fitted.`],
      whatToDo:
        'A watch never takes both an accumulator and a primary cell. If that record is wrong, withdraw it first.',
    };
  const { verdict, againstPrimary } = supplyOf(state, book);
  if (againstPrimary.length === 0) return null;
  const unsure = verdict === 'not known';
  return {
    reasons: [
      `This watch ${unsure ? 'may be' : 'is'} charged: ${againstPrimary.join('; ')}. A primary cell under charge leaks or bursts.`,
    ],
    whatToDo: unsure
      ? 'Read the old cell in full and measure its voltage, or record the power source with the reason.'
      : 'Renew the accumulator by its kit. If it does run on a primary cell, record that with the reason under “Power source”.',
  };
}

/**
 * May this primary cell go into this place? Not where anything says the watch is charged; not of another voltage or size
 * than book, cell found, print or measured well say; and not where nothing tells what belongs there. The same whether
 * the movement is in the book or not. `cellCode`: as it was named. Source: bench practice; `crossReference`.
 */
export function refusalOf(
  state: JobState,
  well: WellState,
  { cellCode, alkalineAgreed }: { readonly cellCode: string; readonly alkalineAgreed: boolean },
  book: Book,
): Refusal | null {
  const barred = primaryBarred(state, book);
  if (barred) return barred;
  const asFound = 'If this cell was in the watch already, record it as found.';
  const cell = book.cell(cellCode);
  const wants = placeWants(state, well, book);
  if (!cell || cell.chemistry === 'accumulator')
    return {
      reasons: [
        `“${cellCode}” is not a primary cell in the table${wants ? `; this place takes ${wants.wanted.code}` : ''}.`,
      ],
      whatToDo: `Fit ${wants ? `${wants.wanted.code} or an equal` : 'a cell with a name from the table'}. ${asFound}`,
    };
  if (NEVER_AGAIN.includes(cell.chemistry))
    return {
      reasons: [`${cell.code} is never fitted to a watch.`],
      whatToDo: 'Take a silver oxide or lithium cell of the right size.',
    };
  if (wants) {
    const cross = crossReference(wants.wanted, cell, { alkalineAgreed });
    if (!mayBeFitted(cross.verdict))
      return {
        reasons: cross.reasons,
        whatToDo: `Fit ${wants.wanted.code} or an equal. ${asFound}${wants.by === 'witnesses' ? ` If the cell found was the wrong one, ${well.measured === null ? 'measure the well or ' : ''}record the print inside. It counts more than the cell found.` : ''}`,
      };
    return null;
  }
  const { verdict, reasons, howToTell } = witnessesOf(state, well, book);
  if (well.measured === null)
    return verdict === 'cannot tell'
      ? { reasons, whatToDo: howToTell.join(' ') }
      : {
          reasons: [
            'It is not known which cell belongs here. No cell was read and the well is not measured.',
          ],
          whatToDo: 'Measure the diameter and depth of the well, or read the cell found.',
        };
  if (cell.chemistry === 'alkaline' && !alkalineAgreed)
    return {
      reasons: [
        'The owner has not agreed to an alkaline cell. Its voltage falls steadily, its life is shorter, and it is more likely to leak.',
      ],
      whatToDo: 'Take silver oxide, or ask the owner for agreement.',
    };
  const { diameterMm, depthMm } = well.measured.payload;
  const { foundCell } = well;
  if (foundCell && Math.abs(foundCell.nominalV - cell.nominalV) > SAME_VOLTAGE_V)
    return {
      reasons: [
        `This cell has ${figure(cell.nominalV)} V, but the cell found has ${figure(foundCell.nominalV)} V. Never fit it, even if the size is equal.`,
      ],
      whatToDo: `Take a cell of ${figure(foundCell.nominalV)} V that fits the well. ${asFound}`,
    };
  const size =
    cell.diameterMm === null || cell.heightMm === null
      ? null
      : { diameterMm: cell.diameterMm, heightMm: cell.heightMm };
  return size !== null && liesInWell(size, well.measured.payload)
    ? null
    : {
        reasons: [
          size === null
            ? `The size of ${cell.code} is not known.`
            : `${cell.code} is ${figure(size.diameterMm)} × ${figure(size.heightMm)} mm; the well is ${figure(diameterMm)} mm across and ${figure(depthMm)} mm deep.`,
        ],
        whatToDo: 'Take a cell that fits, or measure the well again without the insulator.',
      };
}

/** The lots of the stock from which a place may be filled that neither book nor a name tells of, and why none may. */
export interface FitByMeasure {
  readonly lots: readonly Lot[];
  /** Why none may; null where some may, or the stock merely has none. */
  readonly refusal: Refusal | null;
  /** Cells of the table that may go in and could be ordered, where the stock has none. */
  readonly toOrder: readonly CellType[];
}

/** What of the stock lies in a well that was measured, where nothing names its cell. `day`: the shop’s calendar day. */
export function fitByMeasure(
  state: JobState,
  well: WellState,
  stock: readonly Lot[],
  book: Book,
  day: string,
): FitByMeasure {
  const usable = stock.filter((lot) => lot.item === 'cell' && lot.balance > 0 && setAside(lot, day) === null);
  const judged = usable.map((lot) => ({
    lot,
    refusal: refusalOf(state, well, { cellCode: lot.code, alkalineAgreed: false }, book),
  }));
  const lots = judged.flatMap(({ lot, refusal }) => (refusal === null ? [lot] : []));
  const refusal = well.measured === null ? (judged[0]?.refusal ?? null) : null;
  const toOrder =
    lots.length > 0 || well.measured === null
      ? []
      : book.cellTable.types.filter(
          ({ code, drain, chemistry }) =>
            drain !== 'unstated' &&
            chemistry !== 'alkaline' &&
            refusalOf(state, well, { cellCode: code, alkalineAgreed: false }, book) === null,
        );
  return { lots, refusal: lots.length > 0 ? null : refusal, toOrder };
}

/**
 * Why the cell that was in a place cannot go in again, whatever it is: another went in, it is in the
 * bin, or there was none. Null where it can; one that its owner has may come back.
 */
export function oldCellAway({ found, fitted, oldSettled }: WellState): Refusal | null {
  if (fitted)
    return {
      reasons: [`A ${fitted.payload.cellCode} is recorded as fitted here.`],
      whatToDo: 'Withdraw the fitting first, so that the cell returns to its lot.',
    };
  if (oldSettled?.payload.to === 'spent bin')
    return {
      reasons: ['This cell is taped and in the bin. A taped cell is spent and is never used again.'],
      whatToDo: 'Fit a fresh one. If it never went into the bin, withdraw that first.',
    };
  return found !== null && found.payload.marking === null
    ? {
        reasons: ['The record says that no cell was found here, so there is no cell to put back.'],
        whatToDo: 'Fit a cell. If there was a cell, correct the record of the cell found first.',
      }
    : null;
}

/**
 * May the cell that was in a place go in again? Not one that leaked, not a primary cell where anything says the watch is
 * charged, and not one that book or well rules out altogether: that it ran proves contact and voltage alone.
 */
export function putBackRefusal(state: JobState, well: WellState, book: Book): Refusal | null {
  const { found, foundCell } = well;
  const away = oldCellAway(well);
  if (away !== null) return away;
  if (found !== null && isLeaked(found.payload))
    return {
      reasons: [`That cell was found with ${found.payload.condition}: it will continue to leak.`],
      whatToDo: 'Tape it, bin it, and fit a fresh one.',
    };
  if (foundCell === null) return null;
  const barred = primaryBarred(state, book);
  if (barred) return barred;
  const wants = placeWants(state, well, book);
  const cross = wants && crossReference(wants.wanted, foundCell);
  return cross?.verdict === 'never'
    ? { reasons: cross.reasons, whatToDo: `Fit ${wants?.wanted.code ?? 'the right cell'} or an equal.` }
    : null;
}
