/** The devices of a bench, whatever reaches them. */
export const DEVICES = {
  caliper: {
    name: 'Caliper',
    what: 'Press “Take” at any length to enter its reading.',
  },
  'bench-meter': {
    name: 'Bench meter',
    what: 'Press “Take” at stage 4 to enter voltage, current, coil resistance or rate.',
  },
  'light-meter': {
    name: 'Light meter',
    what: 'Measures the light at a light place, under Tools and under Light.',
  },
  winder: {
    name: 'Winder',
    what: 'Its speed is used at stage 5 to plan the charging of a watch with a rotor.',
  },
  'leak-tester': {
    name: 'Leak tester',
    what: 'Records dry tests and blank runs at stage 7.',
  },
  camera: {
    name: 'Camera',
    what: 'Press “Take a photo” to add a photograph to a record.',
  },
  'label-printer': {
    name: 'Label printer',
    what: 'Prints the envelope label at stage 1.',
  },
  'message-outbox': {
    name: 'Message outbox',
    what: 'Sends the owner a message by phone or e-mail. It keeps no name and no number.',
  },
  supplier: {
    name: 'Supplier',
    what: 'Takes the orders of the stock page and delivers.',
  },
} as const;

export type DeviceId = keyof typeof DEVICES;
export const DEVICE_IDS = Object.keys(DEVICES) as readonly DeviceId[];
