export {
  caliperText,
  recordOfSamples,
  type SimulatedCase,
  simulateReading,
  simulateTest,
  simulateTrace,
  type TraceSample,
} from './simulate';
export { simulateDelivery } from './supplier';
