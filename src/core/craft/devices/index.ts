export {
  caliperText,
  isVented,
  phaseAt,
  recordOfSamples,
  type SimulatedCase,
  simulateReading,
  simulateTest,
  simulateTrace,
  type TracePhase,
  type TraceSample,
} from './simulate';
export { simulateDelivery } from './supplier';
export { type MeteredQuantity, type MeterLine, readMeterLine } from './meterLine';
