import { Button, LinearProgress, Paper, Typography } from '@mui/material';
import { lazy, type ReactNode, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { capital } from '../../core/judgement';
import { localTime } from '../../core/time';
import { Refused } from '../api/http';
import { useBook, useShop } from '../api/resources';
import { StageLayout } from '../job/StageLayout';
import { LastTime } from '../job/LastTime';
import { type SeenWatch, useWatchHistory } from '../job/watchHistory';
import { NoSuchPage } from './NoSuchPage';

const SmallChart = lazy(() => import('../figures/SmallChart'));

const DAY = 'D MMM YYYY';

function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Paper component="section" aria-label={title} sx={{ p: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Paper>
  );
}

function WatchPage({
  watchId,
  watch,
  zone,
}: {
  readonly watchId: string;
  readonly watch: SeenWatch;
  readonly zone: string;
}) {
  const { visits, history } = watch;
  const newest = visits[0];
  const described = newest?.state.facts.watch?.payload;
  const calibre = newest?.state.calibre ?? null;
  const day = (atUtc: string): string => localTime(atUtc, zone, DAY);
  const oldestFirst = <T,>(items: readonly T[]): T[] => [...items].reverse();
  const pressures = history.tests.flatMap((test) =>
    test.pressureBar === null ? [] : [{ ...test, pressureBar: test.pressureBar }],
  );
  const list = (lines: readonly string[]): ReactNode =>
    lines.map((line, index) => <Typography key={`${line}-${index}`}>{line}</Typography>);
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">
            {[described?.maker, described?.reference].filter(Boolean).join(' ') || 'Unmarked watch'}
            {described?.serial ? `, serial ${described.serial}` : ''}
          </Typography>
          <Section title="Visits">
            {visits.map((visit) => (
              <Typography key={visit.jobId}>
                <Link to={`/jobs/${visit.jobId}`}>{visit.ticket}</Link>, {day(visit.receivedAt)},{' '}
                {visit.state.facts.service?.payload.service ?? 'no service'}
                {visit.state.facts.complaint
                  ? `: ${[...visit.state.facts.complaint.payload.picked, visit.state.facts.complaint.payload.words].filter(Boolean).join(', ')}`
                  : ''}
              </Typography>
            ))}
            <Button href={`/api/watches/${watchId}/visits.csv`}>As CSV</Button>
          </Section>
          {history.currents.length > 0 && (
            <Section title="Consumption">
              <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
                <SmallChart
                  title="Current"
                  unit="µA"
                  points={oldestFirst(history.currents).map(({ atUtc, valueUA }) => ({
                    label: day(atUtc),
                    value: valueUA,
                  }))}
                  limit={calibre ? { label: `limit of ${calibre.code}`, value: calibre.limitUA } : null}
                />
              </Suspense>
            </Section>
          )}
          {history.tests.length > 0 && (
            <Section title="Tests">
              {pressures.length > 0 && (
                <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
                  <SmallChart
                    title="Pressure tested"
                    unit="bar"
                    points={oldestFirst(pressures).map(({ atUtc, pressureBar }) => ({
                      label: day(atUtc),
                      value: pressureBar,
                    }))}
                    limit={
                      described?.ratingBar ? { label: 'rating when new', value: described.ratingBar } : null
                    }
                  />
                </Suspense>
              )}
              {list(
                history.tests.map(
                  (test) =>
                    `${day(test.atUtc)}: ${test.method}${test.pressureBar === null ? '' : `, ${test.pressureBar} bar`}, ${test.outcome}`,
                ),
              )}
            </Section>
          )}
          {history.cells.length > 0 && (
            <Section title="Cells fitted">
              {list(
                history.cells.map(
                  (cell) =>
                    `${day(cell.atUtc)}: ${cell.cellCode}${cell.lotCode ? `, lot ${cell.lotCode}` : ''}${cell.supplier ? `, ${cell.supplier}` : ''}`,
                ),
              )}
            </Section>
          )}
          {history.gaskets.length > 0 && (
            <Section title="Gasket">
              {list(
                history.gaskets.map(
                  (gasket) => `${day(gasket.atUtc)}: ${gasket.state}. ${capital(gasket.reason)}`,
                ),
              )}
            </Section>
          )}
        </>
      }
      lamp={<LastTime watch={watch} zone={zone} />}
    />
  );
}

/** Everything about one watch, over all its visits. */
export default function WatchView() {
  const { watchId = '' } = useParams();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const { watch, error } = useWatchHistory(watchId, book, shop);
  if (error instanceof Refused) return <NoSuchPage what="watch" />;
  if (!watch || !shop) return <LinearProgress aria-label="Loading the watch" />;
  return <WatchPage watchId={watchId} watch={watch} zone={shop.shop.zone} />;
}
