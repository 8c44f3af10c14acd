export {
  capital,
  figure,
  type GivenFigure,
  type Judged,
  percent,
  invalidFigures,
  invalidLengths,
  type WorkingLine,
} from './judgement';
export { memoizeByValue } from './memoizeByValue';
