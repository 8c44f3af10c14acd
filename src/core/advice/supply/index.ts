export { supplyInBook, supplyOf, type SupplyVerdict } from './supply';
