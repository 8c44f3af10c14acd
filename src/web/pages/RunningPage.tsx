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

const HEADS = ['Watch', 'Check', 'Since', 'Showed at start', 'Due', 'Left'];

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
              No watch is running. A run starts at stage 8, either to see that the watch runs or to see how it
              keeps time. It then appears here with its countdown.
            </Typography>
          ) : (
            <VirtualTable
              label="Watches running"
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
                  <TableCell>{due.dueUtc === null ? 'no set duration' : at(due.dueUtc)}</TableCell>
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
            question="Accuracy of a run"
            tone="open"
            answer="It depends on the reading"
            reasons={[
              'Read to the second, half a day gives the rate to 2 s a day. Read to the minute, it only shows that the watch ran.',
              'If the crown was pulled in between, the run gives no rate.',
            ]}
          />
        </>
      }
    />
  );
}
