import { calendarDay } from '../../contract';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { type DeliveryLine, STOCK_ITEMS } from '../../core/craft/stock';

const COLUMNS = ['note', 'item', 'code', 'count', 'lot', 'made_on', 'best_before', 'price_minor'] as const;

/** A delivery note as CSV: one line a lot; days as year-month-day, prices in minor units. */
export function deliveryNoteCsv({ supplier, noteNumber, lines }: DeliveryNote): string {
  return stringify(
    [
      ['supplier', ...COLUMNS],
      ...lines.map((line) => [
        supplier,
        noteNumber,
        line.item,
        line.code,
        line.count,
        line.lotCode,
        line.madeOn ?? '',
        line.bestBefore ?? '',
        line.priceMinor,
      ]),
    ],
    { record_delimiter: '\r\n', escape_formulas: true },
  );
}

export interface DeliveryNote {
  /** Empty where the file does not say. */
  readonly supplier: string;
  readonly noteNumber: string;
  readonly lines: readonly DeliveryLine[];
}

export type NoteRead =
  | { readonly outcome: 'read'; readonly note: DeliveryNote }
  | { readonly outcome: 'unreadable'; readonly reason: string; readonly whatToDo: string };

/** Reads a delivery note; what cannot be read says in which line and what is wanted there. */
export function readDeliveryNote(csv: string): NoteRead {
  const unreadable = (reason: string, whatToDo: string): NoteRead => ({
    outcome: 'unreadable',
    reason,
    whatToDo,
  });
  const wanted = `Its columns: ${COLUMNS.join(', ')}, and supplier where it says.`;
  let rows: Record<string, string>[];
  try {
    rows = parse(csv, {
      bom: true,
      trim: true,
      skip_empty_lines: true,
      columns: (header: string[]) => header.map((name) => name.toLowerCase()),
    });
  } catch (error) {
    return unreadable(
      `The file is not a table: ${error instanceof Error ? error.message : 'it cannot be read'}.`,
      wanted,
    );
  }
  const [first] = rows;
  if (!first) return unreadable('The delivery note holds no line.', wanted);
  const missing = COLUMNS.filter((column) => !(column in first));
  if (missing.length > 0) return unreadable(`The delivery note has no column ${missing.join(', ')}.`, wanted);
  if (new Set(rows.map(({ note, supplier = '' }) => `${supplier}\n${note}`)).size > 1)
    return unreadable('The file holds more than one delivery note.', 'Read each note as a file of its own.');
  const lines: DeliveryLine[] = [];
  for (const [index, row] of rows.entries()) {
    const at = `Line ${index + 2}`;
    const item = STOCK_ITEMS.find((each) => each === row.item);
    const [count, priceMinor] = [Number(row.count), Number(row.price_minor)];
    if (!item)
      return unreadable(`${at}: “${row.item}” is not a kind of goods.`, `One of ${STOCK_ITEMS.join(', ')}.`);
    if (!row.code || !row.lot)
      return unreadable(`${at}: code or lot is empty.`, 'Fill both in, e.g. SR621SW, N-204.');
    if (!Number.isInteger(count) || count < 1)
      return unreadable(`${at}: a count of “${row.count}” cannot be.`, 'A whole number from 1.');
    if (!Number.isInteger(priceMinor) || priceMinor < 0)
      return unreadable(
        `${at}: a price of “${row.price_minor}” cannot be.`,
        'Whole minor units, e.g. 62 for 0.62.',
      );
    for (const day of [row.made_on, row.best_before])
      if (day && !calendarDay.safeParse(day).success)
        return unreadable(
          `${at}: “${day}” is not a date.`,
          'A day is written year-month-day, e.g. 2027-04-30.',
        );
    lines.push({
      item,
      code: row.code,
      count,
      lotCode: row.lot,
      madeOn: row.made_on || null,
      bestBefore: row.best_before || null,
      priceMinor,
    });
  }
  return { outcome: 'read', note: { supplier: first.supplier ?? '', noteNumber: first.note ?? '', lines } };
}
