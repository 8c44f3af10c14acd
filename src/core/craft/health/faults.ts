/** What ails a watch that will not run as it should. */
export const FAULTS = [
  'spent cell',
  'tired accumulator',
  'merely discharged',
  'stop lever on',
  'coil severed',
  'turns of the coil shorted',
  'mechanical',
  'short circuit',
  'contact does not touch',
  'electrolyte or damp on the circuit',
  'old oil and dirt',
  'reset contact not used',
  'circuit faulty',
] as const;
export type Fault = (typeof FAULTS)[number];

export const SHOWS = [
  'runs as it should',
  'stands still',
  'steps in twos or fours',
  'display scrambled',
  'display blank',
] as const;
export type Shows = (typeof SHOWS)[number];

/** What is seen with a loupe on the open watch. */
export const SIGNS_OF_FAULT = [
  'crust or bloom',
  'damp or rust',
  'fluff at the rotor',
  'loose screw',
  'insulator missing',
  'contact bent',
  'contact oxidised',
  'cell inverted',
  'arm touching the rotor',
] as const;
export type SignOfFault = (typeof SIGNS_OF_FAULT)[number];

/** What only an owner tells: heard, it speaks; not told, it says nothing. */
export const TOLD = [
  'display fades',
  'light or alarm fails first',
  'does not hold its charge',
  'loses time',
  'fog under the crystal',
] as const;
export type Told = (typeof TOLD)[number];

/** How each thing looked at or measured can come out, the sound watch's first. */
export const OUTCOMES = {
  crown: ['home', 'pulled'],
  shows: ['runs', 'dead', 'in twos or fours', 'scrambled'],
  pulses: ['there', 'none'],
  atFitting: ['voltage holds', 'voltage collapses'],
  rest: ['fresh', 'falling', 'spent'],
  load: ['holds', 'sags'],
  current: ['as it should', 'nothing', 'next to nothing', 'over the limit', 'far over the limit'],
  stopped: ['as it should', 'over'],
  coil: ['good', 'suspect', 'open', 'shorted'],
  lowest: ['good', 'late'],
  rate: ['good', 'off'],
  reset: ['used', 'not used'],
  'crust or bloom': ['absent', 'there'],
  'damp or rust': ['absent', 'there'],
  'fluff at the rotor': ['absent', 'there'],
  'loose screw': ['absent', 'there'],
  'insulator missing': ['absent', 'there'],
  'contact bent': ['absent', 'there'],
  'contact oxidised': ['absent', 'there'],
  'cell inverted': ['absent', 'there'],
  'arm touching the rotor': ['absent', 'there'],
  'after a charge': ['steps normally', 'low-supply steps', 'does not run'],
  'display fades': ['absent', 'there'],
  'light or alarm fails first': ['absent', 'there'],
  'does not hold its charge': ['absent', 'there'],
  'loses time': ['absent', 'there'],
  'fog under the crystal': ['absent', 'there'],
} as const satisfies Record<string, readonly string[]>;
export type Observable = keyof typeof OUTCOMES;
export const OBSERVABLES = Object.keys(OUTCOMES) as Observable[];

/** What a look or reading costs (1: a glance), and how a technician is told to take it. */
export const TESTS: Readonly<
  Partial<Record<Observable, { readonly effort: number; readonly words: string }>>
> = {
  crown: { effort: 1, words: 'check whether the crown is pushed home' },
  'crust or bloom': { effort: 1, words: 'look for crust, damp, fluff and bent contacts with a loupe' },
  shows: { effort: 2, words: 'watch what it shows' },
  pulses: { effort: 2, words: 'detect motor pulses through the closed watch' },
  reset: { effort: 2, words: 'join the reset contact as the book says, and look again' },
  rest: { effort: 3, words: 'measure the rest voltage of the cell' },
  atFitting: { effort: 3, words: 'watch the voltage while you insert a trial cell' },
  load: { effort: 4, words: 'measure the cell under load' },
  current: { effort: 4, words: 'measure the current, powered by the meter' },
  stopped: { effort: 5, words: 'measure the current with the motor stopped' },
  coil: { effort: 5, words: 'measure the coil' },
  rate: { effort: 5, words: 'measure the rate' },
  lowest: { effort: 6, words: 'lower the supply until it stops' },
  'after a charge': { effort: 7, words: 'charge it fully, then see how it runs' },
};

type Shares<O extends Observable> = Readonly<Partial<Record<(typeof OUTCOMES)[O][number], number>>>;
type Effects = { readonly [O in Observable]?: Shares<O> };

