import { median } from 'simple-statistics';
import type { JudgedTest } from './judgeTests';
import type { UsualOfCase } from './leakReport';

/** What a watch gave for each bar in earlier visits, as its history tells it. */
interface EarlierTests {
  readonly tests: readonly { readonly stiffnessUmPerBar: number | null }[];
}

/** No finer than a case shows it, and never nothing at all: it gave something. */
const FINEST = 0.01;
const rounded = (umPerBar: number): number => Math.max(FINEST, Number(umPerBar.toFixed(2)));

/** So few watches of a type tell little of the next. */
const LEAST_OF_TYPE = 3;

/**
 * What this case usually gives, µm a bar: the median of its earlier visits and of the tests of this one; else that of its
 * type, from three watches on; null where neither was measured.
 */
export function usualStiffness(
  tests: readonly Pick<JudgedTest, 'leak'>[],
  earlier: EarlierTests | null,
  ofType: UsualOfCase | null,
): number | null {
  const each = [
    ...tests.map(({ leak }) => (leak?.flow ? leak.stiffnessUmPerBar : null)),
    ...(earlier?.tests ?? []).map(({ stiffnessUmPerBar }) => stiffnessUmPerBar),
  ].flatMap((stiffness) => (stiffness === null ? [] : [Math.abs(stiffness)]));
  if (each.length > 0) return rounded(median(each));
  return ofType !== null && ofType.watches >= LEAST_OF_TYPE ? rounded(ofType.stiffnessUmPerBar) : null;
}
