import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Paper,
  Stack,
  TableCell,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { lotCount, lotQuarantine, lotReturn, lotSample, type StockResource } from '../../../contract';
import { capital, figure } from '../../../core/craft/judgement';
import { amount } from '../../../core/craft/money';
import { isPastDate, type Lot, PRINT_STATES, STOCK_ITEMS, type StockItem } from '../../../core/craft/stock';
import { dayInWords, localDay, localMoment } from '../../../core/craft/time';
import { type SeenShop, shopNow, useEmptyLots, useLedgerOfLot } from '../../api/resources';
import { FilterBox } from '../../kit/FilterBox';
import { VirtualTable } from '../../kit/VirtualTable';
import { schemaFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { StockForm } from './StockForm';

const ofCount = schemaFields(lotCount);
const ofSample = schemaFields(lotSample);
const ofQuarantine = schemaFields(lotQuarantine);
const ofReturn = schemaFields(lotReturn);

function stateWords(lot: Lot, today: string): string {
  if (lot.toBeCounted) return `▲ to be counted, ${lot.unbooked} more taken than booked`;
  if (lot.quarantined !== null) return '■ in quarantine';
  if (isPastDate(lot, today)) return '■ past date';
  return lot.balance === 0 ? '○ none left' : '● in date';
}

const ITEM_WORDS: Readonly<Record<StockItem, string>> = {
  cell: 'Cells by lot',
  kit: 'Accumulator kits by lot',
  gasket: 'Gaskets by lot',
};

/** Where the watches that carry a lot are listed. */
export function tracePath({ supplier, lotCode }: Pick<Lot, 'supplier' | 'lotCode'>): string {
  return `/stock/trace?${new URLSearchParams({ supplier, lot: lotCode }).toString()}`;
}

function LotTable({
  item,
  lots,
  shop,
  today,
  locked,
  onOpen,
}: {
  readonly item: StockItem;
  readonly lots: readonly Lot[];
  readonly shop: SeenShop;
  readonly today: string;
  /** Nobody is at the bench: nothing can be booked. */
  readonly locked: boolean;
  readonly onOpen: (lot: Lot, what: 'count' | 'more') => void;
}) {
  return (
    <Paper component="section" aria-label={ITEM_WORDS[item]} sx={{ p: 2 }}>
      <Typography variant="h2">{ITEM_WORDS[item]}</Typography>
      <VirtualTable
        label={`${ITEM_WORDS[item]}, in stock`}
        heads={[capital(item), 'Left', 'Lot', 'State, best before', shop.policy.currency, 'Hand']}
        sx={{ '& td, & th': { px: 0.75, whiteSpace: 'nowrap' } }}
        rows={lots}
        keyOf={({ id }) => id}
        cells={(lot) => (
          <>
            <TableCell>
              <Typography variant="mark" component="span" sx={{ fontSize: '1rem' }}>
                {lot.code}
              </Typography>
            </TableCell>
            <TableCell>{lot.balance}</TableCell>
            <TableCell>
              {lot.lotCode}
              <Typography variant="body2" color="text.secondary">
                {lot.supplier}
              </Typography>
            </TableCell>
            <TableCell sx={{ whiteSpace: 'normal !important' }}>
              {stateWords(lot, today)}
              {lot.bestBefore !== null && (
                <Typography variant="body2" color="text.secondary">
                  {dayInWords(lot.bestBefore)}
                </Typography>
              )}
            </TableCell>
            <TableCell>{amount(lot.priceMinor)}</TableCell>
            <TableCell sx={{ py: 0 }}>
              <Button
                size="small"
                disabled={locked}
                onClick={() => onOpen(lot, 'count')}
                aria-label={`Count lot ${lot.lotCode} of ${lot.code}`}
                sx={{ minWidth: 0, px: 0.75 }}
              >
                Count
              </Button>
              <Button
                size="small"
                disabled={locked}
                onClick={() => onOpen(lot, 'more')}
                aria-label={`More of lot ${lot.lotCode} of ${lot.code}`}
                sx={{ minWidth: 0, px: 0.75 }}
              >
                More
              </Button>
            </TableCell>
          </>
        )}
      />
    </Paper>
  );
}

/** From so many lots on they are looked among by typing. */
const FILTER_FROM = 12;

/** What the house holds by lot, and the lots used up on demand. */
export function Lots({
  stock,
  shop,
  technicianId,
}: {
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string | null;
}) {
  const today = localDay(shopNow(shop), shop.shop.zone);
  const [emptyShown, setEmptyShown] = useState(false);
  const [opened, setOpened] = useState<{ readonly lotId: string; readonly what: 'count' | 'more' } | null>(
    null,
  );
  const { data: empty } = useEmptyLots(emptyShown);
  const [filter, setFilter] = useState('');
  const all = [...stock.lots, ...(emptyShown ? (empty ?? []) : [])];
  const wanted = filter.trim().toLowerCase();
  const lots = all.filter(({ code, lotCode, supplier }) =>
    `${code} ${lotCode} ${supplier}`.toLowerCase().includes(wanted),
  );
  const lot = all.find(({ id }) => id === opened?.lotId);
  return (
    <>
      {all.length >= FILTER_FROM && (
        <FilterBox label={`Search ${all.length} lots`} value={filter} onType={setFilter} />
      )}
      {all.length > 0 && lots.length === 0 && (
        <Typography>None of the {all.length} lots matches. Enter fewer characters.</Typography>
      )}
      {all.length === 0 && (
        <Paper component="section" aria-label="Lots" sx={{ p: 2 }}>
          <Typography>
            The stock is empty. Book in a delivery below, with the printed code, lot and quantity. Jobs then
            take cells from it.
          </Typography>
        </Paper>
      )}
      {STOCK_ITEMS.map((item) => {
        const own = lots.filter((each) => each.item === item);
        return own.length === 0 ? null : (
          <LotTable
            key={item}
            item={item}
            lots={own}
            shop={shop}
            today={today}
            locked={technicianId === null}
            onOpen={({ id }, what) => setOpened({ lotId: id, what })}
          />
        );
      })}
      {stock.emptyLots > 0 && (
        <Button
          onClick={() => setEmptyShown(!emptyShown)}
          aria-expanded={emptyShown}
          sx={{ alignSelf: 'flex-start' }}
        >
          {emptyShown ? 'Hide' : 'Show'} {stock.emptyLots} lots with nothing left
        </Button>
      )}
      {lot && technicianId !== null && opened?.what === 'count' && (
        <CountDialog lot={lot} technicianId={technicianId} onClose={() => setOpened(null)} />
      )}
      {lot && technicianId !== null && opened?.what === 'more' && (
        <LotDialog
          lot={lot}
          stock={stock}
          shop={shop}
          technicianId={technicianId}
          onClose={() => setOpened(null)}
        />
      )}
    </>
  );
}

function CountDialog({
  lot,
  technicianId,
  onClose,
}: {
  readonly lot: Lot;
  readonly technicianId: string;
  readonly onClose: () => void;
}) {
  const [opened] = useState(lot);
  return (
    <Dialog open onClose={onClose} aria-labelledby="count-title" fullWidth maxWidth="xs">
      <DialogTitle id="count-title">
        Count lot {lot.lotCode} of {lot.code}
      </DialogTitle>
      <DialogContent>
        <Typography>The ledger shows {lot.balance}. Your count replaces the stock figure.</Typography>
        {(lot.balance !== opened.balance || lot.unbooked !== opened.unbooked) && (
          <Alert severity="warning">
            The stock has changed since you opened this form. The ledger went from {opened.balance} to{' '}
            {lot.balance}. Count again.
          </Alert>
        )}
        <StockForm
          // A count is of what the ledger said then: it begins anew when that moves.
          key={`${lot.balance} ${lot.unbooked}`}
          schema={lotCount}
          blank={() => ({
            id: v7(),
            lotId: lot.id,
            balanceSeen: lot.balance,
            unbookedSeen: lot.unbooked,
            counted: Number.NaN,
            reason: 'counted',
            technicianId,
          })}
          path="/api/lots/count"
          action="Counted"
          done={() => ''}
          onDone={onClose}
        >
          <ofCount.MeasureField name="counted" quantity="figureOnly" />
          <ofCount.TextLine name="reason" />
        </StockForm>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}

interface OfLot {
  readonly lot: Lot;
  readonly technicianId: string;
}

function SampleOfLot({ lot, stock, technicianId }: OfLot & { readonly stock: StockResource }) {
  const sample = stock.samples.find(({ lotId }) => lotId === lot.id);
  return (
    <section aria-label="Sample">
      <Typography variant="h3">Sample</Typography>
      <Typography>
        {sample
          ? `Last: ${figure(sample.restVoltageV)} V, print ${sample.print}: ${sample.verdict}.`
          : 'No sample is recorded yet. Take one fresh cell of this lot. Measure its rest voltage with the bench meter and check its print.'}
      </Typography>
      <StockForm
        schema={lotSample}
        blank={() => ({
          id: v7(),
          lotId: lot.id,
          restVoltageV: undefined,
          print: undefined,
          technicianId,
        })}
        path="/api/lots/sample"
        action="Record the sample"
        done={() => 'Sample recorded. If its result is doubtful, the lot is now in quarantine.'}
      >
        <ofSample.MeasureField
          name="restVoltageV"
          quantity="voltageV"
          from={{ device: 'bench-meter', ask: { ask: 'measure', measure: 'restVoltageV' } }}
        />
        <ofSample.Choice name="print" options={optionsOf(PRINT_STATES)} />
      </StockForm>
    </section>
  );
}

function QuarantineOfLot({ lot, technicianId }: OfLot) {
  return (
    <section aria-label="Quarantine">
      <Typography variant="h3">
        {lot.quarantined === null ? 'Put into quarantine' : 'Release from quarantine'}
      </Typography>
      <StockForm
        schema={lotQuarantine}
        blank={() => ({ lotId: lot.id, reason: '', technicianId })}
        path="/api/lots/quarantine"
        action={lot.quarantined === null ? 'Into quarantine' : 'Release the lot'}
        done={() => 'Done.'}
      >
        {lot.quarantined === null && <ofQuarantine.TextLine name="reason" />}
      </StockForm>
    </section>
  );
}

function OutOfLot({ lot, technicianId }: OfLot) {
  return (
    <section aria-label="Take from the lot">
      <Typography variant="h3">Taken from the lot, not fitted</Typography>
      <StockForm
        schema={lotReturn}
        blank={() => ({
          id: v7(),
          lotId: lot.id,
          count: Number.NaN,
          reason: '',
          to: undefined,
          technicianId,
        })}
        path="/api/lots/give-away"
        action="Take out"
        done={(values) => `${values.count} taken out, to the ${values.to}.`}
      >
        <Stack direction="row" spacing={1.5}>
          <ofReturn.MeasureField name="count" quantity="figureOnly" />
          <ofReturn.TextLine name="reason" />
        </Stack>
        <ofReturn.Choice name="to" options={optionsOf(['supplier', 'spent bin'])} />
      </StockForm>
    </section>
  );
}

/** Everything about one lot: its sample, quarantine, what is taken out unfitted, its ledger and where it went. */
function LotDialog({
  lot,
  stock,
  shop,
  technicianId,
  onClose,
}: {
  readonly lot: Lot;
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string;
  readonly onClose: () => void;
}) {
  const { data: lines } = useLedgerOfLot(lot.id);
  return (
    <Dialog open onClose={onClose} aria-labelledby="lot-title" fullWidth maxWidth="sm">
      <DialogTitle id="lot-title">
        Lot {lot.lotCode} of {lot.code}, {lot.supplier}
      </DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          {lot.quarantined !== null && <Typography>■ In quarantine: {lot.quarantined}</Typography>}
          {lot.item === 'cell' && <SampleOfLot lot={lot} stock={stock} technicianId={technicianId} />}
          <QuarantineOfLot lot={lot} technicianId={technicianId} />
          {lot.balance > 0 && <OutOfLot lot={lot} technicianId={technicianId} />}
          <section aria-label="Ledger">
            <Typography variant="h3">Ledger</Typography>
            {(lines ?? []).map((line) => (
              <Typography key={line.sequence}>
                {localMoment(line.recordedAt, shop.shop.zone)}: {line.delta > 0 ? '+' : '−'}
                {Math.abs(line.delta)} {line.reason}
                {line.ticket && `, ${line.ticket}`}, {line.technician}
              </Typography>
            ))}
          </section>
          <Typography>
            <Link to={tracePath(lot)}>Watches with a cell of this lot</Link>
          </Typography>
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