/** How often each outcome comes of a sound watch; what is not named shares the rest. */
const SEEN_ON_SOUND = { there: 0.04 } as const;
export const SOUND: { readonly [O in Observable]: Shares<O> } = {
  crown: { home: 0.99 },
  shows: { runs: 0.955, dead: 0.015, 'in twos or fours': 0.015, scrambled: 0.015 },
  pulses: { there: 0.96 },
  atFitting: { 'voltage holds': 0.997 },
  // A cell that measures spent is spent, whatever emptied it.
  rest: { fresh: 0.6, falling: 0.37, spent: 0.03 },
  load: { holds: 0.95 },
  current: {
    'as it should': 0.955,
    // A probe that does not touch.
    nothing: 0.01,
    'next to nothing': 0.02,
    'over the limit': 0.013,
    'far over the limit': 0.002,
  },
  stopped: { 'as it should': 0.95 },
  coil: { good: 0.972, suspect: 0.02, open: 0.003, shorted: 0.005 },
  lowest: { good: 0.95 },
  // Its quartz ages: a rate may be off in a watch that nothing else ails, and that is why it is brought.
  rate: { good: 0.9 },
  reset: { used: 0.8 },
  'crust or bloom': SEEN_ON_SOUND,
  'damp or rust': SEEN_ON_SOUND,
  'fluff at the rotor': SEEN_ON_SOUND,
  'loose screw': SEEN_ON_SOUND,
  'insulator missing': { there: 0.015 },
  'contact bent': { there: 0.02 },
  'contact oxidised': SEEN_ON_SOUND,
  'cell inverted': { there: 0.003 },
  'arm touching the rotor': { there: 0.01 },
  'after a charge': { 'steps normally': 0.98, 'low-supply steps': 0.01, 'does not run': 0.01 },
  'display fades': { there: 0.02 },
  'light or alarm fails first': { there: 0.02 },
  'does not hold its charge': { there: 0.03 },
  'loses time': { there: 0.05 },
  'fog under the crystal': { there: 0.02 },
};

/** A cell on its way down sags sooner than a fresh one, though it drives its watch for months yet. */
export const LOAD_WHERE_FALLING: Shares<'load'> = { holds: 0.8 };

/**
 * What each fault does to what is looked at and measured, and how often it is met for one sound watch that was brought.
 * A fault says nothing of what it does not name. In order: where two faults touch the same thing the earlier one decides
 * what is seen, since nothing flows past an open contact. The pairings are the trade's; the shares are ours, from bench
 * practice, and named in the docs.
 */
export const EFFECTS: readonly { readonly fault: Fault; readonly odds: number; readonly does: Effects }[] = [
  {
    fault: 'contact does not touch',
    odds: 0.05,
    does: {
      current: { nothing: 0.96 },
      shows: { dead: 0.97 },
      pulses: { none: 0.97 },
      'contact oxidised': { there: 0.45 },
      'contact bent': { there: 0.45 },
    },
  },
  {
    fault: 'short circuit',
    odds: 0.02,
    does: {
      atFitting: { 'voltage collapses': 0.96 },
      current: { 'far over the limit': 0.5, nothing: 0.25 },
      stopped: { over: 0.9 },
      shows: { dead: 0.96 },
      pulses: { none: 0.92 },
      'insulator missing': { there: 0.45 },
      'contact bent': { there: 0.35 },
      'cell inverted': { there: 0.25 },
    },
  },
  {
    fault: 'stop lever on',
    odds: 0.04,
    does: {
      crown: { pulled: 0.97 },
      shows: { dead: 0.97 },
      current: { 'next to nothing': 0.92 },
      pulses: { none: 0.97 },
    },
  },
  {
    fault: 'coil severed',
    odds: 0.03,
    does: {
      coil: { open: 0.97 },
      shows: { dead: 0.98 },
      current: { 'next to nothing': 0.75, 'as it should': 0.15 },
      pulses: { none: 0.97 },
    },
  },
  {
    fault: 'turns of the coil shorted',
    odds: 0.01,
    does: {
      coil: { shorted: 0.95 },
      current: { 'over the limit': 0.65, 'far over the limit': 0.15 },
      stopped: { 'as it should': 0.95 },
      shows: { dead: 0.5, runs: 0.45 },
      lowest: { late: 0.7 },
    },
  },
  {
    fault: 'circuit faulty',
    odds: 0.015,
    does: {
      pulses: { none: 0.93 },
      shows: { dead: 0.9, scrambled: 0.05 },
      current: {
        'next to nothing': 0.45,
        'as it should': 0.2,
        nothing: 0.1,
        'over the limit': 0.1,
        'far over the limit': 0.15,
      },
    },
  },
  {
    fault: 'electrolyte or damp on the circuit',
    odds: 0.05,
    does: {
      current: { 'far over the limit': 0.65, 'over the limit': 0.28 },
      stopped: { over: 0.88 },
      shows: { runs: 0.75, dead: 0.18 },
      'crust or bloom': { there: 0.6 },
      'damp or rust': { there: 0.35 },
      'fog under the crystal': { there: 0.3 },
    },
  },
  {
    fault: 'mechanical',
    odds: 0.15,
    does: {
      // It comes and goes: many a watch that stopped runs on the bench.
      shows: { dead: 0.77, runs: 0.2 },
      // A motor that does not turn is given longer pulses by many circuits.
      current: { 'as it should': 0.76, 'over the limit': 0.19 },
      rate: { off: 0.4 },
      'loses time': { there: 0.3 },
      'fluff at the rotor': { there: 0.35 },
      lowest: { late: 0.25 },
      'loose screw': { there: 0.12 },
      'arm touching the rotor': { there: 0.3 },
    },
  },
  {
    fault: 'old oil and dirt',
    odds: 0.08,
    does: {
      current: { 'over the limit': 0.62, 'far over the limit': 0.13, 'as it should': 0.25 },
      lowest: { late: 0.8 },
      shows: { runs: 0.76, dead: 0.18 },
      rate: { off: 0.3 },
      'loses time': { there: 0.3 },
      // Dirt is seen as dirt.
      'fluff at the rotor': { there: 0.12 },
    },
  },
  {
    fault: 'reset contact not used',
    odds: 0.03,
    does: { shows: { scrambled: 0.82, dead: 0.15 }, reset: { 'not used': 0.95 } },
  },
  {
    fault: 'spent cell',
    odds: 0.6,
    does: {
      rest: { spent: 0.86, falling: 0.11 },
      load: { sags: 0.92 },
      shows: { dead: 0.6, 'in twos or fours': 0.22, runs: 0.16 },
      pulses: { none: 0.96 },
      'display fades': { there: 0.3 },
      'light or alarm fails first': { there: 0.3 },
      'loses time': { there: 0.2 },
    },
  },
  {
    fault: 'tired accumulator',
    odds: 0.6,
    does: {
      rest: { spent: 0.8, falling: 0.15 },
      load: { sags: 0.9 },
      shows: { dead: 0.5, 'in twos or fours': 0.35, runs: 0.13 },
      pulses: { none: 0.9 },
      'after a charge': { 'steps normally': 0.27, 'low-supply steps': 0.5, 'does not run': 0.23 },
      'does not hold its charge': { there: 0.5 },
      'display fades': { there: 0.3 },
      'light or alarm fails first': { there: 0.2 },
      'loses time': { there: 0.2 },
    },
  },
  {
    // A watch from a drawer: nothing is wrong with it but that it saw no light.
    fault: 'merely discharged',
    odds: 0.6,
    does: {
      rest: { spent: 0.8, falling: 0.15 },
      load: { sags: 0.85 },
      shows: { dead: 0.5, 'in twos or fours': 0.35, runs: 0.13 },
      pulses: { none: 0.9 },
      'after a charge': { 'steps normally': 0.94, 'low-supply steps': 0.05 },
      'does not hold its charge': { there: 0.12 },
      'display fades': { there: 0.3 },
      'light or alarm fails first': { there: 0.2 },
      'loses time': { there: 0.2 },
    },
  },
];

