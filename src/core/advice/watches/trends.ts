import type { Book } from '../../craft/book';
import {
  figuresFor,
  type Measure,
  type TrendLimit,
  type TrendPoint,
  USUAL_RATE_S_PER_DAY,
} from '../../craft/health';
import type { JobState } from '../../logbook';
import type { WatchHistory } from './watchHistory';

/** One reading of a watch over its visits, the oldest first, and the limit it is held against. */
export interface VisitTrend {
  readonly measure: Measure;
  readonly unit: string;
  readonly points: readonly TrendPoint[];
  readonly limit: TrendLimit;
}

/**
 * Consumption and rate over the visits, held against the limit of this movement (or its family's, or a general one)
 * and what quartz usually keeps. `now` is the job at hand, whose readings come last; null where there is none.
 */
export function trendsOfWatch(
  history: Pick<WatchHistory, 'currents' | 'rates'>,
  now: JobState | null,
  calibre: JobState['calibre'],
  book: Pick<Book, 'calibres'>,
): readonly VisitTrend[] {
  const points = (measure: Measure, newestFirst: readonly TrendPoint[]): TrendPoint[] => {
    const reading = now?.facts.readings.get(measure);
    return [
      ...[...newestFirst].reverse(),
      ...(reading ? [{ atUtc: reading.occurredAt, value: reading.payload.value }] : []),
    ];
  };
  const { limitUA, of } = figuresFor(calibre, book).current;
  return [
    {
      measure: 'currentUA',
      unit: 'µA',
      points: points(
        'currentUA',
        history.currents.map(({ atUtc, valueUA }) => ({ atUtc, value: valueUA })),
      ),
      limit: { label: `limit, ${of}`, value: limitUA, eitherWay: false },
    },
    {
      measure: 'rateSPerDay',
      unit: 's/day',
      points: points(
        'rateSPerDay',
        history.rates.map(({ atUtc, sPerDay }) => ({ atUtc, value: sPerDay })),
      ),
      limit: { label: 'what quartz usually keeps', value: USUAL_RATE_S_PER_DAY, eitherWay: true },
    },
  ];
}
