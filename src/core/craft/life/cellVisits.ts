import { yearsBetween } from '../time';
import { FORECAST_LIMIT_MONTHS, type LifeForecast } from './expectedLife';
import { type CellLife, isSound, TO_80 } from './shopLife';

/** What one visit of a watch tells of its cells. */
export interface CellVisit {
  /** The day it was brought. */
  readonly cameOn: string;
  /** From and to which day it may have stopped, as its owner tells; null: not told. */
  readonly stopped: { readonly from: string; readonly to: string } | null;
  /** Who is said to have changed its cell last. */
  readonly changedBy: 'this shop' | 'somebody else' | 'not said';
  readonly places: readonly CellSeen[];
  /** Whether anybody knew how many places it has; where nobody did, one stands for whatever there is. */
  readonly placesKnown: boolean;
}

/** One place for a cell, as a visit found and left it. */
export interface CellSeen {
  readonly well: string;
  /** What the cell that was in it showed; `none`: there was no cell. */
  readonly shows: 'spent' | 'runs' | 'not known' | 'none';
  /** Its type as read; null where it was not. */
  readonly foundCode: string | null;
  /** Whether it left the watch. */
  readonly cameOut: boolean;
  /** What went in, with its forecast; null: nothing did. */
  readonly fitted: FittedHere | null;
}

export interface FittedHere {
  readonly code: string;
  readonly supplier: string;
  /** The day it went in. */
  readonly on: string;
  /** Null where nothing was forecast, or more than is forecast for any cell. */
  readonly forecast: Pick<CellLife, 'medianMonths' | 'spread'> | null;
}

/** A life of a cell and which cell it is. */
export type LifeOfCell = CellLife & Pick<FittedHere, 'code' | 'supplier'>;

/** One that is spent on its first day lived for a part of it. */
const A_DAY_MONTHS = 0.033;

/** What of a forecast a life is held against later; null where it has none, or one that was cut off. */
export function forecastAsFitted(life: LifeForecast): FittedHere['forecast'] {
  if (life.verdict === 'no forecast' || !(life.p10Months > 0) || !(life.p50Months < FORECAST_LIMIT_MONTHS))
    return null;
  const spread = Math.log(life.p50Months / life.p10Months) / TO_80;
  return spread > 0 ? { medianMonths: life.p50Months, spread } : null;
}

/** A cell in its place, as far as it was followed. */
interface Followed {
  readonly fitted: FittedHere;
  readonly ranOn: string;
  readonly seenAgain: boolean;
}

const months = (from: string, to: string): number => Math.max(0, yearsBetween(from, to) * 12);

/** Whether the cell found is the one that was fitted; null where nothing says. */
function isTheSame({ changedBy }: CellVisit, seen: CellSeen, { code }: FittedHere): boolean | null {
  if (changedBy === 'somebody else' || seen.shows === 'none') return false;
  if (seen.foundCode !== null) return seen.foundCode === code;
  return changedBy === 'this shop' ? true : null;
}

/** The life of a cell found spent on a visit: it ended while it was out, or when its owner says, where that can be. */
function endedLife({ fitted, ranOn }: Followed, { cameOn, stopped }: CellVisit): Partial<CellLife> {
  const [from, to] = [
    stopped !== null && stopped.from > ranOn ? stopped.from : ranOn,
    stopped !== null && stopped.to < cameOn ? stopped.to : cameOn,
  ];
  // What contradicts what was seen here is not gone by.
  const isPossible = from <= to && to > ranOn;
  const [ran, spent] = isPossible ? [from, to] : [ranOn, cameOn];
  return {
    ranMonths: months(fitted.on, ran),
    spentByMonths: Math.max(A_DAY_MONTHS, months(fitted.on, spent)),
    broughtMonths: Math.max(A_DAY_MONTHS, months(fitted.on, cameOn)),
  };
}

/**
 * The lives of the cells fitted in a watch, from its visits: each from when it was fitted to when it was found spent,
 * or came out running, or until today. What was changed elsewhere since, or is of another type, or of which nobody says whose
 * it is, is followed no further than it was seen. Days as year-month-day; months out.
 */
export function livesOf(visits: readonly CellVisit[], today: string): readonly LifeOfCell[] {
  const lives: LifeOfCell[] = [];
  const inPlace = new Map<string, Followed>();
  const end = ({ fitted, ranOn, seenAgain }: Followed, life: Partial<CellLife>): void => {
    if (fitted.forecast === null) return;
    const whole = {
      ...fitted.forecast,
      code: fitted.code,
      supplier: fitted.supplier,
      ranMonths: months(fitted.on, ranOn),
      spentByMonths: null,
      broughtMonths: null,
      outMonths: null,
      seenAgain,
      ...life,
    };
    // What is dated by no day is no life.
    if (isSound(whole)) lives.push(whole);
  };
  for (const visit of [...visits].sort((a, b) => (a.cameOn < b.cameOn ? -1 : a.cameOn > b.cameOn ? 1 : 0))) {
    for (const [well, cell] of inPlace) {
      const seen = visit.places.find((place) => place.well === well);
      if (!seen && !visit.placesKnown) continue;
      const same = seen ? isTheSame(visit, seen, cell.fitted) : false;
      const now =
        same !== false && seen?.shows === 'runs' && visit.cameOn > cell.ranOn
          ? { ...cell, ranOn: visit.cameOn, seenAgain: true }
          : cell;
      inPlace.set(well, now);
      if (!seen || same === false || (same === null && seen.shows === 'spent')) end(now, {});
      else if (seen.shows === 'spent') end(now, { ...endedLife(now, visit), seenAgain: true });
      else if (seen.cameOut) end(now, {});
      else continue;
      inPlace.delete(well);
    }
    for (const { well, fitted } of visit.places)
      if (fitted) inPlace.set(well, { fitted, ranOn: fitted.on, seenAgain: false });
  }
  for (const cell of inPlace.values()) end(cell, { outMonths: months(cell.fitted.on, today) });
  return lives;
}
