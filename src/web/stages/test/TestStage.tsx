import { Paper, Stack, Typography } from '@mui/material';
import { useFormContext } from 'react-hook-form';
import {
  type JudgedTest,
  judgeTests,
  leakPlace,
  testExcess,
  testInWords,
  waterStatement,
} from '../../../core/advice/handback';
import { crownOf } from '../../../core/advice/opening';
import { VIEWS } from '../../../core/craft/cases';
import { capital, figure } from '../../../core/craft/judgement';
import { entryInWords, type Payloads } from '../../../core/logbook';
import { deflectionKept, TEST_METHODS, TEST_OUTCOMES } from '../../../core/craft/tightness';
import { Caution, LampAnswer, Working } from '../../kit/Lamp';
import { CaseFigure } from '../../figures/CaseFigure';
import { optionsOf, fieldsOf } from '../../kit/fields';
import { NativeSelect } from '../../kit/NativeSelect';
import { CrownCard } from '../../job/CrownCard';
import { FactCard } from '../../job/FactCard';
import { RecordedBy } from '../../job/RecordedBy';
import { useJob } from '../../job/JobContext';
import { OnTester } from './OnTester';
import { BenchLayout } from '../../job/BenchLayout';

const testMade = fieldsOf<Payloads['test.made']>();

/** Where it leaked, on the clock face; asked only once a leak was seen. */
function LeakPlace() {
  const outcome = testMade.useValue('outcome');
  const clock = testMade.useValue('leakClock');
  const seenFrom = testMade.useValue('leakSeenFrom');
  const form = useFormContext();
  if (outcome !== 'leak seen') return null;
  return (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
      <CaseFigure
        view={seenFrom === 'behind' ? 'back' : 'front'}
        marks={clock === null || Number.isNaN(clock) ? [] : [{ clock, label: 'leak' }]}
        onPick={(picked) => form.setValue('leakClock', picked, { shouldDirty: true })}
      />
      <Stack spacing={1}>
        <testMade.Choice name="leakSeenFrom" label="Place seen from" options={optionsOf(VIEWS)} />
        <testMade.MeasureField
          name="leakClock"
          label="It leaked at"
          quantity="figureOnly"
          optional
          helper="o’clock as seen from there; blank if not seen"
        />
      </Stack>
    </Stack>
  );
}

/** Which test it tries anew, where one stands that leaked or was not clear. */
function RetestOf({ standing }: { readonly standing: readonly JudgedTest[] }) {
  const form = useFormContext();
  const retestOf = testMade.useValue('retestOf');
  if (standing.length === 0) return null;
  return (
    <NativeSelect
      label="Retest of"
      value={retestOf ?? ''}
      options={[
        { value: '', label: 'a test of its own' },
        ...standing.map(({ test }) => ({
          value: test.id,
          label: `${testInWords(test)}, ${test.payload.outcome}`,
        })),
      ]}
      onChange={(id) => form.setValue('retestOf', id === '' ? null : id, { shouldDirty: true })}
    />
  );
}

/** Beyond what watch, shop or tester are for a reason is wanted; within it nothing is asked. */
function Excess() {
  const { state, context } = useJob();
  const [method, pressureBar] = [testMade.useValue('method'), testMade.useValue('pressureBar')];
  const excess = Number.isFinite(pressureBar)
    ? testExcess({ method, pressureBar }, state, context.policy)
    : [];
  if (excess.length === 0) return null;
  return (
    <>
      <Caution grave>{excess.join(' ')} A crystal can fly, and a seal that held is broken by it.</Caution>
      <testMade.TextLine name="excessReason" label="Why beyond that all the same" />
    </>
  );
}

