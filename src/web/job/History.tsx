import { Box, Button, TableCell, TableRow, Typography } from '@mui/material';
import type { UnreadableEntry } from '../../contract';
import { capital } from '../../core/craft/judgement';
import { clockApart, elsewhereWords, type Entry, entryInWords } from '../../core/logbook';
import { localTime } from '../../core/craft/time';
import { isReadable } from '../api/kept';
import { Fold } from '../kit/Fold';
import { DataTable } from '../kit/DataTable';
import { FileThumb } from './files';
import { useJob } from './JobContext';

/** Every entry of the job as recorded, with what became of it. */
export function History() {
  const { resource, waiting } = useJob();
  const { unreadable } = resource;
  const known = new Set(resource.entries.map((entry) => entry.id));
  const entries = [
    ...resource.entries,
    ...waiting
      .filter(({ id, entry }) => !known.has(id) && isReadable(entry))
      .map((each) => ({ ...each.entry, jobId: each.jobId, sequence: null, recordedAt: null, counter: null })),
  ];
  return (
    <Box sx={{ mt: 2 }}>
      <Fold
        summary={`Logbook of this job, ${entries.length + unreadable.length} entries`}
        sx={{ minHeight: 44, pt: 1 }}
      >
        <Button href={`/api/jobs/${resource.job.id}/logbook.csv`}>As CSV</Button>
        <DataTable label="Logbook" heads={['No.', 'When', 'Who', 'What', 'Stands']}>
          {entries.map((entry) => (
            <EntryRow key={entry.id} entry={entry} />
          ))}
          {unreadable.map((line) => (
            <UnreadableRow key={line.id} line={line} />
          ))}
        </DataTable>
      </Fold>
    </Box>
  );
}

/** What stands in the log and this version cannot read: one line, and the job goes on without it. */
function UnreadableRow({ line }: { readonly line: UnreadableEntry }) {
  const { technicians, context } = useJob();
  return (
    <TableRow>
      <TableCell>{line.sequence}</TableCell>
      <TableCell>{localTime(line.occurredAt, context.shop.zone)}</TableCell>
      <TableCell>{technicians.find(({ id }) => id === line.technicianId)?.initials ?? '?'}</TableCell>
      <TableCell>
        {line.kind}: This version cannot read it, {line.reason}
      </TableCell>
      <TableCell>not counted</TableCell>
    </TableRow>
  );
}

function EntryRow({ entry }: { readonly entry: Entry }) {
  const { state, resource, technicians, context } = useJob();
  const replacedBy = state.replaced.get(entry.id);
  return (
    <TableRow>
      <TableCell>{entry.sequence ?? 'waits'}</TableCell>
      <TableCell>
        {[localTime(entry.occurredAt, context.shop.zone), clockApart(entry)].filter(Boolean).join('; ')}
      </TableCell>
      <TableCell>
        {[technicians.find((each) => each.id === entry.technicianId)?.initials ?? '?', elsewhereWords(entry)]
          .filter(Boolean)
          .join(' ')}
      </TableCell>
      <TableCell>
        <Typography
          variant="body2"
          component="span"
          sx={{ textDecoration: replacedBy ? 'line-through' : 'none' }}
        >
          {capital(entryInWords(entry))}
        </Typography>
        {entry.attachments.map((hash) => (
          <Box key={hash} sx={{ display: 'inline-block', ml: 1 }}>
            <FileThumb hash={hash} attachment={resource.attachments.find((each) => each.hash === hash)} />
          </Box>
        ))}
      </TableCell>
      <TableCell>
        {replacedBy
          ? replacedBy.some((each) => each.withdraws === entry.id)
            ? 'withdrawn'
            : 'corrected'
          : 'yes'}
      </TableCell>
    </TableRow>
  );
}
