import { zodResolver } from '@hookform/resolvers/zod';
import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  LinearProgress,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { type ReactNode, useEffect, useState } from 'react';
import { type DefaultValues, type FieldValues, FormProvider, useForm } from 'react-hook-form';
import { Link } from 'react-router';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { capital } from '../../core/judgement';
import type { z } from 'zod';
import { collection, lotCount, newLot, type StockResource } from '../../contract';
import { lookAlikes, readCellMarking } from '../../core/cells';
import { isPastDate, type Lot, STOCK_ITEMS, type StockItem } from '../../core/stock';
import { localDay } from '../../core/time';
import { useBench } from '../api/bench';
import { postJson, Refused } from '../api/http';
import { type SeenShop, useBook, useRack, useShop, useStock } from '../api/resources';
import { Caution, LampAnswer, Working } from '../app/Lamp';
import { Choice, MeasureField, MoneyField, optionsOf, TextLine, useFieldValue } from '../job/fields';
import { shopNow } from '../job/JobContext';
import { StageLayout } from '../job/StageLayout';

function stateWords(lot: Lot, today: string): string {
  if (lot.toBeCounted) return '▲ to be counted';
  if (isPastDate(lot, today)) return '■ past date';
  return lot.balance === 0 ? '○ none left' : '● in date';
}

const ITEM_WORDS: Readonly<Record<StockItem, string>> = {
  cell: 'Cells by lot',
  kit: 'Accumulator kits by lot',
  gasket: 'Gaskets by lot',
};

interface Said {
  readonly wrong: boolean;
  readonly text: string;
}

/** A form of the stock page: its fields, its door at the server, and what came of it. */
function StockForm<T extends FieldValues>({
  schema,
  blank,
  path,
  action,
  done,
  onDone,
  children,
}: {
  readonly schema: z.ZodType<T>;
  readonly blank: () => T;
  readonly path: string;
  readonly action: string;
  readonly done: (values: T) => string;
  readonly onDone?: () => void;
  readonly children: ReactNode;
}) {
  const form = useForm<T>({
    defaultValues: blank() as DefaultValues<T>,
    resolver: zodResolver(schema as never) as never,
  });
  const [said, setSaid] = useState<Said | null>(null);
  const send = form.handleSubmit(async (values) => {
    try {
      await postJson(path, values);
      await mutate('/api/stock');
      setSaid({ wrong: false, text: done(values) });
      form.reset(blank() as DefaultValues<T>);
      onDone?.();
    } catch (error) {
      setSaid({
        wrong: true,
        text:
          error instanceof Refused
            ? `${error.message} ${error.problem.whatToDo ?? ''}`
            : 'The server is away: nothing was booked.',
      });
    }
  });
  return (
    <FormProvider {...form}>
      <Stack component="form" spacing={1.5} sx={{ mt: 1 }} noValidate onSubmit={(event) => void send(event)}>
        {children}
        {said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>}
        <Button type="submit" variant="contained" sx={{ alignSelf: 'flex-start' }}>
          {action}
        </Button>
      </Stack>
    </FormProvider>
  );
}

