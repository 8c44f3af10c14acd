import { Paper, Stack, Typography } from '@mui/material';
import { useFormContext } from 'react-hook-form';
import { waterStatement } from '../../../core/advice/handback';
import { capital, figure } from '../../../core/craft/judgement';
import { deflectionKept, entryInWords, TEST_METHODS, type Payloads } from '../../../core/logbook';
import { Caution, LampAnswer, Working } from '../../kit/Lamp';
import { CaseFigure } from '../../figures/CaseFigure';
import { optionsOf, fieldsOf } from '../../kit/fields';
import { FactCard, RecordedBy } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OnTester } from './OnTester';
import { StageLayout } from '../../kit/StageLayout';

const testMade = fieldsOf<Payloads['test.made']>();

/** Where it leaked, on the clock face; asked only once a leak was seen. */
function LeakPlace() {
  const outcome = testMade.useValue('outcome');
  const clock = testMade.useValue('leakClock');
  const form = useFormContext();
  if (outcome !== 'leak seen') return null;
  return (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
      <CaseFigure
        view="front"
        marks={clock === null || Number.isNaN(clock) ? [] : [{ clock, label: 'leak' }]}
        onPick={(picked) => form.setValue('leakClock', picked, { shouldDirty: true })}
      />
      <testMade.MeasureField
        name="leakClock"
        label="It leaked at"
        quantity="figureOnly"
        optional
        helper="o’clock from the dial; blank if not seen"
      />
    </Stack>
  );
}

function Mat() {
  const { state } = useJob();
  const { tests, closed } = state.facts;
  return (
    <>
      {tests.length > 0 && (
        <Paper component="section" aria-label="Tests made" sx={{ p: 2 }}>
          <Typography variant="h3" component="h2">
            Tests made
          </Typography>
          {tests.map((test) => (
            <Typography key={test.id}>
              {capital(entryInWords(test))} · <RecordedBy entry={test} />
            </Typography>
          ))}
        </Paper>
      )}
      <FactCard
        kind="test.made"
        files
        title="Record a test"
        recorded={null}
        defaults={{
          method: 'dry air',
          pressureBar: null,
          seconds: 60,
          outcome: 'no leak seen',
          deflectionStartUm: null,
          deflectionEndUm: null,
          leakClock: null,
          temperatureC: null,
          note: '',
        }}
        instead={
          closed ? undefined : (
            <Typography>The watch is not closed yet: a test now would prove nothing.</Typography>
          )
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
        <testMade.Choice
          name="outcome"
          label="Outcome"
          options={optionsOf(['no leak seen', 'leak seen', 'not clear'])}
        />
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
        <testMade.TextLine name="note" label="What was done about it" />
      </FactCard>
    </>
  );
}

function Lamp() {
  const { state } = useJob();
  const water = waterStatement(state);
  const last = state.facts.tests.at(-1);
  const leak = state.facts.tests.findLast((test) => test.payload.outcome === 'leak seen');
  const crown = state.facts.watch?.payload.crownClock ?? null;
  return (
    <>
      <LampAnswer
        question="What may be said about water"
        standing={water.verdict === 'tested' ? 'good' : water.verdict === 'not tested' ? 'open' : 'no'}
        answer={capital(water.verdict)}
        reasons={[water.statement, ...water.reasons]}
      />
      {leak && leak.payload.leakClock !== null && (
        <LampAnswer
          question="It leaked at"
          standing="no"
          answer={`${leak.payload.leakClock} o’clock`}
          reasons={[
            leak.payload.leakClock === crown
              ? 'That is the crown: its seal first.'
              : 'Look at the ring there, then at the crystal.',
          ]}
        >
          <CaseFigure view="front" marks={[{ clock: leak.payload.leakClock, label: 'leak' }]} size={150} />
        </LampAnswer>
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
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
