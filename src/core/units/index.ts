export { figure } from '../judgement';
export { LIGNE_MM, formatLignes, mmFromLignes } from './lignes';
export { quantities, readQuantity, readSize, type Quantity, type QuantityReading } from './readQuantity';
