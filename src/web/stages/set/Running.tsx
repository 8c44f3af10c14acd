import { Box, Stack, Typography } from '@mui/material';
import { dueOf, runningOf } from '../../../core/advice/proving';
import { localTime } from '../../../core/craft/time';
import type { RunPurpose } from '../../../core/craft/setting';
import type { Run } from '../../../core/logbook';
import { useShopClock } from '../../api/clock';
import { Columns } from '../../kit/Columns';
import { countdown } from '../../kit/spans';
import { factFields } from '../../kit/factFields';

import { MONO } from '../../kit/theme';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { Before } from './Before';

const setRuns = factFields('set.runs');
const runBegan = factFields('set.run-began');
const runEnded = factFields('set.run-ended');

/** Whether it was seen to run, said outright. */
export function RunsCard({ watchFor }: { readonly watchFor: number }) {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="set.runs"
      title="Does it run?"
      recorded={facts.runs}
      defaults={{ runs: null, watchedSeconds: null }}
      hint={<Before entry={facts.runs ? null : (facts.beforeClosing?.runs ?? null)} />}
      beside={
        <Box sx={{ width: 300 }}>
          <setRuns.MeasureField
            name="watchedSeconds"
            quantity="durationS"
            helper={`at least ${watchFor} s for this movement`}
            wanted
          />
        </Box>
      }
    >
      <setRuns.YesNo name="runs" yes="It runs" no="It does not run" wanted />
    </FactCard>
  );
}

/** Since when it runs, and how long until it is read. */
function Countdown({ toSee }: { readonly toSee: RunPurpose }) {
  const { state, book, context } = useJob();
  const nowUtc = useShopClock();
  const run = runningOf(state, book).find((each) => each.toSee === toSee);
  if (!run || nowUtc === null) return null;
  const { dueUtc, leftS, ranS } = dueOf(run, context.policy, nowUtc);
  const { zone } = context.shop;
  return (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'baseline', flexWrap: 'wrap' }}>
      <Typography
        role="timer"
        aria-label="Run in progress"
        sx={{ fontFamily: MONO, fontSize: '1.6rem', fontWeight: 700 }}
      >
        {leftS === null ? countdown(ranS) : leftS > 0 ? countdown(leftS) : 'Read now'}
      </Typography>
      <Typography>
        since {localTime(run.sinceUtc, zone, 'ddd HH:mm:ss')}
        {run.shows && `, when it showed ${run.shows}`}
        {dueUtc === null
          ? '; no set duration; read it at any time'
          : `; due ${localTime(dueUtc, zone, 'ddd HH:mm:ss')}`}
        .
      </Typography>
    </Stack>
  );
}

const WORDS: Readonly<
  Record<
    RunPurpose,
    { readonly begins: string; readonly ends: string; readonly action: string; readonly helper: string }
  >
> = {
  'that it runs': {
    begins: 'Watched by the clock',
    ends: 'Seen at the end',
    action: 'Start watching',
    helper: 'e.g. 09:42; blank if you see a seconds hand step',
  },
  'how it keeps time': {
    begins: 'Proving run begins',
    ends: 'Proving run ends',
    action: 'Start run',
    helper: 'against the signal, e.g. 09:42, or 09:42:15 with a seconds hand',
  },
};

/** One run, from its beginning to what is read at its end. */
export function RunCards({
  toSee,
  run,
  before,
  wanted = false,
}: {
  readonly toSee: RunPurpose;
  readonly run: Run | null;
  readonly before: Run | null;
  readonly wanted?: boolean;
}) {
  const { begins, ends, action, helper } = WORDS[toSee];
  return (
    <>
      <FactCard
        kind="set.run-began"
        title={begins}
        recorded={run?.began ?? null}
        defaults={{ toSee, shows: '' }}
        action={action}
        hint={<Before entry={run ? null : (before?.ended ?? before?.began ?? null)} />}
      >
        <runBegan.TextLine name="shows" mono wanted={wanted} helper={helper} />
      </FactCard>
      {run && (
        <FactCard
          // A run begun anew is read anew.
          key={run.began.id}
          kind="set.run-ended"
          title={ends}
          recorded={run.ended}
          defaults={{ toSee, shows: '', stillRuns: null }}
          action="Read now"
          hint={<Countdown toSee={toSee} />}
        >
          <Columns>
            <runEnded.YesNo
              name="stillRuns"
              yes="It still runs"
              no="It stopped"
              wanted={toSee === 'that it runs'}
            />
            <runEnded.TextLine name="shows" mono helper={helper} />
          </Columns>
        </FactCard>
      )}
    </>
  );
}
