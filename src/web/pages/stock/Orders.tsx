import { Button, Stack, Table, TableBody, TableCell, TableRow, TextField, Typography } from '@mui/material';
import { useEffect, useState } from 'react';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import type { Book } from '../../../core/craft/book';
import type { NewDelivery, Order, StockResource } from '../../../contract';
import { lookAlikesHere } from '../../../core/craft/cells';
import { HeadRow } from '../../kit/HeadRow';
import {
  checkDelivery,
  codesOnOrder,
  orderOfNote,
  type CheckedLine,
  type DeliveryLine,
  recordWords,
  type Take,
  TAKES,
  usualTake,
} from '../../../core/craft/stock';
import { dayInWords, localDay, localTime } from '../../../core/craft/time';
import { postJson } from '../../api/http';
import { useBook } from '../../api/book';
import { type SeenShop, shopNow } from '../../api/resources';
import { Caution } from '../../kit/Lamp';
import { Section } from '../../kit/Section';
import { FileButton } from '../../kit/FileButton';
import { NativeSelect } from '../../kit/NativeSelect';
import { useBooking } from './booking';
import { OrderForm } from './OrderForm';

interface Note {
  readonly supplier: string;
  readonly noteNumber: string;
  readonly orderId: string | null;
  readonly checked: readonly CheckedLine[];
}

function NoteLine({
  line,
  take,
  onTake,
}: {
  readonly line: CheckedLine;
  readonly take: Take;
  readonly onTake: (take: Take) => void;
}) {
  return (
    <TableRow>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {line.ordered ? `${line.ordered.count} × ${line.ordered.code}` : '–'}
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {line.delivered ? `${line.delivered.count} × ${line.delivered.code}` : '–'}
        {line.delivered && (
          <Typography variant="body2">
            lot {line.delivered.lotCode}
            <br />
            {line.delivered.bestBefore === null
              ? 'no date printed'
              : `best before ${dayInWords(line.delivered.bestBefore)}`}
          </Typography>
        )}
      </TableCell>
      <TableCell>
        {line.verdict === 'as ordered' ? '● as ordered' : `■ ${line.verdict}`}
        {line.reasons.length > 0 && <Typography variant="body2">{line.reasons.join(' ')}</Typography>}
      </TableCell>
      <TableCell sx={{ minWidth: 170 }}>
        {line.delivered && (
          <NativeSelect
            label={`Lot ${line.delivered.lotCode}`}
            value={take}
            options={TAKES.map((value) => ({ value, label: value }))}
            onChange={(value) => onTake(value as Take)}
          />
        )}
      </TableCell>
    </TableRow>
  );
}

/** A delivery note against its order, line by line, and what becomes of each. */
function Receive({
  note,
  technicianId,
  onBook,
}: {
  readonly note: Note;
  readonly technicianId: string;
  readonly onBook: (delivery: NewDelivery) => void;
}) {
  const [takes, setTakes] = useState<Readonly<Record<number, Take>>>({});
  const [supplier, setSupplier] = useState(note.supplier);
  const takeOf = (line: CheckedLine, index: number): Take =>
    takes[index] ?? usualTake(line, note.orderId !== null);
  const book = (): void => {
    const lines = note.checked.flatMap((line, index) =>
      line.delivered ? [{ line: line.delivered, take: takeOf(line, index) }] : [],
    );
    onBook({
      id: v7(),
      supplier,
      noteNumber: note.noteNumber,
      orderId: note.orderId,
      lines,
      technicianId,
    });
  };
  return (
    <Section title={`Delivery note ${note.noteNumber}`}>
      {note.orderId === null && (
        <Caution>No order matches this delivery note. Compare each line with what you ordered.</Caution>
      )}
      {note.supplier === '' && (
        <TextField
          label="Supplier"
          value={supplier}
          onChange={(event) => setSupplier(event.target.value)}
          sx={{ my: 1 }}
        />
      )}
      <Table size="small" aria-label="Order and delivery compared" sx={{ '& td, & th': { px: 1 } }}>
        <HeadRow heads={['Ordered', 'Delivered', 'Result', 'Action']} />
        <TableBody>
          {note.checked.map((line, index) => (
            <NoteLine
              key={`${line.delivered?.lotCode ?? ''}-${index}`}
              line={line}
              take={takeOf(line, index)}
              onTake={(take) => setTakes({ ...takes, [index]: take })}
            />
          ))}
        </TableBody>
      </Table>
      <Typography sx={{ mt: 1 }}>
        After booking in, take one fresh cell of each lot. Measure its rest voltage and check its print. Press
        “More” at the lot to record this sample.
      </Typography>
      <Button variant="contained" sx={{ mt: 1 }} onClick={book}>
        Book in delivery
      </Button>
    </Section>
  );
}

function orderWords({ lines }: Order): string {
  return lines.map(({ count, code }) => `${count} × ${code}`).join(', ');
}

/** The longest wait a browser’s timer is trusted with. */
const LONGEST_WAIT_MS = 6 * 3600_000;

