import type { Book } from '../../craft/book';
import { figuresFor } from '../../craft/health';
import { type FunctionUse, type Kept, type LifeInput, usualDrainUA } from '../../craft/life';
import type { CellType } from '../../craft/cells';
import { type JobState, readingIn, type WellState } from '../../logbook';
import { seenMovement } from '../identify';
import { type Lot, lotAge } from '../../craft/stock';
const SEED = 20_260_301;

/** What draws on a movement’s cells beside the hands: as the owner said they use it, else as the book has it. */
export function usesOf({ calibre, facts }: Pick<JobState, 'calibre' | 'facts'>): readonly FunctionUse[] {
  const said = new Map(facts.usage?.payload.uses.map(({ name, secondsPerDay }) => [name, secondsPerDay]));
  return (calibre?.functionDraws ?? []).map((use) => ({
    ...use,
    secondsPerDay: said.get(use.name) ?? use.secondsPerDay,
  }));
}

/** What of that draws on this well: where the book says what it feeds, nothing else. */
function usesAt(
  state: Pick<JobState, 'calibre' | 'facts'>,
  { well }: Pick<WellState, 'well'>,
): readonly FunctionUse[] {
  const feeds = well?.feeds ?? [];
  const uses = usesOf(state);
  return feeds.length === 0
    ? uses
    : uses.filter(({ name }) => feeds.some((each) => name.toLowerCase().includes(each)));
}

/** How warm its cell is kept, by how the owner wears the watch; where both or neither is said nobody knows. */
function keptAs({ facts }: Pick<JobState, 'facts'>): Kept {
  const uses = facts.wear?.payload.uses ?? [];
  const drawer = uses.includes('kept in a drawer');
  const daily = uses.includes('every day');
  return drawer === daily ? 'not known' : drawer ? 'in a drawer' : 'worn';
}

/** What a movement whose current nobody knows usually draws by what the book or somebody's eyes tell of it, µA. */
function generalDrain(state: JobState, cell: CellType, book: Book): number | null {
  // A calibre of the book that says nothing of its current is known by its functions.
  const { functions, notLookedAt } = state.calibre
    ? { functions: state.calibre.functions, notLookedAt: false }
    : seenMovement(state, book);
  return usualDrainUA({ cell, functions, notLookedAt, cells: state.wells.length });
}

/**
 * What a life forecast is asked for a cell in a place of this watch: capacity by its name, age by its lot on a day, the
 * current as measured at this place, else as the book has it or its family draws, else what movements of its kind usually
 * draw, and what this place feeds. In words why not, where
 * something is missing. A current that names none of several places belongs to none of them.
 */
export function lifeQuestion(
  state: JobState,
  well: WellState,
  cellCode: string,
  lot: Pick<Lot, 'madeOn' | 'bestBefore'> | null,
  day: string,
  book: Book,
): LifeInput | string {
  const cell = book.cell(cellCode);
  if (!cell || cell.capacityMinMAh === null || cell.capacityMaxMAh === null)
    return `The capacity of ${cellCode} is not in the table.`;
  const measured = readingIn(state.facts, 'currentUA', well.name)?.payload.value ?? null;
  const ofBook = well.well?.typicalUA ?? state.calibre?.typicalUA ?? null;
  const kin = state.calibre === null ? null : figuresFor(state.calibre, book).current;
  const ofFamily = kin?.whose === 'its family' ? kin.typicalUA : null;
  const general = (measured ?? ofBook ?? ofFamily) ? null : generalDrain(state, cell, book);
  const baseUA = measured ?? ofBook ?? ofFamily ?? general;
  if (baseUA === null) return 'The current is not measured, and the movement is not in the book.';
  const age = lot ? lotAge(lot, cell, day) : null;
  return {
    chemistry: cell.chemistry,
    capacityMinMAh: cell.capacityMinMAh,
    capacityMaxMAh: cell.capacityMaxMAh,
    baseUA,
    drainKnownBy:
      measured !== null ? 'measured' : ofBook !== null ? 'book' : ofFamily !== null ? 'family' : 'general',
    // A general figure is of base and functions together.
    functions: general === null ? usesAt(state, well) : [],
    yearsSinceMade: age?.years ?? null,
    ageKnownBy: age?.assumed === false ? 'its date' : 'its best-before',
    kept: keptAs(state),
    seed: SEED,
  };
}
