import type { JobFacts } from '../../logbook';

/**
 * Whether a watch went out looked at and its movement unnamed: to the shop one that is in no book. Jobs whose movement nobody
 * looked at say nothing of what is brought in.
 */
export function wentUnnamed({
  signed,
  movement,
  engraving,
  evidence,
}: Pick<JobFacts, 'signed' | 'movement' | 'engraving' | 'evidence'>): boolean {
  const looked = engraving !== null || [...evidence.values()].some(({ payload }) => payload.value !== null);
  return signed !== null && movement === null && looked;
}
