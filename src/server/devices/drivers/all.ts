import type { Driver, ServerDriverId } from '../../../contract';
import { benchMeter, caliper, lightMeter, winder } from './gauges';
import { leakTester } from './leakTester';
import { camera, labelPrinter, messageOutbox, supplier } from './shopfront';
import { testerFolder } from './testerFolder';
import type { World } from './world';

/** Every driver that runs at the server. One that the contract lists and this does not is a compile error. */
export const SERVER_DRIVERS: { readonly [D in ServerDriverId]: Driver<D, World> } = {
  'caliper-stand-in': caliper,
  'bench-meter-stand-in': benchMeter,
  'light-meter-stand-in': lightMeter,
  'winder-stand-in': winder,
  'leak-tester-stand-in': leakTester,
  'leak-tester-folder': testerFolder,
  'camera-stand-in': camera,
  'label-printer-stand-in': labelPrinter,
  'message-outbox-stand-in': messageOutbox,
  'supplier-stand-in': supplier,
};
