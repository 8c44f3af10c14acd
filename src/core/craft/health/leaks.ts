import { type Calibre, isNearCoil } from '../movements';
import type { PricedItem } from '../policy';
import type { Chemistry } from '../cells';
import { figure, type Judged, invalidFigures } from '../judgement';
import type { MovementFigures } from './figures';
import { measures, type ReadingVerdict } from './reading';

/** From the lightest to the gravest. */
export const LEAK_SEVERITIES = ['bloom', 'crust', 'corrosion', 'broken track'] as const;
export type LeakSeverity = (typeof LEAK_SEVERITIES)[number];

export const LEAK_DECISIONS = ['cleaned, observe', 'new circuit', 'new movement', 'not decided yet'] as const;
type Decision = Exclude<(typeof LEAK_DECISIONS)[number], 'not decided yet'>;

/** Where a leak is found, from the cell outward. */
export const LEAK_PLACES = ['cell', 'contact', 'well', 'track', 'coil', 'dial side'] as const;
export type LeakPlace = (typeof LEAK_PLACES)[number];

/** A leak as it was seen. */
interface SeenLeak {
  readonly place: LeakPlace;
  readonly severity: LeakSeverity;
}

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
  'cleaned, observe': 'Electrolyte under a track keeps corroding it. Measure again within a year.',
  'new circuit': 'Residue in the train stays there. For old calibres no circuit may be available.',
  'new movement': 'The watch is no longer original inside.',
};

/** `not decided yet`: what reached a place nobody measured is not called harmless. */
export type LeakAdvice = Judged<(typeof LEAK_DECISIONS)[number]> & {
  readonly options: readonly LeakOption[];
  readonly care: string;
};

interface LeakQuestion {
  /** Every leak found, at least one. */
  readonly leaks: readonly SeenLeak[];
  /** What the coil's resistance said; null: not measured. */
  readonly coil: ReadingVerdict['verdict'] | null;
  readonly currentAfterUA: number | null;
  readonly figures: MovementFigures['current'];
  readonly originalMatters: boolean;
  /** Whether a leak lies within reach of a coil, by where it was pointed at on the layout. */
  readonly byCoil: boolean;
  readonly chemistry: Chemistry | null;
  readonly priceOf: (item: PricedItem) => number | null;
}

/** Whose residue is alkaline, and loosened by a weak acid. */
const ALKALINE_RESIDUE: readonly Chemistry[] = ['silver-oxide', 'alkaline'];

/** At a coil neither goes near its wire: acid eats it, and a wisp tears it. */
const OFF_THE_WINDING =
  ' Keep acid and cleaning tools off the winding of the coil. Brush alcohol beside it and dry it with air.';

/** How a leak of this chemistry is cleaned; null: it could not be read. Source: bench practice. */
function careFor(chemistry: Chemistry | null): string {
  if (chemistry !== null && ALKALINE_RESIDUE.includes(chemistry))
    return 'Use a trace of weak acid on a swab, then alcohol, then dry. Leave nothing wet on the tracks.';
  const gently = 'use no acid and no water. Wipe dry, then alcohol, then air. Keep flames away.';
  switch (chemistry) {
    case 'lithium':
      return `Lithium: ${gently}`;
    case 'accumulator':
      return `Accumulator: ${gently}`;
    case null:
      return `The chemistry of the leaked cell is not known: ${gently} Read its chemistry first. Only for silver oxide and alkaline use a trace of weak acid.`;
    default:
      return `${chemistry === 'mercury' ? 'Mercury' : 'Zinc-air'}: ${gently} It is hazardous waste. Follow local rules.`;
  }
}

