export type { Admission } from './admission';
export { judgeEntry } from './judgeEntry';
