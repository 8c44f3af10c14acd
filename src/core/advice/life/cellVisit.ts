import { type CellSeen, type CellVisit, type FittedHere, forecastAsFitted } from '../../craft/life';
import { addDays, localDay, saidDays } from '../../craft/time';
import { type JobContext, type JobState, readingIn, type WellState } from '../../logbook';
import { judgeJobReadings, whatShows } from '../health';
import { fittedLife, type DatedLots } from './nextVisit';

const VOLTAGES = ['restVoltageV', 'loadedVoltageV'] as const;

/** Whether what was seen or read at a time is of the cell found: until a new one lay in the watch, or where a hand says so. */
function isOfTheOld({ facts }: Pick<JobState, 'facts'>, { fitted }: WellState, at: string): boolean {
  const fresh = facts.looked?.payload.freshCell ?? null;
  return fresh === null ? fitted === null || at < fitted.occurredAt : !fresh;
}

/** What the voltages of the cell found say; null where none was read, or nobody knows of which cell. */
function byVoltage(state: JobState, well: WellState, context: JobContext): 'spent' | 'runs' | null {
  if (state.facts.looked?.payload.freshCell === true) return null;
  const own = state.wells.length > 1 ? well.name : null;
  const read = judgeJobReadings(state, context.catalogue).filter(
    ({ measure, well: at }) => at === own && VOLTAGES.some((each) => each === measure),
  );
  if (read.some(({ verdict }) => verdict === 'spent')) return 'spent';
  // A good one read once the new cell lay in the watch may be of that.
  const before = VOLTAGES.some((measure) => {
    const at = readingIn(state.facts, measure, own ?? undefined)?.occurredAt;
    return at !== undefined && isOfTheOld(state, well, at);
  });
  return before && read.some(({ verdict }) => verdict === 'good' || verdict === 'falling') ? 'runs' : null;
}

/** What the cell in a place showed as the watch came: by its voltage, else by what was found or seen of the watch. */
function shownBy(state: JobState, well: WellState, cameOut: boolean, context: JobContext): CellSeen['shows'] {
  if (well.found?.payload.marking === null) return 'none';
  const volts = byVoltage(state, well, context);
  if (volts !== null) return volts;
  const { findings, complaint, looked, pulses } = state.facts;
  const finding = (
    findings.get(well.name) ?? (state.wells.length === 1 ? [...findings.values()].at(-1) : undefined)
  )?.payload;
  if (finding?.cause === 'spent cell' || finding?.also === 'spent cell') return 'spent';
  // What else ails it may have stopped it, and of several cells nobody says which.
  const open =
    finding === undefined || finding.cause === 'no fault found' || finding.cause === 'not found yet';
  // What hands or display do says nothing of one cell of several.
  if (state.wells.length > 1) return 'not known';
  // Seen with a fresh cell in it, it says nothing of the old one.
  const seen = looked !== null && isOfTheOld(state, well, looked.occurredAt);
  const shows = whatShows(seen ? state : { facts: { ...state.facts, looked: null } });
  const pulsed = pulses?.payload.there === true && isOfTheOld(state, well, pulses.occurredAt);
  if (shows === 'runs' || pulsed) return 'runs';
  const atItsEnd =
    shows === 'dead' ||
    shows === 'in twos or fours' ||
    complaint?.payload.picked.includes('display fading') === true;
  return atItsEnd && open && cameOut && looked?.payload.crown !== 'pulled' ? 'spent' : 'not known';
}

/** The cell fitted in a place, with its forecast; null where none was, or it was the owner's own. */
function fittedHere(
  state: JobState,
  well: WellState,
  lots: DatedLots,
  context: JobContext,
): FittedHere | null {
  const { fitted } = well;
  if (fitted === null) return null;
  const { cellCode, lotId, supplier } = fitted.payload;
  return {
    code: context.catalogue.cell(cellCode)?.code ?? cellCode,
    // A lot knows whose it is, whatever was typed beside it.
    supplier: lots.find(({ id }) => id === lotId)?.supplier ?? supplier,
    on: localDay(fitted.occurredAt, context.shop.zone),
    forecast: forecastAsFitted(fittedLife(state, well, lots, context)),
  };
}

/** Days an owner who names the very day may be off, either way. Ours. */
const OFF_DAYS = 7;

/** Between which days a watch stopped, as its owner tells; null where nobody does. */
function stoppedBetween({ facts }: Pick<JobState, 'facts'>): CellVisit['stopped'] {
  const said = facts.stopped?.payload.stoppedOn ?? null;
  if (said === null) return null;
  const days = saidDays(said);
  return days.from === days.to
    ? { from: addDays(days.from, -OFF_DAYS), to: addDays(days.to, OFF_DAYS) }
    : days;
}

const CHANGED_BY: Readonly<Record<string, CellVisit['changedBy']>> = {
  'this shop': 'this shop',
  'another shop': 'somebody else',
  'the maker': 'somebody else',
  'the owner': 'somebody else',
};

/**
 * What one visit of a watch tells of the life of its cells: what each showed as it came, whether it is the one fitted before, and
 * what went in with its forecast. Null before it is taken in.
 */
export function cellVisitOf(state: JobState, lots: DatedLots, context: JobContext): CellVisit | null {
  const { received, cellHistory } = state.facts;
  if (received === null) return null;
  return {
    cameOn: localDay(received.occurredAt, context.shop.zone),
    stopped: stoppedBetween(state),
    changedBy: CHANGED_BY[cellHistory?.payload.changedBy ?? ''] ?? 'not said',
    placesKnown: state.calibre !== null || state.facts.places !== null,
    places: state.wells.map((well): CellSeen => {
      const cameOut = well.fitted !== null || (well.oldSettled !== null && well.putBack === null);
      return {
        well: well.name,
        shows: shownBy(state, well, cameOut, context),
        foundCode: well.foundCell?.code ?? null,
        cameOut,
        fitted: fittedHere(state, well, lots, context),
      };
    }),
  };
}

/**
 * A visit with what was forecast for its cells when its job was signed: a book revised since tells nothing of what was told
 * then. `before`: as it was worked out last; a job that is open is forecast anew.
 */
export function withForecastsKept(
  visit: CellVisit,
  before: CellVisit | null,
  { signature }: Pick<JobState, 'signature'>,
): CellVisit {
  if (signature.state !== 'signed' || before === null) return visit;
  const keep = (well: string, fitted: FittedHere): FittedHere => {
    const then = before.places.find((place) => place.well === well)?.fitted ?? null;
    const isTheSame =
      then?.code === fitted.code && then.supplier === fitted.supplier && then.on === fitted.on;
    return isTheSame ? { ...fitted, forecast: then.forecast } : fitted;
  };
  return {
    ...visit,
    places: visit.places.map((place) => ({
      ...place,
      fitted: place.fitted && keep(place.well, place.fitted),
    })),
  };
}
