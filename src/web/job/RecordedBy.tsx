import { Typography } from '@mui/material';
import { clockApart, elsewhereWords, type Entry } from '../../core/logbook';
import { localTime } from '../../core/craft/time';
import { useJob } from './JobContext';

/** Who recorded an entry, and when. */
export function RecordedBy({ entry }: { readonly entry: Entry }) {
  const { technicians, context } = useJob();
  const who = technicians.find((each) => each.id === entry.technicianId)?.initials ?? '?';
  const apart = clockApart(entry);
  return (
    <Typography component="span" variant="body2" color="text.secondary">
      {[who, elsewhereWords(entry)].filter(Boolean).join(' ')},{' '}
      {localTime(entry.occurredAt, context.shop.zone, 'HH:mm')}
      {entry.sequence === null ? ', waiting to be saved' : ''}
      {apart === null ? '' : `, ${apart}`}
    </Typography>
  );
}
