import type { CaseType } from '../craft/cases';
import type { Calibre } from '../craft/movements';
import { type Policy, REQUIREMENTS, type Requirement, STAGES, type StageId } from '../craft/policy';
import { countOf } from '../craft/parts';
import type { Entry, EntryOf, JobFacts } from './entry';
import type { JobSoFar } from './state';
import { crownOf } from './crown';
import { readingIn } from './facts/check';
import { latestProofs } from './facts/set';
import { fellBack } from './fellBack';
import { escalated, freshLoose, openDrops } from './loose';
import { openness } from './openness';
import { pairBack, partProofs, partsToOrder, sealsInside } from './parts';
import { failedProofs, runOf, seenRunning, unproved, watchedLongEnough } from './proofs';

export type StageStatus = 'done' | 'current' | 'coming' | 'not needed' | 'skipped';

export interface StageProgress {
  readonly stage: StageId;
  readonly status: StageStatus;
  /** What the service still asks for here. */
  readonly missing: readonly {
    readonly requirement:
      | Requirement
      | 'handback.signed'
      | 'handback.parts'
      | 'handback.order'
      | 'part.proof'
      | 'set.crown'
      | 'set.crown-down'
      | 'set.failed'
      | 'seal.paired'
      | 'seal.inside'
      | 'cell.dropped'
      | 'cell.out';
    readonly words: string;
  }[];
  /** Why the stage was skipped. */
  readonly reason: string | null;
}

const MET: Readonly<Record<Requirement, (job: Judged, policy: Policy) => boolean>> = {
  'arrive.watch': ({ facts }) => facts.watch !== null,
  'arrive.complaint': ({ facts }) => facts.complaint !== null,
  'arrive.cell-history': ({ facts }) => facts.cellHistory !== null,
  'arrive.wear': ({ facts }) => facts.wear !== null,
  'arrive.originality': ({ facts }) => facts.originality !== null,
  'arrive.promise': ({ facts }) => facts.promise !== null,
  'arrive.consent': ({ facts }) => facts.consent?.payload.given === true,
  'arrive.ready': ({ facts }) => facts.ready !== null,
  'arrive.decision': ({ facts }) => facts.decision !== null,
  'open.back': ({ facts }) => facts.back !== null,
  'open.as-found': ({ facts }) => facts.asFound !== null,
  'open.seals': ({ facts }) => facts.seals !== null,
  'identify.movement': ({ facts }) => facts.movement !== null,
  // With no cell in the watch there is no old voltage to take.
  'check.restVoltageV': ({ facts, wells }) =>
    // One of a watch with several that names no well was taken before they were told apart.
    readingIn(facts, 'restVoltageV') !== undefined ||
    wells.every(
      ({ name, found }) =>
        found?.payload.marking === null || readingIn(facts, 'restVoltageV', name) !== undefined,
    ),
  'check.currentUA': ({ facts, wells }) =>
    readingIn(facts, 'currentUA') !== undefined ||
    wells.every(({ name }) => readingIn(facts, 'currentUA', name) !== undefined),
  'check.diagnosis': ({ facts }) => facts.findings.size > 0,
  'cell.found': ({ wells }) => wells.every((well) => well.found !== null),
  'cell.fitted': ({ facts, wells }) =>
    // Whatever service was ordered, a watch that is charged gets its kit.
    facts.accumulator !== null || wells.every((well) => well.fitted !== null || well.putBack !== null),
  'cell.old-settled': ({ facts, wells }) =>
    wells.every(
      (well) =>
        well.oldSettled !== null ||
        well.putBack !== null ||
        well.found?.payload.marking === null ||
        escalated(facts, well.name, 'the old cell'),
    ),
  // A charge counts when it was watched until the watch stepped normally, and nothing seen since speaks against it; a new
  // accumulator is nearly empty and wants one, too. What fails at stage 8 is asked for there.
  'cell.charged': ({ facts, activeEntries, signature }) => {
    const last = facts.charges.at(-1);
    if (signature.state === 'signed') return last !== undefined || facts.accumulator !== null;
    const back = fellBack(activeEntries);
    return (
      facts.underLight === null &&
      last?.payload.outcome === 'steps normally' &&
      (back === null || back.entry.kind.startsWith('set.')) &&
      (facts.accumulator === null || isAfter(last, facts.accumulator))
    );
  },
  // What an earlier program signed was whole by its own rules.
  'seal.gasket': ({ facts, signature }) =>
    facts.gasket !== null && (!facts.ringVoided || signature.state === 'signed'),
  'seal.other': ({ facts }) => facts.otherSeals !== null,
  'seal.closed': ({ facts }) => facts.closed?.payload.seamEven === true,
  'test.made': ({ facts }) => facts.tests.some(({ id }) => !facts.testsBeforeClosing.has(id)),
  'set.runs': (job) => {
    const facts = provedNow(job);
    const seen = seenRunning(facts);
    return seen?.runs === true && (isSigned(job) || watchedLongEnough(seen, job.calibre));
  },
  'set.time': (job) => provedNow(job).timeSet?.payload.set === true,
  'set.functions': (job) => {
    const facts = provedNow(job);
    if (facts.functions === null) return false;
    // An empty list proves nothing, whatever the movement.
    const some = Object.keys(facts.functions.payload.proved).length > 0;
    return isSigned(job) || (some && unproved(facts, job.calibre).length === 0);
  },
  'set.outside': (job) => provedNow(job).outside !== null,
  'set.proving-run': (job, policy) => {
    const facts = provedNow(job);
    const run = runOf(facts, 'how it keeps time');
    return run.hours !== null && run.verdict !== 'stopped' && run.hours >= policy.provingRunHours;
  },
};

