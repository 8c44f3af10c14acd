import { figure } from '../judgement';
import type { Calibre, FunctionKind } from '../movements';
import type { StageId } from '../policy';

/** What is proved beside the movement's own functions, where it has what they need. */
export const FURTHER_PROOFS = [
  'reset contact joined',
  'signals low when shaded',
  'hands and display agree',
] as const;

/** What of a movement is proved. */
export type Proof = FunctionKind | (typeof FURTHER_PROOFS)[number];

/** What every watch has or may have beside its movement's functions. */
export const OUTSIDE = [
  'crown in every position',
  'pushers',
  'bezel',
  'bracelet seated, gentle pull',
] as const;
export type Outside = (typeof OUTSIDE)[number];

export const PROOF_RESULTS = ['works', 'does not work', 'not applicable'] as const;
export type ProofResult = (typeof PROOF_RESULTS)[number];

export interface ProofStep<What extends string = Proof> {
  readonly what: What;
  readonly how: string;
  /** Why it is asked where the movement alone does not: the owner's complaint, a part that was lost; null where it does. */
  readonly because: string | null;
}

/** What of a movement decides what is proved and how long it is watched: of the book, or as it was seen. */
export type ProvedMovement = Pick<Calibre, 'functions' | 'stepIntervalS'> &
  Partial<Pick<Calibre, 'lowSupplySignal' | 'charge' | 'resetContact'>>;

/** A display without hands has none to pass, and no crown to find midnight with. */
export const onDisplayAlone = (functions: Calibre['functions']): boolean =>
  functions.includes('digital display') && !functions.includes('hands');

const HOW: Readonly<Record<Proof, (movement: ProvedMovement) => string>> = {
  hands: () => 'The hands clear each other and the dial all the way round.',
  'seconds hand': ({ stepIntervalS }) =>
    stepIntervalS === null
      ? 'It steps evenly and lands on its marks.'
      : `Steps every ${figure(stepIntervalS)} s and lands on its marks.`,
  date: ({ functions }) =>
    onDisplayAlone(functions)
      ? 'The date shows on the display and is set with its buttons.'
      : 'The date changes at midnight: find midnight with the crown before setting it.',
  day: ({ functions }) =>
    onDisplayAlone(functions)
      ? 'The weekday shows on the display and follows its date.'
      : 'The weekday changes with the date and shows the right language.',
  light: () => 'The light comes on and goes out again.',
  alarm: () => 'The alarm sounds at the time set, and stops.',
  chronograph: () => 'Start, stop, reset: every counter returns to zero.',
  'digital display': () => 'Every segment shows at power-up.',
  'low-supply signal': ({ lowSupplySignal = null, charge = null }) => {
    const known =
      lowSupplySignal === null ? 'The book has no low-supply sign.' : `Its sign: ${lowSupplySignal}.`;
    return charge === null
      ? `${known} It must be gone with the new cell.`
      : `${known} It may show until the watch is charged. Once charged, in the light, it disappears.`;
  },
  charging: ({ charge = null }) =>
    charge?.by === 'rotor'
      ? 'The rotor turns freely, and the steps become normal as it is worn.'
      : 'Steps normally in the light. If not, check solar cell and tabs.',
  'reset contact joined': ({ resetContact = null }) =>
    resetContact === null ? 'Joined as printed on the module.' : `Joined: ${resetContact}.`,
  'signals low when shaded': ({ lowSupplySignal = null }) =>
    lowSupplySignal === null
      ? 'With the dial covered it signals missing light. If not, check solar cell and tabs.'
      : `With the dial covered it shows: ${lowSupplySignal}. If not, check solar cell and tabs.`,
  'hands and display agree': () =>
    'Hands and display show the same minute, and the display must show the right half of the day (a.m. or p.m.).',
};

/** What a watch has to be proved beyond what its movement is known for, and why. */
export interface AddedProof {
  readonly what: Proof;
  readonly because: string;
}

const further = (movement: ProvedMovement): readonly Proof[] => [
  ...(movement.resetContact ? (['reset contact joined'] as const) : []),
  ...(movement.charge?.by === 'light' ? (['signals low when shaded'] as const) : []),
  ...(movement.functions.includes('hands') && movement.functions.includes('digital display')
    ? (['hands and display agree'] as const)
    : []),
];

/**
 * What has to be proved working, in the order the hand does it: what the movement has, then what the owner's complaint or a
 * part that was lost or replaced adds. Each stands once, with the reason where there is one. Source: bench practice.
 */
export function proofsToMake(
  movement: ProvedMovement | null,
  added: readonly AddedProof[] = [],
): readonly ProofStep[] {
  const own: readonly Proof[] = movement === null ? [] : [...movement.functions, ...further(movement)];
  const of = movement ?? { functions: [], stepIntervalS: null };
  const because = (what: Proof): string | null => added.find((each) => each.what === what)?.because ?? null;
  const all = new Set<Proof>([...own, ...added.map(({ what }) => what)]);
  return [...all].map((what) => ({ what, how: HOW[what](of), because: because(what) }));
}

/** Where the hand goes back to when something does not work, and what is looked at there. Source: bench practice. */
export interface WayBack {
  readonly stage: StageId;
  readonly look: string;
}

const BACK: Readonly<Record<Proof | Outside, WayBack>> = {
  hands: { stage: 'check', look: 'whether the hands touch each other, the dial or the crystal' },
  'seconds hand': { stage: 'check', look: 'current, coil and pulses' },
  date: {
    stage: 'set',
    look: 'check whether the date changes at midnight; if the wheel slips, send it to the workshop',
  },
  day: {
    stage: 'set',
    look: 'check whether the date changes at midnight; if the wheel slips, send it to the workshop',
  },
  light: { stage: 'cell', look: 'its own cell where it has one, the switch tab at its pusher, the contacts' },
  alarm: { stage: 'cell', look: 'the buzzer spring upright and meeting the back, the contacts' },
  chronograph: {
    stage: 'check',
    look: 'voltage under load; a weak cell runs the hands but not the counters',
  },
  'digital display': { stage: 'cell', look: 'the reset contact joined, the strips and contacts clean' },
  'low-supply signal': { stage: 'cell', look: 'the voltage of what was fitted, its contacts' },
  charging: { stage: 'cell', look: 'solar cell and tabs, or rotor and wheel; how long it was charged' },
  'reset contact joined': { stage: 'cell', look: 'which pad goes to which face of the cell' },
  'signals low when shaded': { stage: 'cell', look: 'solar cell and tabs' },
  'hands and display agree': {
    stage: 'set',
    look: 'set the hands once more, then the display on the signal',
  },
  'crown in every position': {
    stage: 'open',
    look: 'stem and lever, the movement ring, the movement in its seat',
  },
  pushers: { stage: 'open', look: 'pusher, its spring and clip; the movement in its seat' },
  bezel: { stage: 'open', look: 'dirt under it, its spring; its ring' },
  'bracelet seated, gentle pull': {
    stage: 'open',
    look: 'spring bars and pins, each in its hole on both sides',
  },
};

/** Where to look when something that was tried does not work. */
export function wayBackOf(what: Proof | Outside): WayBack {
  return BACK[what];
}
