export {
  capital,
  figure,
  type GivenFigure,
  type Judged,
  percent,
  unsound,
  unsoundLengths,
  type WorkingLine,
} from './judgement';
export { remembered } from './remembered';
