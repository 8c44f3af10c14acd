export { supplyOf, type SupplyVerdict } from './supply';
