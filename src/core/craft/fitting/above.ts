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
      what: 'Plate off',
      how: 'Level, off its pegs; what hung on it stays with it.',
      danger: 'Levered at one edge it bends, and its pegs break.',
    },
    on: { what: 'Plate on its pegs', how: 'It sits by itself, level all round.', danger: null },
  },
  cover: {
    part: 'cover',
    position: toBeNoted('above the cell, which face up'),
    off: {
      what: 'Cover off',
      how: 'By its tab, away from the coil.',
      danger: null,
    },
    on: { what: 'Cover on', how: 'Its tab where it was, flat on the movement.', danger: null },
  },
  'buzzer spring': {
    part: 'buzzer spring',
    position: toBeNoted('in its hole, which end up'),
    off: {
      what: 'Buzzer spring out',
      how: 'Straight up, with plastic tweezers.',
      danger: 'It jumps, and bent it stays silent: shield it with a finger.',
    },
    on: {
      what: 'Buzzer spring in its hole',
      how: 'Straight and upright, the end up that was up.',
      danger: null,
    },
  },
  'light module': {
    part: 'light module',
    position: toBeNoted('above the movement, where its tab stands'),
    off: {
      what: 'Light module off',
      how: 'Straight up, its switch tab free of the pusher; its own cell stays in it.',
      danger: 'Drawn past the pusher its switch tab bends, and the light stays dark.',
    },
    on: {
      what: 'Light module on',
      how: 'Its switch tab under the pusher: push once, the light must answer now.',
      danger: 'Missed, the light stays dark and it comes out once more.',
    },
  },
  'movement ring': {
    part: 'movement ring',
    position: toBeNoted('round the movement, where its flat lies'),
    off: {
      what: 'Crown fully out, then the movement ring off',
      how: 'The ring leaves only with the crown fully out; a finger on the movement all the while.',
      danger: 'The movement lies loose then: it falls, or the stem bends.',
    },
    on: {
      what: 'Movement ring on, then the crown home',
      how: 'The ring sits level, its flat where it was, before the crown goes in.',
      danger: null,
    },
  },
};
