import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { StockResource } from '../../contract';
import { orderRack } from '../../core/advice/dayplan';
import { STAGE_WORDS, STAGES } from '../../core/craft/policy';
import { localTime } from '../../core/craft/time';
import { shopNow, useRack, useShop, useStock } from '../api/resources';
import { LampAnswer } from '../kit/Lamp';
import { StageLayout } from '../kit/StageLayout';

// What it records with is not wanted for the first look at the day.
const RemindersDue = lazy(() => import('./RemindersDue'));
const KeptWrites = lazy(() => import('./KeptWrites'));
const BrandNew = lazy(() => import('./BrandNew'));
const RunsDue = lazy(async () => ({ default: (await import('../job/RunsDue')).RunsDue }));

type RackJob = NonNullable<ReturnType<typeof useRack>['data']>[number];
type Job = RackJob & Pick<ReturnType<typeof orderRack>[number], 'urgency'>;

function WhereTheyStand({ open }: { readonly open: readonly Job[] }) {
  return (
    <Paper component="section" aria-label="Watches by stage" sx={{ p: 2 }}>
      <Typography variant="h2">Watches by stage</Typography>
      <Box
        component="dl"
        sx={{
          display: 'grid',
          gridTemplateColumns: 'max-content 1fr',
          columnGap: 3,
          rowGap: 1,
          m: 0,
          mt: 1,
        }}
      >
        {STAGES.map((stage, index) => {
          const here = open.filter((job) => job.current === stage);
          return (
            <Box key={stage} sx={{ display: 'contents' }}>
              <Typography component="dt">
                {index + 1} {STAGE_WORDS[stage]}
              </Typography>
              <Typography component="dd" sx={{ m: 0 }}>
                {here.length === 0
                  ? '–'
                  : here.map((job, at) => (
                      <span key={job.id}>
                        {at > 0 ? ', ' : ''}
                        <Link to={`/jobs/${job.id}`}>{job.ticket}</Link>
                      </span>
                    ))}
              </Typography>
            </Box>
          );
        })}
      </Box>
      <Stack direction="row" sx={{ mt: 1, flexWrap: 'wrap' }}>
        <Button href="/api/lists/rack.csv">Rack as CSV</Button>
        <Button href="/api/lists/jobs.csv">All jobs as CSV</Button>
      </Stack>
    </Paper>
  );
}

function PartsAwaited({ open }: { readonly open: readonly Job[] }) {
  const awaiting = open
    .filter((job) => job.partsExpectedOn !== null)
    .sort((a, b) => (a.partsExpectedOn ?? '').localeCompare(b.partsExpectedOn ?? ''));
  return awaiting.length === 0 ? null : (
    <Paper component="section" aria-label="Waiting for parts" sx={{ p: 2 }}>
      <Typography variant="h2">Waiting for parts</Typography>
      {awaiting.map((job) => (
        <Typography key={job.id}>
          <Link to={`/jobs/${job.id}`}>{job.ticket}</Link> {job.watch}: {job.waitsFor}
        </Typography>
      ))}
    </Paper>
  );
}

/** What comes next, what is late, and what must not be forgotten. */
function DayLamp({
  jobs,
  open,
  stock,
}: {
  readonly jobs: readonly RackJob[];
  readonly open: readonly Job[];
  readonly stock: StockResource | undefined;
}) {
  const next = open[0];
  const overdue = open.filter((job) => job.urgency === 'overdue');
  const loose = jobs.filter((job) => job.looseCells.length > 0);
  const toCount = stock?.lots.filter((lot) => lot.toBeCounted) ?? [];
  return (
    <>
      <LampAnswer
        question="Next"
        tone={next ? (next.urgency === 'overdue' ? 'no' : 'good') : 'open'}
        answer={next ? <Link to={`/jobs/${next.id}`}>{next.ticket}</Link> : 'No watch is waiting'}
        reasons={next ? [`${next.watch}, waiting for ${next.waitsFor}.`] : ['Take in a watch to start.']}
      />
      {overdue.length > 0 && (
        <LampAnswer
          question="Overdue"
          tone="no"
          answer={`${overdue.length}`}
          reasons={overdue.map((job) => `${job.ticket} ${job.customerName}: call the owner.`)}
        />
      )}
      <Suspense>
        <RunsDue />
      </Suspense>
      {loose.length > 0 && (
        <LampAnswer
          question="Loose cells"
          tone="no"
          answer={`${loose.flatMap((job) => job.looseCells).length}`}
          reasons={loose.map(
            (job) =>
              `${job.ticket}: ${job.looseCells.map(({ marking }) => marking).join(', ')}, out of the watch and not accounted for.`,
          )}
        />
      )}
      {stock && (
        <LampAnswer
          question="Spent cells in the bin"
          tone="good"
          answer={`${stock.spentInBin}`}
          reasons={toCount.map((lot) => `Lot ${lot.lotCode} of ${lot.code} must be counted.`)}
        />
      )}
    </>
  );
}

/** The bench with no job open: what the day holds. */
export function DayStart() {
  const { data: jobs = [] } = useRack();
  const { data: shop } = useShop();
  const { data: stock } = useStock();
  if (!shop) return null;
  const now = shopNow(shop);
  const ordered = orderRack(jobs, now);
  const open = ordered.filter((job) => job.signedBy === null);
  const isBrandNew = jobs.length === 0 && stock?.lots.length === 0 && stock.emptyLots === 0;
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">{localTime(now, shop.shop.zone, 'dddd D MMMM')}</Typography>
          <Typography>
            {shop.shop.name}
            {shop.shop.place ? `, ${shop.shop.place}` : ''}. Press <strong>n</strong> to take in a watch,{' '}
            <strong>/</strong> to find one, <strong>?</strong> for all keys.
          </Typography>
          <Suspense>
            <KeptWrites />
          </Suspense>
          {isBrandNew && (
            <Suspense>
              <BrandNew />
            </Suspense>
          )}
          <WhereTheyStand open={open} />
          <PartsAwaited open={open} />
          {/* Last, since it comes last: nothing moves under a hand. */}
          <Suspense>
            <RemindersDue />
          </Suspense>
        </>
      }
      lamp={
        <>
          <DayLamp jobs={jobs} open={open} stock={stock} />
        </>
      }
    />
  );
}
