import { type Ailing, assess, LOUPE, TOLD } from './assess';
import { chance } from './random';

/**
 * How often a named cause is real, on watches made from a table of its own: how faults are met, what each does to what is
 * looked at, and how often a look errs. The test that is asked next is taken, up to so many, as a technician would.
 */
type Outcomes = Readonly<Record<string, number>>;
interface Ailment {
  readonly fault: string;
  /** Met so often among a hundred watches brought. */
  readonly met: number;
  readonly of?: 'charged' | 'primary' | 'hands' | 'with reset';
  readonly does: Readonly<Record<string, Outcomes>>;
}

const AILMENTS: readonly Ailment[] = [
  { fault: '', met: 15, does: {} },
  {
    fault: 'spent cell',
    met: 44,
    of: 'primary',
    does: {
      rest: { spent: 0.8, falling: 0.17, fresh: 0.03 },
      load: { sags: 0.88, holds: 0.12 },
      shows: { dead: 0.7, 'in twos or fours': 0.14, runs: 0.16 },
      pulses: { none: 0.88, there: 0.12 },
      'light or alarm fails first': { there: 0.2, absent: 0.8 },
      'display fades': { there: 0.2, absent: 0.8 },
    },
  },
  {
    fault: 'tired accumulator',
    met: 34,
    of: 'charged',
    does: {
      rest: { spent: 0.7, falling: 0.2, fresh: 0.1 },
      load: { sags: 0.85, holds: 0.15 },
      shows: { dead: 0.45, 'in twos or fours': 0.4, runs: 0.15 },
      pulses: { none: 0.8, there: 0.2 },
      'after a charge': { 'low-supply steps': 0.62, 'does not run': 0.23, 'steps normally': 0.15 },
      'does not hold its charge': { there: 0.6, absent: 0.4 },
    },
  },
  {
    fault: 'merely discharged',
    met: 26,
    of: 'charged',
    does: {
      rest: { spent: 0.75, falling: 0.2, fresh: 0.05 },
      load: { sags: 0.8, holds: 0.2 },
      shows: { dead: 0.6, 'in twos or fours': 0.3, runs: 0.1 },
      pulses: { none: 0.85, there: 0.15 },
      'after a charge': { 'steps normally': 0.93, 'low-supply steps': 0.05, 'does not run': 0.02 },
      'does not hold its charge': { there: 0.12, absent: 0.88 },
    },
  },
  {
    fault: 'stop lever on',
    met: 3,
    of: 'hands',
    does: {
      crown: { pulled: 0.94, home: 0.06 },
      shows: { dead: 0.95, runs: 0.05 },
      current: { 'next to nothing': 0.85, 'as it should': 0.08, nothing: 0.07 },
      pulses: { none: 0.93, there: 0.07 },
    },
  },
  {
    fault: 'coil severed',
    met: 4,
    of: 'hands',
    does: {
      coil: { open: 0.93, suspect: 0.07 },
      shows: { dead: 0.97, runs: 0.03 },
      current: { 'next to nothing': 0.8, 'as it should': 0.1, nothing: 0.1 },
      pulses: { none: 0.94, there: 0.06 },
    },
  },
  {
    fault: 'turns of the coil shorted',
    met: 1.2,
    of: 'hands',
    does: {
      coil: { shorted: 0.88, suspect: 0.12 },
      shows: { dead: 0.6, runs: 0.4 },
      current: { 'over the limit': 0.6, 'far over the limit': 0.2, 'as it should': 0.2 },
      lowest: { late: 0.75, good: 0.25 },
    },
  },
  {
    fault: 'mechanical',
    met: 11,
    of: 'hands',
    does: {
      shows: { dead: 0.8, runs: 0.2 },
      'fluff at the rotor': { there: 0.4, absent: 0.6 },
      'arm touching the rotor': { there: 0.22, absent: 0.78 },
      'loose screw': { there: 0.15, absent: 0.85 },
      rate: { off: 0.45, good: 0.55 },
      'loses time': { there: 0.35, absent: 0.65 },
    },
  },
  {
    fault: 'short circuit',
    met: 2.2,
    does: {
      atFitting: { 'voltage collapses': 0.92, 'voltage holds': 0.08 },
      current: { 'far over the limit': 0.6, nothing: 0.25, 'over the limit': 0.15 },
      stopped: { over: 0.85, 'as it should': 0.15 },
      shows: { dead: 0.94, runs: 0.06 },
      pulses: { none: 0.9, there: 0.1 },
      'insulator missing': { there: 0.5, absent: 0.5 },
      'contact bent': { there: 0.3, absent: 0.7 },
      'cell inverted': { there: 0.15, absent: 0.85 },
    },
  },
  {
    fault: 'contact does not touch',
    met: 5,
    does: {
      current: { nothing: 0.9, 'next to nothing': 0.06, 'as it should': 0.04 },
      shows: { dead: 0.92, runs: 0.08 },
      pulses: { none: 0.94, there: 0.06 },
      'contact oxidised': { there: 0.5, absent: 0.5 },
      'contact bent': { there: 0.38, absent: 0.62 },
    },
  },
  {
    fault: 'electrolyte or damp on the circuit',
    met: 5,
    does: {
      current: { 'far over the limit': 0.55, 'over the limit': 0.37, 'as it should': 0.08 },
      stopped: { over: 0.82, 'as it should': 0.18 },
      shows: { runs: 0.65, dead: 0.35 },
      'crust or bloom': { there: 0.65, absent: 0.35 },
      'damp or rust': { there: 0.3, absent: 0.7 },
      'fog under the crystal': { there: 0.2, absent: 0.8 },
    },
  },
  {
    fault: 'old oil and dirt',
    met: 8,
    of: 'hands',
    does: {
      current: { 'over the limit': 0.68, 'as it should': 0.22, 'far over the limit': 0.1 },
      lowest: { late: 0.85, good: 0.15 },
      shows: { runs: 0.72, dead: 0.28 },
      rate: { off: 0.35, good: 0.65 },
      'loses time': { there: 0.4, absent: 0.6 },
    },
  },
  {
    fault: 'reset contact not used',
    met: 3,
    of: 'with reset',
    does: {
      shows: { scrambled: 0.75, dead: 0.2, runs: 0.05 },
      reset: { 'not used': 0.92, used: 0.08 },
    },
  },
  {
    fault: 'circuit faulty',
    met: 2,
    does: {
      pulses: { none: 0.88, there: 0.12 },
      shows: { dead: 0.85, scrambled: 0.08, runs: 0.07 },
      current: {
        'next to nothing': 0.4,
        'as it should': 0.25,
        nothing: 0.12,
        'far over the limit': 0.13,
        'over the limit': 0.1,
      },
    },
  },
];

