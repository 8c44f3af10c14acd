import { figure } from '../judgement';
import { type CellType, looksLike } from '../cells';
import type { StockItem } from './lots';

export interface OrderLine {
  readonly item: StockItem;
  readonly code: string;
  readonly count: number;
}

export interface DeliveryLine extends OrderLine {
  readonly lotCode: string;
  readonly madeOn: string | null;
  readonly bestBefore: string | null;
  readonly priceMinor: number;
}

export type LineVerdict = 'as ordered' | 'short' | 'over' | 'another cell' | 'not ordered' | 'not delivered';

export interface CheckedLine {
  readonly ordered: OrderLine | null;
  readonly delivered: DeliveryLine | null;
  readonly verdict: LineVerdict;
  readonly reasons: readonly string[];
}

/** No line of an order is longer, pieces. */
const MOST_OF_A_LINE = 1_000_000;

const isCount = (count: number): boolean => Number.isInteger(count) && count >= 0 && count <= MOST_OF_A_LINE;

/**
 * What was ordered against what came, line by line: as ordered, short, over, another cell, not ordered, not delivered.
 * A line that answers no order is held against the order still open whose cell it is easily taken for. `cellOf` reads a
 * code as a cell of the table. Source: trade practice at goods-in.
 */
export function checkDelivery(
  ordered: readonly OrderLine[],
  delivered: readonly DeliveryLine[],
  cellOf: (code: string) => CellType | null,
): readonly CheckedLine[] {
  const same = (a: OrderLine, b: OrderLine): boolean =>
    a.item === b.item &&
    (a.item === 'cell'
      ? (cellOf(a.code)?.code ?? a.code) === (cellOf(b.code)?.code ?? b.code)
      : a.code === b.code);
  const checked: CheckedLine[] = [];
  const open: OrderLine[] = [];
  const unordered = new Set(delivered);
  for (const line of ordered) {
    const came = delivered.filter((each) => unordered.has(each) && same(line, each));
    const [first] = came;
    if (!first) {
      open.push(line);
      continue;
    }
    came.forEach((each) => unordered.delete(each));
    const count = came.reduce((sum, each) => sum + each.count, 0);
    // What is no count is not as ordered.
    const verdict =
      count === line.count && isCount(count) ? 'as ordered' : count > line.count ? 'over' : 'short';
    came.forEach((each, index) =>
      checked.push({
        ordered: index === 0 ? line : null,
        delivered: each,
        verdict,
        reasons:
          verdict === 'as ordered'
            ? []
            : [count, line.count].every(isCount)
              ? [`${figure(line.count, 0)} of ${line.code} ordered, ${figure(count, 0)} delivered.`]
              : [`The quantity of ${line.code} is not a number. Count the delivered goods.`],
      }),
    );
  }
  for (const line of unordered) {
    const cell = line.item === 'cell' ? cellOf(line.code) : null;
    const meant = open.find((each) => {
      const wanted = each.item === 'cell' ? cellOf(each.code) : null;
      return (
        cell !== null && wanted !== null && (looksLike(wanted, cell) !== null || each.count === line.count)
      );
    });
    if (!meant) {
      checked.push({
        ordered: null,
        delivered: line,
        verdict: 'not ordered',
        reasons: [`${line.code} was not ordered.`],
      });
      continue;
    }
    open.splice(open.indexOf(meant), 1);
    const wanted = cellOf(meant.code);
    const likeness = cell && wanted ? looksLike(wanted, cell) : null;
    checked.push({
      ordered: meant,
      delivered: line,
      verdict: 'another cell',
      reasons: [
        `${meant.code} was ordered, but ${line.code} was delivered${cell && wanted ? `: ${sizeOf(wanted)} wanted, ${sizeOf(cell)} delivered` : ''}.`,
        ...(likeness ? [`They are easily confused: ${likeness.how}.`] : []),
      ],
    });
  }
  return [
    ...checked,
    ...open.map((line): CheckedLine => ({
      ordered: line,
      delivered: null,
      verdict: 'not delivered',
      reasons: [`${figure(line.count, 0)} of ${line.code} was not delivered.`],
    })),
  ];
}

/** Codes that are on order and did not come yet. */
export function codesOnOrder(
  orders: readonly { readonly received: boolean; readonly lines: readonly OrderLine[] }[],
): readonly string[] {
  return orders.filter(({ received }) => !received).flatMap(({ lines }) => lines.map(({ code }) => code));
}

/** The order a delivery note answers, received before or not; undefined where none does. A note need not say whose it is. */
export function orderOfNote<
  T extends { readonly supplier: string; readonly note: { readonly noteNumber: string } | null },
>(
  orders: readonly T[],
  { supplier, noteNumber }: { readonly supplier: string; readonly noteNumber: string },
): T | undefined {
  return orders.find(
    (order) => order.note?.noteNumber === noteNumber && (supplier === '' || supplier === order.supplier),
  );
}

/** What may become of a delivered line. */
export const TAKES = ['into stock', 'into quarantine', 'sent back'] as const;
export type Take = (typeof TAKES)[number];

/** What is usual with a line so checked; the hand decides. Where no order is known nothing was compared. */
export function usualTake({ verdict }: CheckedLine, orderKnown: boolean): Take {
  if (!orderKnown) return 'into stock';
  return verdict === 'another cell' || verdict === 'not ordered' ? 'sent back' : 'into stock';
}

function sizeOf({ diameterMm, heightMm }: CellType): string {
  return diameterMm === null || heightMm === null ? 'size not known' : `${diameterMm} × ${heightMm} mm`;
}
