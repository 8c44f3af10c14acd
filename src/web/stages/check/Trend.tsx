import { LinearProgress, Paper, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { figuresFor, type Measure, USUAL_RATE_S_PER_DAY } from '../../../core/health';
import { localTime } from '../../../core/time';
import { useJob } from '../../job/JobContext';

const TrendChart = lazy(() => import('../../figures/TrendChart'));

/** Consumption and rate of this watch over its visits, this one last. */
export function Trends() {
  const { state, earlier, context, book } = useJob();
  if (!earlier) return null;
  const { currents, rates } = earlier.history;
  const day = (atUtc: string): string => localTime(atUtc, context.shop.zone, 'D MMM YYYY');
  const withNow = (past: readonly { readonly atUtc: string; readonly value: number }[], measure: Measure) => {
    const now = state.facts.readings.get(measure);
    return [
      ...[...past].reverse(),
      ...(now ? [{ atUtc: now.occurredAt, value: now.payload.value }] : []),
    ].map((point) => ({ ...point, label: day(point.atUtc) }));
  };
  const current = withNow(
    currents.map(({ atUtc, valueUA }) => ({ atUtc, value: valueUA })),
    'currentUA',
  );
  const rate = withNow(
    rates.map(({ atUtc, sPerDay }) => ({ atUtc, value: sPerDay })),
    'rateSPerDay',
  );
  const limits = figuresFor(state.calibre, book).current;
  if (current.length < 2 && rate.length < 2) return null;
  return (
    <Paper component="section" aria-label="Over the visits" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Over the visits
      </Typography>
      <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
        {current.length >= 2 && (
          <TrendChart
            title="Current"
            unit="µA"
            points={current}
            limit={{ label: `limit, ${limits.of}`, value: limits.limitUA }}
          />
        )}
        {rate.length >= 2 && (
          <TrendChart
            title="Rate"
            unit="s/day"
            points={rate}
            limit={{ label: 'what quartz usually keeps', value: USUAL_RATE_S_PER_DAY }}
          />
        )}
      </Suspense>
    </Paper>
  );
}
