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
};
