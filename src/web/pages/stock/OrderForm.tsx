import { Button, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { v7 } from 'uuid';
import { newOrder, type StockResource } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { lookAlikesHere, readCellMarking } from '../../../core/craft/cells';
import { readRingCode } from '../../../core/craft/gaskets';
import { figure } from '../../../core/craft/judgement';
import { bestSupplier, codesOnOrder, runningLow } from '../../../core/craft/stock';
import { postJson } from '../../api/http';
import { Section } from '../../kit/Section';
import { useBooking } from './booking';

interface Line {
  readonly code: string;
  readonly count: string;
}

const BLANK: Line = { code: '', count: '10' };

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

function OrderLine({
  place,
  line,
  others,
  book,
  onChange,
}: {
  readonly place: number;
  readonly line: Line;
  readonly others: readonly Line[];
  readonly book: Book;
  readonly onChange: (line: Line) => void;
}) {
  return (
    <Stack spacing={0.5}>
      <Stack direction="row" spacing={1.5}>
        <TextField
          label={`Cell or ring ${place}`}
          value={line.code}
          onChange={(event) => onChange({ ...line, code: event.target.value })}
        />
        <TextField
          label={`How many ${place}`}
          value={line.count}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          onChange={(event) => onChange({ ...line, count: event.target.value })}
        />
      </Stack>
      <LineRead code={line.code} others={others} book={book} />
    </Stack>
  );
}

/** An order of cells and rings, each line read as it is typed, so that a slip is seen before it is sent. */
export function OrderForm({
  stock,
  book,
  technicianId,
  today,
}: {
  readonly stock: StockResource;
  readonly book: Book;
  readonly technicianId: string;
  readonly today: string;
}) {
  const [query] = useSearchParams();
  const [supplier, setSupplier] = useState(query.get('supplier') || (bestSupplier(stock.suppliers) ?? ''));
  const [lines, setLines] = useState<readonly Line[]>([
    { ...BLANK, code: query.get('cell') ?? query.get('ring') ?? '' },
  ]);
  const { book: place, say, notice } = useBooking();
  const low = runningLow(
    stock.lots,
    [...lines.map(({ code }) => book.cell(code)?.code ?? ''), ...codesOnOrder(stock.orders)],
    today,
  );
  const add = (code: string): void =>
    setLines([...lines.filter((line) => line.code.trim() !== ''), { ...BLANK, code }]);
  const change = (index: number, line: Line): void =>
    setLines(lines.map((each, at) => (at === index ? line : each)));
  const send = async (): Promise<void> => {
    const order = newOrder.safeParse({
      id: v7(),
      supplier,
      lines: lines
        .filter(({ code }) => code.trim() !== '')
        .map(({ code, count }) => ({
          item: readRingCode(code) === null ? 'cell' : 'gasket',
          code,
          count: Number(count),
        })),
      technicianId,
    });
    if (!order.success) {
      say({ wrong: true, text: order.error.issues.map(({ message }) => message).join(' ') });
      return;
    }
    if (await place(() => postJson('/api/orders', order.data), 'The supplier took the order.'))
      setLines([BLANK]);
  };
  return (
    <Section title="Order">
      <Stack
        component="form"
        spacing={1.5}
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <TextField label="Supplier" value={supplier} onChange={(event) => setSupplier(event.target.value)} />
        {low.length > 0 && <RunningLow low={low} onAdd={add} />}
        {lines.map((line, index) => (
          <OrderLine
            key={index}
            place={index + 1}
            line={line}
            others={lines.filter((_, at) => at !== index)}
            book={book}
            onChange={(next) => change(index, next)}
          />
        ))}
        {notice}
        <Stack direction="row" spacing={1}>
          <Button onClick={() => setLines([...lines, BLANK])}>Another line</Button>
          <Button type="submit" variant="contained">
            Send the order
          </Button>
        </Stack>
      </Stack>
    </Section>
  );
}

/** What a line orders, and what it may be taken for. */
function LineRead({
  code,
  others,
  book,
}: {
  readonly code: string;
  readonly others: readonly Line[];
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
        ? `▲ Easily taken for ${warn.map(({ cell }) => cell.code).join(', ')} on the same order.`
        : list.length > 0
          ? `Look-alikes: ${[...new Set(list.map(({ name }) => name))].slice(0, 6).join(', ')}.`
          : ''}
    </Typography>
  );
}
