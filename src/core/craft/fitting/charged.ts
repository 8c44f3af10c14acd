import type { Charge } from '../movements';
import { toBeNoted } from '../parts';
import type { PlacedPart } from './holders';

/** One movement of the hand at an accumulator, as it is read at the bench. */
export interface ChargedHand {
  readonly id: string;
  readonly what: string;
  readonly how: string;
  readonly danger: string | null;
  readonly off: readonly PlacedPart[];
  /** The movement of the way out whose parts go back here. */
  readonly back: string | null;
}

const hand = (
  id: string,
  what: string,
  how: string,
  more: Partial<Pick<ChargedHand, 'danger' | 'off' | 'back'>> = {},
): ChargedHand => ({ id, what, how, danger: null, off: [], back: null, ...more });

/** What is done beside the holder of an accumulator: before it on the way out, after it, and the same back. */
export interface ChargedWays {
  readonly beforeHolder: readonly ChargedHand[];
  readonly afterHolder: readonly ChargedHand[];
  readonly beforeHolderIn: readonly ChargedHand[];
  readonly afterHolderIn: readonly ChargedHand[];
}

const ACCUMULATOR_OUT = hand(
  'accumulator',
  'Accumulator out',
  'By its rim, level. It is no spent cell to be replaced by any of its size: the kit of this calibre goes in.',
  { off: [{ part: 'accumulator', position: toBeNoted('in its place, which face up'), count: 1 }] },
);

const lay = (how: string): ChargedHand =>
  hand('level', 'Lay the accumulator level', how, {
    danger: 'A primary cell in its place is driven backwards: it leaks or bursts.',
    back: 'accumulator',
  });

/** How an accumulator leaves and comes back, by what charges it. Source: bench practice. */
export const CHARGED_WAYS: Readonly<Record<Charge['by'], ChargedWays>> = {
  light: {
    beforeHolder: [
      hand(
        'slots',
        'Note every tab and its slot',
        'Which tab in which slot, which side up: a photograph of each.',
      ),
    ],
    afterHolder: [
      hand('tabs', 'Tabs out of their slots', 'Each straight, none bent.', {
        danger: 'A bent tab breaks off at the second bending, and the kit brings no slot.',
        off: [{ part: 'tab', position: toBeNoted('which slot, which side up'), count: 2 }],
      }),
      ACCUMULATOR_OUT,
    ],
    beforeHolderIn: [
      lay('Retained on all sides: lever, wall and bridge; it does not rock.'),
      hand(
        'slots-in',
        'Tabs into their slots',
        'Each where it was, aligned, pressed home. Of the kit where it brings them.',
        {
          back: 'tabs',
        },
      ),
    ],
    afterHolderIn: [
      hand(
        'touch',
        'Measure across the tabs',
        'The contact is measured, not believed: a transferred tab above all, and looked at again early.',
      ),
    ],
  },
  rotor: {
    beforeHolder: [
      hand('rotor', 'Rotor off', 'Its screw first, held at the rim so that nothing turns with it.', {
        off: [
          { part: 'screw', position: 'of the rotor', count: 1 },
          { part: 'rotor', position: toBeNoted('which side up'), count: 1 },
        ],
      }),
      hand('wheel', 'Wheel off its shaft', 'Lifted straight; its upper side is noted before it lies down.', {
        off: [{ part: 'wheel', position: toBeNoted('on the rotor’s shaft, which side up'), count: 1 }],
      }),
    ],
    afterHolder: [
      hand('pegs', 'Insulator off its pegs', 'Flat, not creased: it goes back on the same pegs.', {
        off: [{ part: 'insulator', position: toBeNoted('on which pegs'), count: 1 }],
      }),
      ACCUMULATOR_OUT,
    ],
    beforeHolderIn: [
      lay('Flat in its seat, the same face up.'),
      hand('pegs-in', 'Insulator on its pegs', 'It lies by itself on all of them.', {
        danger: 'Beside its pegs it lets the accumulator short through the plate.',
        back: 'pegs',
      }),
    ],
    afterHolderIn: [
      hand('wheel-in', 'Wheel on its shaft', 'Its upper side up; turned until it drops by itself.', {
        danger: 'Pressed on, a shaped shaft or the wheel’s teeth break: it drops, or it is turned on.',
        back: 'wheel',
      }),
      hand('rotor-in', 'Rotor on', 'Its screw firm, each screw where it was.', { back: 'rotor' }),
      hand('free', 'Rotor turns freely', 'It swings out by itself both ways, and touches nothing.'),
    ],
  },
};
