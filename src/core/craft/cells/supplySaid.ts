import { forbidsCharging, rechargeableWord, withoutForbidding } from './charged';
import { readCellMarking } from './readCellMarking';
import type { CellTable } from './table';
import type { CellType } from './types';

/** What a movement runs from. */
export const SUPPLIES = ['primary', 'rechargeable'] as const;
export type Supply = (typeof SUPPLIES)[number];
export const SUPPLY_WORDS: Readonly<Record<Supply, string>> = {
  primary: 'a primary cell',
  rechargeable: 'an accumulator',
};

/** Words that say a number beside them is a cell’s. */
const SPEAKS_OF_A_CELL = /^(USE|BATTERY|BATT|CELL|ONLY|TYPE)$/;
const MOST_WORDS = 3;

/** Runs of a text’s words that may be one name, the longest first; `speaks` where a word like *cell* stands beside. */
function* runsOf(text: string): Generator<{ readonly run: string; readonly speaks: boolean }> {
  const words = text
    .toUpperCase()
    .split(/[\s,;:]+/)
    .filter(Boolean);
  const speaks = words.some((word) => SPEAKS_OF_A_CELL.test(word));
  for (let length = MOST_WORDS; length > 0; length -= 1)
    for (let at = 0; at + length <= words.length; at += 1) {
      const part = words.slice(at, at + length);
      if (!part.some((word) => SPEAKS_OF_A_CELL.test(word))) yield { run: part.join(' '), speaks };
    }
}

/** The cell a print or engraving names; null where it names none surely. A number alone counts beside a word like *cell*. */
export function cellNamedIn(text: string, table: CellTable): CellType | null {
  for (const { run, speaks } of runsOf(text)) {
    const reading = readCellMarking(run, table);
    if (reading.verdict === 'read' && reading.sure === 'table' && (speaks || /[A-Z]/.test(run)))
      return reading.cell;
  }
  return null;
}

/** What a text says of the supply, and the words by which it does. */
export interface SupplySaid {
  readonly supply: Supply;
  readonly by: string;
}

/**
 * What a print, an engraving or an owner’s words say a movement runs from; null where they say nothing of it. A word for
 * charging or the name of a rechargeable cell says *rechargeable*, and goes before a primary cell named beside it: what
 * forbids one often names it. `namesCount`: whether a bare name counts, as it does in a print; a code of the movement
 * may look like one. Source: trade usage.
 */
export function supplySaid(
  text: string,
  table: CellTable,
  { namesCount }: { readonly namesCount: boolean },
): SupplySaid | null {
  const word = rechargeableWord(text);
  if (word !== null) return { supply: 'rechargeable', by: word.toLowerCase() };
  for (const { run, speaks } of runsOf(withoutForbidding(text)))
    if ((speaks || namesCount) && readCellMarking(run, table).verdict === 'rechargeable')
      return { supply: 'rechargeable', by: run };
  const forbids = forbidsCharging(text);
  if (forbids !== null) return { supply: 'primary', by: forbids.toLowerCase() };
  const named = cellNamedIn(text, table);
  return named === null ? null : { supply: 'primary', by: named.code };
}
