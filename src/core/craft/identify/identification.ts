import type { Judged } from '../judgement';
import type { Hypotheses, Hypothesis } from './hypotheses';
import type { Look } from './looks';

/** What this shop identified before: how many jobs had a movement, in which case. */
export interface SeenBefore {
  /** Null: jobs whose movement was not in the book. */
  readonly calibreId: string | null;
  readonly revision: string | null;
  readonly caseCode: string;
  readonly jobs: number;
}

/** What one piece of evidence says of one candidate. */
export interface Weighing {
  readonly look: Look;
  readonly seen: string;
  /** What the book says, or how the text differs. */
  readonly book: string;
  /** For it above 0, against it below: log₂ of how much likelier it is here than over everything. */
  readonly bits: number;
}

export interface Candidate extends Hypothesis {
  readonly probability: number;
  readonly why: readonly Weighing[];
}

/** Two pieces of evidence that no movement of the book explains together. */
export interface Conflicting {
  readonly pair: readonly [string, string];
  readonly looks: readonly [Look, Look];
  /** How likely both are on the movement that explains them best, against each on its own best. */
  readonly chance: number;
  readonly nearest: string;
}

export type Identification = Judged<'known' | 'likely' | 'open' | 'not in the book' | 'nothing seen'> & {
  /** The likeliest, the first ahead. */
  readonly candidates: readonly Candidate[];
  readonly notInBook: number;
  /** What is left for all others of the book. */
  readonly others: number;
  /** The likeliest calibre is certain, which of its revisions is not. */
  readonly revisionOpen: boolean;
  readonly conflicting: Conflicting | null;
  /** The movement of the book that an unknown one reads like a sister of; null where it reads like none, or is in the book. */
  readonly sisterOf: { readonly calibreId: string; readonly code: string } | null;
};

/** From here a candidate stands for the movement while nobody named it: likelier than all others together. */
const STANDS_FOR_IT = 0.5;

/** The candidate whose layout is shown while nobody named the movement, or null where none is likely enough. */
export function standsForIt({ candidates }: Pick<Identification, 'candidates'>): Candidate | null {
  const [best] = candidates;
  return best && best.probability >= STANDS_FOR_IT ? best : null;
}

/** Every hypothesis with its share of belief; what `nextBestLook` weighs on. */
export interface Belief {
  readonly hypotheses: Hypotheses;
  /** Of each hypothesis; with `notInBook` they make one. */
  readonly share: Float64Array;
  readonly notInBook: number;
  /** Which movement of the book an unknown one is likeliest a sister of, and how likely that is; null where there is none. */
  readonly sisterOf: { readonly index: number; readonly probability: number } | null;
  /** The makers an unknown calibre may be of, and last *nobody in the book*; they make one. */
  readonly unknownOf: Float64Array;
}
