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
  'Electrolyte under a track can keep corroding it. Check the watch again within a year.',
);
const SERVICE: Remedy = keeping(
  'service of the movement',
  'movement-oiled',
  'take the movement apart, clean and oil it',
  'Old parts may break during the work.',
);
const CIRCUIT: Remedy = replacing(
  'new circuit',
  'new-circuit',
  'a new circuit with its coil',
  'For an old calibre no circuit may be available.',
);
const MOVEMENT: Remedy = replacing(
  'new movement',
  'new-movement',
  'a new movement of the same calibre',
  'The watch is no longer original inside. The new movement must fit the holes of the hands and the feet of the dial.',
);
const STRAIGHTEN: Remedy = keeping(
  'clean',
  'contact-set',
  'clean and set the contact beneath the cell, insulator in its place, then measure again',
  'A contact that is bent twice may break.',
);

export const REMEDIES: Readonly<Record<Fault, readonly Remedy[]>> = {
  'spent cell': [
    keeping(
      'new cell',
      null,
      'a fresh cell, then the current',
      'No special risk. Without a current reading it is not known how long the cell will last.',
    ),
  ],
  'tired accumulator': [
    keeping('clean', null, 'charge it fully and watch it, then judge', 'It may stop again within weeks.'),
    replacing(
      'new accumulator',
      'accumulator-kit',
      'a new accumulator kit of this calibre',
      'Never fit a primary cell in its place. It would be charged and can burst.',
    ),
  ],
  'merely discharged': [
    keeping(
      'nothing more',
      null,
      'charge it fully and watch it through a day',
      'It may stop again within weeks. Then its accumulator is tired.',
    ),
  ],
  'stop lever on': [keeping('nothing more', null, 'push the crown home and look again', 'None.')],
  'coil severed': [CIRCUIT, MOVEMENT],
  'turns of the coil shorted': [CIRCUIT, MOVEMENT],
  mechanical: [
    keeping(
      'clean',
      null,
      'remove fluff from the rotor, set the arm back, check that no hand touches',
      'The rotor is magnetic. Use brass or plastic tools only.',
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
      'join the reset contact named in the book or the print',
      'If you join the wrong pad, it may not start again.',
    ),
  ],
  'circuit faulty': [CLEAN, CIRCUIT, MOVEMENT],
};
