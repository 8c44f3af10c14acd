import type { HoldKind } from './types';

/** The one slip each way of holding a cell invites, said at the moment it is lifted. Source: bench practice. */
export const HOLDER_CAUTIONS: Readonly<Record<HoldKind, string>> = {
  'side lever':
    'Push the lever only until the cell rises: pushed on, it drops beside the cell and touches the motor. Wood or plastic, away from the coil.',
  'clip on one side':
    'Lift at the open side, in again under the clip first: lifted at the clip, it stays bent and loses contact.',
  'sprung contact at the rim':
    'In against the spring first, then down: pressed straight in, the spring folds under the cell.',
  'screwed bridge': 'Blade upright and fitted to the slot: a blade that slips lands on the coil.',
  'latch on a module':
    'Module out past its pushers before the latch: forced, the pusher tabs bend and stay silent.',
  'stacked light module':
    'Its switch tab must meet the pusher again: try the light before closing, or the module comes out once more.',
  'ring round the movement':
    'The ring leaves only with the crown fully out, and the movement then lies loose: steady it, crown home afterwards.',
  'under a hatch': 'Turn as the sign is drawn, and mind the contact on the cover: bent, it touches nothing.',
  'from the dial side': 'Support the dial rim and limit the push: the hands stand free and bend at a touch.',
};
