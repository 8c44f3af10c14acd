/** The devices of a bench, whatever reaches them. */
export const DEVICES = {
  caliper: {
    name: 'Caliper',
    what: 'Its figure goes into any length with “Take”.',
  },
  'bench-meter': {
    name: 'Bench meter',
    what: 'Voltages, currents, coil, rate and motor pulses go into the readings of stage 4 with “Take”.',
  },
  'light-meter': {
    name: 'Light meter',
    what: 'The light of a place, under Tools and on the light places, with “Take” or “Measure”.',
  },
  winder: {
    name: 'Winder',
    what: 'How often it turns goes into the plan of a watch charged by its rotor, at stage 5.',
  },
  'leak-tester': {
    name: 'Leak tester',
    what: 'Its record of a dry test or a blank run goes into stage 7.',
  },
  camera: {
    name: 'Camera',
    what: 'Photographs go with what is found, wherever “From the camera” stands.',
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
