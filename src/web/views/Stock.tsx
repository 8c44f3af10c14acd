import { zodResolver } from '@hookform/resolvers/zod';
import {
  Alert,
  Box,
  Button,
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
import { useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { newLot, type NewLot } from '../../contract';
import { lookAlikes, readCellMarking } from '../../core/cells';
import { type CellLot, isPastDate } from '../../core/stock';
import { localDay } from '../../core/time';
import { useBench } from '../api/bench';
import { postJson, Refused } from '../api/http';
import { type SeenShop, useBook, useShop, useStock } from '../api/resources';
import { LampAnswer, Working } from '../app/Lamp';
import { MeasureField, TextLine, useFieldValue } from '../job/fields';
import { capital } from '../job/FactCard';
import { shopNow } from '../job/JobContext';
import { StageLayout } from '../job/StageLayout';

function stateWords(lot: CellLot, today: string): string {
  if (lot.toBeCounted) return '▲ to be counted';
  if (isPastDate(lot, today)) return '■ past date';
  return lot.balance === 0 ? '○ none left' : '● in date';
}

function Lots({ lots, shop }: { readonly lots: readonly CellLot[]; readonly shop: SeenShop }) {
  const today = localDay(shopNow(shop), shop.shop.zone);
  return (
    <Paper component="section" aria-label="Lots" sx={{ p: 2 }}>
      <Typography variant="h2">Cells by lot</Typography>
      {lots.length === 0 ? (
        <Typography>Nothing in stock yet. Book the first delivery in below.</Typography>
      ) : (
        <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Lots in stock">
          <Table size="small" sx={{ '& td, & th': { px: 1, whiteSpace: 'nowrap' } }}>
            <TableHead>
              <TableRow>
                {['Cell', 'Left', 'Lot', 'Supplier', 'Best before', shop.policy.currency, 'State'].map(
                  (head) => (
                    <TableCell key={head}>{head}</TableCell>
                  ),
                )}
              </TableRow>
            </TableHead>
            <TableBody>
              {lots.map((lot) => (
                <TableRow key={lot.id}>
                  <TableCell>
                    <Typography variant="mark" component="span" sx={{ fontSize: '1.05rem' }}>
                      {lot.cellCode}
                    </Typography>
                  </TableCell>
                  <TableCell>{lot.balance}</TableCell>
                  <TableCell>{lot.lotCode}</TableCell>
                  <TableCell>{lot.supplier}</TableCell>
                  <TableCell>{lot.bestBefore ?? 'not printed'}</TableCell>
                  <TableCell>{(lot.priceMinor / 100).toFixed(2)}</TableCell>
                  <TableCell>{stateWords(lot, today)}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
    </Paper>
  );
}

function CellRead({ shop }: { readonly shop: SeenShop }) {
  const { book } = useBook(shop.catalogueRevision);
  const code = useFieldValue('cellCode') as string;
  if (!book || code.trim() === '') {
    return (
      <LampAnswer
        question="The cell delivered"
        standing="open"
        answer="Not read yet"
        reasons={['Type the name on the blister: the lamp says which cell it is.']}
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

const blank = (technicianId: string): NewLot => ({
  id: v7(),
  cellCode: '',
  supplier: '',
  lotCode: '',
  madeOn: null,
  bestBefore: null,
  priceMinor: 0,
  count: 10,
  technicianId,
});

function StockView({ shop, lots }: { readonly shop: SeenShop; readonly lots: readonly CellLot[] }) {
  const bench = useBench();
  const form = useForm<NewLot>({
    defaultValues: blank(bench.technicianId ?? ''),
    resolver: zodResolver(newLot) as never,
  });
  const [said, setSaid] = useState<{ readonly wrong: boolean; readonly text: string } | null>(null);
  const receive = form.handleSubmit(async (values) => {
    try {
      await postJson('/api/lots', { ...values, technicianId: bench.technicianId });
      await mutate('/api/stock');
      setSaid({
        wrong: false,
        text: `${values.count} of ${values.cellCode} booked in, lot ${values.lotCode}.`,
      });
      form.reset(blank(bench.technicianId ?? ''));
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
      <StageLayout
        mat={
          <>
            <Typography variant="h1">Stock</Typography>
            <Lots lots={lots} shop={shop} />
            <Paper component="section" aria-label="Goods in" sx={{ p: 2 }}>
              <Typography variant="h2">Goods in</Typography>
              <Stack
                component="form"
                spacing={1.5}
                sx={{ mt: 1 }}
                noValidate
                onSubmit={(event) => void receive(event)}
              >
                <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
                  <TextLine name="cellCode" label="Cell as printed" mono />
                  <TextLine name="supplier" label="Supplier" />
                  <TextLine name="lotCode" label="Lot" mono />
                </Stack>
                <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
                  <DayField name="madeOn" label="Made on" />
                  <DayField name="bestBefore" label="Best before" />
                  <MeasureField name="count" label="How many" quantity="figureOnly" />
                  <MeasureField
                    name="priceMinor"
                    label={`Price each, in ${shop.policy.currency} cents`}
                    quantity="figureOnly"
                  />
                </Stack>
                {said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>}
                <Button type="submit" variant="contained" sx={{ alignSelf: 'flex-start' }}>
                  Book in
                </Button>
              </Stack>
            </Paper>
          </>
        }
        lamp={<CellRead shop={shop} />}
      />
    </FormProvider>
  );
}

/** A calendar day as printed on a blister; blank where none is printed. */
function DayField({ name, label }: { readonly name: 'madeOn' | 'bestBefore'; readonly label: string }) {
  return <TextLine name={name} label={label} helper="year-month-day, blank if not printed" blankIsNull />;
}

/** The cells in the house, by lot, and booking a delivery in. */
export default function Stock() {
  const { data: shop } = useShop();
  const { data: stock } = useStock();
  return shop && stock ? (
    <StockView shop={shop} lots={stock.lots} />
  ) : (
    <LinearProgress aria-label="Loading the stock" />
  );
}
