import {
  bareCode,
  byChance,
  calibreWords,
  differences,
  seenProbability,
  stretches,
  symbolsOf,
} from '../movements';
import { figure } from '../judgement';
import type { Hypotheses } from './hypotheses';
import type { Seen } from './looks';

/** The stretch of a text that reads most like a code. */
function closest(text: string, code: string): string {
  const wanted = symbolsOf(code);
  return stretches(text).reduce(
    (best, part) =>
      seenProbability(symbolsOf(part), wanted) / byChance(symbolsOf(part)) >
      seenProbability(symbolsOf(best), wanted) / byChance(symbolsOf(best))
        ? part
        : best,
    text,
  );
}

/** What the book says of one hypothesis where something was seen, or how the text seen differs from its code. */
export function bookSays(hypotheses: Hypotheses, index: number, { look, value }: Seen): string {
  const { all } = hypotheses;
  if (look === 'engraving' || look === 'mark') {
    const [first] = differences(
      bareCode(closest(String(value), all[index]?.code ?? '')),
      bareCode(all[index]?.code ?? ''),
    );
    return first === undefined ? 'every character agrees' : first;
  }
  const column = hypotheses.columns[look];
  if (column?.as === 'mm') {
    const at = column.at[index] as number;
    return Number.isNaN(at) ? 'the book does not say' : `book ${figure(at)} mm`;
  }
  if (column?.as === 'pick') {
    const at = column.at[index] as number;
    return at < 0
      ? 'the book does not say'
      : `book ${[at, ...(column.also.get(index) ?? [])].map((each) => column.values[each]).join(' or ')}`;
  }
  if (look === 'revision') return calibreWords(all[index]?.code ?? '', all[index]?.revision ?? null);
  return look === 'caseCode' ? 'as this shop and the book pair them' : 'words on it';
}
