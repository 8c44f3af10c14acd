import { isForLicensed } from '../../craft/gaskets';
import type { Judged } from '../../craft/judgement';
import { type JobState, notInHouse } from '../../logbook';

export type ReadyToOpen = Judged<'ready' | 'not yet' | 'no consent' | 'not here'>;

/**
 * May this watch be opened? Not without the owner's consent where the service asks for it, not once it was referred
 * or declined, and not while something it needs is missing in the house, unless the owner accepts that it may be
 * closed for the time being. Source: bench practice.
 */
export function readyToOpen(state: Pick<JobState, 'facts' | 'progress'>): ReadyToOpen {
  const { facts, progress } = state;
  const judged = (verdict: ReadyToOpen['verdict'], reasons: readonly string[]): ReadyToOpen => ({
    verdict,
    reasons,
    working: [],
  });
  if (facts.decision) {
    const { decision, reason, told } = facts.decision.payload;
    return judged('not here', [
      `${decision === 'referred' ? 'Referred' : 'Declined'}: ${reason}.`,
      ...(told ? [`Told: ${told}.`] : []),
      'Sign the record at stage 9.',
    ]);
  }
  const missing = progress.find((stage) => stage.stage === 'arrive')?.missing ?? [];
  if (
    facts.consent?.payload.given === false &&
    missing.some(({ requirement }) => requirement === 'arrive.consent')
  ) {
    return judged('no consent', [
      'The owner has not agreed to the risks. Ask again, or hand the watch back unopened.',
    ]);
  }
  const lacking = facts.ready ? notInHouse(facts.ready.payload) : [];
  const accepted = facts.ready?.payload.riskAccepted === true;
  const waits = lacking.length > 0 && !accepted && facts.partsArrived === null;
  if (missing.length > 0 || waits) {
    return judged('not yet', [
      ...(missing.length > 0 ? [`Still wanted: ${missing.map((each) => each.words).join(', ')}.`] : []),
      ...(waits
        ? [
            `Not in the house: ${lacking.join(', ')}. Order first, or ask the owner whether it may be closed for the time being.`,
          ]
        : []),
    ]);
  }
  const rating = facts.watch?.payload.ratingBar ?? null;
  return judged('ready', [
    'The service, the promise and the owner’s consent stand.',
    ...(lacking.length > 0 && accepted
      ? [
          `Not in the house: ${lacking.join(', ')}; the owner accepts an interim closing, with no word about water.`,
        ]
      : []),
    ...(rating !== null && isForLicensed(rating)
      ? ['Rated for diving: think of referring it before it is opened.']
      : []),
  ]);
}
