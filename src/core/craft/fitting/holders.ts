import type { HoldKind } from '../movements';

/** One movement of the hand, as it is read at the bench. */
interface Hand {
  readonly id: string;
  readonly what: string;
  readonly how: string;
}

/** The hand movements that take a cell out of a holder and put one in, and the danger of that holder. */
export interface HolderWays {
  readonly out: readonly Hand[];
  readonly in: readonly Hand[];
  readonly danger: string;
  /** The step at which that danger is met. */
  readonly dangerAt: string;
}

/** How each holder is worked. Source: bench practice. */
export const HOLDER_WAYS: Readonly<Record<HoldKind, HolderWays>> = {
  'side lever': {
    out: [
      {
        id: 'push',
        what: 'Push the lever',
        how: 'Along the arrow, away from the cell, only until the cell rises.',
      },
      {
        id: 'take',
        what: 'Take the cell out',
        how: 'By its rim, as soon as it stands free. The lever’s screw is left alone.',
      },
    ],
    in: [
      {
        id: 'set',
        what: 'Set the cell against the lever',
        how: 'Rim first at the lever, then let it sink into the well.',
      },
      {
        id: 'seat',
        what: 'See the lever spring back',
        how: 'It lies on the rim again, not beside or under the cell.',
      },
    ],
    danger: 'Pushed on, the lever drops beside the cell and touches the motor. Wood or plastic.',
    dangerAt: 'push',
  },
  'clip on one side': {
    out: [
      {
        id: 'lift',
        what: 'Lift at the open side',
        how: 'Opposite the clip; slide the cell out from under it.',
      },
    ],
    in: [
      { id: 'under', what: 'In under the clip first', how: 'Flat, until it meets the end of the clip.' },
      { id: 'down', what: 'Then down', how: 'Press at the rim until it lies level.' },
    ],
    danger: 'Lifted at the clip itself, it stays bent and loses contact.',
    dangerAt: 'lift',
  },
  'sprung contact at the rim': {
    out: [
      {
        id: 'lift',
        what: 'Push against the spring and lift',
        how: 'Along the arrow; the far side rises first.',
      },
    ],
    in: [
      {
        id: 'against',
        what: 'In against the spring first',
        how: 'The rim presses the spring back as far as it goes.',
      },
      { id: 'down', what: 'Then down', how: 'The spring closes over the rim by itself.' },
    ],
    danger: 'Pressed straight in, the spring folds under the cell.',
    dangerAt: 'against',
  },
  'screwed bridge': {
    out: [
      {
        id: 'unscrew',
        what: 'Loosen the bridge',
        how: 'Fitting blade, upright; the screws to the tray in their places.',
      },
      {
        id: 'bridge',
        what: 'Lift bridge and cell',
        how: 'The bridge off its peg, then the cell by its rim.',
      },
    ],
    in: [
      { id: 'lay', what: 'Lay the cell in its well', how: 'Level, before the bridge.' },
      { id: 'peg', what: 'Set the bridge on its peg', how: 'It sits by itself before a screw is turned.' },
      { id: 'screw', what: 'Turn the screws in', how: 'Each until it holds, then snug.' },
    ],
    danger: 'A blade that slips lands on the coil.',
    dangerAt: 'unscrew',
  },
  'latch on a module': {
    out: [
      { id: 'module', what: 'Take the module out', how: 'Past its pushers, spacers to the tray as parts.' },
      { id: 'latch', what: 'Open the latch', how: 'Along the arrow; the cell comes out with it.' },
    ],
    in: [
      { id: 'lay', what: 'Lay the cell in', how: 'Under the open latch.' },
      {
        id: 'close',
        what: 'Close the latch',
        how: 'Until it clicks; then the module back past its pushers.',
      },
    ],
    danger: 'Forced, the pusher tabs bend and stay silent.',
    dangerAt: 'module',
  },
  'stacked light module': {
    out: [
      { id: 'upper', what: 'Take the upper module’s cell', how: 'It lies above; the lower one is left in.' },
    ],
    in: [
      { id: 'lay', what: 'Lay the cell in the upper module', how: 'Its face as drawn.' },
      {
        id: 'tab',
        what: 'Bring the switch tab under the pusher',
        how: 'Push it once: the light must answer now.',
      },
    ],
    danger: 'Missed, the light stays dark and the module comes out once more.',
    dangerAt: 'tab',
  },
  'ring round the movement': {
    out: [
      { id: 'crown', what: 'Pull the crown fully out', how: 'The ring leaves only then.' },
      { id: 'ring', what: 'Lift the ring, then the cell', how: 'A finger on the movement all the while.' },
    ],
    in: [
      { id: 'lay', what: 'Lay the cell in', how: 'Under where the ring will lie.' },
      { id: 'home', what: 'Ring on, crown home', how: 'The ring sits level before the crown goes in.' },
    ],
    danger: 'The movement lies loose then: it falls, or the stem bends.',
    dangerAt: 'ring',
  },
  'under a hatch': {
    out: [
      {
        id: 'turn',
        what: 'Turn the hatch',
        how: 'As its sign is drawn, with what fits its slot; the cell falls into the hand.',
      },
    ],
    in: [
      { id: 'lay', what: 'Lay the cell in', how: 'Face as drawn in the hatch.' },
      { id: 'shut', what: 'Turn the hatch shut', how: 'Its seal lies in the groove; turn back to the mark.' },
    ],
    danger: 'A contact bent on the cover touches nothing.',
    dangerAt: 'turn',
  },
  'from the dial side': {
    out: [
      { id: 'rest', what: 'Support the rim of the dial', how: 'In a holder that touches the rim alone.' },
      { id: 'ease', what: 'Ease the cell out', how: 'Along the arrow, with a stop for the push.' },
    ],
    in: [{ id: 'press', what: 'Press the cell in', how: 'On its rim, no farther than it lies level.' }],
    danger: 'The hands stand free and bend at a touch.',
    dangerAt: 'rest',
  },
};