/** Loads the stock again when the next delivery is due, so that a page left open shows it. */
function useDue(onTheWay: readonly Order[], shop: SeenShop): void {
  const next = onTheWay.flatMap(({ note, dueAt }) => (note ? [] : [dueAt])).sort()[0];
  useEffect(() => {
    if (next === undefined) return;
    const wait = Date.parse(next) - Date.parse(shopNow(shop)) + 1000;
    const timer = setTimeout(
      () => void mutate('/api/stock'),
      Math.min(Math.max(wait, 1000), LONGEST_WAIT_MS),
    );
    return () => clearTimeout(timer);
  }, [next, shop]);
}

/** An order that is not received yet, and its note once it came. */
function OnTheWay({
  order,
  zone,
  onReceive,
}: {
  readonly order: Order;
  readonly zone: string;
  readonly onReceive: () => void;
}) {
  return (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center', mt: 1 }}>
      <Typography sx={{ flexGrow: 1 }}>
        {order.supplier}: {orderWords(order)}.{' '}
        {order.note ? `Delivered, note ${order.note.noteNumber}.` : `Due ${localTime(order.dueAt, zone)}.`}
      </Typography>
      {order.note && (
        <>
          <Button
            href={`/api/orders/${order.id}/note.csv`}
            aria-label={`Note ${order.note.noteNumber} as CSV`}
            sx={{ flexShrink: 0 }}
          >
            As CSV
          </Button>
          <Button
            variant="outlined"
            sx={{ flexShrink: 0 }}
            onClick={onReceive}
            aria-label={`Receive note ${order.note.noteNumber}`}
          >
            Receive
          </Button>
        </>
      )}
    </Stack>
  );
}

/** Cells on order that are easily taken for each other. */
function MixedUp({ onTheWay, book }: { readonly onTheWay: readonly Order[]; readonly book: Book }) {
  const ordered = codesOnOrder(onTheWay).flatMap((code) => book.cell(code) ?? []);
  const confusions = ordered.flatMap((cell) => lookAlikesHere(cell, { ordered }, book.cellTable).warn);
  return confusions.length === 0 ? null : (
    <Caution>
      {[...new Set(confusions.map(({ name }) => name))].join(' and ')} are both on order and easily confused.
      Compare code and size when they arrive.
    </Caution>
  );
}

function Suppliers({ suppliers }: Pick<StockResource, 'suppliers'>) {
  return (
    <Section title="Suppliers">
      {suppliers.length === 0 && <Typography>No supplier has a history yet.</Typography>}
      {suppliers.map((record) => (
        <Typography key={record.supplier}>
          {record.supplier}: {recordWords(record)}.
        </Typography>
      ))}
    </Section>
  );
}

/** A delivery note in a file, held against the order it answers. */
async function noteIn(file: File, orders: readonly Order[], book: Book): Promise<Note> {
  const read = await postJson<{
    supplier: string;
    noteNumber: string;
    lines: readonly DeliveryLine[];
  }>('/api/deliveries/read', { csv: await file.text() });
  const order = orderOfNote(orders, read);
  return {
    supplier: order?.supplier ?? read.supplier,
    noteNumber: read.noteNumber,
    orderId: order?.id ?? null,
    checked: checkDelivery(order?.lines ?? [], read.lines, book.cell),
  };
}

/** Orders to the supplier, and the deliveries that answer them. */
export function Orders({
  stock,
  shop,
  technicianId,
}: {
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string;
}) {
  const { book } = useBook(shop.catalogueRevision);
  const [note, setNote] = useState<Note | null>(null);
  const { book: atServer, say, notice } = useBooking();
  const onTheWay = stock.orders.filter(({ received }) => !received);
  useDue(onTheWay, shop);
  if (!book) return null;
  const receive = (order: Order): void => {
    if (!order.note) return;
    say(null);
    setNote({
      supplier: order.supplier,
      noteNumber: order.note.noteNumber,
      orderId: order.id,
      checked: order.note.checked,
    });
  };
  const readFile = (file: File): Promise<boolean> =>
    atServer(async () => {
      setNote(await noteIn(file, stock.orders, book));
    }, `Read from ${file.name}: nothing is booked yet.`);
  const receiveNote = async (booked: Note, delivery: NewDelivery): Promise<void> => {
    await atServer(async () => {
      await postJson('/api/deliveries', delivery);
      // It closes as it is booked, and not another that was opened since.
      setNote((now) => (now === booked ? null : now));
    }, `Delivery note ${delivery.noteNumber} is booked in.`);
  };
  return (
    <>
      {notice}
      {note && (
        <Receive
          key={note.noteNumber}
          note={note}
          technicianId={technicianId}
          onBook={(delivery) => void receiveNote(note, delivery)}
        />
      )}
      <Section title="On order">
        {onTheWay.length === 0 && <Typography>No order is open.</Typography>}
        <MixedUp onTheWay={onTheWay} book={book} />
        {onTheWay.map((order) => (
          <OnTheWay key={order.id} order={order} zone={shop.shop.zone} onReceive={() => receive(order)} />
        ))}
        <Stack direction="row" sx={{ mt: 1 }}>
          <FileButton
            label="Delivery note as CSV"
            accept=".csv,text/csv"
            onFiles={([file]) => {
              if (file) void readFile(file);
            }}
          >
            Read delivery note from file
          </FileButton>
        </Stack>
      </Section>
      <OrderForm
        stock={stock}
        book={book}
        technicianId={technicianId}
        today={localDay(shopNow(shop), shop.shop.zone)}
      />
      <Suppliers suppliers={stock.suppliers} />
    </>
  );
}
