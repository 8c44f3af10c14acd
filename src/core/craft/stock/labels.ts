import { daysInMonth, noMoments } from '../time';

/** What a box or blister says of itself to a scanner. */
export interface BoxLabel {
  readonly code: string | null;
  readonly lotCode: string | null;
  readonly madeOn: string | null;
  readonly bestBefore: string | null;
  readonly count: number | null;
}

export type LabelReading =
  | { readonly verdict: 'label'; readonly label: BoxLabel }
  | { readonly verdict: 'no label' }
  | { readonly verdict: 'not readable'; readonly reasons: readonly string[] };

const NOTHING: BoxLabel = { code: null, lotCode: null, madeOn: null, bestBefore: null, count: null };

/** Element identifiers of the general specification for trade barcodes, by what they say. */
const SAYS: Readonly<Record<string, keyof BoxLabel>> = {
  '10': 'lotCode',
  '11': 'madeOn',
  '15': 'bestBefore',
  '17': 'bestBefore',
  '30': 'count',
  '37': 'count',
  '240': 'code',
  '241': 'code',
};

/**
 * A day written YYMMDD; 00 for the day is the last of its month. The century is the one that brings it within fifty
 * years of `today`. Null where there is no such day.
 */
function dayOf(text: string, today: string): string | null {
  const [, yy, mm, dd] = (/^(\d{2})(\d{2})(\d{2})$/.exec(text) ?? []).map(Number);
  if (yy === undefined || mm === undefined || dd === undefined || mm < 1 || mm > 12) return null;
  const thisYear = Number(today.slice(0, 4));
  const century = Math.floor(thisYear / 100) * 100;
  const year = [century - 100, century, century + 100]
    .map((each) => each + yy)
    .find((each) => each - thisYear > -50 && each - thisYear <= 50);
  if (year === undefined) return null;
  const month = `${year}-${text.slice(2, 4)}`;
  const days = daysInMonth(`${month}-01`);
  if (dd > days) return null;
  return dd === 0 ? `${month}-${days}` : `${month}-${text.slice(4)}`;
}

/**
 * Reads what a scanner typed off a box: element strings with their identifiers in brackets, as printed under the bars,
 * e.g. `(240)SR621SW(10)S-6104(17)270831(30)10`; or one name of a cell alone, told by `isCell`. Source: the general
 * specification for trade barcodes (lot 10, made on 11, best before 15 and 17, count 30 and 37, additional code 240, 241).
 */
export function readBoxLabel(text: string, today: string, isCell: (name: string) => boolean): LabelReading {
  const written = text.trim();
  if (!/^\(\d{2,4}\)/.test(written))
    return isCell(written)
      ? { verdict: 'label', label: { ...NOTHING, code: written } }
      : { verdict: 'no label' };
  const wrong = noMoments([['Today', today]]);
  if (wrong.length > 0) return { verdict: 'not readable', reasons: wrong };
  const elements = [...written.matchAll(/\((\d{2,4})\)([^(]*)/g)].map(([, id = '', value = '']) => ({
    id,
    value: value.trim(),
  }));
  const label: { -readonly [K in keyof BoxLabel]: BoxLabel[K] } = { ...NOTHING };
  for (const { id, value } of elements) {
    const says = SAYS[id];
    if (says === undefined) continue;
    if (says === 'madeOn' || says === 'bestBefore') {
      const day = dayOf(value, today);
      if (day === null) return { verdict: 'not readable', reasons: [`(${id})${value} is not a date.`] };
      label[says] = day;
    } else if (says === 'count') {
      if (!/^\d{1,8}$/.test(value))
        return { verdict: 'not readable', reasons: [`(${id})${value} is not a count.`] };
      label.count = Number(value);
    } else label[says] = value === '' ? null : value;
  }
  return Object.values(label).every((each) => each === null)
    ? { verdict: 'not readable', reasons: ['The label contains no code, lot, date or quantity.'] }
    : { verdict: 'label', label };
}
