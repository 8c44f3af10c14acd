import { isForLicensed } from '../../craft/gaskets';
import type { Judged } from '../../craft/judgement';
import { type JobState, notAvailable } from '../../logbook';
import type { Need } from './needsOf';

export type ReadyToOpen = Judged<'ready' | 'not yet' | 'no consent' | 'not here'>;

/**
 * May this watch be opened? Not without the owner's consent where the service asks for it, not once it was referred
 * or declined, and not while something it needs is missing, unless the owner accepts that it may be
 * closed for the time being. Source: bench practice.
 */
export function readyToOpen(
  state: Pick<JobState, 'facts' | 'progress'>,
  needs: readonly Need[] = [],
): ReadyToOpen {
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
  // Worked out from stock and tools; what an earlier program had ticked counts beside it.
  const lacking = [
    ...needs.filter(({ status }) => status === 'not available').map((need) => `${need.of}, ${need.words}`),
    ...(facts.ready && needs.length === 0 ? notAvailable(facts.ready.payload) : []),
  ];
  const unknown = needs.filter(({ status }) => status === 'not known yet').map(({ of }) => of);
  const accepted = facts.ready?.payload.riskAccepted === true;
  const waits = lacking.length > 0 && !accepted && facts.partsArrived === null;
  if (missing.length > 0 || waits) {
    return judged('not yet', [
      ...(missing.length > 0 ? [`Missing: ${missing.map((each) => each.words).join(', ')}.`] : []),
      ...(waits
        ? [
            `Not in this shop: ${lacking.join(', ')}. Order first, or ask the owner whether it may be closed temporarily.`,
          ]
        : []),
    ]);
  }
  const rating = facts.watch?.payload.ratingBar ?? null;
  return judged('ready', [
    'Service, promise and the owner’s consent are recorded.',
    ...(unknown.length > 0 ? [`Not known before opening: ${unknown.join(', ')}.`] : []),
    ...(lacking.length > 0 && accepted
      ? [
          `Not in this shop: ${lacking.join(', ')}; the owner accepts a temporary closing without a statement about water.`,
        ]
      : []),
    ...(rating !== null && isForLicensed(rating)
      ? ['Rated for diving. Consider referring it before you open it.']
      : []),
  ]);
}
