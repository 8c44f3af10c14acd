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
  'Lift it by its rim from under the same latch, which is already open.',
);

/** How each holder is worked. Source: bench practice. */
export const HOLDER_WAYS: Readonly<Record<HoldKind, HolderWays>> = {
  'side lever': {
    out: [
      hand(
        'push',
        'Push the lever',
        'Push the lever along the arrow, away from the cell. Stop as soon as the cell rises.',
      ),
      hand(
        'take',
        'Take the cell out',
        'Lift it by its rim as soon as it is free. Do not touch the screw of the lever.',
      ),
    ],
    in: [
      hand(
        'under',
        'Slide the cell under the fixed edge first',
        'Slide it in flat, opposite the lever, until it touches the wall.',
      ),
      hand('back', 'Draw the lever back again', 'Draw the lever along the arrow, no farther than before.'),
      hand(
        'down',
        'Press the cell down',
        'Press the rim of the cell next to the lever until the cell is flat.',
      ),
      hand(
        'home',
        'Let the lever go home',
        'The lever must rest on the rim of the cell again, not beside or under it.',
      ),
    ],
    danger:
      'If you push farther, the lever drops beside the cell and touches the motor. Use wood or plastic.',
    dangerAt: ['push', 'back'],
  },
  'clip on one side': {
    out: [
      hand(
        'lift',
        'Lift the cell at the open side',
        'Lift it opposite the clip and slide it out from under the clip.',
      ),
    ],
    in: [
      hand(
        'under',
        'Slide the cell under the clip first',
        'Slide it in flat until it touches the end of the clip.',
      ),
      hand('down', 'Press the cell down', 'Press the rim of the cell until the cell is flat.'),
    ],
    danger: 'Lifting at the clip bends the clip, and it loses contact.',
    dangerAt: ['lift'],
  },
  'sprung contact at the rim': {
    out: [
      hand(
        'lift',
        'Push against the spring and lift',
        'Push the cell along the arrow. Its far side rises first.',
      ),
    ],
    in: [
      hand(
        'against',
        'Push the cell against the spring first',
        'Its rim must press the spring back as far as it goes.',
      ),
      hand('down', 'Press the cell down', 'The spring closes over the rim by itself.'),
    ],
    danger: 'If you press the cell straight in, the spring folds under it.',
    dangerAt: ['against'],
  },
  'screwed bridge': {
    out: [
      hand(
        'unscrew',
        'Loosen the bridge',
        'Use a blade that fits and hold it upright. Put the screws on the tray in their places.',
        {
          off: [{ part: 'screw', position: toBeNoted('of the cell’s bridge, which where'), count: 2 }],
        },
      ),
      hand('bridge', 'Lift the bridge', 'Lift the bridge straight up, off its peg.', {
        off: [{ part: 'cover', position: 'the cell’s bridge, on its peg', count: 1 }],
      }),
      hand('take', 'Take the cell out', 'Lift it by its rim.'),
    ],
    in: [
      hand('lay', 'Lay the cell in its well', 'The cell must lie flat before you put the bridge on.'),
      hand(
        'peg',
        'Set the bridge on its peg',
        'Lay the bridge on its peg so that it lies flat without being held. Only then turn the screws.',
        {
          back: 'bridge',
        },
      ),
      hand('screw', 'Turn the screws in', 'Turn each screw until it holds, then tighten it lightly.', {
        back: 'unscrew',
      }),
    ],
    danger: 'A blade that slips hits the coil.',
    dangerAt: ['unscrew'],
  },
  'latch on a module': {
    out: [
      hand('module', 'Take the module out', 'Ease it past its pushers first. Put its spacers on the tray.', {
        off: [
          { part: 'movement', position: 'the module, face down', count: 1 },
          { part: 'spacer', position: toBeNoted('round the module, which way up'), count: 1 },
        ],
      }),
      hand('latch', 'Open the latch', 'Push the latch along the arrow. The cell comes out with it.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Lay it under the open latch.'),
      hand('close', 'Close the latch', 'Press the latch until it clicks.'),
      hand(
        'module-in',
        'Put the module back past its pushers',
        'Put the spacers in first, and draw each pusher out of the way.',
        {
          back: 'module',
        },
      ),
    ],
    danger: 'Force bends the tabs of the pushers, and the pushers stop working.',
    dangerAt: ['module', 'module-in'],
    sharedBy: { opens: ['module', 'latch'], shuts: ['close', 'module-in'] },
  },
  'latch worked in place': {
    out: [
      hand(
        'latch',
        'Open the latch where it is',
        'Put a blunt tip into its nick and push along the arrow. The module stays in.',
      ),
      hand('take', 'Take the cell out', 'Lift it by its rim from under the open latch.'),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Lay it flat under the open latch.'),
      hand(
        'close',
        'Close the latch',
        'Press the latch until it clicks. Pull at it once to check that it holds.',
      ),
    ],
    danger: 'If you force the latch past its stop, it breaks off and the module has to be replaced.',
    dangerAt: ['latch'],
    sharedBy: { opens: ['latch', 'take'], shuts: ['close'] },
  },
  'stacked light module': {
    out: [hand('upper', 'Take the upper module’s cell', 'This cell lies on top. Leave the lower cell in.')],
    in: [
      hand('lay', 'Lay the cell in the upper module', 'Put it in with the face shown on the drawing up.'),
      hand('tab', 'Bring the switch tab under the pusher', 'Push it once: the light must come on now.'),
    ],
    danger: 'If the tab misses the pusher, the light stays dark and the module has to come out again.',
    dangerAt: ['tab'],
  },
  'lying free in its well': {
    out: [
      hand(
        'take',
        'Lift the cell out',
        'Lift the cell by its rim with plastic tweezers. Nothing holds it once it is uncovered.',
      ),
    ],
    in: [hand('lay', 'Lay the cell in its well', 'Lay the cell flat. The part above holds it down later.')],
    danger:
      'If you turn the watch over, the cell falls out, onto the coil or the floor. Only the part above holds it.',
    dangerAt: ['take'],
  },
  'under a hatch': {
    out: [
      hand(
        'turn',
        'Turn the hatch',
        'Turn it the way its marking shows, with a tool that fits its slot. Catch the cell in your hand.',
      ),
    ],
    in: [
      hand('lay', 'Lay the cell in', 'Put it in with the face shown in the hatch up.'),
      hand(
        'shut',
        'Turn the hatch shut',
        'Check that its seal lies in the groove, and turn the hatch back to the mark.',
      ),
    ],
    danger: 'If you bend the contact on the cover, it no longer touches the cell.',
    dangerAt: ['turn'],
  },
  'from the dial side': {
    out: [
      hand('rest', 'Support the rim of the dial', 'Use a holder that touches only the rim.'),
      hand('ease', 'Ease the cell out', 'Push along the arrow, with a stop for the tool.'),
    ],
    in: [hand('press', 'Press the cell in', 'Press on its rim, only until it lies level.')],
    danger: 'The hands are unprotected and bend at a touch.',
    dangerAt: ['rest'],
  },
};
