import type { HoldKind } from '../movements';

/** One movement of the hand, as it is read at the bench. */
interface Hand {
  readonly id: string;
  readonly what: string;
  readonly how: string;
}

const hand = (id: string, what: string, how: string): Hand => ({ id, what, how });

/** The hand movements that take a cell out of a holder and put one in, and the danger of that holder. */
export interface HolderWays {
  readonly out: readonly Hand[];
  readonly in: readonly Hand[];
  readonly danger: string;
  /** The steps at which that danger is met. */
  readonly dangerAt: readonly string[];
}

/** How each holder is worked. Source: bench practice. */
export const HOLDER_WAYS: Readonly<Record<HoldKind, HolderWays>> = {
  'side lever': {
    out: [
      hand('push', 'Push the lever', 'Along the arrow, away from the cell, only until the cell rises.'),
      hand(
        'take',
        'Take the cell out',
        'By its rim, as soon as it stands free. The lever’s screw is left alone.',
      ),
    ],
    in: [
      hand('under', 'In under the fixed edge first', 'Opposite the lever, flat, until it meets the wall.'),
      hand('back', 'Draw the lever back again', 'Along the arrow, no farther than on the way out.'),
      hand('down', 'Then down', 'At the rim on the lever’s side, until it lies level.'),
      hand('home', 'Lever home', 'It lies on the rim again, not beside or under the cell.'),
    ],
    danger: 'Pushed on, the lever drops beside the cell and touches the motor. Wood or plastic.',
    dangerAt: ['push', 'back'],
  },
  'clip on one side': {
    out: [hand('lift', 'Lift at the open side', 'Opposite the clip; slide the cell out from under it.')],
    in: [
      hand('under', 'In under the clip first', 'Flat, until it meets the end of the clip.'),
      hand('down', 'Then down', 'Press at the rim until it lies level.'),
    ],
    danger: 'Lifted at the clip itself, it stays bent and loses contact.',
    dangerAt: ['lift'],
  },
  'sprung contact at the rim': {
    out: [hand('lift', 'Push against the spring and lift', 'Along the arrow; the far side rises first.')],
    in: [
      hand('against', 'In against the spring first', 'The rim presses the spring back as far as it goes.'),
      hand('down', 'Then down', 'The spring closes over the rim by itself.'),
    ],
    danger: 'Pressed straight in, the spring folds under the cell.',
    dangerAt: ['against'],
  },
  'screwed bridge': {
    out: [
      hand('unscrew', 'Loosen the bridge', 'Fitting blade, upright; the screws to the tray in their places.'),
      hand('bridge', 'Lift bridge and cell', 'The bridge off its peg, then the cell by its rim.'),
    ],
    in: [
      hand('lay', 'Lay the cell in its well', 'Level, before the bridge.'),
      hand('peg', 'Set the bridge on its peg', 'It sits by itself before a screw is turned.'),
      hand('screw', 'Turn the screws in', 'Each until it holds, then snug.'),
    ],
    danger: 'A blade that slips lands on the coil.',
    dangerAt: ['unscrew'],
  },
  'latch on a module': {
    out: [
      hand('module', 'Take the module out', 'Past its pushers, spacers to the tray as parts.'),
      hand('latch', 'Open the latch', 'Along the arrow; the cell comes out with it.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Under the open latch.'),
      hand('close', 'Close the latch', 'Until it clicks; then the module back past its pushers.'),
    ],
    danger: 'Forced, the pusher tabs bend and stay silent.',
    dangerAt: ['module'],
  },
  'stacked light module': {
    out: [hand('upper', 'Take the upper module’s cell', 'It lies above; the lower one is left in.')],
    in: [
      hand('lay', 'Lay the cell in the upper module', 'Its face as drawn.'),
      hand('tab', 'Bring the switch tab under the pusher', 'Push it once: the light must answer now.'),
    ],
    danger: 'Missed, the light stays dark and the module comes out once more.',
    dangerAt: ['tab'],
  },
  'ring round the movement': {
    out: [
      hand('crown', 'Pull the crown fully out', 'The ring leaves only then.'),
      hand('ring', 'Lift the ring, then the cell', 'A finger on the movement all the while.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Under where the ring will lie.'),
      hand('home', 'Ring on, crown home', 'The ring sits level before the crown goes in.'),
    ],
    danger: 'The movement lies loose then: it falls, or the stem bends.',
    dangerAt: ['ring'],
  },
  'under a hatch': {
    out: [
      hand(
        'turn',
        'Turn the hatch',
        'As its sign is drawn, with what fits its slot; the cell falls into the hand.',
      ),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Face as drawn in the hatch.'),
      hand('shut', 'Turn the hatch shut', 'Its seal lies in the groove; turn back to the mark.'),
    ],
    danger: 'A contact bent on the cover touches nothing.',
    dangerAt: ['turn'],
  },
  'from the dial side': {
    out: [
      hand('rest', 'Support the rim of the dial', 'In a holder that touches the rim alone.'),
      hand('ease', 'Ease the cell out', 'Along the arrow, with a stop for the push.'),
    ],
    in: [hand('press', 'Press the cell in', 'On its rim, no farther than it lies level.')],
    danger: 'The hands stand free and bend at a touch.',
    dangerAt: ['rest'],
  },
};
