// Files with a function of more than 80 lines: the demo's story, told in one breath. The list only shrinks.
export const LONG_YET = ['demo/build.ts', 'demo/history.ts'];
