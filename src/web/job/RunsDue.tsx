import { Link } from 'react-router';
import { runsOfRack } from '../../core/advice/proving';
import { localTime } from '../../core/craft/time';
import { useShopClock } from '../api/clock';
import { useRack, useShop } from '../api/resources';
import { countdown } from '../kit/spans';
import { LampAnswer } from '../kit/Lamp';

/** So many that are not due yet are told by name. */
const MOST_TOLD = 5;

/** What runs and when it is read, so that nothing is forgotten while a hand is at another watch. */
export function RunsDue({ exceptJobId = null }: { readonly exceptJobId?: string | null }) {
  const { data: jobs = [] } = useRack();
  const { data: shop } = useShop();
  const nowUtc = useShopClock();
  if (!shop || nowUtc === null) return null;
  const runs = runsOfRack(
    jobs.filter(({ id }) => id !== exceptJobId),
    shop.policy,
    nowUtc,
  );
  if (runs.length === 0) return null;
  const dueNow = runs.filter(({ due }) => due.leftS !== null && due.leftS <= 0);
  const later = runs.filter(({ due }) => due.leftS !== null && due.leftS > 0);
  return (
    <LampAnswer
      question={exceptJobId === null ? 'Running' : 'Also running'}
      tone={dueNow.length > 0 ? 'care' : 'open'}
      folded={exceptJobId !== null && dueNow.length === 0}
      answer={dueNow.length > 0 ? `${dueNow.length} to be read now` : `${runs.length}, none due yet`}
      reasons={[
        ...dueNow.map(({ job }) => `${job.ticket}, ${job.watch}: read what the hands show.`),
        ...later
          .slice(0, MOST_TOLD)
          .map(
            ({ job, due }) =>
              `${job.ticket} at ${localTime(due.dueUtc ?? nowUtc, shop.shop.zone, 'HH:mm')}, in ${countdown(due.leftS ?? 0)}.`,
          ),
      ]}
    >
      <Link to="/running">Open Running</Link>
    </LampAnswer>
  );
}
