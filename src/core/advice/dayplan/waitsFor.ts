import { judgeTests } from '../leaks';
import { awaitedParts, type JobState } from '../../logbook';
import { STAGE_WORDS } from '../../craft/policy';
import { dayInWords } from '../../craft/time';

/** What a job waits for, in a few words for its envelope. */
export function waitsFor(state: JobState): string {
  if (state.conflicts.length > 0) return 'a conflict to settle';
  if (state.signature.state === 'signed') return state.facts.collected ? 'nothing (collected)' : 'its owner';
  if (
    state.facts.consent?.payload.given === false &&
    state.progress.some(({ missing }) => missing.some(({ requirement }) => requirement === 'arrive.consent'))
  )
    return 'the owner’s consent';
  if (
    state.signature.state === 'unsigned' &&
    judgeTests(state).some(({ stands, shows }) => stands && shows.verdict === 'leaks')
  )
    return 'a leak to repair, or to report to the owner';
  const parts = awaitedParts(state.facts)?.payload;
  if (parts) {
    const what = parts.lines.map((line) => line.what).join(', ');
    return `${what}${parts.expectedOn === null ? '' : `, expected ${dayInWords(parts.expectedOn)}`}`;
  }
  const current = state.progress.find((stage) => stage.status === 'current');
  if (!current) return 'nothing';
  const first = current.missing[0];
  return first ? `${STAGE_WORDS[current.stage]}: ${first.words}` : STAGE_WORDS[current.stage];
}
