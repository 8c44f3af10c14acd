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
    return refuse(
      ['The job has changed since you looked at it.'],
      'Read the record once more and sign again.',
    );
  const now = handback(state, lots(), context);
  if (now.verdict === 'not ready')
    return refuse(now.reasons, 'Record what is missing, or skip the stage with a reason.');
  if (
    payload.catalogueRevision !== context.catalogue.revision ||
    payload.policyRevision !== context.policy.revision
  )
    return refuse(
      ['Book or policy has changed since the record was worked out.'],
      'Load the job again and sign what it says now.',
    );
  return deepEqual(now.statement, payload.statement)
    ? null
    : refuse(
        ['The statement signed is not what the entries say.'],
        'Load the job again and sign what it says now.',
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
          ['No next visit stands on record for this watch, or it was not handed over yet.'],
          'Remind of a visit once the watch was collected and its record names the day.',
        )
      : null,
};
