export { figure } from '../judgement';
export { LIGNE_MM, formatLignes, mmFromLignes } from './lignes';
export { quantities, readQuantity, type Quantity, type QuantityReading } from './readQuantity';
