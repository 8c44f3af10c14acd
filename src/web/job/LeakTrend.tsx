import { LinearProgress, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { flowInWords, leakTrend } from '../../core/advice/leaks';
import { LIMIT_UG_PER_MIN } from '../../core/craft/tightness';
import { localDayInWords } from '../../core/craft/time';
import type { WatchHistory } from '../../core/advice/watches';
import type { JobState } from '../../core/logbook';
import { Section } from '../kit/Section';

const SmallChart = lazy(() => import('../figures/SmallChart'));

/** One test alone is no trend. */
export const LEAK_TRENDS_AT_LEAST = 2;

/** What leaked at 2 bar over the visits of a watch, as measured, beside the limit. */
export function LeakTrend({
  history,
  now,
  zone,
  atLeast,
}: {
  readonly history: Pick<WatchHistory, 'tests'> | null;
  /** The job at hand, whose tests come last; null where there is none. */
  readonly now: JobState | null;
  readonly zone: string;
  readonly atLeast: number;
}) {
  const points = leakTrend(history?.tests ?? [], now);
  if (points.length < atLeast) return null;
  return (
    <Section title="Leak over the visits">
      <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
        <SmallChart
          title="Air at 2 bar"
          unit="µg/min"
          points={points.map(({ atUtc, flow }) => ({
            label: localDayInWords(atUtc, zone),
            value: Number(flow.likeliest.toFixed(1)),
          }))}
          limit={{ label: 'limit', value: LIMIT_UG_PER_MIN }}
        />
      </Suspense>
      {points.map(({ atUtc, flow, outcome }) => (
        <Typography key={atUtc} variant="body2">
          {localDayInWords(atUtc, zone)}: {outcome}, {flowInWords(flow)}.
        </Typography>
      ))}
    </Section>
  );
}
