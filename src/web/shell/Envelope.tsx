import { Box, Stack, Typography } from '@mui/material';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import type { JobSummary } from '../../contract';
import { litWords } from '../../core/advice/charging';
import { promiseWords, type Urgency } from '../../core/advice/dayplan';
import { STAGE_WORDS } from '../../core/craft/policy';
import { colours, MONO } from '../kit/theme';

const EDGE: Readonly<Record<Urgency, string>> = {
  overdue: colours.cinnabar,
  'due soon': colours.amber,
  today: colours.thread,
  later: colours.thread,
  'no promise': colours.thread,
};

export interface EnvelopeProps {
  readonly job: JobSummary & { readonly urgency: Urgency };
  /** It lies in the shade of its light place. */
  readonly inShade: boolean;
  readonly nowUtc: string;
  readonly zone: string;
  readonly open: boolean;
  readonly onPick: () => void;
}

/** How far the job has burnt down. */
function Wick({ stages }: Pick<JobSummary, 'stages'>) {
  return (
    <Stack direction="row" spacing="3px" aria-hidden sx={{ mt: 0.5 }}>
      {stages.map(({ stage, status }) => (
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
  );
}

/** One job of the rack: whose promise presses, what it waits for, and how far its wick has burnt. */
export function Envelope({ job, inShade, nowUtc, zone, open, onPick }: EnvelopeProps) {
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
        // A signed job waits for its owner: nothing is urgent here.
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
        waiting for {job.waitsFor}
      </Typography>
      {job.lit && !job.signedBy && (
        <Typography variant="body2" sx={{ lineHeight: 1.35 }}>
          {litWords(job.lit, nowUtc, zone, inShade)}
        </Typography>
      )}
      <Wick stages={job.stages} />
    </Box>
  );
}

export interface EnvelopesProps extends Omit<EnvelopeProps, 'job' | 'open' | 'inShade'> {
  readonly jobs: readonly EnvelopeProps['job'][];
  readonly openId: string | null;
  readonly shadedIds: ReadonlySet<string>;
}

/** The place envelopes scroll in. */
export const SCROLLS = { flexGrow: 1, minHeight: 0, overflowY: 'auto', p: 0.5 } as const;
