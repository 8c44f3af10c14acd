import { orderOfProofs, whereItStands } from '../../../core/advice/proving';
import { capital, figure } from '../../../core/craft/judgement';
import { cautionsAtSetting, type ProvedMovement } from '../../../core/craft/setting';
import { ranBeforeClosing, runOf, seenRunning, watchedLongEnough } from '../../../core/logbook';
import { Fold } from '../../kit/Fold';
import { Caution, LampAnswer, type LampTone, Working } from '../../kit/Lamp';
import { useJob } from '../../job/JobContext';
import { RunsDue } from '../../job/RunsDue';
import { BeginCountdown, CrownCountdown } from './CrownCountdown';
import { usePlanner } from './usePlanner';

const numbered = (steps: readonly string[]): readonly string[] =>
  steps.map((step, index) => `${index + 1}. ${step}`);

const countOf = (count: number, of: string): string =>
  `${count === 0 ? 'no' : count} ${of}${count === 1 ? '' : 's'}`;

function DoesItRun({
  movement,
  watchFor,
}: {
  readonly movement: ProvedMovement | null;
  readonly watchFor: number;
}) {
  const { facts } = useJob().state;
  const seen = seenRunning(facts);
  const before = seen === null ? ranBeforeClosing(facts) : null;
  const stepS = movement?.stepIntervalS ?? null;
  const slow = stepS !== null && stepS > 1 ? stepS : null;
  const tooShort = seen?.runs === true && !watchedLongEnough(seen, movement);
  const answer =
    seen === null
      ? before?.runs
        ? 'Ran before it was closed'
        : 'Not yet seen'
      : seen.runs
        ? tooShort
          ? 'Watched too briefly'
          : 'Runs'
        : 'Does not run';
  return (
    <LampAnswer
      question="Does it run?"
      tone={seen === null ? 'open' : !seen.runs ? 'no' : tooShort ? 'care' : 'good'}
      folded={seen?.runs === true && !tooShort}
      // That it runs proves little is known to most: what this movement needs is not.
      shown={tooShort || slow !== null ? 1 : 0}
      answer={answer}
      reasons={[
        ...(tooShort
          ? [`Watched for ${figure(seen.watchedSeconds)} s: this movement needs ${watchFor} s.`]
          : []),
        ...(slow === null
          ? []
          : [`It steps only every ${figure(slow)} s: watch it ${watchFor} s before you call it stopped.`]),
        'A running watch proves contact and voltage. It does not prove that the cell is the right one.',
      ]}
    />
  );
}

const RUN_STANDING: Readonly<Record<ReturnType<typeof runOf>['verdict'], LampTone>> = {
  'keeps time': 'good',
  runs: 'good',
  'still running': 'open',
  'not begun': 'open',
  off: 'no',
  stopped: 'no',
};

function ProvingRun() {
  const { facts } = useJob().state;
  const run = runOf(facts, 'how it keeps time');
  if (run.verdict === 'not begun') return null;
  return (
    <>
      <LampAnswer
        question="Proving run"
        tone={RUN_STANDING[run.verdict]}
        answer={capital(run.verdict)}
        reasons={run.reasons}
      />
      <Working lines={run.working} />
    </>
  );
}

function CautionsOfTheBook() {
  const { calibre } = useJob().state;
  const { here, others } = cautionsAtSetting(calibre?.cautions ?? []);
  return (
    <>
      {here.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {others.length > 0 && (
        <Fold summary="Further cautions of this calibre">
          {others.map((caution) => (
            <Caution key={caution}>{caution}</Caution>
          ))}
        </Fold>
      )}
    </>
  );
}

export function SetLamp({
  movement,
  watchFor,
}: {
  readonly movement: ProvedMovement | null;
  readonly watchFor: number;
}) {
  const { state, resource } = useJob();
  const { plan, advice, wanted } = usePlanner();
  const stopped = whereItStands(state);
  const known = advice.verdict !== 'not yet known';
  const midnights = plan?.midnights ?? null;
  return (
    <>
      <CrownCountdown />
      <DoesItRun movement={movement} watchFor={watchFor} />
      {orderOfProofs(state).map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      <LampAnswer
        question={midnights === null ? 'Setting' : `Setting, to ${wanted}`}
        tone={advice.verdict === 'set so' ? 'good' : known ? 'care' : 'open'}
        answer={
          advice.verdict !== 'set so'
            ? capital(advice.verdict)
            : midnights === null || plan === null
              ? countOf(advice.steps.length, 'step')
              : `${countOf(plan.moves.length, 'move')}, ${countOf(midnights.taken, 'midnight')}`
        }
        reasons={[...numbered(advice.steps), ...advice.reasons]}
        shown={advice.steps.length}
        working={advice.working}
        folded={state.facts.timeSet !== null}
      >
        {known && <BeginCountdown />}
      </LampAnswer>
      <CautionsOfTheBook />
      <ProvingRun />
      <RunsDue exceptJobId={resource.job.id} />
      {stopped !== null && <Caution>{stopped}</Caution>}
    </>
  );
}
