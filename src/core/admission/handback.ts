import { deepEqual } from 'fast-equals';
import { handback } from '../advice/handback';
import { nextVisitNoted } from '../advice/dayplan';
import { type Judge, type Judges, refuse } from './admission';

/** A record is signed once, by somebody who saw the job as it is, resting on book and policy of now, word for word. */
const signed: Judge<'handback.signed'> = ({ payload }, { state, lots, context }) => {
  if (state.signature.state === 'signed')
    return refuse(
      [`The job is signed already, by ${state.signature.entry.payload.initials}.`],
      'Nothing more is needed.',
    );
  if (payload.restsOnSequence !== state.lastSequence)
    return refuse(['The job has changed since you opened the record.'], 'Read the record again, then sign.');
  const now = handback(state, lots(), context);
  if (now.verdict === 'not ready')
    return refuse(now.reasons, 'Record what is missing, or skip the stage with a reason.');
  if (
    payload.catalogueRevision !== context.catalogue.revision ||
    payload.policyRevision !== context.policy.revision
  )
    return refuse(
      ['The book or the policy has changed since the record was made.'],
      'Reload the job, read the record again, then sign.',
    );
  return deepEqual(now.statement, payload.statement)
    ? null
    : refuse(
        ['The signed text does not match the entries.'],
        'Reload the job, read the record again, then sign.',
      );
};

export const handbackJudges: Judges<'handback.signed' | 'handback.collected' | 'handback.reminded'> = {
  'handback.signed': signed,
  'handback.collected': (_, { state }) =>
    state.signature.state === 'signed'
      ? null
      : refuse(['The job is not signed.'], 'Sign the record before the watch is handed over.'),
  'handback.reminded': (_, { state }) =>
    nextVisitNoted(state) === null
      ? refuse(
          ['This watch has no next visit on record, or it is not handed over yet.'],
          'You can send a reminder after the watch is collected, if its record has a next visit.',
        )
      : null,
};
