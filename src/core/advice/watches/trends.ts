import type { Book } from '../../craft/book';
import {
  figuresFor,
  type Measure,
  type TrendLimit,
  type TrendPoint,
  USUAL_RATE_S_PER_DAY,
} from '../../craft/health';
import { type JobState, readingsOf } from '../../logbook';
import type { WatchHistory } from './watchHistory';

/** One reading of a watch over its visits, the oldest first, and the limit it is held against. */
export interface VisitTrend {
  readonly measure: Measure;
  /** The cell it is read at, where a watch has several; null: of the watch. */
  readonly well: string | null;
  readonly unit: string;
  readonly points: readonly TrendPoint[];
  /** Null where the book has no figure for what is drawn there. */
  readonly limit: TrendLimit | null;
}

type ReadAt = TrendPoint & { readonly well: string | null };

/** The limit a current is held against: the movement's own for the watch and its first cell, else that of the well. */
function currentLimit(
  calibre: JobState['calibre'],
  well: string | null,
  book: Pick<Book, 'calibres'>,
): TrendLimit | null {
  const own = calibre?.wells.find(({ name }) => name === well);
  if (own !== undefined && own.limitUA !== null)
    return { label: `limit, ${calibre?.code ?? ''}, ${own.name}`, value: own.limitUA, eitherWay: false };
  // The movement’s own figure is of its first cell; of any other place nobody has one.
  if (well !== null && (own === undefined || own !== calibre?.wells[0])) return null;
  const { limitUA, of } = figuresFor(calibre, book).current;
  return { label: `limit, ${of}`, value: limitUA, eitherWay: false };
}

/**
 * Consumption and rate over the visits, held against the limit of this movement (or its family's, or a general one)
 * and what quartz usually keeps; of a watch with several cells the current of each by itself. `now` is the job at hand,
 * whose readings come last; null where there is none.
 */
export function trendsOfWatch(
  history: Pick<WatchHistory, 'currents' | 'rates'>,
  now: JobState | null,
  calibre: JobState['calibre'],
  book: Pick<Book, 'calibres'>,
): readonly VisitTrend[] {
  const read = (measure: Measure): ReadAt[] =>
    now === null
      ? []
      : readingsOf(now.facts, measure).map(({ occurredAt, payload, well }) => ({
          atUtc: occurredAt,
          value: payload.value,
          well,
        }));
  const currents: readonly ReadAt[] = [
    ...history.currents.map(({ atUtc, valueUA, well }) => ({ atUtc, value: valueUA, well })).reverse(),
    ...read('currentUA'),
  ];
  const place = (well: string | null): number => calibre?.wells.findIndex(({ name }) => name === well) ?? 0;
  const readAt = [...new Set(currents.map(({ well }) => well))].sort((a, b) => place(a) - place(b));
  return [
    // A watch of which no current was ever read has the trend all the same, without a point.
    ...(readAt.length === 0 ? [null] : readAt).map((well): VisitTrend => ({
      measure: 'currentUA',
      well,
      unit: 'µA',
      points: currents.filter((each) => each.well === well).map(({ atUtc, value }) => ({ atUtc, value })),
      limit: currentLimit(calibre, well, book),
    })),
    {
      measure: 'rateSPerDay',
      well: null,
      unit: 's/day',
      points: [
        ...history.rates.map(({ atUtc, sPerDay }) => ({ atUtc, value: sPerDay })).reverse(),
        ...read('rateSPerDay').map(({ atUtc, value }) => ({ atUtc, value })),
      ],
      limit: { label: 'what quartz usually keeps', value: USUAL_RATE_S_PER_DAY, eitherWay: true },
    },
  ];
}
