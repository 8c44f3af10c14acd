import {
  Button,
  LinearProgress,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { CarriedLot, StockResource } from '../../../contract';
import { localDayInWords } from '../../../core/craft/time';
import { postJson } from '../../api/http';
import { type SeenShop, useCarried } from '../../api/resources';
import { Section } from '../../kit/Section';
import { HeadRow } from '../../kit/HeadRow';
import { NativeSelect } from '../../kit/NativeSelect';
import { useBooking } from './booking';

function CarriedRow({
  watch,
  zone,
}: {
  readonly watch: CarriedLot['watches'][number];
  readonly zone: string;
}) {
  return (
    <TableRow>
      <TableCell>{watch.customerName || 'erased'}</TableCell>
      <TableCell>{[watch.phone, watch.email].filter(Boolean).join(', ') || 'none left'}</TableCell>
      <TableCell>
        <Link to={`/watches/${watch.watchId}`}>{watch.watch}</Link>
      </TableCell>
      <TableCell>
        {watch.cellCode}, {localDayInWords(watch.fittedAt, zone)}
        {watch.laterElsewhere && (
          <Typography variant="body2">
            Another counter
            {watch.laterElsewhere.counter && ` (${watch.laterElsewhere.counter})`} recorded{' '}
            <Link to={`/jobs/${watch.laterElsewhere.jobId}`}>{watch.laterElsewhere.cellCode}</Link> there on{' '}
            {localDayInWords(watch.laterElsewhere.fittedAt, zone)}. Ask the owner.
          </Typography>
        )}
      </TableCell>
      <TableCell>
        <Link to={`/jobs/${watch.jobId}`}>{watch.ticket}</Link>
      </TableCell>
    </TableRow>
  );
}

function Carried({
  carried,
  inStock,
  zone,
}: {
  readonly carried: CarriedLot;
  readonly inStock: boolean;
  readonly zone: string;
}) {
  return (
    <>
      <Typography>
        {carried.fitted === 0 && !inStock && 'No such lot is in stock or was fitted. Check the code. '}
        {carried.fitted} fitted, {carried.leaked} leaked; {carried.watches.length}{' '}
        {carried.watches.length === 1 ? 'watch carries' : 'watches carry'} one now.
      </Typography>
      {carried.watches.length > 0 && (
        <Table size="small" aria-label="Watches with this lot" sx={{ '& td, & th': { px: 1 } }}>
          <HeadRow heads={['Owner', 'Phone or e-mail', 'Watch', 'Fitted', 'Job']} />
          <TableBody>
            {carried.watches.map((each) => (
              <CarriedRow key={`${each.jobId}-${each.well}`} watch={each} zone={zone} />
            ))}
          </TableBody>
        </Table>
      )}
    </>
  );
}

/** Every watch that carries a lot now, with its owner: whom to ring when the lot turns out bad. */
export function Trace({
  stock,
  shop,
  technicianId,
}: {
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string;
}) {
  const [query, setQuery] = useSearchParams();
  const [asked, setAsked] = useState({ supplier: query.get('supplier') ?? '', lot: query.get('lot') ?? '' });
  const { supplier, lot: lotCode } = asked;
  const { data: carried } = useCarried(supplier, lotCode);
  const { book, notice } = useBooking();
  // The address follows what is asked, so that it can be kept and sent; it may come late, and no key waits for it.
  const set = (change: { supplier?: string; lot?: string }): void => {
    const next = { ...asked, ...change };
    setAsked(next);
    setQuery(next, { replace: true });
  };
  const lots = stock.lots.filter((lot) => lot.supplier === supplier && lot.lotCode === lotCode);
  const aside = (): Promise<boolean> =>
    book(async () => {
      for (const { id } of lots)
        await postJson('/api/lots/quarantine', {
          lotId: id,
          reason: 'cells of this lot leaked',
          technicianId,
        });
    }, 'The rest of the lot is in quarantine.');
  return (
    <Section title="Trace a lot">
      <Stack spacing={1.5}>
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <NativeSelect
            label="Supplier"
            value={supplier}
            options={['', ...stock.suppliers.map((each) => each.supplier)].map((value) => ({
              value,
              label: value || 'choose',
            }))}
            onChange={(value) => set({ supplier: value })}
          />
          <TextField
            label="Lot"
            value={lotCode}
            onChange={(event) => set({ lot: event.target.value })}
            fullWidth
          />
        </Stack>
        {supplier !== '' && lotCode !== '' && !carried && <LinearProgress aria-label="Tracing the lot" />}
        {carried && <Carried carried={carried} inStock={lots.length > 0} zone={shop.shop.zone} />}
        {carried && (
          <Stack direction="row" spacing={1}>
            {carried.watches.length > 0 && (
              <Button
                href={`/api/lots/carried.csv?${new URLSearchParams({ supplier, lot: lotCode }).toString()}`}
              >
                Call list as CSV
              </Button>
            )}
            {lots.some(({ quarantined }) => quarantined === null) && (
              <Button variant="outlined" onClick={() => void aside()}>
                Put the rest into quarantine
              </Button>
            )}
          </Stack>
        )}
        {notice}
      </Stack>
    </Section>
  );
}
