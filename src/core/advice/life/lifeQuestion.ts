import type { Book } from '../../craft/book';
import type { FunctionUse, LifeInput } from '../../craft/life';
import type { JobState } from '../../logbook';
import { type Lot, lotAge } from '../../craft/stock';
const SEED = 20_260_301;

/** What draws on the cell beside the hands: as the owner said they use it, else as the book has it. */
export function usesOf({ calibre, facts }: Pick<JobState, 'calibre' | 'facts'>): readonly FunctionUse[] {
  const said = new Map(facts.usage?.payload.uses.map(({ name, secondsPerDay }) => [name, secondsPerDay]));
  return (calibre?.functionDraws ?? []).map((use) => ({
    ...use,
    secondsPerDay: said.get(use.name) ?? use.secondsPerDay,
  }));
}

/**
 * What a life forecast is asked for a cell in this watch: capacity by its name, age by its lot on a day, the current as
 * measured here, else as the book has it. In words why not, where something is missing. With two cells in a watch one
 * current does not say which of them it belongs to, and the book’s serves.
 */
export function lifeQuestion(
  state: Pick<JobState, 'calibre' | 'facts' | 'wells'>,
  cellCode: string,
  lot: Pick<Lot, 'madeOn' | 'bestBefore'> | null,
  day: string,
  { cell: cellOf }: Pick<Book, 'cell'>,
): LifeInput | string {
  const cell = cellOf(cellCode);
  if (!cell || cell.capacityMinMAh === null || cell.capacityMaxMAh === null)
    return `The capacity of ${cellCode} is not in the table.`;
  const measured =
    state.wells.length === 1 ? (state.facts.readings.get('currentUA')?.payload.value ?? null) : null;
  const baseUA = measured ?? state.calibre?.typicalUA ?? null;
  if (baseUA === null) return 'The current was not measured, and the movement is not in the book.';
  const age = lot ? lotAge(lot, cell, day) : { years: null, assumed: true };
  return {
    chemistry: cell.chemistry,
    capacityMinMAh: cell.capacityMinMAh,
    capacityMaxMAh: cell.capacityMaxMAh,
    baseUA,
    drainKnownBy: measured !== null ? 'measured' : 'book',
    functions: usesOf(state),
    yearsSinceMade: age.years ?? 0,
    ageAssumed: age.assumed,
    seed: SEED,
  };
}
