export { judgeEntry } from './judgeEntry';
export { judgeAddedByFile, judgeHistory } from './fromFile';
