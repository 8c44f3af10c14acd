import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { flowInWords } from '../../core/advice/leaks';
import { trendsOfWatch, type WatchHistory } from '../../core/advice/watches';
import type { Book } from '../../core/craft/book';
import { capital } from '../../core/craft/judgement';
import type { Calibre } from '../../core/craft/movements';
import { localDayInWords } from '../../core/craft/time';
import { watchName } from '../../core/logbook';
import { useBook } from '../api/book';
import { isNotFound, saidInWords } from '../api/http';
import { useShop } from '../api/resources';
import { CalibreFigure } from '../figures/CalibreFigure';
import { FileThumb } from '../job/files';
import { LastTime } from '../job/LastTime';
import { LeakTrend } from '../job/LeakTrend';
import { VisitTrends } from '../job/VisitTrends';
import { type SeenWatch, useWatchHistory } from '../job/watchHistory';
import { Loading } from '../kit/Loading';
import { Section } from '../kit/Section';
import { StageLayout } from '../kit/StageLayout';
import { NoSuchPage } from './NoSuchPage';

const SmallChart = lazy(() => import('../figures/SmallChart'));

type Day = (atUtc: string) => string;

function Lines({ lines }: { readonly lines: readonly string[] }) {
  return lines.map((line, index) => <Typography key={`${line}-${index}`}>{line}</Typography>);
}

function Leaked({
  watch: { history, attachments },
  calibre,
  book,
  day,
}: {
  readonly watch: SeenWatch;
  readonly calibre: Calibre | null;
  readonly book: Book;
  readonly day: Day;
}) {
  /** The number a leak has on the drawing. */
  const placed = (index: number): number =>
    history.leakages.slice(0, index + 1).filter(({ xMm, yMm }) => xMm !== null && yMm !== null).length;
  return (
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
                <FileThumb
                  key={hash}
                  hash={hash}
                  attachment={attachments.find((each) => each.hash === hash)}
                />
              ))}
            </Box>
          ))}
        </Box>
      </Stack>
    </Section>
  );
}

function Tests({
  history,
  ratingBar,
  day,
}: {
  readonly history: WatchHistory;
  readonly ratingBar: number | null;
  readonly day: Day;
}) {
  const pressures = history.tests.flatMap((test) =>
    test.pressureBar === null ? [] : [{ ...test, pressureBar: test.pressureBar }],
  );
  return (
    <Section title="Tests">
      {pressures.length > 0 && (
        <Suspense fallback={<LinearProgress aria-label="Loading the chart" />}>
          <SmallChart
            title="Pressure tested"
            unit="bar"
            points={pressures.toReversed().map(({ atUtc, pressureBar }) => ({
              label: day(atUtc),
              value: pressureBar,
            }))}
            limit={ratingBar ? { label: 'rating when new', value: ratingBar } : null}
          />
        </Suspense>
      )}
      <Lines
        lines={history.tests.map(
          (test) =>
            `${day(test.atUtc)}: ${test.method}${test.pressureBar === null ? '' : `, ${test.pressureBar} bar`}, ${test.outcome}${flowInWords(test.flow) === null ? '' : `, ${flowInWords(test.flow)} at 2 bar`}`,
        )}
      />
    </Section>
  );
}

function CellsAndGaskets({ history, day }: { readonly history: WatchHistory; readonly day: Day }) {
  return (
    <>
      {history.cells.length > 0 && (
        <Section title="Cells fitted">
          <Lines
            lines={history.cells.map(
              (cell) =>
                `${day(cell.atUtc)}: ${cell.cellCode}${cell.lotCode ? `, lot ${cell.lotCode}` : ''}${cell.supplier ? `, ${cell.supplier}` : ''}`,
            )}
          />
        </Section>
      )}
      {history.gaskets.length > 0 && (
        <Section title="Gasket">
          <Lines
            lines={history.gaskets.map(
              (gasket) => `${day(gasket.atUtc)}: ${gasket.state}. ${capital(gasket.reason)}`,
            )}
          />
        </Section>
      )}
    </>
  );
}

function SeenWatchSheet({
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
  const day = (atUtc: string): string => localDayInWords(atUtc, zone);
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">
            {capital(watchName(described))}
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
          <VisitTrends trends={trendsOfWatch(history, null, calibre, book)} zone={zone} atLeast={1} />
          {history.leakages.length > 0 && <Leaked watch={watch} calibre={calibre} book={book} day={day} />}
          <LeakTrend history={history} now={null} zone={zone} atLeast={1} />
          {history.tests.length > 0 && (
            <Tests history={history} ratingBar={described?.ratingBar ?? null} day={day} />
          )}
          <CellsAndGaskets history={history} day={day} />
        </>
      }
      lamp={<LastTime watch={watch} zone={zone} />}
    />
  );
}

/** Everything about one watch, over all its visits. */
export default function WatchPage() {
  const { watchId = '' } = useParams();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const { watch, error } = useWatchHistory(watchId, book, shop);
  if (isNotFound(error)) return <NoSuchPage what="watch" />;
  if (!watch && saidInWords(error) !== null)
    return <Typography role="alert">{saidInWords(error)}</Typography>;
  if (!watch || !shop || !book) return <Loading what="the watch" />;
  return <SeenWatchSheet watchId={watchId} watch={watch} zone={shop.shop.zone} book={book} />;
}
