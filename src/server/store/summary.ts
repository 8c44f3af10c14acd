import type { JobSummary } from '../../contract';
import { type LooseCell, MAIN_WELL } from '../../core/logbook';

/** A summary as stored, by whichever version of the program: what an older one did not know is filled in. */
export function toSummary(stored: string): JobSummary {
  const known: Pick<JobSummary, 'looseCells' | 'partsExpectedOn' | 'lyingOpen' | 'running' | 'lit'> = {
    looseCells: [],
    partsExpectedOn: null,
    lyingOpen: null,
    running: [],
    lit: null,
  };
  const summary = Object.assign(known, JSON.parse(stored) as JobSummary);
  return {
    ...summary,
    lit: summary.lit && Object.assign({ placeHolds: null }, summary.lit),
    looseCells: summary.looseCells.map((each: LooseCell | string) =>
      typeof each === 'string'
        ? { marking: each, kind: 'old', well: MAIN_WELL, entryId: '', dropped: false }
        : each,
    ),
  };
}
