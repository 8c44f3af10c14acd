import type { TestMethod } from './judgeTest';

/** One step of a test by hand, with its danger where there is one. */
export interface TestStep {
  readonly what: string;
  readonly danger: string | null;
}

/** How each test is made, step by step. Source: bench practice; ISO 22810 for condensation. */
export const TEST_GUIDES: Readonly<Record<TestMethod, readonly TestStep[]>> = {
  'dry air': [
    { what: 'Rest the watch by the tester until it has its warmth.', danger: null },
    { what: 'Crown home and screwed down, pushers out.', danger: null },
    {
      what: 'Into the chamber, sensor on the crystal, lid closed.',
      danger: 'Eyes protected: a crystal can fly.',
    },
    { what: 'Baseline, pressure, settle, watch, vent, settle, watch as long again.', danger: null },
  ],
  wet: [
    { what: 'Only a watch that passed dry, at this pressure or more.', danger: null },
    {
      what: 'Hang it above the water and press in air until the pressure stands.',
      danger: 'Lid closed and eyes protected: a crystal can fly.',
    },
    { what: 'Lower it under water, and let the pressure off slowly.', danger: null },
    {
      what: 'Watch where a chain of bubbles rises for a minute.',
      danger: 'Bubbles seen: lift it out before more pressure is let off, or it draws water in.',
    },
    { what: 'Dry it, and look for fog under the crystal.', danger: null },
  ],
  condensation: [
    {
      what: 'Lay it on a plate at 40 to 45 °C until it is warm through, 10 to 20 minutes.',
      danger: 'No hotter: cell, seals and display suffer.',
    },
    { what: 'A drop of water at 18 to 25 °C on the crystal, for a minute.', danger: null },
    { what: 'Wipe it off, and look at once for fog inside: where, and how long.', danger: null },
  ],
};
