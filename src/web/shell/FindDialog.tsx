import {
  Dialog,
  DialogContent,
  DialogTitle,
  List,
  ListItemButton,
  ListItemText,
  TextField,
  Typography,
} from '@mui/material';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useResource } from '../api/resource';
import { capital } from '../../core/craft/judgement';
import type { FindResult } from '../../contract';
import type { Book } from '../../core/craft/book';
import { readCellMarking } from '../../core/craft/cells';
import type { Calibre } from '../../core/craft/movements';
import { failedInWords, ServerAway } from '../api/http';
import { useBook } from '../api/book';
import { useShop } from '../api/resources';

function FoundList({
  jobs,
  owners,
  calibres,
  book,
  onGo,
}: {
  readonly jobs: FindResult['jobs'];
  readonly owners: FindResult['customers'];
  readonly calibres: readonly Calibre[];
  readonly book: Book | undefined;
  readonly onGo: (path: string) => void;
}) {
  return (
    <List aria-label="Found">
      {jobs.map((job) => (
        <ListItemButton key={job.id} onClick={() => onGo(`/jobs/${job.id}`)}>
          <ListItemText
            primary={`${job.ticket}  ${job.watch}`}
            secondary={`${job.customerName}, waiting for ${job.waitsFor}`}
          />
        </ListItemButton>
      ))}
      {owners.map((owner) => (
        <ListItemButton key={owner.id} onClick={() => onGo(`/customers/${owner.id}`)}>
          <ListItemText primary={owner.name} secondary={`Owner, ${owner.phone || 'no phone'}`} />
        </ListItemButton>
      ))}
      {calibres.map((calibre) => (
        <ListItemButton key={calibre.id} onClick={() => onGo(`/book/calibres/${calibre.id}`)}>
          <ListItemText
            primary={calibre.code}
            secondary={`Calibre of ${book?.maker(calibre.makerId)?.name ?? ''}`}
          />
        </ListItemButton>
      ))}
    </List>
  );
}

/** Finds a job, a watch, an owner or a calibre, and reads a cell's marking, as one types. */
export default function FindDialog({
  start,
  onClose,
}: {
  readonly start: string;
  readonly onClose: () => void;
}) {
  const [text, setText] = useState(start);
  const query = useDeferredValue(text.trim());
  const navigate = useNavigate();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const { data, error } = useResource<FindResult>(
    query === '' ? null : `/api/find?q=${encodeURIComponent(query)}`,
    { kept: false, keepPreviousData: true, refreshInterval: 0 },
  );
  const cell = useMemo(
    () => (book && query !== '' ? readCellMarking(query, book.cellTable) : null),
    [book, query],
  );
  const calibres = query.length > 1 ? (book?.calibresHolding(query).slice(0, 5) ?? []) : [];
  const go = (path: string): void => {
    onClose();
    void navigate(path);
  };
  const jobs = query === '' ? [] : (data?.jobs ?? []);
  const owners = query === '' ? [] : (data?.customers ?? []);
  const first = jobs[0] ? `/jobs/${jobs[0].id}` : calibres[0] ? `/book/calibres/${calibres[0].id}` : null;
  return (
    <Dialog
      open
      onClose={onClose}
      aria-labelledby="find-title"
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { sx: { alignSelf: 'flex-start' } } }}
    >
      <DialogTitle id="find-title">Find</DialogTitle>
      <DialogContent>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (first) go(first);
          }}
        >
          <TextField
            label="Ticket, owner, phone, watch, engraving, calibre or cell"
            value={text}
            onChange={(event) => setText(event.target.value)}
            autoFocus
            fullWidth
            sx={{ mt: 1 }}
            slotProps={{ htmlInput: { autoComplete: 'off', maxLength: 80 } }}
          />
        </form>
        {cell &&
          (cell.verdict === 'read' ||
            cell.verdict === 'ambiguous' ||
            cell.verdict === 'rechargeable' ||
            cell.verdict === 'asks') && (
            <Typography role="status" sx={{ mt: 2 }}>
              <strong>As a cell: {cell.verdict === 'read' ? cell.cell.code : cell.verdict}.</strong>{' '}
              {cell.reasons.map(capital).join(' ')}
            </Typography>
          )}
        <FoundList jobs={jobs} owners={owners} calibres={calibres} book={book} onGo={go} />
        {error instanceof ServerAway && (
          <Typography>{failedInWords(error, 'jobs cannot be searched.')}</Typography>
        )}
        {query !== '' && data && jobs.length + owners.length + calibres.length === 0 && (
          <Typography>No results for “{query}”.</Typography>
        )}
      </DialogContent>
    </Dialog>
  );
}