/** What the place of a leak decides by itself, whatever the current says; null where it decides nothing. */
function byPlace({ leaks, coil }: LeakQuestion): { verdict: LeakAdvice['verdict']; reason: string } | null {
  if (leaks.some(({ severity }) => severity === 'broken track'))
    return {
      verdict: 'new circuit',
      reason: 'A broken track does not conduct. Cleaning cannot repair it.',
    };
  const atCoil = leaks.some(({ place }) => place === 'coil');
  if (coil === 'open' || (atCoil && coil === 'shorted turns'))
    return {
      verdict: 'new circuit',
      reason: `The coil is ${coil === 'open' ? 'severed' : 'shorted'}. Cleaning cannot repair it.`,
    };
  // On its wire a trace is enough; what it has eaten shows in the resistance alone.
  if (atCoil && coil !== 'good')
    return {
      verdict: 'not decided yet',
      reason:
        coil === 'suspect'
          ? 'It reached the coil, and the coil resistance is outside its range. Measure again with clean probes.'
          : 'It reached the coil. Measure the coil resistance first.',
    };
  const behind = leaks.filter(({ place }) => place === 'dial side');
  if (behind.some(({ severity }) => severity !== 'bloom'))
    return {
      verdict: 'new movement',
      reason: 'It reached train and calendar on the dial side, where cleaning from above cannot reach.',
    };
  return null;
}

/** What leaks spreads so far beside the place pointed at, mm. Ours. */
const SPREADS_MM = 2;

/**
 * Whether a leak lies within reach of a coil of the layout, its keep-clear zone included; of a leak nobody pointed at it is taken
 * to. Millimetres, as on the layout. Source: bench practice; the geometry of the layout.
 */
export function leakReachesCoil(
  { coils, keepClearMm }: Pick<Calibre, 'coils' | 'keepClearMm'>,
  { xMm, yMm }: { readonly xMm: number | null; readonly yMm: number | null },
): boolean {
  return coils.some(
    (coil) => xMm === null || yMm === null || isNearCoil(coil, xMm, yMm, keepClearMm + SPREADS_MM),
  );
}

/**
 * What to do about a leak: clean and observe, a new circuit, a new movement, each with its price and risk, and the one
 * advised. The place speaks first: a broken track or a severed coil needs a circuit, a leak at a coil nobody measured is
 * not decided, crust on the dial side is beyond cleaning. Else corrosion needs a circuit once the current after cleaning
 * stays over its limit, and lighter leaks are cleaned and watched. Where the watch is to stay original, cleaning comes
 * first as long as anything runs. Source: bench practice.
 */
export function leakOptions(given: LeakQuestion): LeakAdvice {
  const { currentAfterUA: after, figures } = given;
  const wrong = invalidFigures([
    {
      path: 'currentAfterUA',
      what: 'The current after cleaning',
      value: after,
      unit: 'µA',
      from: 0,
      to: measures.currentUA.max,
    },
    {
      path: 'limitUA',
      what: 'The limit of the current',
      value: figures.limitUA,
      unit: 'µA',
      over: 0,
      to: measures.currentUA.max,
    },
  ]).map(({ reason }) => reason);
  // A current that is none, or has no limit it can be held against, was not measured.
  const question = { ...given, currentAfterUA: wrong.length > 0 ? null : after };
  const { leaks, currentAfterUA, originalMatters } = question;
  const over = currentAfterUA !== null && currentAfterUA > figures.limitUA;
  const placed = byPlace(question);
  const corroded = leaks.some(({ severity }) => severity === 'corrosion');
  const verdict =
    placed?.verdict ??
    (wrong.length > 0
      ? ('not decided yet' as const)
      : over && (!originalMatters || corroded)
        ? ('new circuit' as const)
        : ('cleaned, observe' as const));
  const byCurrent = over
    ? `After cleaning it still draws ${figure(currentAfterUA)} µA, over ${figure(figures.limitUA)} µA.`
    : currentAfterUA === null
      ? 'Clean it, then measure the current again to decide.'
      : `After cleaning it draws ${figure(currentAfterUA)} µA, within ${figure(figures.limitUA)} µA.`;
  const reasons = [
    ...(placed ? [placed.reason] : wrong.length > 0 ? [] : [byCurrent]),
    ...wrong,
    ...(originalMatters ? ['The owner wants it original. Clean before you replace anything.'] : []),
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
    care:
      careFor(question.chemistry) +
      (leaks.some(({ place }) => place === 'coil') || question.byCoil ? OFF_THE_WINDING : ''),
    options: (Object.keys(PRICED) as Decision[]).map((decision) => ({
      decision,
      priceMinor: question.priceOf(PRICED[decision]),
      risk: RISK[decision],
      advised: decision === verdict,
    })),
  };
}
