import type { HoldKind } from '../movements';
import { type Part, toBeNoted } from '../parts';

/** One movement of the hand, as it is read at the bench. */
interface Hand {
  readonly id: string;
  readonly what: string;
  readonly how: string;
  /** What this movement lays on the tray. */
  readonly off: readonly PlacedPart[];
  /** The movement of the way out whose parts go back here. */
  readonly back: string | null;
}

/** A part with the place it is laid down as having sat in. */
export interface PlacedPart {
  readonly part: Part;
  readonly position: string;
  readonly count: number;
}

const hand = (
  id: string,
  what: string,
  how: string,
  { off = [], back = null }: { readonly off?: readonly PlacedPart[]; readonly back?: string | null } = {},
): Hand => ({ id, what, how, off, back });

/** The hand movements that take a cell out of a holder and put one in, and the danger of that holder. */
export interface HolderWays {
  readonly out: readonly Hand[];
  readonly in: readonly Hand[];
  readonly danger: string;
  /** The steps at which that danger is met. */
  readonly dangerAt: readonly string[];
  /** Where one holder lies over both cells of a pair: the steps that open and shut it, once for both. */
  readonly sharedBy?: { readonly opens: readonly string[]; readonly shuts: readonly string[] };
}

/** The second cell under a holder that is open already. */
export const FROM_UNDER_THE_SAME: Hand = hand(
  'take-second',
  'Take the second cell out',
  'By its rim, from under the same latch, which is open already.',
);

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
      hand(
        'unscrew',
        'Loosen the bridge',
        'Fitting blade, upright; the screws to the tray in their places.',
        {
          off: [{ part: 'screw', position: toBeNoted('of the cell’s bridge, which where'), count: 2 }],
        },
      ),
      hand('bridge', 'Lift the bridge', 'Straight up, off its peg.', {
        off: [{ part: 'cover', position: 'the cell’s bridge, on its peg', count: 1 }],
      }),
      hand('take', 'Take the cell out', 'By its rim.'),
    ],
    in: [
      hand('lay', 'Lay the cell in its well', 'Level, before the bridge.'),
      hand('peg', 'Set the bridge on its peg', 'It sits by itself before a screw is turned.', {
        back: 'bridge',
      }),
      hand('screw', 'Turn the screws in', 'Each until it holds, then snug.', { back: 'unscrew' }),
    ],
    danger: 'A blade that slips lands on the coil.',
    dangerAt: ['unscrew'],
  },
  'latch on a module': {
    out: [
      hand('module', 'Take the module out', 'Past its pushers first; its spacers to the tray as parts.', {
        off: [
          { part: 'movement', position: 'the module, face down', count: 1 },
          { part: 'spacer', position: toBeNoted('round the module, which way up'), count: 1 },
        ],
      }),
      hand('latch', 'Open the latch', 'Along the arrow; the cell comes out with it.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Under the open latch.'),
      hand('close', 'Close the latch', 'Until it clicks.'),
      hand('module-in', 'Module back past its pushers', 'Spacers first, each pusher drawn out of the way.', {
        back: 'module',
      }),
    ],
    danger: 'Forced, the pusher tabs bend and stay silent.',
    dangerAt: ['module', 'module-in'],
    sharedBy: { opens: ['module', 'latch'], shuts: ['close', 'module-in'] },
  },
  'latch worked in place': {
    out: [
      hand(
        'latch',
        'Open the latch where it is',
        'Along the arrow, a blunt tip in its nick; the module stays.',
      ),
      hand('take', 'Take the cell out', 'By its rim, out from under the open latch.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Under the open latch, flat.'),
      hand('close', 'Close the latch', 'Until it clicks; pulled at once, it holds.'),
    ],
    danger: 'Forced past its stop the latch breaks off, and the module has to be renewed.',
    dangerAt: ['latch'],
    sharedBy: { opens: ['latch', 'take'], shuts: ['close'] },
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
  'lying free in its well': {
    out: [hand('take', 'Lift the cell out', 'By its rim, with plastic; nothing holds it once it lies open.')],
    in: [hand('lay', 'Lay the cell in its well', 'Level, until what lies above it holds it down.')],
    danger: 'Turned over it falls out, onto the coil or the floor: nothing but what lies above holds it.',
    dangerAt: ['take'],
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
