import { Box, Button, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import { provingRun } from '../../../core/advice/handback';
import { seenMovement } from '../../../core/advice/identify';
import { capital, figure } from '../../../core/craft/judgement';
import { OUTSIDE, type Outside, type Payloads } from '../../../core/logbook';
import {
  functionsToProve,
  type ProofStep,
  setsByHands,
  settingAdvice,
  watchSeconds,
} from '../../../core/craft/setting';
import { useKey } from '../../kit/keys/KeysProvider';
import { goOnToWanted } from '../../kit/keys/wanted';
import { Caution, LampAnswer, Working } from '../../kit/Lamp';
import { fieldsOf } from '../../kit/fields';
import { CrownCard } from '../../job/CrownCard';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';
import { ShownCard } from './ShownCard';
import { PlannerProvider, usePlanner } from './usePlanner';

const setFunctions = fieldsOf<Payloads['set.functions']>();
const setRuns = fieldsOf<Payloads['set.runs']>();
const setOutside = fieldsOf<Payloads['set.outside']>();
const setRunBegan = fieldsOf<Payloads['set.run-began']>();
const setRunEnded = fieldsOf<Payloads['set.run-ended']>();

/** What was seen not to work is not taken back by one key. */
function UnlessOneFails({ steps }: { readonly steps: readonly ProofStep[] }) {
  const proved: Readonly<Record<string, string>> = setFunctions.useValue('proved');
  return Object.values(proved).includes('does not work') ? null : <AllWork steps={steps} />;
}

/** Every function proved, and recorded as it is said. */
function AllWork({ steps }: { readonly steps: readonly ProofStep[] }) {
  const { record, technician, state } = useJob();
  const recorded = state.facts.functions;
  const allWork = (): void => {
    if (technician === null) return;
    void record(
      'set.functions',
      { proved: Object.fromEntries(steps.map(({ what }) => [what, 'works' as const])) },
      { supersedes: recorded ? [recorded.id] : [] },
    );
    goOnToWanted();
  };
  useKey('a', 'All work as shown', allWork);
  return (
    <Button
      variant="outlined"
      onClick={allWork}
      disabled={technician === null}
      sx={{ alignSelf: 'flex-start' }}
    >
      All work as shown (a)
    </Button>
  );
}

const OUTSIDE_HOW: Readonly<Record<Outside, string>> = {
  'crown in every position': 'Pulls, turns and pushes home; a screwed crown screws down.',
  pushers: 'Each clicks and comes back by itself.',
  bezel: 'Turns as it should and no other way.',
  'bracelet seated, gentle pull': 'Bars seated on both sides, pins flush; a gentle pull.',
};

function Mat() {
  const { state, asks, book, resource } = useJob();
  const { facts, calibre } = state;
  const seen = calibre === null ? seenMovement(state, book) : null;
  const movement = calibre ?? seen;
  const steps = movement ? functionsToProve(movement) : [];
  const watchFor = watchSeconds(movement);
  const outsideWanted =
    asks('set.outside') ||
    state.progress.some(({ missing }) => missing.some(({ requirement }) => requirement === 'set.crown'));
  const outside = facts.outsideBeforeClosing ? null : facts.outside;
  return (
    <>
      <FactCard
        kind="set.runs"
        title="Does it run?"
        recorded={facts.runs}
        defaults={{ runs: null, watchedSeconds: null }}
        beside={
          <Box sx={{ width: 300 }}>
            <setRuns.MeasureField
              name="watchedSeconds"
              label="Watched for"
              quantity="durationS"
              helper={`${watchFor} s at least, for this movement`}
              wanted
            />
          </Box>
        }
      >
        <setRuns.YesNo name="runs" label="Seen" yes="It runs by its own step" no="It does not run" wanted />
      </FactCard>
      <FactCard
        kind="set.time"
        title="Time"
        recorded={facts.timeSet}
        defaults={{ set: null }}
        keyed={facts.runs !== null}
        answers={[
          { label: 'Set to the signal', payload: { set: true } },
          { label: 'Not set', payload: { set: false } },
        ]}
      />
      <FactCard
        kind="set.functions"
        title="Functions of this movement"
        recorded={facts.functions}
        defaults={{ proved: {} }}
        hint={
          seen &&
          seen.asksToProve.length > 0 && (
            <Typography color="text.secondary">
              Not in the book, and not seen yet: {seen.asksToProve.join(', ')}.{' '}
              <Link to={`/jobs/${resource.job.id}/identify`}>Say what is seen of it</Link>, and what is proved
              goes by it.
            </Typography>
          )
        }
      >
        <Stack spacing={0.5}>
          {facts.functions === null && <UnlessOneFails steps={steps} />}
          <setFunctions.ProofList name="proved" steps={steps} wanted />
        </Stack>
      </FactCard>
      <OptionalFacts
        facts={[
          {
            title: 'Crown, bezel and bracelet',
            shown: outside !== null || outsideWanted,
            card: (
              <FactCard
                kind="set.outside"
                title="Crown, bezel and bracelet"
                recorded={outside}
                defaults={{ proved: {} }}
              >
                <setOutside.ProofList
                  name="proved"
                  steps={OUTSIDE.map((what) => ({ what, how: OUTSIDE_HOW[what] }))}
                  wanted={outsideWanted}
                />
              </FactCard>
            ),
          },
          {
            // Where nobody said so yet, a watch that has none says it here.
            title: 'The crown',
            shown: facts.crown !== null,
            card: <CrownCard />,
          },
          {
            title: 'Proving run',
            shown: facts.runBegan !== null || asks('set.proving-run'),
            card: (
              <>
                <FactCard
                  kind="set.run-began"
                  title="Proving run begins"
                  recorded={facts.runBegan}
                  defaults={{ shows: '' }}
                  action="It runs from now"
                >
                  <setRunBegan.TextLine
                    name="shows"
                    label="The hands show"
                    mono
                    wanted={asks('set.proving-run')}
                    helper="against the signal, e.g. 09:42, or 09:42:15 with a seconds hand"
                  />
                </FactCard>
                {facts.runBegan && (
                  <FactCard
                    kind="set.run-ended"
                    title="Proving run ends"
                    recorded={facts.runEnded}
                    defaults={{ shows: '', stillRuns: null }}
                    action="Read now"
                  >
                    <setRunEnded.YesNo name="stillRuns" label="Seen" yes="It still runs" no="It stopped" />
                    <setRunEnded.TextLine
                      name="shows"
                      label="The hands show"
                      mono
                      helper="against the signal, e.g. 17:42"
                    />
                  </FactCard>
                )}
              </>
            ),
          },
        ]}
      />
      {movement && setsByHands(movement.functions) && (
        <ShownCard key={calibre?.id ?? ''} dateQuickSet={calibre === null ? null : calibre.dateQuickSet} />
      )}
    </>
  );
}

const numbered = (steps: readonly string[]): readonly string[] =>
  steps.map((step, index) => `${index + 1}. ${step}`);

const countOf = (count: number, of: string): string =>
  `${count === 0 ? 'no' : count} ${of}${count === 1 ? '' : 's'}`;

function Lamp() {
  const { state, today, book } = useJob();
  const { calibre, facts } = state;
  const advice = settingAdvice(
    calibre ?? (facts.movement ? { ...seenMovement(state, book), dateQuickSet: null } : null),
    today,
  );
  const run = provingRun(facts);
  const { plan, wanted } = usePlanner();
  return (
    <>
      <LampAnswer
        question="Does it run?"
        standing={facts.runs ? (facts.runs.payload.runs ? 'good' : 'no') : 'open'}
        answer={facts.runs ? (facts.runs.payload.runs ? 'Runs' : 'Does not run') : 'Not yet seen'}
        reasons={[
          calibre?.stepIntervalS && calibre.stepIntervalS > 1
            ? `It steps only every ${calibre.stepIntervalS} s: wait before calling it dead.`
            : 'Running proves contact and present voltage, not that the cell is the right one.',
        ]}
      />
      {plan === null || plan.midnights === null ? (
        <LampAnswer
          question="Set it so"
          standing={advice.verdict === 'set so' ? 'good' : 'open'}
          answer={
            advice.verdict === 'set so'
              ? `${advice.steps.length} step${advice.steps.length === 1 ? '' : 's'}`
              : 'Not yet known'
          }
          reasons={[...numbered(advice.steps), ...advice.reasons]}
        />
      ) : (
        <LampAnswer
          question={`Set it so, to ${wanted}`}
          standing={plan.verdict === 'set so' ? 'good' : 'care'}
          answer={
            plan.verdict === 'set so'
              ? `${countOf(plan.moves.length, 'move')}, ${countOf(plan.midnights.taken, 'midnight')}`
              : capital(plan.verdict)
          }
          reasons={[
            ...numbered([...plan.steps, ...advice.steps.slice(-1)]),
            ...plan.reasons,
            ...advice.reasons,
          ]}
        />
      )}
      {run.verdict !== 'not begun' && (
        <LampAnswer
          question="Proving run"
          standing={run.verdict === 'keeps time' ? 'good' : run.verdict === 'still running' ? 'open' : 'no'}
          answer={capital(run.verdict)}
          reasons={[
            ...run.reasons,
            ...(run.secondsPerDay === null ? [] : [`${figure(run.secondsPerDay, 1)} s a day.`]),
          ]}
        />
      )}
      {facts.runs?.payload.runs === false && (
        <Caution>Crown home? A pulled crown stops the motor. Then cell, contacts, insulator.</Caution>
      )}
      <Working lines={[...(plan?.working ?? []), ...advice.working, ...run.working]} />
    </>
  );
}

export default function SetStage() {
  return (
    <PlannerProvider>
      <BenchLayout mat={<Mat />} lamp={<Lamp />} />
    </PlannerProvider>
  );
}
