import { Paper, Stack, Typography } from '@mui/material';
import { waterStatement } from '../../../core/handback';
import { entryInWords, TEST_METHODS } from '../../../core/logbook';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { Choice, MeasureField, optionsOf } from '../../job/fields';
import { capital, FactCard, RecordedBy } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { StageLayout } from '../../job/StageLayout';

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
        key={tests.length}
        kind="test.made"
        title="Record a test"
        recorded={null}
        defaults={{ method: 'dry air', pressureBar: null, seconds: 60, outcome: 'no leak seen' }}
        instead={
          closed ? undefined : (
            <Typography>The watch is not closed yet: a test now would prove nothing.</Typography>
          )
        }
      >
        <Choice name="method" label="Method" options={optionsOf(TEST_METHODS)} wanted />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <MeasureField
            name="pressureBar"
            label="Pressure"
            quantity="pressureBar"
            optional
            helper="blank for condensation"
          />
          <MeasureField name="seconds" label="Watched for" quantity="durationS" />
        </Stack>
        <Choice
          name="outcome"
          label="Outcome"
          options={optionsOf(['no leak seen', 'leak seen', 'not clear'])}
        />
      </FactCard>
    </>
  );
}

function Lamp() {
  const { state } = useJob();
  const water = waterStatement(state);
  return (
    <>
      <LampAnswer
        question="What may be said about water"
        standing={water.verdict === 'tested' ? 'good' : water.verdict === 'not tested' ? 'open' : 'no'}
        answer={capital(water.verdict)}
        reasons={[water.statement, ...water.reasons]}
      />
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
