export { amount, money } from './money';
