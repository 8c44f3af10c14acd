export { money } from './money';
