export { judgeEntry } from './judgeEntry';
