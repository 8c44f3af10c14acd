import { median } from 'simple-statistics';
import type { JudgedTest } from './judgeTests';

/** What a watch gave for each bar in earlier visits, as its history tells it. */
interface EarlierTests {
  readonly tests: readonly { readonly stiffnessUmPerBar: number | null }[];
}

/**
 * What this case usually gives, µm a bar: the median of its earlier visits and of the tests of this one; null where none
 * was measured.
 */
export function usualStiffness(
  tests: readonly Pick<JudgedTest, 'leak'>[],
  earlier: EarlierTests | null,
): number | null {
  const each = [
    ...tests.map(({ leak }) => (leak?.flow ? leak.stiffnessUmPerBar : null)),
    ...(earlier?.tests ?? []).map(({ stiffnessUmPerBar }) => stiffnessUmPerBar),
  ].flatMap((stiffness) => (stiffness === null ? [] : [Math.abs(stiffness)]));
  return each.length === 0 ? null : median(each);
}
