import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import { orderRack } from '../../core/advice/dayplan';
import { localTime } from '../../core/craft/time';
import { RunsDue } from '../job/RunsDue';
import { LampAnswer } from '../kit/Lamp';
import { StageLayout } from '../kit/StageLayout';
import { useRack, useShop, useStock, shopNow } from '../api/resources';
import { STAGE_WORDS, STAGES } from '../../core/craft/policy';

/** What a shop does first that has nothing here yet, in its order. */
const FIRST: readonly { readonly to: string; readonly what: string; readonly why: string }[] = [
  {
    to: '/policy',
    what: 'Say how this shop works',
    why: 'its name, hours, prices, and the ways it was taught.',
  },
  { to: '/book', what: 'Take a book in', why: 'calibres and cases from a table, or written one by one.' },
  { to: '/tools', what: 'Write down the tools', why: 'openers and dies: then the lamp names yours.' },
  { to: '/stock', what: 'Book the cells in', why: 'by lot, from the first delivery on.' },
  { to: '/new', what: 'Take the first watch in', why: 'it goes without the others, too.' },
];

function BrandNew() {
  return (
    <Paper component="section" aria-label="What to do first" sx={{ p: 2 }}>
      <Typography variant="h2">What to do first</Typography>
      <Box component="ol" sx={{ m: 0, mt: 1, pl: 3, '& li': { py: 0.5 } }}>
        {FIRST.map(({ to, what, why }) => (
          <Typography key={to} component="li">
            <Link to={to}>{what}</Link>: {why}
          </Typography>
        ))}
      </Box>
    </Paper>
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
  const next = open[0];
  const overdue = open.filter((job) => job.urgency === 'overdue');
  const awaiting = open
    .filter((job) => job.partsExpectedOn !== null)
    .sort((a, b) => (a.partsExpectedOn ?? '').localeCompare(b.partsExpectedOn ?? ''));
  const loose = jobs.filter((job) => job.looseCells.length > 0);
  const isBrandNew = jobs.length === 0 && stock?.lots.length === 0 && stock.emptyLots === 0;
  const toCount = stock?.lots.filter((lot) => lot.toBeCounted) ?? [];
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">{localTime(now, shop.shop.zone, 'dddd D MMMM')}</Typography>
          <Typography>
            {shop.shop.name}
            {shop.shop.place ? `, ${shop.shop.place}` : ''}. Press <strong>n</strong> to take a watch in,{' '}
            <strong>/</strong> to find one, <strong>?</strong> for the keys.
          </Typography>
          {isBrandNew && <BrandNew />}
          <Paper component="section" aria-label="Where the watches stand" sx={{ p: 2 }}>
            <Typography variant="h2">Where the watches stand</Typography>
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
          {awaiting.length > 0 && (
            <Paper component="section" aria-label="Parts awaited" sx={{ p: 2 }}>
              <Typography variant="h2">Parts awaited</Typography>
              {awaiting.map((job) => (
                <Typography key={job.id}>
                  <Link to={`/jobs/${job.id}`}>{job.ticket}</Link> {job.watch}: {job.waitsFor}
                </Typography>
              ))}
            </Paper>
          )}
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="Next"
            standing={next ? (next.urgency === 'overdue' ? 'no' : 'good') : 'open'}
            answer={next ? <Link to={`/jobs/${next.id}`}>{next.ticket}</Link> : 'No watch is waiting'}
            reasons={
              next ? [`${next.watch}, waits for ${next.waitsFor}.`] : ['Take one in, and the lamp begins.']
            }
          />
          {overdue.length > 0 && (
            <LampAnswer
              question="Overdue"
              standing="no"
              answer={`${overdue.length}`}
              reasons={overdue.map((job) => `${job.ticket} ${job.customerName}: ring them.`)}
            />
          )}
          <RunsDue />
          {loose.length > 0 && (
            <LampAnswer
              question="Loose cells"
              standing="no"
              answer={`${loose.flatMap((job) => job.looseCells).length}`}
              reasons={loose.map(
                (job) =>
                  `${job.ticket}: ${job.looseCells.map(({ marking }) => marking).join(', ')} out and not settled.`,
              )}
            />
          )}
          {stock && (
            <LampAnswer
              question="Spent cells in the bin"
              standing="good"
              answer={`${stock.spentInBin}`}
              reasons={toCount.map((lot) => `Lot ${lot.lotCode} of ${lot.code} is to be counted.`)}
            />
          )}
        </>
      }
    />
  );
}