/** What any one of several faults is enough to bring about; of all else the earliest in the list decides. */
export const BROUGHT_ABOUT: Readonly<Partial<Record<Observable, string>>> = {
  shows: 'dead',
  pulses: 'none',
  rest: 'spent',
  load: 'sags',
  stopped: 'over',
  lowest: 'late',
  rate: 'off',
  ...Object.fromEntries([...SIGNS_OF_FAULT, ...TOLD].map((sign) => [sign, 'there'])),
};

/** So often a look or a reading is another than it should be, whatever ails the watch: nothing is ever quite impossible. Ours. */
const MISREAD = 0.008;

/** A coil that reads open is open: a probe that slips is set on again. */
const COIL_MISREAD = 0.004;

/** What one outcome's share is under a fault's effect; what the effect does not name shares the rest. Never nought. */
export function shareOf(
  observable: Observable,
  shares: Readonly<Partial<Record<string, number>>>,
  outcome: string,
): number {
  const outcomes: readonly string[] = OUTCOMES[observable];
  const wrongly = observable === 'coil' ? COIL_MISREAD : MISREAD;
  const misread = wrongly / outcomes.length;
  const named = shares[outcome];
  if (named !== undefined) return named * (1 - wrongly) + misread;
  const left = 1 - Object.values(shares).reduce<number>((sum, share) => sum + (share ?? 0), 0);
  const each = left / Math.max(1, outcomes.length - Object.keys(shares).length);
  return Math.max(0, each) * (1 - wrongly) + misread;
}

/** What is measured against a limit, or seen of the movement itself; a sign beside it may be there on a sound watch. */
const WITHIN_LIMITS: readonly Observable[] = [
  'shows',
  'pulses',
  'atFitting',
  'rest',
  'load',
  'current',
  'stopped',
  'coil',
  'lowest',
  'rate',
  'after a charge',
];

/** Whether a reading is past its limit, or the movement does what a sound one does not. */
export function isPastLimit(observable: Observable, outcome: string): boolean {
  const [sound] = OUTCOMES[observable];
  // A cell on its way down is no fault of the watch.
  return WITHIN_LIMITS.includes(observable) && outcome !== sound && outcome !== 'falling';
}
