import type { JobContext } from '../../../core/logbook';
import { programId } from '../../program';

const PROGRAM = programId();

/** What every stored answer rests on beside the entries of its job, as a text that changes with any of it. */
export function basisOf({ catalogue, policy, shop }: JobContext): string {
  return JSON.stringify([PROGRAM, policy.revision, catalogue.revision, shop.zone]);
}
