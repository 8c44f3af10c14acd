import { type Policy, REQUIREMENTS, type Requirement, STAGES, type StageId } from '../policy';
import type { JobFacts } from './entry';
import type { Conflict, Signature, WellState } from './foldJob';

export type StageStatus = 'done' | 'current' | 'coming' | 'not needed' | 'skipped';

export interface StageProgress {
  readonly stage: StageId;
  readonly status: StageStatus;
  /** What the service still asks for here. */
  readonly missing: readonly {
    readonly requirement: Requirement | 'handback.signed' | 'handback.parts';
    readonly words: string;
  }[];
  /** Why the stage was skipped. */
  readonly reason: string | null;
}

export interface JobSoFar {
  readonly facts: Readonly<JobFacts>;
  readonly wells: readonly WellState[];
  readonly conflicts: readonly Conflict[];
  readonly signature: Signature;
}

const MET: Readonly<Record<Requirement, (job: JobSoFar) => boolean>> = {
  'arrive.watch': ({ facts }) => facts.watch !== null,
  'arrive.complaint': ({ facts }) => facts.complaint !== null,
  'arrive.promise': ({ facts }) => facts.promise !== null,
  'arrive.consent': ({ facts }) => facts.consent?.payload.given === true,
  'open.back': ({ facts }) => facts.back !== null,
  'identify.movement': ({ facts }) => facts.movement !== null,
  // With no cell in the watch there is no old voltage to take.
  'check.restVoltageV': ({ facts, wells }) =>
    facts.readings.has('restVoltageV') || wells.every((well) => well.found?.payload.marking === null),
  'check.currentUA': ({ facts }) => facts.readings.has('currentUA'),
  'cell.found': ({ wells }) => wells.every((well) => well.found !== null),
  'cell.fitted': ({ wells }) => wells.every((well) => well.fitted !== null),
  'cell.old-settled': ({ wells }) =>
    wells.every((well) => well.oldSettled !== null || well.found?.payload.marking === null),
  'seal.gasket': ({ facts }) => facts.gasket !== null,
  'seal.closed': ({ facts }) => facts.closed?.payload.seamEven === true,
  'set.runs': ({ facts }) => facts.runs?.payload.runs === true,
  'set.time': ({ facts }) => facts.timeSet?.payload.set === true,
  'set.functions': ({ facts }) => facts.functions !== null,
};

/** Parts that came off and have not been accounted for. */
export function openParts(
  facts: Readonly<JobFacts>,
): readonly { readonly id: string; readonly words: string }[] {
  return [...facts.parts.values()]
    .filter((part) => part.settled === null)
    .map(({ off }) => ({
      id: off.id,
      words: `${off.payload.part}${off.payload.position ? `, ${off.payload.position}` : ''}`,
    }));
}

/**
 * How far a job has come, stage by stage: what its service requires by policy, what is still missing, what was
 * skipped and why. The first stage with something missing is the current one; until a service is chosen only
 * arriving is asked for.
 */
export function stageProgress(job: JobSoFar, policy: Policy): StageProgress[] {
  const { facts, signature } = job;
  const service = facts.service?.payload.service ?? null;
  const required: readonly Requirement[] =
    service === null ? ['arrive.watch'] : policy.services[service].requires;
  const signed = signature.state === 'signed';
  let currentFound = false;
  return STAGES.map((stage): StageProgress => {
    const asked = required.filter((requirement) => REQUIREMENTS[requirement].stage === stage);
    const missing: StageProgress['missing'][number][] = asked
      .filter((requirement) => !MET[requirement](job))
      .map((requirement) => ({ requirement, words: REQUIREMENTS[requirement].words }));
    if (stage === 'handback' && service !== null) {
      const parts = openParts(facts);
      if (parts.length > 0)
        missing.push({
          requirement: 'handback.parts',
          words: `${parts.length} part${parts.length === 1 ? '' : 's'} on the tray`,
        });
      if (!signed) missing.push({ requirement: 'handback.signed', words: 'the signature' });
    }
    const skip = facts.skips.get(stage) ?? null;
    if (asked.length === 0 && stage !== 'handback')
      return { stage, status: 'not needed', missing, reason: null };
    if (missing.length > 0 && skip) return { stage, status: 'skipped', missing, reason: skip.payload.reason };
    if (missing.length === 0 && (stage !== 'handback' || signed))
      return { stage, status: 'done', missing, reason: null };
    if (currentFound) return { stage, status: 'coming', missing, reason: null };
    currentFound = true;
    return { stage, status: 'current', missing, reason: null };
  });
}