function Lots({
  lots,
  shop,
  onCount,
}: {
  readonly lots: readonly Lot[];
  readonly shop: SeenShop;
  readonly onCount: (lot: Lot) => void;
}) {
  const today = localDay(shopNow(shop), shop.shop.zone);
  const [empty, setEmpty] = useState(false);
  const spent = lots.filter((lot) => lot.balance === 0 && !lot.toBeCounted).length;
  if (lots.length === 0)
    return (
      <Paper component="section" aria-label="Lots" sx={{ p: 2 }}>
        <Typography>Nothing in stock yet. Book the first delivery in below.</Typography>
      </Paper>
    );
  return (
    <>
      {STOCK_ITEMS.map((item) => {
        const own = lots.filter((lot) => lot.item === item && (empty || lot.balance > 0 || lot.toBeCounted));
        return own.length === 0 ? null : (
          <Paper key={item} component="section" aria-label={ITEM_WORDS[item]} sx={{ p: 2 }}>
            <Typography variant="h2">{ITEM_WORDS[item]}</Typography>
            <Box
              sx={{ overflowX: 'auto' }}
              tabIndex={0}
              role="region"
              aria-label={`${ITEM_WORDS[item]}, in stock`}
            >
              <Table size="small" sx={{ '& td, & th': { px: 1, whiteSpace: 'nowrap' } }}>
                <TableHead>
                  <TableRow>
                    {[
                      capital(item),
                      'Left',
                      'Lot',
                      'Best before',
                      shop.policy.currency,
                      'State',
                      'Count',
                    ].map((head) => (
                      <TableCell key={head}>{head}</TableCell>
                    ))}
                  </TableRow>
                </TableHead>
                <TableBody>
                  {own.map((lot) => (
                    <TableRow key={lot.id}>
                      <TableCell>
                        <Typography variant="mark" component="span" sx={{ fontSize: '1.05rem' }}>
                          {lot.code}
                        </Typography>
                      </TableCell>
                      <TableCell>{lot.balance}</TableCell>
                      <TableCell sx={{ whiteSpace: 'normal !important' }}>
                        {lot.lotCode}, {lot.supplier}
                      </TableCell>
                      <TableCell>{lot.bestBefore ?? 'not printed'}</TableCell>
                      <TableCell>{(lot.priceMinor / 100).toFixed(2)}</TableCell>
                      <TableCell>{stateWords(lot, today)}</TableCell>
                      <TableCell sx={{ py: 0 }}>
                        <Button
                          onClick={() => onCount(lot)}
                          aria-label={`Count lot ${lot.lotCode} of ${lot.code}`}
                        >
                          Count
                        </Button>
                      </TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            </Box>
          </Paper>
        );
      })}
      {spent > 0 && (
        <Button onClick={() => setEmpty(!empty)} aria-expanded={empty} sx={{ alignSelf: 'flex-start' }}>
          {empty ? 'Hide' : 'Show'} {spent} lots with nothing left
        </Button>
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
  return (
    <Dialog open onClose={onClose} aria-labelledby="count-title" fullWidth maxWidth="xs">
      <DialogTitle id="count-title">
        Count lot {lot.lotCode} of {lot.code}
      </DialogTitle>
      <DialogContent>
        <Typography>The ledger says {lot.balance}. What lies there becomes what it says.</Typography>
        <StockForm
          schema={lotCount}
          blank={() => ({ lotId: lot.id, counted: lot.balance, reason: 'counted', technicianId })}
          path="/api/lots/count"
          action="Counted"
          done={() => ''}
          onDone={onClose}
        >
          <MeasureField name="counted" label="Lie there" quantity="figureOnly" />
          <TextLine name="reason" label="Reason" />
        </StockForm>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
      </DialogActions>
    </Dialog>
  );
}

interface Typed {
  readonly item: StockItem;
  readonly code: string;
}

/** Tells the lamp what is typed at goods-in. */
function Listen({ onTyped }: { readonly onTyped: (typed: Typed) => void }) {
  const code = useFieldValue('code') as string;
  const item = useFieldValue('item') as StockItem;
  useEffect(() => onTyped({ item, code }), [item, code, onTyped]);
  return null;
}

function CellRead({ shop, typed: { item, code } }: { readonly shop: SeenShop; readonly typed: Typed }) {
  const { book } = useBook(shop.catalogueRevision);
  if (item !== 'cell') return null;
  if (!book || code.trim() === '') {
    return (
      <LampAnswer
        question="The cell delivered"
        standing="open"
        answer="Not read yet"
        reasons={['Type the name on the blister: it says here which cell that is.']}
      />
    );
  }
  const reading = readCellMarking(code, book.cellTable);
  const alike = reading.verdict === 'read' ? lookAlikes(reading.cell, book.cellTable) : [];
  return (
    <>
      <LampAnswer
        question="The cell delivered"
        standing={reading.verdict === 'read' ? 'good' : 'no'}
        answer={reading.verdict === 'read' ? reading.cell.code : capital(reading.verdict)}
        reasons={reading.reasons.map(capital)}
      />
      {alike.length > 0 && (
        <LampAnswer
          question="Easily taken for"
          standing="open"
          answer={alike.map((each) => each.name).join(', ')}
          reasons={['Compare size and code with what was ordered.']}
        />
      )}
      <Working lines={reading.working} />
    </>
  );
}

function GoodsIn({
  shop,
  technicianId,
  onTyped,
}: {
  readonly shop: SeenShop;
  readonly technicianId: string;
  readonly onTyped: (typed: Typed) => void;
}) {
  return (
    <Paper component="section" aria-label="Goods in" sx={{ p: 2 }}>
      <Typography variant="h2">Goods in</Typography>
      <StockForm
        schema={newLot}
        blank={() => ({
          id: v7(),
          item: 'cell' as const,
          code: '',
          supplier: '',
          lotCode: '',
          madeOn: null,
          bestBefore: null,
          priceMinor: 0,
          count: 10,
          technicianId,
        })}
        path="/api/lots"
        action="Book in"
        done={(values) => `${values.count} of ${values.code} booked in, lot ${values.lotCode}.`}
      >
        <Choice name="item" label="What came" options={optionsOf(STOCK_ITEMS)} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <TextLine name="code" label="Code as printed" mono helper="cell or kit code, or a ring’s size" />
          <TextLine name="supplier" label="Supplier" />
          <TextLine name="lotCode" label="Lot" mono />
        </Stack>
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <DayField name="madeOn" label="Made on" />
          <DayField name="bestBefore" label="Best before" />
          <MeasureField name="count" label="How many" quantity="figureOnly" />
          <MoneyField name="priceMinor" label="Price each" currency={shop.policy.currency} />
        </Stack>
        <Listen onTyped={onTyped} />
      </StockForm>
    </Paper>
  );
}

/** A calendar day as printed on a blister; blank where none is printed. */
function DayField({ name, label }: { readonly name: string; readonly label: string }) {
  return <TextLine name={name} label={label} helper="year-month-day, blank if not printed" blankIsNull />;
}

function SpentBin({
  stock,
  shop,
  technicianId,
}: {
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string;
}) {
  return (
    <Paper component="section" aria-label="Spent cells" sx={{ p: 2 }}>
      <Typography variant="h2">Spent cells</Typography>
      <Typography>
        {stock.spentInBin === 0
          ? 'The bin is empty.'
          : `${stock.spentInBin} taped cells lie in the bin. Waste cells go to collection under local rules.`}
      </Typography>
      {stock.spentInBin > 0 && (
        <StockForm
          schema={collection}
          blank={() => ({
            id: v7(),
            count: stock.spentInBin,
            weightG: 0,
            collectedOn: localDay(shopNow(shop), shop.shop.zone),
            receipt: '',
            technicianId,
          })}
          path="/api/collections"
          action="Collected"
          done={(values) => `${values.count} cells collected, receipt ${values.receipt}.`}
        >
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
            <MeasureField name="count" label="Cells collected" quantity="figureOnly" />
            <MeasureField name="weightG" label="Weight" quantity="figureOnly" unitShown="g" />
            <TextLine name="collectedOn" label="On" helper="year-month-day" />
            <TextLine name="receipt" label="Receipt" mono />
          </Stack>
        </StockForm>
      )}
      {stock.collections.map((each) => (
        <Typography key={each.id}>
          {each.collectedOn}: {each.count} cells, {each.weightG} g, receipt {each.receipt}
        </Typography>
      ))}
    </Paper>
  );
}

function LooseCells() {
  const { data: jobs = [] } = useRack();
  const loose = jobs.filter((job) => job.looseCells.length > 0);
  return (
    <>
      <LampAnswer
        question="Loose cells"
        standing={loose.length === 0 ? 'good' : 'no'}
        answer={loose.length === 0 ? 'None' : `${loose.flatMap((job) => job.looseCells).length}`}
        reasons={
          loose.length === 0 ? ['Every cell taken out is back in, taped and binned, or with its owner.'] : []
        }
      />
      {loose.map((job) => (
        <Typography key={job.id}>
          <Link to={`/jobs/${job.id}/cell`}>{job.ticket}</Link>:{' '}
          {job.looseCells.map(({ marking }) => marking).join(', ')} is out and not settled.
        </Typography>
      ))}
      {loose.length > 0 && (
        <Caution grave>
          A loose cell shorts and burns; swallowed by a child it can kill within hours: call the emergency
          services at once.
        </Caution>
      )}
    </>
  );
}

function StockView({ shop, stock }: { readonly shop: SeenShop; readonly stock: StockResource }) {
  const { technicianId } = useBench();
  const [typed, setTyped] = useState<Typed>({ item: 'cell', code: '' });
  const [counting, setCounting] = useState<Lot | null>(null);
  const toCount = stock.lots.filter((lot) => lot.toBeCounted);
  const today = localDay(shopNow(shop), shop.shop.zone);
  const past = stock.lots.filter((lot) => lot.balance > 0 && isPastDate(lot, today));
  return (
    <StageLayout
      mat={
        <>
          <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
            <Typography variant="h1">Stock</Typography>
            <Button href="/api/lists/stock.csv">As CSV</Button>
          </Stack>
          <Lots lots={stock.lots} shop={shop} onCount={setCounting} />
          {technicianId !== null && (
            <>
              <GoodsIn
                key={`goods-${technicianId}`}
                shop={shop}
                technicianId={technicianId}
                onTyped={setTyped}
              />
              <SpentBin
                key={`bin-${technicianId}-${stock.spentInBin}`}
                stock={stock}
                shop={shop}
                technicianId={technicianId}
              />
              {counting && (
                <CountDialog lot={counting} technicianId={technicianId} onClose={() => setCounting(null)} />
              )}
            </>
          )}
        </>
      }
      lamp={
        <>
          <CellRead shop={shop} typed={typed} />
          <LooseCells />
          <LampAnswer
            question="To be counted"
            standing={toCount.length === 0 ? 'good' : 'care'}
            answer={
              toCount.length === 0 ? 'Nothing' : `${toCount.length} lot${toCount.length === 1 ? '' : 's'}`
            }
            reasons={toCount.map(
              (lot) => `Lot ${lot.lotCode} of ${lot.code}: more was taken than the ledger had.`,
            )}
          />
          {past.length > 0 && (
            <LampAnswer
              question="Past its date"
              standing="no"
              answer={`${past.length} lot${past.length === 1 ? '' : 's'}`}
              reasons={past.map((lot) => `Lot ${lot.lotCode} of ${lot.code}: never to be fitted.`)}
            />
          )}
        </>
      }
    />
  );
}

/** What the house holds by lot, goods in, counts, loose cells, and the bin of spent ones. */
export default function Stock() {
  const { data: shop } = useShop();
  const { data: stock } = useStock();
  return shop && stock ? (
    <StockView shop={shop} stock={stock} />
  ) : (
    <LinearProgress aria-label="Loading the stock" />
  );
}
