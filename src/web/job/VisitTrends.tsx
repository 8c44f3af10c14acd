import { LinearProgress } from '@mui/material';
import { lazy, Suspense } from 'react';
import { measures } from '../../core/craft/health';
import { capital } from '../../core/craft/judgement';
import { localDayInWords } from '../../core/craft/time';
import type { VisitTrend } from '../../core/advice/watches';
import { Section } from '../kit/Section';

const TrendChart = lazy(() => import('../figures/TrendChart'));

/** Readings of a watch over its visits, each with its limit; those read on fewer visits than `atLeast` are left out. */
export function VisitTrends({
  trends,
  zone,
  atLeast,
}: {
  readonly trends: readonly VisitTrend[];
  readonly zone: string;
  readonly atLeast: number;
}) {
  const shown = trends.filter(({ points }) => points.length >= atLeast);
  if (shown.length === 0) return null;
  return (
    <Section title="Over the visits">
      <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
        {shown.map(({ measure, well, unit, points, limit }) => (
          <TrendChart
            key={`${measure} ${well ?? ''}`}
            title={`${capital(measures[measure].words)}${well === null ? '' : `, ${well}`}`}
            unit={unit}
            points={points.map((point) => ({ ...point, label: localDayInWords(point.atUtc, zone) }))}
            limit={limit}
          />
        ))}
      </Suspense>
    </Section>
  );
}