const isSigned = ({ signature }: Pick<JobSoFar, 'signature'>): boolean => signature.state === 'signed';

/** What is proved of the watch as it is closed. What an earlier program signed was whole by its own rules. */
function provedNow(job: Judged): Readonly<JobFacts> {
  return isSigned(job) ? { ...job.facts, ...latestProofs(job.facts) } : job.facts;
}

/** Whether one entry was recorded after another; what waits in the browser comes last. */
export const isAfter = (one: Pick<Entry, 'sequence'>, other: Pick<Entry, 'sequence'>): boolean =>
  (one.sequence ?? Number.MAX_SAFE_INTEGER) >= (other.sequence ?? Number.MAX_SAFE_INTEGER);

/** What is asked for only on a watch that was opened: recharged through its dial, it needs no closing. */
const ONCE_OPENED: readonly Requirement[] = ['seal.gasket', 'seal.other', 'seal.closed'];
/** What an interim closing leaves for the follow-up job. */
const NOT_WHILE_INTERIM: readonly Requirement[] = ['test.made'];

/**
 * What a job asks for as it stands. Referred or declined, nothing more is done than closing what was opened.
 * A service that asks for opening asks for closing before it is opened, too.
 */
export function requiredOf({ facts }: Pick<JobSoFar, 'facts'>, policy: Policy): readonly Requirement[] {
  const service = facts.service?.payload.service ?? null;
  if (service === null) return ['arrive.watch'];
  const asked = policy.services[service].requires;
  if (facts.decision !== null) {
    const ended: readonly Requirement[] = ['arrive.watch', 'arrive.complaint', 'arrive.decision'];
    return openness(facts) === 'never opened' ? ended : [...ended, 'seal.closed'];
  }
  const opens = openness(facts) !== 'never opened' || asked.includes('open.back');
  return [
    ...asked,
    // An accumulator comes out of an opened watch, and the old one is settled like any cell.
    ...(facts.accumulator === null
      ? []
      : (['open.back', 'cell.old-settled'] as const).filter((each) => !asked.includes(each))),
  ].filter(
    (requirement) =>
      (opens || !ONCE_OPENED.includes(requirement)) &&
      !(facts.closed?.payload.interim && NOT_WHILE_INTERIM.includes(requirement)),
  );
}

/** A job so far, with its records of the book. */
interface Judged extends JobSoFar {
  readonly activeEntries: readonly Entry[];
  readonly calibre: Calibre | null;
  readonly caseType: Pick<CaseType, 'crown'> | null;
}

interface Added {
  readonly stage: StageId;
  readonly met: boolean;
  readonly missing: StageProgress['missing'][number];
}

/**
 * Whether the watch has a crown: as somebody saw it or the book has its case; where nobody says, every movement with
 * hands has one.
 */
export function hasCrown({
  facts,
  calibre,
  caseType,
}: Pick<Judged, 'calibre' | 'caseType'> & { readonly facts: Readonly<JobFacts> }): boolean {
  const seen = facts.crown?.payload.crown ?? null;
  if (seen !== null) return seen !== 'no crown';
  if (facts.watch !== null && facts.watch.payload.crownClock !== null) return true;
  if (caseType?.crown === 'no crown') return false;
  return calibre === null || calibre.functions.includes('hands') || calibre.crownPositions.length > 0;
}

/** No crown fault leaves unseen: what was opened and closed has its crown pulled, turned and pushed home after it. */
function crownProof(job: Judged): Added[] {
  const { facts, signature } = job;
  // What an earlier program signed was whole by its own rules.
  if (openness(facts) === 'never opened' || signature.state === 'signed' || !hasCrown(job)) return [];
  const result = facts.outside?.payload.proved['crown in every position'];
  return [
    {
      stage: 'set',
      met: facts.closed !== null && result !== undefined && result !== 'not applicable',
      missing: { requirement: 'set.crown', words: 'the crown in every position, after closing' },
    },
  ];
}

/**
 * A crown that screws down is seen down after the last setting, and after it was tried last: left up, it floods the case, and
 * nobody looks at it again.
 */
function crownDownProof({ facts, caseType, signature }: Judged): Added[] {
  const screws = crownOf({ facts, caseType }) === 'screwed down';
  const touched =
    facts.timeSet?.payload.set === true ||
    facts.outside?.payload.proved['crown in every position'] !== undefined;
  if (!screws || !touched || facts.decision !== null || signature.state === 'signed') return [];
  return [
    {
      stage: 'set',
      met: facts.crownDown?.payload.down === true,
      missing: { requirement: 'set.crown-down', words: 'that the crown is screwed down after setting' },
    },
  ];
}

