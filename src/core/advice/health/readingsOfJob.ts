import type { Policy } from '../../craft/policy';
import type { Book } from '../../craft/book';
import type { Chemistry } from '../../craft/cells';
import { type JobState, readingIn, type WellState, openness } from '../../logbook';
import {
  figuresFor,
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
  judgeStoppedCurrent,
  type Load,
  type Measure,
  type MovementFigures,
  type ReadingVerdict,
} from '../../craft/health';
/** What is read at each cell of a watch that has several; the rest is read of the watch. */
const AT_A_CELL: readonly Measure[] = [
  'restVoltageV',
  'loadedVoltageV',
  'currentUA',
  'stoppedCurrentUA',
  'lowestRunningV',
];

/** Whether a measure is taken at each cell of its own, where a watch has several. */
export function isOfACell(measure: Measure): boolean {
  return AT_A_CELL.includes(measure);
}

/** The chemistry the voltages of a cell are judged by: of the one found, and until it is read of the one wanted. */
export function chemistryOfWell({ foundCell, wanted }: WellState): Chemistry | null {
  return foundCell?.chemistry ?? wanted?.chemistry ?? null;
}

/** The chemistry of the one place a movement has, or of the first somebody has seen. */
export function chemistryOfJob({ wells }: JobState): Chemistry | null {
  const seen = wells.find(({ foundReading }) => foundReading !== null) ?? wells[0];
  return seen === undefined ? null : chemistryOfWell(seen);
}

/**
 * A reading as the movement's own figure has it: of the watch, else at its first cell, which that figure is of;
 * null: not taken.
 */
export function readingOfMovement({ facts, wells }: JobState, measure: Measure): number | null {
  return (readingIn(facts, measure) ?? readingIn(facts, measure, wells[0]?.name))?.payload.value ?? null;
}

/** A reading judged, with the well it belongs to; null where there is one, or nobody said which. */
export type JudgedReading = ReadingVerdict & { readonly well: string | null };

/** What is drawn from a well, for a movement with several: its own figures, else the movement’s for its first. */
function currentFigures(
  state: JobState,
  well: WellState | null,
  book: Book,
): MovementFigures['current'] | null {
  const figures = figuresFor(state.calibre, book).current;
  const own = well?.well ?? null;
  if (well === null || state.wells.length === 1) return figures;
  if (own !== null && own.typicalUA !== null && own.limitUA !== null)
    return {
      whose: 'this movement',
      of: `${state.calibre?.code ?? ''}, ${well.name}`,
      typicalUA: own.typicalUA,
      limitUA: own.limitUA,
    };
  return well.name === state.wells[0]?.name ? figures : null;
}

/** What is usually drawn there, µA: of a well by itself where the book has it, else of the movement. */
export function typicalCurrentUA(state: JobState, book: Book, well: WellState | null): number {
  return (currentFigures(state, well, book) ?? figuresFor(state.calibre, book).current).typicalUA;
}

const noFigure = (
  measure: 'currentUA' | 'stoppedCurrentUA',
  value: number,
  well: string,
): ReadingVerdict => ({
  measure,
  value,
  verdict: 'not judged',
  reference: { whose: 'general', min: null, max: null },
  reasons: [`The book has no figure for what is drawn from the cell of ${well} alone.`],
  working: [],
});

/** Every reading taken on a job, each judged for the cell it belongs to. */
export function judgeJobReadings(state: JobState, book: Book): JudgedReading[] {
  const several = state.wells.length > 1;
  return [
    ...judgedAt(state, book, null),
    ...(several ? state.wells.flatMap((well) => judgedAt(state, book, well)) : []),
  ];
}

/** The readings of one well, or of the watch where no well is named. */
function judgedAt(state: JobState, book: Book, well: WellState | null): JudgedReading[] {
  const of = (measure: Measure) => readingIn(state.facts, measure, well?.name)?.payload;
  const value = (measure: Measure): number | null => of(measure)?.value ?? null;
  const chemistry = well === null ? chemistryOfJob(state) : chemistryOfWell(well);
  const figures = figuresFor(state.calibre, book);
  const current = currentFigures(state, well, book);
  const [rest, loaded, running] = [value('restVoltageV'), value('loadedVoltageV'), value('currentUA')];
  const [coil, lowest, rate] = [value('coilKOhm'), value('lowestRunningV'), value('rateSPerDay')];
  const stopped = value('stoppedCurrentUA');
  const read = of('loadedVoltageV');
  const load: Load | null =
    read && read.loadKOhm !== null && read.loadSeconds !== null
      ? { loadKOhm: read.loadKOhm, seconds: read.loadSeconds }
      : null;
  const name = well?.name ?? '';
  const verdicts: ReadingVerdict[] = [
    ...(rest === null ? [] : [judgeRestVoltage(rest, chemistry)]),
    ...(loaded === null ? [] : [judgeLoadedVoltage(loaded, rest, chemistry, load)]),
    ...(running === null
      ? []
      : [current === null ? noFigure('currentUA', running, name) : judgeCurrent(running, current)]),
    ...(stopped === null
      ? []
      : [
          current === null
            ? noFigure('stoppedCurrentUA', stopped, name)
            : judgeStoppedCurrent(stopped, current),
        ]),
    ...(coil === null ? [] : [judgeCoil(coil, figures.coil)]),
    ...(lowest === null ? [] : [judgeLowestRunning(lowest, figures.lowest)]),
    ...(rate === null ? [] : [judgeRate(rate)]),
  ];
  return verdicts.map((verdict) => ({ ...verdict, well: well?.name ?? null }));
}

/**
 * Whether motor pulses are the first thing to look for: through a watch that is still closed, before anything is undone,
 * where the shop measures first. A display has no motor. Source: bench practice, shop policy.
 */
export function pulsesComeFirst(
  { facts, calibre }: Pick<JobState, 'facts' | 'calibre'>,
  { schools }: Pick<Policy, 'schools'>,
): boolean {
  return (
    facts.pulses === null &&
    openness(facts) === 'never opened' &&
    schools.check === 'measure first' &&
    (calibre === null || calibre.functions.includes('hands'))
  );
}
