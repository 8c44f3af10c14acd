import { rotorPlan, type RotorPlan } from '../../craft/charging';
import { type Calibre, reserveWith } from '../../craft/movements';
import type { JobContext, JobState } from '../../logbook';

/**
 * How long a rotor-charged watch is worn, or lies on this shop's winder, from flat until it can be handed back: with the kit that
 * was fitted. `turnsAnHour`: as the winder turns just now; null: as the policy has it. Null for what charges otherwise.
 */
export function woundHere(
  {
    facts,
    calibre,
  }: Pick<JobState, 'facts'> & { readonly calibre: Pick<Calibre, 'charge' | 'rotor'> | null },
  { policy }: Pick<JobContext, 'policy'>,
  turnsAnHour: number | null,
): RotorPlan | null {
  const charge = calibre?.charge ?? null;
  if (!calibre || charge?.by !== 'rotor') return null;
  return rotorPlan(
    calibre.rotor,
    reserveWith(charge, facts.accumulator?.payload.kitCode ?? null),
    0,
    policy.handBackChargePercent / 100,
    turnsAnHour ?? policy.winderTurnsAnHour,
  );
}