/** What does not work goes back to where it is looked at, until it works or it is said why the watch goes back so. */
function failuresToMend({ facts, signature }: Judged): Added[] {
  if (signature.state === 'signed' || facts.decision !== null) return [];
  return failedProofs(facts)
    .filter(({ handedBackSo }) => handedBackSo === '')
    .map(({ what, stage }) => ({
      stage,
      met: false,
      missing: { requirement: 'set.failed', words: `${what} does not work` },
    }));
}

/** Every seal counted at opening is accounted for: those of an inner cover and a hatch beside the one of the seam. */
function insideProof({ facts, signature }: Judged): Added[] {
  if (
    sealsInside(facts) === 0 ||
    openness(facts) === 'never opened' ||
    facts.decision !== null ||
    signature.state === 'signed'
  )
    return [];
  return [
    {
      stage: 'seal',
      met: facts.insideSeals !== null,
      missing: { requirement: 'seal.inside', words: 'the seals of inner cover and hatch' },
    },
  ];
}

/** What this very watch asks for beyond its service: proofs of parts lost or replaced, its own back, its crown. */
function addedTo(job: Judged): Added[] {
  const { facts } = job;
  const pairing = pairBack(facts);
  return [
    ...crownProof(job),
    ...crownDownProof(job),
    ...failuresToMend(job),
    ...insideProof(job),
    ...partProofs(facts)
      // What an earlier program signed was whole by its own rules.
      .filter(({ onlyOut }) => !onlyOut || job.signature.state !== 'signed')
      .map(({ stage, met, words }): Added => ({
        stage,
        met,
        missing: { requirement: 'part.proof', words },
      })),
    ...openDrops(facts).map(({ dropped }): Added => ({
      stage: 'cell',
      met: false,
      missing: { requirement: 'cell.dropped', words: `${dropped.payload.what} that was dropped` },
    })),
    ...freshLoose(facts).map(({ out }): Added => ({
      stage: 'cell',
      met: false,
      missing: { requirement: 'cell.out', words: `where the fresh ${out.payload.cellCode} is` },
    })),
    ...(pairing.verdict === 'not asked'
      ? []
      : [
          {
            stage: 'seal' as const,
            met: pairing.verdict === 'paired',
            missing: { requirement: 'seal.paired' as const, words: 'back and case paired by serial' },
          },
        ]),
  ];
}

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

/** The parts request a job still waits for, or null. Closed interim, its follow-up waits instead. */
export function awaitedParts(facts: Readonly<JobFacts>): EntryOf<'arrive.parts-request'> | null {
  return facts.partsArrived === null && !facts.closed?.payload.interim ? facts.partsRequest : null;
}

/**
 * How far a job has come, stage by stage: what is required of it (`requiredOf`), what is still missing, what was
 * skipped and why. The first stage with something missing is the current one; until a service is chosen only
 * arriving is asked for.
 */
export function stageProgress(
  job: Judged,
  required: readonly Requirement[],
  policy: Policy,
): StageProgress[] {
  const { facts, signature } = job;
  const service = facts.service?.payload.service ?? null;
  const signed = signature.state === 'signed';
  const added = service === null ? [] : addedTo(job);
  let currentFound = false;
  return STAGES.map((stage): StageProgress => {
    const asked = required.filter((requirement) => REQUIREMENTS[requirement].stage === stage);
    const missing: StageProgress['missing'][number][] = asked
      .filter((requirement) => !MET[requirement](job, policy))
      .map((requirement) => ({ requirement, words: REQUIREMENTS[requirement].words }));
    const addedHere = added.filter((each) => each.stage === stage);
    missing.push(...addedHere.filter(({ met }) => !met).map((each) => each.missing));
    if (stage === 'handback' && service !== null) {
      const parts = openParts(facts);
      if (parts.length > 0)
        missing.push({
          requirement: 'handback.parts',
          words: `${parts.length} part${parts.length === 1 ? '' : 's'} on the tray`,
        });
      for (const { what, count } of partsToOrder(facts))
        missing.push({
          requirement: 'handback.order',
          words: `the order for the lost part: ${countOf(what, count)}`,
        });
      if (!signed) missing.push({ requirement: 'handback.signed', words: 'the signature' });
    }
    const skip = facts.skips.get(stage) ?? null;
    if (asked.length + addedHere.length === 0 && stage !== 'handback')
      return { stage, status: 'not needed', missing, reason: null };
    if (missing.length > 0 && skip) return { stage, status: 'skipped', missing, reason: skip.payload.reason };
    if (missing.length === 0 && (stage !== 'handback' || signed))
      return { stage, status: 'done', missing, reason: null };
    if (currentFound) return { stage, status: 'coming', missing, reason: null };
    currentFound = true;
    return { stage, status: 'current', missing, reason: null };
  });
}

/** Whether a job still stands on the rack: until its record is signed and the watch was collected. */
export function isOnRack({ facts, signature }: Pick<JobSoFar, 'facts' | 'signature'>): boolean {
  return facts.collected === null || signature.state !== 'signed';
}
