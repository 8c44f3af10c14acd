import type { TestMethod } from './judgeTest';

/** One step of a test by hand, with its danger where there is one. */
export interface TestStep {
  readonly what: string;
  readonly danger: string | null;
}

/** How each test is made, step by step. Source: bench practice; ISO 22810 for condensation. */
export const TEST_GUIDES: Readonly<Record<TestMethod, readonly TestStep[]>> = {
  'dry air': [
    { what: 'Leave the watch next to the tester until both have the same temperature.', danger: null },
    { what: 'Crown pushed home and screwed down, pushers released.', danger: null },
    {
      what: 'Put it into the chamber, set the sensor on the crystal, close the lid.',
      danger: 'Protect your eyes. The crystal can fly off.',
    },
    { what: 'Baseline, pressure, settle, watch, vent, settle, then watch for the same time.', danger: null },
  ],
  wet: [
    { what: 'Only for a watch that passed a dry test at this pressure or more.', danger: null },
    {
      what: 'Hang it above the water and raise the air pressure until it is steady.',
      danger: 'Close the lid and protect your eyes. The crystal can fly off.',
    },
    { what: 'Lower it under water and release the pressure slowly.', danger: null },
    {
      what: 'Watch for one minute where a chain of bubbles rises.',
      danger:
        'If you see bubbles, lift it out before you release more pressure. Otherwise it draws in water.',
    },
    { what: 'Dry it and look for fog under the crystal.', danger: null },
  ],
  condensation: [
    {
      what: 'Lay it on a plate at 40 to 45 °C for 10 to 20 minutes, until it is warm throughout.',
      danger: 'Not hotter, or cell, seals and display are damaged.',
    },
    {
      what: 'Put a drop of water at 18 to 25 °C on the crystal. Leave it there for one minute.',
      danger: null,
    },
    {
      what: 'Wipe it off and look for fog inside at once. Note where it is and how long it stays.',
      danger: null,
    },
  ],
};
