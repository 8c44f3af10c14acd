import { Button, Stack, Typography } from '@mui/material';
import type { FormEvent } from 'react';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { useSearchParams } from 'react-router';
import { v7 } from 'uuid';
import { labelIn, newOrder, type NewOrder, orderLine, type StockResource } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { lookAlikesHere, readCellMarking } from '../../../core/craft/cells';
import { readRingCode } from '../../../core/craft/gaskets';
import { figure } from '../../../core/craft/judgement';
import { bestSupplier, codesOnOrder, runningLow, type StockItem } from '../../../core/craft/stock';
import { postJson } from '../../api/http';
import { schemaFields } from '../../kit/factFields';
import { useCheckedForm, submitHandler } from '../../kit/form';
import { Section } from '../../kit/Section';
import { useBooking } from './booking';

const itemOf = (code: string): StockItem => (readRingCode(code) === null ? 'cell' : 'gasket');

/** An order proposes ten of a thing: it is a wish, and nothing that was counted. */
const blankLine = (code: string): NewOrder['lines'][number] => ({ item: itemOf(code), code, count: 10 });

function RunningLow({
  low,
  onAdd,
}: {
  readonly low: ReturnType<typeof runningLow>;
  readonly onAdd: (code: string) => void;
}) {
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
      <Typography>Running low:</Typography>
      {low.map(({ code, left }) => (
        <Button key={code} variant="outlined" onClick={() => onAdd(code)}>
          {code}, {left} left
        </Button>
      ))}
    </Stack>
  );
}

const { TextLine } = schemaFields(newOrder);
const ofLine = schemaFields(orderLine);

function OrderLineFields({ index, book }: { readonly index: number; readonly book: Book }) {
  const lines = useWatch<NewOrder, 'lines'>({ name: 'lines' });
  return (
    <Stack spacing={0.5}>
      <Stack direction="row" spacing={1.5}>
        <ofLine.TextLine
          at={`lines.${index}.`}
          name="code"
          shownAs={`${labelIn(orderLine, 'code')} ${index + 1}`}
        />
        <ofLine.MeasureField
          at={`lines.${index}.`}
          name="count"
          shownAs={`${labelIn(orderLine, 'count')} ${index + 1}`}
          quantity="figureOnly"
        />
      </Stack>
      <LineRead code={lines[index]?.code ?? ''} others={lines.filter((_, at) => at !== index)} book={book} />
    </Stack>
  );
}

interface OrderFormProps {
  readonly stock: StockResource;
  readonly book: Book;
  readonly technicianId: string;
  readonly today: string;
}

/** An order of cells and rings, each line read as it is typed, so that a slip is seen before it is sent. */
export function OrderForm({ stock, book, technicianId, today }: OrderFormProps) {
  const [query] = useSearchParams();
  const form = useCheckedForm(newOrder, {
    defaultValues: {
      id: v7(),
      supplier: query.get('supplier') || (bestSupplier(stock.suppliers) ?? ''),
      lines: [blankLine(query.get('cell') ?? query.get('ring') ?? '')],
      technicianId,
    },
  });
  const { control, getValues, setValue } = form;
  const { fields, append, remove } = useFieldArray({ control, name: 'lines' });
  const lines = useWatch({ control, name: 'lines' });
  const { book: place, notice } = useBooking();
  const low = runningLow(
    stock.lots,
    [...lines.map(({ code }) => book.cell(code)?.code ?? ''), ...codesOnOrder(stock.orders)],
    today,
  );
  const filled = (): NewOrder['lines'] => getValues('lines').filter(({ code }) => code.trim() !== '');
  const send = submitHandler(form, async (order) => {
    if (!(await place(() => postJson('/api/orders', order), 'The supplier accepted the order.'))) return;
    form.reset({ ...order, id: v7(), lines: [blankLine('')] });
  });
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    // Lines left blank are not ordered; where all are, the first is asked for.
    const blank = getValues('lines').flatMap(({ code }, index) => (code.trim() === '' ? [index] : []));
    remove(filled().length > 0 ? blank : blank.slice(1));
    getValues('lines').forEach(({ code }, index) => setValue(`lines.${index}.item`, itemOf(code)));
    setValue('technicianId', technicianId);
    void send();
  };
  return (
    <Section title="Order">
      <FormProvider {...form}>
        <Stack component="form" spacing={1.5} noValidate onSubmit={submit}>
          <TextLine name="supplier" />
          {low.length > 0 && (
            <RunningLow low={low} onAdd={(code) => setValue('lines', [...filled(), blankLine(code)])} />
          )}
          {fields.map(({ id }, index) => (
            <OrderLineFields key={id} index={index} book={book} />
          ))}
          {notice}
          <Stack direction="row" spacing={1}>
            <Button onClick={() => append(blankLine(''))}>Add line</Button>
            <Button type="submit" variant="contained">
              Send order
            </Button>
          </Stack>
        </Stack>
      </FormProvider>
    </Section>
  );
}

/** What a line orders, and what it is easily confused with. */
function LineRead({
  code,
  others,
  book,
}: {
  readonly code: string;
  readonly others: NewOrder['lines'];
  readonly book: Book;
}) {
  if (code.trim() === '') return null;
  const ring = readRingCode(code);
  if (ring !== null) {
    const known = book.gaskets.find((each) => each.code === code.trim());
    return (
      <Typography variant="body2">
        ● A ring {figure(ring.insideMm)} mm inside, {figure(ring.sectionMm)} mm thick
        {known && known.caseCodes.length > 0 ? `: seals ${known.caseCodes.slice(0, 4).join(', ')}.` : '.'}
      </Typography>
    );
  }
  const reading = readCellMarking(code, book.cellTable);
  if (reading.verdict !== 'read')
    return <Typography variant="body2">■ {reading.reasons.join(' ')}</Typography>;
  const ordered = others.flatMap((other) => book.cell(other.code) ?? []);
  const { warn, list } = lookAlikesHere(reading.cell, { ordered }, book.cellTable);
  return (
    <Typography variant="body2">
      ● {reading.cell.code}: {reading.reasons[0]}{' '}
      {warn.length > 0
        ? `▲ Easily confused with ${warn.map(({ cell }) => cell.code).join(', ')} on the same order.`
        : list.length > 0
          ? `Look-alikes: ${[...new Set(list.map(({ name }) => name))].slice(0, 6).join(', ')}.`
          : ''}
    </Typography>
  );
}
