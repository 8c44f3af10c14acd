/** The nine stages of a job, in order. */
export const STAGES = [
  'arrive',
  'open',
  'identify',
  'check',
  'cell',
  'seal',
  'test',
  'set',
  'handback',
] as const;
export type StageId = (typeof STAGES)[number];

export const STAGE_WORDS: Readonly<Record<StageId, string>> = {
  arrive: 'Arrive',
  open: 'Open',
  identify: 'Identify',
  check: 'Check',
  cell: 'Cell',
  seal: 'Seal and close',
  test: 'Test',
  set: 'Set and prove',
  handback: 'Hand back',
};
