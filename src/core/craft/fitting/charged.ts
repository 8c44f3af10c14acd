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
  'Take the accumulator out',
  'Lift it level by its rim. Do not replace it by a cell of the same size: only the kit for this calibre goes in.',
  { off: [{ part: 'accumulator', position: toBeNoted('in its place, which face up'), count: 1 }] },
);

const lay = (how: string): ChargedHand =>
  hand('level', 'Lay the accumulator level', how, {
    danger: 'A primary cell fitted here is charged by the watch: it leaks or bursts.',
    back: 'accumulator',
  });

/** How an accumulator leaves and comes back, by what charges it. Source: bench practice. */
export const CHARGED_WAYS: Readonly<Record<Charge['by'], ChargedWays>> = {
  light: {
    beforeHolder: [
      hand(
        'slots',
        'Note every tab and its slot',
        'Photograph each: which tab sits in which slot, and which side is up.',
      ),
    ],
    afterHolder: [
      hand('tabs', 'Take the tabs out of their slots', 'Pull each out straight without bending it.', {
        danger: 'A tab that is bent twice breaks off, and the kit contains no new slot.',
        off: [{ part: 'tab', position: toBeNoted('which slot, which side up'), count: 2 }],
      }),
      ACCUMULATOR_OUT,
    ],
    beforeHolderIn: [
      lay('Lever, wall and bridge must hold it on all sides. It must not rock.'),
      hand(
        'slots-in',
        'Put the tabs into their slots',
        'Align each where it was and press it home. Use the new tabs if the kit contains them.',
        {
          back: 'tabs',
        },
      ),
    ],
    afterHolderIn: [
      hand(
        'touch',
        'Measure across the tabs',
        'Measure the contact, do not assume it. Check a reused tab again soon.',
      ),
    ],
  },
  rotor: {
    beforeHolder: [
      hand(
        'rotor',
        'Take the rotor off',
        'Undo its screw first. Hold the rotor at its rim so that nothing turns with it.',
        {
          off: [
            { part: 'screw', position: 'of the rotor', count: 1 },
            { part: 'rotor', position: toBeNoted('which side up'), count: 1 },
          ],
        },
      ),
      hand(
        'wheel',
        'Take the wheel off its shaft',
        'Lift it straight. Note which side is up before you lay it down.',
        {
          off: [{ part: 'wheel', position: toBeNoted('on the rotor’s shaft, which side up'), count: 1 }],
        },
      ),
    ],
    afterHolder: [
      hand(
        'pegs',
        'Take the insulator off its pegs',
        'Keep it flat and do not crease it: it goes back on the same pegs.',
        {
          off: [{ part: 'insulator', position: toBeNoted('on which pegs'), count: 1 }],
        },
      ),
      ACCUMULATOR_OUT,
    ],
    beforeHolderIn: [
      lay('Lay it flat in its seat with the same face up.'),
      hand('pegs-in', 'Put the insulator on its pegs', 'It must lie on all of them by itself.', {
        danger: 'If it lies beside its pegs, the accumulator shorts through the plate.',
        back: 'pegs',
      }),
    ],
    afterHolderIn: [
      hand(
        'wheel-in',
        'Put the wheel on its shaft',
        'Put the same side up as before. Turn it until it drops by itself.',
        {
          danger: 'Pressing breaks a shaped shaft or the teeth of the wheel. Turn it until it drops.',
          back: 'wheel',
        },
      ),
      hand('rotor-in', 'Put the rotor on', 'Tighten its screw, and put each screw where it was.', {
        back: 'rotor',
      }),
      hand(
        'free',
        'Check that the rotor turns freely',
        'It must swing by itself both ways and touch nothing.',
      ),
    ],
  },
};
