import { backs, type MeasuredBack, type PrySpot, type PryQuestion } from '../cases';
import type { Judged } from '../judgement';
import type { FrictionBall, ShopTools } from '../tools';
import type { JawSetting } from './jawSetting';

export interface SettingLine {
  readonly what: string;
  readonly value: string;
}

export type OpenerChoice = Judged<
  'opens with' | 'with care' | 'not yet known' | 'refer or buy' | 'impossible'
> & {
  /** The tool by name, or what kind of tool it takes. */
  readonly opener: string;
  /** The tools of this shop it takes, the opener first. */
  readonly toolIds: readonly string[];
  /** What is set, in the order the hands do it. */
  readonly settings: readonly SettingLine[];
  readonly jaws: JawSetting | null;
  readonly spot: PrySpot | null;
  /** A ball that spins the back off once the wrench has loosened it. */
  readonly spinOff: FrictionBall | null;
  /** Measures that would let it answer. */
  readonly wanted: readonly (keyof MeasuredBack)[];
  /** What would have to be bought, where nothing of the shop's opens it. */
  readonly toBuy: string | null;
};

/** Whether it is opened here, be it with care. */
export function opens({ verdict }: Pick<OpenerChoice, 'verdict'>): boolean {
  return verdict === 'opens with' || verdict === 'with care';
}

/** A choice of which nothing is known yet. */
export const NONE = {
  toolIds: [],
  settings: [],
  jaws: null,
  spot: null,
  spinOff: null,
  wanted: [],
  toBuy: null,
  reasons: [],
  working: [],
} as const;

/** What a choice rests on. */
export interface Question extends Pick<PryQuestion, 'crownClock' | 'noCrown'> {
  readonly back: MeasuredBack;
  readonly tools: ShopTools;
}

/** What is asked before a tool can be named. */
export function unknown(
  { kind }: Pick<MeasuredBack, 'kind'>,
  wanted: readonly (keyof MeasuredBack)[],
  reason: string,
): OpenerChoice {
  return { ...NONE, verdict: 'not yet known', opener: backs[kind].opener, wanted, reasons: [reason] };
}
