import { caseTypes } from '../../demo/book';
import { tools } from '../../demo/tools';
import { type CaseType, type MeasuredBack, NOTHING_MEASURED } from '../core/craft/cases';
import { chooseOpener, type OpenerChoice } from '../core/craft/opening';
import type { ShopTools } from '../core/craft/tools';

/** A back of which only this was measured. */
export const back = (own: Partial<MeasuredBack>): MeasuredBack => ({
  ...NOTHING_MEASURED,
  kind: 'snap-on',
  chordMm: null,
  lipClock: null,
  bracelet: 'bracelet that opens flat',
  pusherClocks: [],
  seenFrom: 'behind',
  ...own,
});

/** What opens it, by the demo shop's tools where no others are given. */
export const choose = (own: Partial<MeasuredBack>, board: ShopTools = tools): OpenerChoice =>
  chooseOpener({ back: back(own), tools: board, crownClock: 3, noCrown: false });

/** A case type of the demo's book. */
export function typeOf(code: string): CaseType {
  const found = caseTypes.find((each) => each.code === code);
  if (!found) throw new Error(code);
  return found;
}
