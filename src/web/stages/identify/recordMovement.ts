import type { Payloads } from '../../../core/logbook';
import { focusRequired } from '../../kit/keys/required';
import { useJob } from '../../job/JobContext';

/** Says which movement it is, in place of what was said before. */
export function useRecordMovement(): (movement: Omit<Payloads['identify.movement'], 'note'>) => void {
  const { record, state } = useJob();
  return (movement) => {
    const before = state.facts.movement;
    void record(
      'identify.movement',
      { ...movement, note: '' },
      { supersedes: before ? [before.id] : [] },
    ).then(focusRequired);
  };
}
