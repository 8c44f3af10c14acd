import { Paper, Stack, Typography } from '@mui/material';
import { useSnackbar } from 'notistack';
import { useEffect } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { v7 } from 'uuid';
import { newLot, type StockResource } from '../../../contract';
import { lookAlikesHere, readCellMarking } from '../../../core/craft/cells';
import { capital } from '../../../core/craft/judgement';
import { codesOnOrder, readBoxLabel, STOCK_ITEMS, type StockItem } from '../../../core/craft/stock';
import { localDay } from '../../../core/craft/time';
import { useBook } from '../../api/book';
import { type SeenShop, shopNow } from '../../api/resources';
import { Caution, LampAnswer, Working } from '../../kit/Lamp';
import { schemaFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { useScan } from '../../kit/keys/KeysProvider';
import { setFieldValue } from '../../kit/keys/required';
import { StockForm } from './StockForm';

export interface Typed {
  readonly item: StockItem;
  readonly code: string;
}

/** Tells the lamp what is typed at goods-in. */
function Listen({ onTyped }: { readonly onTyped: (typed: Typed) => void }) {
  const code = useWatch<Typed, 'code'>({ name: 'code' });
  const item = useWatch<Typed, 'item'>({ name: 'item' });
  useEffect(() => onTyped({ item, code }), [item, code, onTyped]);
  return null;
}

/** Fills in what a scanner reads off a box, wherever the focus is; in a field other text is typed as it is. */
function Scanned({ shop }: { readonly shop: SeenShop }) {
  const { book } = useBook(shop.catalogueRevision);
  const { setValue } = useFormContext();
  const { enqueueSnackbar } = useSnackbar();
  useScan((text) => {
    const today = localDay(shopNow(shop), shop.shop.zone);
    const read = readBoxLabel(text, today, (name) => (book?.cell(name) ?? null) !== null);
    if (read.verdict === 'not readable')
      return () => enqueueSnackbar(read.reasons.join(' '), { variant: 'error' });
    if (read.verdict === 'label')
      return () => {
        for (const [name, said] of Object.entries(read.label))
          if (said !== null) setValue(name, said, { shouldValidate: true });
      };
    const field = document.activeElement;
    // Enter ends a scan; it must not send a form half filled in.
    return field instanceof HTMLInputElement && field.form !== null ? () => setFieldValue(field, text) : null;
  });
  return null;
}

/** What is typed at goods-in, read; warned of where it is easily confused with something on order. */
export function CellRead({
  shop,
  stock,
  typed: { item, code },
}: {
  readonly shop: SeenShop;
  readonly stock: StockResource;
  readonly typed: Typed;
}) {
  const { book } = useBook(shop.catalogueRevision);
  if (item !== 'cell') return null;
  if (!book || code.trim() === '') {
    return (
      <LampAnswer
        question="The cell delivered"
        tone="open"
        answer="Not entered yet"
        reasons={['Enter the name on the blister to see which cell it is.']}
      />
    );
  }
  const reading = readCellMarking(code, book.cellTable);
  const ordered = codesOnOrder(stock.orders).flatMap((each) => book.cell(each) ?? []);
  const cell = reading.verdict === 'read' ? reading.cell : null;
  const { warn, list: alike } = cell
    ? lookAlikesHere(cell, { ordered }, book.cellTable)
    : { warn: [], list: [] };
  return (
    <>
      <LampAnswer
        question="The cell delivered"
        tone={reading.verdict === 'read' ? 'good' : 'no'}
        answer={reading.verdict === 'read' ? reading.cell.code : capital(reading.verdict)}
        reasons={reading.reasons.map(capital)}
      />
      {warn.map((each) => (
        <Caution key={each.name}>
          {cell?.code} is easily confused with {each.cell.code}, {each.because}: {each.how}.
        </Caution>
      ))}
      {alike.length > 0 && (
        <LampAnswer
          question="Easily confused with"
          tone="open"
          answer={alike.map((each) => each.name).join(', ')}
          reasons={['Compare size and code with what was ordered.']}
        />
      )}
      <Working lines={reading.working} />
    </>
  );
}

const ofLot = schemaFields(newLot);

/** A calendar day as printed on a blister; blank where none is printed. */
const PRINTED_DAY = { helper: 'e.g. 2029-01-31, blank if not printed', blankIsNull: true } as const;

export function GoodsIn({
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
          priceMinor: Number.NaN,
          // Counted on the bench, never proposed.
          count: Number.NaN,
          technicianId,
        })}
        path="/api/lots"
        action="Book in"
        done={(values) => `${values.count} of ${values.code} booked in, lot ${values.lotCode}.`}
      >
        <ofLot.Choice name="item" options={optionsOf(STOCK_ITEMS)} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <ofLot.TextLine name="code" mono helper="cell or kit code, or a ring’s size" />
          <ofLot.TextLine name="supplier" />
          <ofLot.TextLine name="lotCode" mono />
        </Stack>
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <ofLot.TextLine name="madeOn" {...PRINTED_DAY} />
          <ofLot.TextLine name="bestBefore" {...PRINTED_DAY} />
        </Stack>
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <ofLot.MeasureField name="count" quantity="figureOnly" />
          <ofLot.MoneyField name="priceMinor" currency={shop.policy.currency} />
        </Stack>
        <Listen onTyped={onTyped} />
        <Scanned shop={shop} />
      </StockForm>
    </Paper>
  );
}
