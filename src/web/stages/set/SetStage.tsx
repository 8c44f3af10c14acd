import { dayOf, movementToSet, quickSetInBook, runsBySight } from '../../../core/advice/proving';
import { seenMovement } from '../../../core/advice/identify';
import { hasDateWheel, type ProvedMovement, watchSeconds } from '../../../core/craft/setting';
import { crownOf, seenRunning, openness } from '../../../core/logbook';
import { CrownCard } from '../../job/CrownCard';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';
import { Before } from './Before';
import { FunctionsCard, OutsideCard } from './Proofs';
import { Recipes } from './Recipes';
import { RunCards, RunsCard } from './Running';
import { SetLamp } from './SetLamp';
import { ShownCard } from './ShownCard';
import { PlannerProvider } from './usePlanner';

interface Watched {
  readonly movement: ProvedMovement | null;
  /** How long it is watched before it is called running, seconds. */
  readonly watchFor: number;
}

/** The time, and the crown home. */
function TimeCards() {
  const { state } = useJob();
  const { facts } = state;
  const ran = seenRunning(facts) !== null;
  return (
    <>
      <FactCard
        kind="set.time"
        title="Time"
        recorded={facts.timeSet}
        defaults={{ set: null }}
        keyed={ran}
        hint={<Before entry={facts.timeSet ? null : (facts.beforeClosing?.timeSet ?? null)} />}
        answers={[
          { label: 'Set to the signal', payload: { set: true } },
          { label: 'Not set', payload: { set: false } },
        ]}
      />
      {(crownOf(state) === 'screwed down' || facts.crownDown !== null) && (
        <FactCard
          kind="set.crown-down"
          title="Crown screwed down"
          recorded={facts.crownDown}
          defaults={{ down: null }}
          keyed={facts.timeSet !== null}
          answers={[
            { label: 'Screwed down', payload: { down: true } },
            { label: 'Not screwed down', payload: { down: false } },
          ]}
        />
      )}
    </>
  );
}

function Mat({ movement, watchFor }: Watched) {
  const { state, asks, book } = useJob();
  const { facts, calibre } = state;
  const toSet = movementToSet(state, book);
  const { beforeClosing } = facts;
  const ran = seenRunning(facts) !== null;
  const outsideWanted =
    asks('set.outside') ||
    state.progress.some(({ missing }) => missing.some(({ requirement }) => requirement === 'set.crown'));
  // Crown and bracelet are proved on the closed watch.
  const isOpen = openness(facts) === 'open';
  return (
    <>
      {(facts.runs !== null || !ran) && facts.watched === null && <RunsCard watchFor={watchFor} />}
      <OptionalFacts
        facts={[
          {
            title: 'Watched by the clock',
            shown: facts.watched !== null || (!ran && !runsBySight(movement)),
            card: (
              <RunCards toSee="that it runs" run={facts.watched} before={beforeClosing?.watched ?? null} />
            ),
          },
          {
            title: 'Crown, bezel and bracelet',
            shown: facts.outside !== null || outsideWanted,
            card: <OutsideCard wanted={outsideWanted && !isOpen} />,
          },
          {
            // Where nobody said so yet, a watch that has none says it here.
            title: 'The crown',
            shown: facts.crown !== null,
            card: <CrownCard />,
          },
        ]}
      />
      <TimeCards />
      <FunctionsCard />
      <OptionalFacts
        facts={[
          {
            title: 'Proving run',
            shown: facts.proving !== null || asks('set.proving-run'),
            card: (
              <RunCards
                toSee="how it keeps time"
                run={facts.proving}
                before={beforeClosing?.proving ?? null}
                wanted={asks('set.proving-run')}
              />
            ),
          },
        ]}
      />
      {toSet && toSet.hasCrown && hasDateWheel(toSet) && (
        <ShownCard
          key={calibre?.id ?? ''}
          quickSetInBook={quickSetInBook(calibre)}
          day={dayOf(toSet, calibre)}
        />
      )}
      <Recipes />
    </>
  );
}

function Stage() {
  const { state, book } = useJob();
  const movement = state.calibre ?? (state.facts.movement ? seenMovement(state, book) : null);
  const watchFor = watchSeconds(movement);
  return (
    <BenchLayout
      mat={<Mat movement={movement} watchFor={watchFor} />}
      lamp={<SetLamp movement={movement} watchFor={watchFor} />}
    />
  );
}

export default function SetStage() {
  return (
    <PlannerProvider>
      <Stage />
    </PlannerProvider>
  );
}
