export { capital, figure, type Judged, percent, type WorkingLine } from './judgement';
