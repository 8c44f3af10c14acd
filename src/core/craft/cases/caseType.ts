import type { BackMeasures } from './measures';

export interface CaseType {
  readonly id: string;
  readonly makerId: string;
  readonly code: string;
  readonly backKind: string;
  readonly ratingBar: number | null;
  readonly crownClock: number;
  /** Where the rim shows a lip or nick, if the type has one. */
  readonly lipClock: number | null;
  readonly gasket: string | null;
  /** The measures of its back, where somebody took them. */
  readonly back: BackMeasures | null;
}
