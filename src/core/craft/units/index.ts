export { formatLignes } from './lignes';
export { quantities, type Quantity, readQuantity, readSize } from './readQuantity';
