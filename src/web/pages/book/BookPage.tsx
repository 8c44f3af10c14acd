import { Button, Paper, Stack, TableCell, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Book } from '../../../core/craft/book';
import { capital } from '../../../core/craft/judgement';
import { useBook } from '../../api/book';
import { useShop } from '../../api/resources';
import { Loading } from '../../kit/Loading';
import { VirtualTable } from '../../kit/VirtualTable';
import { NoSuchPage } from '../NoSuchPage';
import { ImportTable } from './ImportTable';
import { RecordPage } from './RecordPage';
import { BOOK_VIEWS, type RecordView } from './records';

function RecordList({ view, book }: { readonly view: RecordView; readonly book: Book }) {
  const [filter, setFilter] = useState('');
  const [tables, setTables] = useState(false);
  const all = view.listed(book);
  const wanted = filter.trim().toLowerCase();
  const seen = all.filter(({ name, says }) => [name, ...says].join(' ').toLowerCase().includes(wanted));
  return (
    <Paper component="section" aria-label={view.title} sx={{ p: 2 }}>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1, mb: 1 }}>
        <TextField
          label={`Search ${all.length}`}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          size="small"
          sx={{ flexGrow: 1, minWidth: 160 }}
        />
        <Button component={Link} to={`${view.base}/${view.segment}/new`} variant="outlined">
          New {view.one}
        </Button>
        <Button onClick={() => setTables(!tables)} aria-expanded={tables}>
          CSV export and import
        </Button>
      </Stack>
      {tables && (
        <Stack spacing={1} sx={{ mb: 2 }}>
          {view.tables.map((table) => (
            <ImportTable key={table} table={table} />
          ))}
        </Stack>
      )}
      {all.length === 0 ? (
        <Typography>
          {view.kind === 'calibre'
            ? 'The book has no calibre yet. Import a table under CSV, or add the first with New calibre. Until then, name the movement by hand and go by the cell found.'
            : `Nothing is entered here yet. Import a table under CSV, or add the first with New ${view.one}.`}
        </Typography>
      ) : (
        <VirtualTable
          label={`${view.title} in the book`}
          heads={[capital(view.one), ...view.heads]}
          rows={seen}
          keyOf={({ id }) => id}
          cells={({ id, name, says }) => (
            <>
              <TableCell>
                <Link to={`${view.base}/${view.segment}/${encodeURIComponent(id)}`}>{name}</Link>
              </TableCell>
              {says.map((text, index) => (
                <TableCell key={view.heads[index]}>{text}</TableCell>
              ))}
            </>
          )}
        />
      )}
      {all.length > 0 && seen.length === 0 && (
        <Typography sx={{ mt: 1 }}>None of the {all.length} matches. Enter fewer characters.</Typography>
      )}
    </Paper>
  );
}

/** The book: what kinds of record it holds, each list, and each record with its history. */
export default function BookPage() {
  const { segment = 'calibres', recordId } = useParams();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const view = BOOK_VIEWS.find((each) => each.segment === segment);
  if (!view) return <NoSuchPage what="part of the book" />;
  if (!book || !shop) return <Loading what="the book" />;
  return (
    <Stack spacing={2}>
      <Stack direction="row" sx={{ alignItems: 'baseline', flexWrap: 'wrap', columnGap: 1 }}>
        <Typography variant="h1" sx={{ mr: 1 }}>
          Book
        </Typography>
        <Stack component="nav" aria-label="Parts of the book" direction="row" sx={{ flexWrap: 'wrap' }}>
          {BOOK_VIEWS.map((each) => (
            <Button
              key={each.segment}
              component={Link}
              to={`/book/${each.segment}`}
              aria-current={each.segment === segment ? 'page' : undefined}
              variant={each.segment === segment ? 'outlined' : 'text'}
            >
              {each.title}
            </Button>
          ))}
        </Stack>
        <Typography color="text.secondary">revision {book.revision}</Typography>
      </Stack>
      {recordId === undefined ? (
        <RecordList key={segment} view={view} book={book} />
      ) : (
        <RecordPage key={`${segment}-${recordId}`} view={view} book={book} id={recordId} shop={shop} />
      )}
    </Stack>
  );
}