function Mat() {
  const { state, context } = useJob();
  const { closed } = state.facts;
  const crown = crownOf(state);
  const tests = judgeTests(state);
  return (
    <>
      {tests.length > 0 && (
        <Paper component="section" aria-label="Tests made" sx={{ p: 2 }}>
          <Typography variant="h3" component="h2">
            Tests made
          </Typography>
          {tests.map(({ test, shows, stands }) => (
            <Typography key={test.id}>
              {capital(entryInWords(test))} · <RecordedBy entry={test} />
              {shows.verdict === 'proves nothing' && ` · proves nothing: ${shows.reasons.join(', ')}`}
              {stands && ' · stands until a retest passes'}
            </Typography>
          ))}
        </Paper>
      )}
      <CrownCard wanted={crown === null} />
      <FactCard
        kind="test.made"
        files
        title="Record a test"
        recorded={null}
        defaults={{
          method: null,
          pressureBar: null,
          seconds: null,
          outcome: null,
          deflectionStartUm: null,
          deflectionEndUm: null,
          leakClock: null,
          leakSeenFrom: null,
          temperatureC: null,
          note: '',
          retestOf: null,
          excessReason: '',
        }}
        judge={(payload) => {
          const excess = testExcess(payload, state, context.policy);
          return excess.length > 0 && payload.excessReason === ''
            ? { path: 'excessReason', reason: 'The reason: test at less, or say why beyond that.' }
            : null;
        }}
        instead={
          !closed ? (
            <Typography>The watch is not closed yet: a test now would prove nothing.</Typography>
          ) : crown === null ? (
            <Typography>
              What kind of crown it has comes first: one that screws down is down before pressure.
            </Typography>
          ) : undefined
        }
      >
        <testMade.Choice
          name="method"
          label="Method"
          options={optionsOf(TEST_METHODS)}
          wanted={tests.length === 0}
        />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <testMade.MeasureField
            name="pressureBar"
            label="Pressure"
            quantity="pressureBar"
            optional
            helper="blank for condensation"
          />
          <testMade.MeasureField name="seconds" label="Watched for" quantity="durationS" />
        </Stack>
        <testMade.Choice name="outcome" label="Outcome" options={optionsOf(TEST_OUTCOMES)} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <testMade.MeasureField
            name="deflectionStartUm"
            label="Deflection, start"
            quantity="micrometres"
            optional
            helper="after settling"
          />
          <testMade.MeasureField
            name="deflectionEndUm"
            label="Deflection, end"
            quantity="micrometres"
            optional
            helper="blank if not shown"
          />
          <testMade.MeasureField
            name="temperatureC"
            label="Temperature"
            quantity="temperatureC"
            optional
            helper="of the room"
          />
        </Stack>
        <OnTester />
        <LeakPlace />
        <Excess />
        <RetestOf standing={tests.filter(({ stands }) => stands)} />
        <testMade.TextLine name="note" label="What was done about it" />
      </FactCard>
    </>
  );
}

function Lamp() {
  const { state } = useJob();
  const water = waterStatement(state);
  const last = state.facts.tests.at(-1);
  const leak = water.tests.findLast(({ stands, shows }) => stands && shows.verdict === 'leaks')?.test;
  const place = leak ? leakPlace(leak.payload, state) : null;
  const crown = crownOf(state);
  return (
    <>
      <LampAnswer
        question="What may be said about water"
        standing={water.verdict === 'tested' ? 'good' : water.verdict === 'not tested' ? 'open' : 'no'}
        answer={capital(water.verdict)}
        reasons={[water.statement, ...water.reasons].map(capital)}
      />
      {place && leak && (
        <LampAnswer question="It leaked at" standing="no" answer={place.where} reasons={[place.look]}>
          <CaseFigure
            view={leak.payload.leakSeenFrom === 'behind' ? 'back' : 'front'}
            marks={[{ clock: leak.payload.leakClock, label: 'leak' }]}
            size={150}
          />
        </LampAnswer>
      )}
      {crown === 'screwed down' && (
        <Caution grave>
          The crown screws down: see that it is down before pressure. Left up it floods the case.
        </Caution>
      )}
      {last && deflectionKept(last.payload) !== null && (
        <LampAnswer
          question="Deflection left at the end"
          standing="open"
          answer={`${figure((deflectionKept(last.payload) ?? 0) * 100, 1)} %`}
          reasons={[
            `${last.payload.deflectionEndUm} of ${last.payload.deflectionStartUm} µm after ${last.payload.seconds} s.`,
          ]}
        />
      )}
      <Caution>Lid closed and eyes protected before pressure: a crystal can fly.</Caution>
      <Typography color="text.secondary">
        The outcome is the tester’s own. How sure it is, and whether a longer watch would settle it, is not
        worked out here.
      </Typography>
      <Working lines={water.working} />
    </>
  );
}

export default function TestStage() {
  return <BenchLayout mat={<Mat />} lamp={<Lamp />} />;
}
