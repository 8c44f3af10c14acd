import type { PricedItem } from '../policy';
import type { Chemistry } from '../cells';
import { figure, type Judged } from '../judgement';
import type { MovementFigures } from './figures';

/** From the lightest to the gravest. */
export const LEAK_SEVERITIES = ['bloom', 'crust', 'corrosion', 'broken track'] as const;
export type LeakSeverity = (typeof LEAK_SEVERITIES)[number];

export const LEAK_DECISIONS = ['cleaned, observe', 'new circuit', 'new movement', 'not decided yet'] as const;
type Decision = Exclude<(typeof LEAK_DECISIONS)[number], 'not decided yet'>;

/** One way to go on after a leak, for the owner to decide on. */
export interface LeakOption {
  readonly decision: Decision;
  /** Null where the price list has no line for it. */
  readonly priceMinor: number | null;
  readonly risk: string;
  readonly advised: boolean;
}

const PRICED: Readonly<Record<Decision, PricedItem>> = {
  'cleaned, observe': 'contacts-cleaned',
  'new circuit': 'new-circuit',
  'new movement': 'new-movement',
};
const RISK: Readonly<Record<Decision, string>> = {
  'cleaned, observe': 'What has crept under a track goes on eating: measured again within a year.',
  'new circuit': 'What reached the train stays there; for old calibres none may be had.',
  'new movement': 'The watch is no longer original inside.',
};

export type LeakAdvice = Judged<Decision> & {
  readonly options: readonly LeakOption[];
  readonly care: string;
};

interface LeakQuestion {
  readonly severity: LeakSeverity;
  readonly currentAfterUA: number | null;
  readonly figures: MovementFigures['current'];
  readonly originalMatters: boolean;
  readonly chemistry: Chemistry | null;
  readonly priceOf: (item: PricedItem) => number | null;
}

/** Whose residue is alkaline, and loosened by a weak acid. */
const ALKALINE_RESIDUE: readonly Chemistry[] = ['silver-oxide', 'alkaline'];

/** How a leak of this chemistry is cleaned; null: it could not be read. Source: bench practice. */
function careFor(chemistry: Chemistry | null): string {
  if (chemistry !== null && ALKALINE_RESIDUE.includes(chemistry))
    return 'A trace of weak acid on a wisp, then alcohol, then dry; nothing wet stays on the tracks.';
  const gently = 'no acid and no water. Wipe dry, then alcohol, and air: no flame near.';
  switch (chemistry) {
    case 'lithium':
      return `Lithium: ${gently}`;
    case 'accumulator':
      return `Accumulator: ${gently}`;
    case null:
      return `What leaked cannot be read: ${gently} Read its chemistry first; only silver oxide and alkaline take a trace of weak acid.`;
    default:
      return `${chemistry === 'mercury' ? 'Mercury' : 'Zinc-air'}: ${gently} Hazardous waste: as local rules say.`;
  }
}

/**
 * What to do about a leak: clean and observe, a new circuit, a new movement, each with its price and risk, and the one
 * advised. A broken track needs a circuit; corrosion does once the current after cleaning stays over its limit; lighter
 * leaks are cleaned and watched. Where the watch is to stay original, cleaning comes first as long as anything runs.
 * Source: bench practice.
 */
export function leakOptions(question: LeakQuestion): LeakAdvice {
  const { severity, currentAfterUA, figures, originalMatters } = question;
  const over = currentAfterUA !== null && currentAfterUA > figures.limitUA;
  const verdict: Decision =
    severity === 'broken track' || (over && !originalMatters) || (over && severity === 'corrosion')
      ? 'new circuit'
      : 'cleaned, observe';
  const reasons = [
    severity === 'broken track'
      ? 'A broken track carries nothing any more: cleaning does not bring it back.'
      : over
        ? `After cleaning it still draws ${figure(currentAfterUA)} µA, over ${figure(figures.limitUA)} µA.`
        : currentAfterUA === null
          ? 'Clean it, then measure the current again: that decides.'
          : `After cleaning it draws ${figure(currentAfterUA)} µA, within ${figure(figures.limitUA)} µA.`,
    ...(originalMatters ? ['The owner wants it original: clean before anything is replaced.'] : []),
  ];
  return {
    verdict,
    reasons,
    working: [
      {
        what: 'current after cleaning',
        rule: `${figures.of}: at most ${figure(figures.limitUA)} µA`,
        figures: currentAfterUA === null ? 'not measured yet' : `${figure(currentAfterUA)} µA`,
      },
    ],
    care: careFor(question.chemistry),
    options: (Object.keys(PRICED) as Decision[]).map((decision) => ({
      decision,
      priceMinor: question.priceOf(PRICED[decision]),
      risk: RISK[decision],
      advised: decision === verdict,
    })),
  };
}
