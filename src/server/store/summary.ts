import type { JobSummary } from '../../contract';

/** A summary as stored, by whichever version of the program: what an older one did not know is filled in. */
export function toSummary(stored: string): JobSummary {
  const known: Pick<JobSummary, 'looseCells' | 'partsExpectedOn' | 'lyingOpen'> = {
    looseCells: [],
    partsExpectedOn: null,
    lyingOpen: null,
  };
  return Object.assign(known, JSON.parse(stored) as JobSummary);
}