/** What is seen where nothing that ails it touches it; looks and meters err now and then. */
const HEALTHY: Readonly<Record<string, Outcomes>> = {
  crown: { home: 0.98, pulled: 0.02 },
  shows: { runs: 0.97, dead: 0.02, 'in twos or fours': 0.01 },
  pulses: { there: 0.94, none: 0.06 },
  atFitting: { 'voltage holds': 0.99, 'voltage collapses': 0.01 },
  rest: { fresh: 0.62, falling: 0.38 },
  load: { holds: 0.96, sags: 0.04 },
  current: { 'as it should': 0.965, 'over the limit': 0.015, 'next to nothing': 0.015, nothing: 0.005 },
  stopped: { 'as it should': 0.96, over: 0.04 },
  coil: { good: 0.975, suspect: 0.02, open: 0.005 },
  lowest: { good: 0.95, late: 0.05 },
  rate: { good: 0.95, off: 0.05 },
  reset: { used: 0.85, 'not used': 0.15 },
  'crust or bloom': { absent: 0.96, there: 0.04 },
  'damp or rust': { absent: 0.97, there: 0.03 },
  'fluff at the rotor': { absent: 0.95, there: 0.05 },
  'loose screw': { absent: 0.97, there: 0.03 },
  'insulator missing': { absent: 0.985, there: 0.015 },
  'contact bent': { absent: 0.975, there: 0.025 },
  'contact oxidised': { absent: 0.95, there: 0.05 },
  'cell inverted': { absent: 0.995, there: 0.005 },
  'arm touching the rotor': { absent: 0.99, there: 0.01 },
  'after a charge': { 'steps normally': 0.96, 'low-supply steps': 0.02, 'does not run': 0.02 },
  'display fades': { absent: 0.98, there: 0.02 },
  'light or alarm fails first': { absent: 0.98, there: 0.02 },
  'does not hold its charge': { absent: 0.96, there: 0.04 },
  'loses time': { absent: 0.95, there: 0.05 },
  'fog under the crystal': { absent: 0.98, there: 0.02 },
};
/** What of two ailments shows: whichever is worse. */
const WORSE: readonly string[] = [
  'runs',
  'in twos or fours',
  'scrambled',
  'dead',
  'as it should',
  'over the limit',
  'far over the limit',
  'next to nothing',
  'nothing',
  'fresh',
  'falling',
  'spent',
  'holds',
  'sags',
  'good',
  'suspect',
  'late',
  'off',
  'shorted',
  'open',
  'there',
  'none',
  'home',
  'pulled',
  'voltage holds',
  'voltage collapses',
  'used',
  'not used',
  'over',
  'steps normally',
  'low-supply steps',
  'does not run',
];
const drawing = chance(7301);
const { uniform, drawn } = drawing;
const outcomeOf = (shares: Outcomes): string => drawn(Object.entries(shares));
const signWorse = (a: string, b: string, observable: string): string =>
  LOUPE.includes(observable) || TOLD.includes(observable)
    ? a === 'there' || b === 'there'
      ? 'there'
      : 'absent'
    : WORSE.indexOf(a) >= WORSE.indexOf(b)
      ? a
      : b;

