import { Button, FormControlLabel, Radio, RadioGroup, Stack, Typography } from '@mui/material';
import { useController } from 'react-hook-form';
import type { FunctionKind } from '../../../core/movements';
import { functionsToProve, settingAdvice, type ProofStep, watchSeconds } from '../../../core/setting';
import { useKey } from '../../app/keys/KeysProvider';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { MeasureField, Tick } from '../../job/fields';
import { capital, FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { StageLayout } from '../../job/StageLayout';

const UNKNOWN_MOVEMENT: readonly ProofStep[] = [
  { what: 'hands', how: 'Hands pass each other and the dial all the way round.' },
];
type Proved = Partial<Record<FunctionKind, 'works' | 'does not work'>>;

function ProofFields({ steps }: { readonly steps: readonly ProofStep[] }) {
  const { field } = useController({ name: 'proved' });
  const proved = field.value as Proved;
  const allWork = (): void => field.onChange(Object.fromEntries(steps.map(({ what }) => [what, 'works'])));
  useKey('a', 'All work as shown', allWork);
  return (
    <Stack spacing={0.5}>
      <Button variant="outlined" onClick={allWork} sx={{ alignSelf: 'flex-start' }}>
        All work as shown (a)
      </Button>
      {steps.map(({ what, how }, index) => (
        <Stack
          key={what}
          direction={{ xs: 'column', sm: 'row' }}
          spacing={2}
          sx={{ alignItems: { sm: 'center' } }}
        >
          <Typography sx={{ flexGrow: 1 }}>
            <strong>{capital(what)}.</strong> {how}
          </Typography>
          <RadioGroup
            row
            aria-label={what}
            value={proved[what] ?? ''}
            onChange={(_, result) => field.onChange({ ...proved, [what]: result })}
            sx={{ flexShrink: 0 }}
          >
            {(['works', 'does not work'] as const).map((result) => (
              <FormControlLabel
                key={result}
                value={result}
                label={result}
                control={
                  <Radio
                    slotProps={{
                      input: {
                        'data-wanted': index === 0 && result === 'works',
                      } as React.InputHTMLAttributes<HTMLInputElement>,
                    }}
                  />
                }
              />
            ))}
          </RadioGroup>
        </Stack>
      ))}
    </Stack>
  );
}

function Mat() {
  const { state } = useJob();
  const { facts, calibre } = state;
  const steps = calibre ? functionsToProve(calibre) : UNKNOWN_MOVEMENT;
  const watchFor = watchSeconds(calibre);
  return (
    <>
      <FactCard
        kind="set.runs"
        title="Does it run?"
        recorded={facts.runs}
        defaults={{ runs: true, watchedSeconds: watchFor }}
      >
        <Tick name="runs" label="It runs by its own step" wanted />
        <MeasureField name="watchedSeconds" label="Watched for" quantity="durationS" />
      </FactCard>
      <FactCard kind="set.time" title="Time" recorded={facts.timeSet} defaults={{ set: true }}>
        <Tick name="set" label="Set to the signal" wanted />
      </FactCard>
      <FactCard
        kind="set.functions"
        title="Functions of this movement"
        recorded={facts.functions}
        defaults={{ proved: {} }}
      >
        <ProofFields steps={steps} />
      </FactCard>
    </>
  );
}

function Lamp() {
  const { state, today } = useJob();
  const { calibre, facts } = state;
  const advice = settingAdvice(calibre, today);
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
      <LampAnswer
        question="Set it so"
        standing={advice.verdict === 'set so' ? 'good' : 'open'}
        answer={
          advice.verdict === 'set so'
            ? `${advice.steps.length} step${advice.steps.length === 1 ? '' : 's'}`
            : 'Not yet known'
        }
        reasons={[...advice.steps.map((step, index) => `${index + 1}. ${step}`), ...advice.reasons]}
      />
      {facts.runs?.payload.runs === false && (
        <Caution>Crown home? A pulled crown stops the motor. Then cell, contacts, insulator.</Caution>
      )}
      <Working lines={advice.working} />
    </>
  );
}

export default function SetStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
