import { Box, Button, LinearProgress, Paper, Stack, Typography } from '@mui/material';
import { lazy, type ReactNode, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import type { Book } from '../../core/catalogue';
import { figuresFor, USUAL_RATE_S_PER_DAY } from '../../core/health';
import { capital } from '../../core/judgement';
import { localTime } from '../../core/time';
import { Refused } from '../api/http';
import { useBook, useShop } from '../api/resources';
import { CalibreFigure } from '../figures/CalibreFigure';
import { FileThumb } from '../job/files';
import { StageLayout } from '../job/StageLayout';
import { LastTime } from '../job/LastTime';
import { type SeenWatch, useWatchHistory } from '../job/watchHistory';
import { NoSuchPage } from './NoSuchPage';

const SmallChart = lazy(() => import('../figures/SmallChart'));
const TrendChart = lazy(() => import('../figures/TrendChart'));

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
  book,
}: {
  readonly watchId: string;
  readonly watch: SeenWatch;
  readonly zone: string;
  readonly book: Book;
}) {
  const { visits, history } = watch;
  const newest = visits[0];
  const described = newest?.state.facts.watch?.payload;
  const calibre = visits.find(({ state }) => state.calibre !== null)?.state.calibre ?? null;
  const limits = figuresFor(calibre, book).current;
  /** The number a leak has on the drawing. */
  const placed = (index: number): number =>
    history.leakages.slice(0, index + 1).filter(({ xMm, yMm }) => xMm !== null && yMm !== null).length;
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
                <TrendChart
                  title="Current"
                  unit="µA"
                  points={oldestFirst(history.currents).map(({ atUtc, valueUA }) => ({
                    atUtc,
                    label: day(atUtc),
                    value: valueUA,
                  }))}
                  limit={{ label: `limit, ${limits.of}`, value: limits.limitUA }}
                />
              </Suspense>
            </Section>
          )}
          {history.rates.length > 0 && (
            <Section title="Rate">
              <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
                <TrendChart
                  title="Rate"
                  unit="s/day"
                  points={oldestFirst(history.rates).map(({ atUtc, sPerDay }) => ({
                    atUtc,
                    label: day(atUtc),
                    value: sPerDay,
                  }))}
                  limit={{ label: 'what quartz usually keeps', value: USUAL_RATE_S_PER_DAY }}
                />
              </Suspense>
            </Section>
          )}
          {history.leakages.length > 0 && (
            <Section title="Leaked">
              <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
                {calibre && (
                  <CalibreFigure
                    calibre={calibre}
                    cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
                    legend={false}
                    spots={history.leakages.flatMap(({ xMm, yMm }) =>
                      xMm !== null && yMm !== null ? [{ xMm, yMm }] : [],
                    )}
                  />
                )}
                <Box>
                  {history.leakages.map((leak, index) => (
                    <Box key={`${leak.atUtc}-${index}`}>
                      <Typography>
                        {leak.xMm === null ? '' : `No. ${placed(index)}, `}
                        {day(leak.atUtc)}: {leak.words}.
                      </Typography>
                      {leak.pictures.map((hash) => (
                        <FileThumb key={hash} hash={hash} attachment={undefined} />
                      ))}
                    </Box>
                  ))}
                </Box>
              </Stack>
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
  if (!watch || !shop || !book) return <LinearProgress aria-label="Loading the watch" />;
  return <WatchPage watchId={watchId} watch={watch} zone={shop.shop.zone} book={book} />;
}
