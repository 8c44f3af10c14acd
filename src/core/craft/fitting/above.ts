import type { AboveCell } from '../movements';
import { type Part, toBeNoted } from '../parts';

/** What takes one thing off that lies above a cell, and what puts it back. */
export interface AboveWays {
  readonly part: Part;
  /** Where it sat; what of it has to be noted is. */
  readonly position: string;
  readonly off: { readonly what: string; readonly how: string; readonly danger: string | null };
  readonly on: { readonly what: string; readonly how: string; readonly danger: string | null };
}

/** How each thing that may lie above a cell leaves and comes back. Source: bench practice. */
export const ABOVE_WAYS: Readonly<Record<AboveCell, AboveWays>> = {
  plate: {
    part: 'plate',
    position: toBeNoted('above the cell, which face up'),
    off: {
      what: 'Take the plate off',
      how: 'Lift the plate straight up off its pegs, and keep it level. Do not remove parts that are attached to it.',
      danger: 'Levering at one edge bends the plate and breaks its pegs.',
    },
    on: {
      what: 'Set the plate on its pegs',
      how: 'Lay the plate on its pegs so that it lies level all round without being held. Only then turn the screws.',
      danger: null,
    },
  },
  cover: {
    part: 'cover',
    position: toBeNoted('above the cell, which face up'),
    off: {
      what: 'Take the cover off',
      how: 'Lift the cover by its tab, away from the coil.',
      danger: null,
    },
    on: {
      what: 'Put the cover on',
      how: 'Put the tab back in its old place. The cover must lie flat on the movement.',
      danger: null,
    },
  },
  'buzzer spring': {
    part: 'buzzer spring',
    position: toBeNoted('in its hole, which end up'),
    off: {
      what: 'Take the buzzer spring out',
      how: 'Lift it straight up with plastic tweezers.',
      danger: 'It can jump out, and the alarm stays silent if it is bent. Shield it with a finger.',
    },
    on: {
      what: 'Put the buzzer spring into its hole',
      how: 'Stand the spring upright, with the same end up as before.',
      danger: null,
    },
  },
  'light module': {
    part: 'light module',
    position: toBeNoted('above the movement, where its tab stands'),
    off: {
      what: 'Take the light module off',
      how: 'Lift it straight up with its switch tab clear of the pusher. Leave its own cell in it.',
      danger: 'If you pull it past the pusher, its switch tab bends and the light stays dark.',
    },
    on: {
      what: 'Put the light module on',
      how: 'Bring its switch tab under the pusher. Push once: the light must come on now.',
      danger: 'If the tab misses the pusher, the light stays dark and the module has to come out again.',
    },
  },
  'movement ring': {
    part: 'movement ring',
    position: toBeNoted('round the movement, where its flat lies'),
    off: {
      what: 'Pull the crown fully out, then take the movement ring off',
      how: 'The ring comes off only with the crown fully out. Keep a finger on the movement all the time.',
      danger: 'The movement is then loose. It can fall out, or the stem bends.',
    },
    on: {
      what: 'Put the movement ring on, then push the crown home',
      how: 'Seat the ring level, with its flat where it was, before the crown goes in.',
      danger: null,
    },
  },
};
