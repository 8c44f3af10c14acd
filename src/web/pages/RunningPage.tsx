import { TableCell, Typography } from '@mui/material';
import { Link } from 'react-router';
import { runsOfRack } from '../../core/advice/proving';
import { localTime } from '../../core/craft/time';
import { useShopClock } from '../api/clock';
import { useRack, useShop } from '../api/resources';
import { countdown } from '../kit/spans';
import { RunsDue } from '../job/RunsDue';
import { LampAnswer } from '../kit/Lamp';
import { Loading } from '../kit/Loading';
import { StageLayout } from '../kit/StageLayout';
import { MONO } from '../kit/theme';
import { VirtualTable } from '../kit/VirtualTable';

const HEADS = ['Watch', 'To see', 'Since', 'Showed then', 'Due', 'Left'];

/** Every watch that runs to be read again: since when, due when, the first due first. */
export default function RunningPage() {
  const { data: jobs } = useRack();
  const { data: shop } = useShop();
  const nowUtc = useShopClock();
  if (jobs === undefined || !shop || nowUtc === null) return <Loading what="what runs" />;
  const { zone } = shop.shop;
  const at = (instantUtc: string): string => localTime(instantUtc, zone, 'ddd HH:mm:ss');
  const runs = runsOfRack(jobs, shop.policy, nowUtc);
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Running rack</Typography>
          {runs.length === 0 ? (
            <Typography>
              Nothing runs to be read again. At stage 8 a watch is watched by its own step, or left running to
              see how it keeps time: from then on it stands here with its countdown.
            </Typography>
          ) : (
            <VirtualTable
              label="What runs"
              heads={HEADS}
              rows={runs}
              keyOf={({ run }) => run.entryId}
              cells={({ job, run, due }) => (
                <>
                  <TableCell component="th" scope="row">
                    <Link to={`/jobs/${job.id}/set`}>{job.ticket}</Link> {job.watch}
                  </TableCell>
                  <TableCell>{run.toSee}</TableCell>
                  <TableCell>{at(run.sinceUtc)}</TableCell>
                  <TableCell sx={{ fontFamily: MONO }}>{run.shows || 'not read'}</TableCell>
                  <TableCell>{due.dueUtc === null ? 'no length asked' : at(due.dueUtc)}</TableCell>
                  <TableCell sx={{ fontFamily: MONO, fontWeight: 700, whiteSpace: 'nowrap' }}>
                    {due.leftS === null
                      ? `runs ${countdown(due.ranS)}`
                      : due.leftS > 0
                        ? countdown(due.leftS)
                        : `now, ${countdown(-due.leftS)} over`}
                  </TableCell>
                </>
              )}
            />
          )}
        </>
      }
      lamp={
        <>
          <RunsDue />
          <LampAnswer
            question="What a run tells"
            tone="open"
            answer="As much as was read"
            reasons={[
              'Read to the second it tells the rate to 2 s a day after half a day; read to the minute, that it ran.',
              'Where the crown was pulled meanwhile it tells no rate.',
            ]}
          />
        </>
      }
    />
  );
}
