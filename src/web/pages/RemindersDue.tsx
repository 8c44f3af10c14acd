import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { Reminder } from '../../contract';
import { dueWords } from '../../core/advice/dayplan';
import { AGREED_HOW, type Payloads } from '../../core/logbook';
import { localDay } from '../../core/craft/time';
import { useBench } from '../api/bench';
import { type SeenShop, shopNow, useReminders, useShop } from '../api/resources';
import { useWaiting } from '../api/waiting';
import { useRecorder } from '../job/recorder';
import { DeviceButton } from '../kit/DeviceButton';

/** So many at a time; the next come up as these are done. */
const SHOWN = 6;

type How = Payloads['handback.reminded']['how'];

function DueLine({ due, shop }: { readonly due: Reminder; readonly shop: SeenShop }) {
  const record = useRecorder(shop);
  const { technicianId } = useBench();
  const today = localDay(shopNow(shop), shop.shop.zone);
  const reach = [due.phone, due.email].filter(Boolean).join(', ');
  const reminded = (how: How): void => void record(due.jobId, 'handback.reminded', { how, words: '' });
  return (
    <Box component="li" aria-label={due.ticket} sx={{ py: 1 }}>
      <Typography>
        <Link to={`/jobs/${due.jobId}`}>{due.ticket}</Link> {due.watch}, {due.customerName}:{' '}
        {dueWords(due.dueOn, today)}. {reach === '' ? 'No phone or e-mail.' : reach}
        {due.seenElsewhere &&
          ` Another counter has seen this watch since then (${due.seenElsewhere}): ask the owner.`}
      </Typography>
      <Stack direction="row" spacing={1} useFlexGap sx={{ mt: 0.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography variant="body2">Reminded</Typography>
        {AGREED_HOW.map((how) => (
          <Button
            key={how}
            size="small"
            disabled={technicianId === null}
            aria-label={`${due.ticket}: reminded ${how}`}
            onClick={() => reminded(how)}
          >
            {how}
          </Button>
        ))}
        {/* Behind the others: it comes once the outbox is known to be there. */}
        <DeviceButton
          device="message-outbox"
          does="tell the owner"
          size="small"
          onDone={() => reminded('by message')}
          ask={
            technicianId === null
              ? null
              : { ask: 'tell the owner', jobId: due.jobId, technicianId, what: 'next visit' }
          }
        >
          Send the message
        </DeviceButton>
      </Stack>
    </Box>
  );
}

/** Owners whose watch is due again within a month, or was lately, and who were not reminded yet. */
export default function RemindersDue() {
  const { data: due = [] } = useReminders();
  const { data: shop } = useShop();
  // What still waits here to be saved is done as well.
  const { entries } = useWaiting();
  const done = entries.flatMap(({ entry, jobId, refused }) =>
    entry.kind === 'handback.reminded' && refused === null ? jobId : [],
  );
  const open = due.filter(({ jobId }) => !done.includes(jobId));
  if (!shop || open.length === 0) return null;
  return (
    <Paper component="section" aria-label="Reminders due" sx={{ p: 2 }}>
      <Typography variant="h2">Reminders due</Typography>
      <Typography color="text.secondary">
        {open.length === 1 ? 'One watch is' : `${open.length} watches are`} due for the next visit within a
        month, or recently overdue. A spent cell left in the watch may leak.
      </Typography>
      <Box component="ul" sx={{ m: 0, mt: 1, p: 0, listStyle: 'none' }}>
        {open.slice(0, SHOWN).map((each) => (
          <DueLine key={each.jobId} due={each} shop={shop} />
        ))}
      </Box>
      {open.length > SHOWN && (
        <Typography color="text.secondary">{open.length - SHOWN} more appear when these are done.</Typography>
      )}
    </Paper>
  );
}
