import type { PricedItem } from '../policy';
import type { Fault } from './faults';

/** What is done about a fault: from the gentlest to the gravest. */
export interface Remedy {
  readonly what: string;
  readonly next: NextStep;
  /** What it is in the shop's price list; null where the service covers it. */
  readonly priced: PricedItem | null;
  readonly risk: string;
  /** Whether it takes an original part out of the watch. */
  readonly replaces: boolean;
}

export const NEXT_STEPS = [
  'nothing more',
  'new cell',
  'new accumulator',
  'clean',
  'service of the movement',
  'new circuit',
  'new movement',
  'refer',
] as const;
type NextStep = (typeof NEXT_STEPS)[number];

/** A remedy that leaves every original part in the watch: its next step, its price item, what is done, and the risk. */
const keeping = (next: NextStep, priced: PricedItem | null, what: string, risk: string): Remedy => ({
  next,
  priced,
  what,
  risk,
  replaces: false,
});

/** A remedy that takes an original part out. */
const replacing = (...remedy: Parameters<typeof keeping>): Remedy => ({
  ...keeping(...remedy),
  replaces: true,
});
const CLEAN: Remedy = keeping(
  'clean',
  'contacts-cleaned',
  'clean contacts and tracks, dry, measure again',
  'What has crept under a track may go on eating: see it again within a year.',
);
const SERVICE: Remedy = keeping(
  'service of the movement',
  'movement-oiled',
  'take the movement apart, clean and oil it',
  'Old parts may break on the way.',
);
const CIRCUIT: Remedy = replacing(
  'new circuit',
  'new-circuit',
  'a new circuit with its coil',
  'For old calibres none may be had.',
);
const MOVEMENT: Remedy = replacing(
  'new movement',
  'new-movement',
  'a new movement of the same calibre',
  'The watch is no longer original inside; hand holes and dial feet must match.',
);
const STRAIGHTEN: Remedy = keeping(
  'clean',
  'contact-set',
  'clean and set the contact beneath the cell, insulator in its place, then measure again',
  'A contact bent twice may break.',
);

export const REMEDIES: Readonly<Record<Fault, readonly Remedy[]>> = {
  'spent cell': [
    keeping(
      'new cell',
      null,
      'a fresh cell, then the current',
      'None but the ordinary; without the current nobody knows how long it lasts.',
    ),
  ],
  'tired accumulator': [
    keeping('clean', null, 'charge it fully and watch it, then judge', 'It may come back in weeks.'),
    replacing(
      'new accumulator',
      'accumulator-kit',
      'a new accumulator kit of this calibre',
      'A primary cell in its place would be driven backwards: never.',
    ),
  ],
  'merely discharged': [
    keeping(
      'nothing more',
      null,
      'charge it fully and watch it through a day',
      'It may come back in weeks: then its accumulator is tired.',
    ),
  ],
  'stop lever on': [keeping('nothing more', null, 'push the crown home and look again', 'None.')],
  'coil severed': [CIRCUIT, MOVEMENT],
  'turns of the coil shorted': [CIRCUIT, MOVEMENT],
  mechanical: [
    keeping(
      'clean',
      null,
      'free the rotor of fluff, set the arm back, see that no hand touches',
      'The rotor is magnetic: brass or plastic only.',
    ),
    SERVICE,
    MOVEMENT,
  ],
  'short circuit': [STRAIGHTEN, CIRCUIT],
  'contact does not touch': [STRAIGHTEN, CIRCUIT],
  'electrolyte or damp on the circuit': [CLEAN, CIRCUIT, MOVEMENT],
  'old oil and dirt': [SERVICE, MOVEMENT],
  'reset contact not used': [
    keeping(
      'nothing more',
      null,
      'join the reset contact as book or print names it',
      'Joined to the wrong pad it may not start again.',
    ),
  ],
  'circuit faulty': [CLEAN, CIRCUIT, MOVEMENT],
};
