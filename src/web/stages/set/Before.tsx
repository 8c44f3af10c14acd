import { Typography } from '@mui/material';
import { type Entry, entryInWords } from '../../../core/logbook';
import { RecordedBy } from '../../job/RecordedBy';

/** What was proved before the watch was closed as it is now: shown as such, beside what asks it again. */
export function Before({ entry }: { readonly entry: Entry | null }) {
  if (entry === null) return null;
  return (
    <Typography color="text.secondary">
      Before it was closed: {entryInWords(entry)}, <RecordedBy entry={entry} />. Check again, because closing
      may have changed it.
    </Typography>
  );
}
