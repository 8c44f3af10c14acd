import { Link, useParams } from 'react-router';
import { capital } from '../../core/craft/judgement';
import { STAGE_WORDS, STAGES } from '../../core/craft/policy';
import { failedProofs } from '../../core/logbook';
import { Caution } from '../kit/Lamp';
import { useJob } from './JobContext';

/** What was tried and does not work: told where it is looked at, and all of it where it was tried. */
export function Failures() {
  const { state, resource } = useJob();
  const { stage: open } = useParams();
  return failedProofs(state.facts)
    .filter(({ stage, handedBackSo }) => open === 'set' || (stage === open && handedBackSo === ''))
    .map(({ what, stage, look, handedBackSo }) => {
      const to = open === 'set' ? stage : 'set';
      const elsewhere = (
        <Link to={`/jobs/${resource.job.id}/${to}`} style={{ color: 'inherit' }}>
          stage {STAGES.indexOf(to) + 1}, {STAGE_WORDS[to].toLowerCase()}
        </Link>
      );
      return (
        <Caution key={what} grave>
          {capital(what)} does not work
          {handedBackSo !== '' ? (
            `, handed back with this fault: ${handedBackSo}.`
          ) : stage === 'set' ? (
            `: ${look}.`
          ) : open === 'set' ? (
            <>
              : back to {elsewhere}: check {look}. Then try it again here.
            </>
          ) : (
            <>
              : check {look}. Then try it again at {elsewhere}.
            </>
          )}
        </Caution>
      );
    });
}