function made(): Ailing {
  const charges = uniform() < 0.18;
  const hasHands = uniform() < 0.88;
  const hasReset = !hasHands || uniform() < 0.2;
  const may = AILMENTS.filter(
    ({ of }) =>
      of === undefined ||
      (of === 'charged' ? charges : of === 'primary' ? !charges : of === 'hands' ? hasHands : hasReset),
  );
  const first = drawn(may.map((each) => [each, each.met] as const));
  const others = may.filter(({ fault }) => fault !== '' && fault !== first.fault);
  const second =
    first.fault !== '' && uniform() < 0.08 ? drawn(others.map((each) => [each, each.met] as const)) : null;
  const ailments = [first, ...(second ? [second] : [])];
  const seen = new Map<string, string>();
  const look = (observable: string): string => {
    const known = seen.get(observable);
    if (known !== undefined) return known;
    const touching: readonly Outcomes[] = ailments.flatMap(({ does }) => {
      const effect = does[observable];
      return effect ? [effect] : [];
    });
    const outcome =
      touching.length === 0
        ? outcomeOf(HEALTHY[observable] ?? { absent: 1 })
        : touching.map(outcomeOf).reduce((a, b) => signWorse(a, b, observable));
    // What stands still for any reason is not brought back by a charge.
    const answer =
      observable === 'after a charge' && touching.length === 0 && look('shows') === 'dead'
        ? 'does not run'
        : outcome;
    seen.set(observable, answer);
    return answer;
  };
  return {
    faults: ailments.map(({ fault }) => fault).filter((fault) => fault !== ''),
    look,
    question: {
      observed: new Map(),
      freshCell: false,
      changedLately: false,
      charges,
      lowSupplySignal: uniform() < 0.6 ? 'it steps in twos' : null,
      hasReset: uniform() < 0.7 ? hasReset : null,
      hasHands,
      stepIntervalS: 1,
      watchedSeconds: 60,
      originalMatters: false,
      priceOf: () => 1000,
    },
  };
}

if (!assess('of another table', 3000, drawing, made)) process.exitCode = 1;
