export { caliperText, endsOfTrace, simulateReading, simulateTrace, type TraceSample } from './simulate';
export { simulateDelivery } from './supplier';
