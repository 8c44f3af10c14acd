import { Box, Stack, Typography } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { JobSummary } from '../../contract';
import { orderRack, promiseWords, type Urgency } from '../../core/advice/dayplan';
import { STAGE_WORDS } from '../../core/craft/policy';
import { failedInWords } from '../api/http';
import { type SeenShop, useRack, useShop, shopNow } from '../api/resources';
import { colours, MONO } from '../kit/theme';

const TICK_MS = 20_000;

/** The shop's time, moving on now and then so that promises run out before one's eyes. */
function useNow(shop: SeenShop | undefined): string | null {
  const [nowUtc, setNowUtc] = useState<string | null>(null);
  useEffect(() => {
    if (!shop) return;
    const tick = (): void => setNowUtc(shopNow(shop));
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [shop]);
  return nowUtc;
}

const EDGE: Readonly<Record<Urgency, string>> = {
  overdue: colours.cinnabar,
  'due soon': colours.amber,
  today: colours.thread,
  later: colours.thread,
  'no promise': colours.thread,
};

interface EnvelopeProps {
  readonly job: JobSummary & { readonly urgency: Urgency };
  readonly nowUtc: string;
  readonly zone: string;
  readonly open: boolean;
  readonly onPick: () => void;
}

function Envelope({ job, nowUtc, zone, open, onPick }: EnvelopeProps) {
  const envelope = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    if (open) envelope.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  return (
    <Box
      ref={envelope}
      component={Link}
      to={`/jobs/${job.id}`}
      onClick={onPick}
      aria-current={open ? 'page' : undefined}
      sx={{
        display: 'block',
        textDecoration: 'none',
        color: 'text.primary',
        border: `1.5px solid ${open ? colours.soot : colours.thread}`,
        // Who is signed waits for its owner: nothing presses here.
        borderLeft: `6px solid ${job.signedBy ? colours.thread : EDGE[job.urgency]}`,
        bgcolor: colours.paper,
        boxShadow: open ? `inset 0 0 0 1.5px ${colours.soot}` : 'none',
        borderRadius: 1,
        px: 1.25,
        py: 0.75,
      }}
    >
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
        <Typography
          component="span"
          sx={{ fontFamily: MONO, fontWeight: 700, fontSize: '1.05rem', whiteSpace: 'nowrap' }}
        >
          {job.ticket}
        </Typography>
        {job.urgency === 'overdue' && !job.signedBy && (
          <Typography component="span" variant="body2" sx={{ fontWeight: 700, color: colours.cinnabar }}>
            ■ overdue
          </Typography>
        )}
        {job.signedBy && (
          <Typography component="span" variant="body2" sx={{ fontWeight: 700, textAlign: 'right', ml: 1 }}>
            ● signed {job.signedBy}
          </Typography>
        )}
      </Stack>
      <Typography noWrap sx={{ lineHeight: 1.3 }}>
        {job.watch}
      </Typography>
      <Typography variant="body2" sx={{ lineHeight: 1.35 }}>
        {job.signedBy ? job.customerName : promiseWords(job.promisedAt, nowUtc, zone)}
      </Typography>
      <Typography variant="body2" sx={{ lineHeight: 1.35, fontWeight: 700 }}>
        waits for {job.waitsFor}
      </Typography>
      <Stack direction="row" spacing="3px" aria-hidden sx={{ mt: 0.5 }}>
        {job.stages.map(({ stage, status }) => (
          <Box
            key={stage}
            title={STAGE_WORDS[stage]}
            sx={{
              height: status === 'not needed' ? 2 : 5,
              flex: 1,
              alignSelf: 'center',
              bgcolor:
                status === 'done'
                  ? colours.soot
                  : status === 'current'
                    ? colours.ink
                    : status === 'skipped'
                      ? colours.cinnabar
                      : colours.ash,
            }}
          />
        ))}
      </Stack>
    </Box>
  );
}

/** Today's jobs as envelopes, the most pressing first. */
export function Rack({ onPick }: { readonly onPick: () => void }) {
  const { data: jobs, error } = useRack();
  const { data: shop } = useShop();
  const nowUtc = useNow(shop);
  const { pathname } = useLocation();
  return (
    <Stack component="nav" aria-label="Rack" spacing={1} sx={{ p: 1.5 }}>
      <Typography variant="h3" component="h2">
        Rack{jobs ? `, ${jobs.length}` : ''}
      </Typography>
      {jobs && shop && nowUtc
        ? orderRack(jobs, nowUtc).map((job) => (
            <Envelope
              key={job.id}
              job={job}
              nowUtc={nowUtc}
              zone={shop.shop.zone}
              open={pathname.startsWith(`/jobs/${job.id}`)}
              onPick={onPick}
            />
          ))
        : null}
      {jobs?.length === 0 && (
        <Typography color="text.secondary">No watch is waiting. Press n to take one in.</Typography>
      )}
      {!jobs && error !== undefined && (
        <Typography>{failedInWords(error, 'the rack cannot be read.')}</Typography>
      )}
    </Stack>
  );
}
