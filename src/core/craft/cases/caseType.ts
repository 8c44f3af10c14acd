import type { View } from './clock';
import type { BackMeasures } from './measures';

/** What kind of crown it is: a screwed one left up floods the case. */
export const CROWNS = ['pushed home', 'screwed down', 'no crown'] as const;
export type CrownKind = (typeof CROWNS)[number];

export interface CaseType {
  readonly id: string;
  readonly makerId: string;
  readonly code: string;
  readonly backKind: string;
  readonly ratingBar: number | null;
  /** Seen from the dial. */
  readonly crownClock: number;
  /** Where the rim shows a lip or nick, if the type has one. */
  readonly lipClock: number | null;
  readonly lipSeenFrom: View;
  /** Null: nobody noted it. */
  readonly crown: CrownKind | null;
  readonly gasket: string | null;
  /** The measures of its back, where somebody took them. */
  readonly back: BackMeasures | null;
}
