import { isOfACell, judgeJobReadings, leakAdviceOf, pulsesComeFirst } from '../../../core/advice/health';
import {
  type Diagnosis,
  gaugeOf,
  type Measure,
  measures,
  NEXT_STEPS,
  type ReadingVerdict,
  SHOWS,
  SIGNS_OF_FAULT,
} from '../../../core/craft/health';
import { capital, figure } from '../../../core/craft/judgement';
import {
  AT_FITTING,
  CAUSES,
  CROWN_SEEN,
  lastReading,
  NOT_LOOKED,
  readingIn,
  wellOf,
  openness,
} from '../../../core/logbook';
import { wayTaken } from '../../../core/craft/policy';
import { quantities } from '../../../core/craft/units';
import { earlierReadings, trendsOfWatch } from '../../../core/advice/watches';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { LampAnswer, type LampTone } from '../../kit/Lamp';
import { factFields } from '../../kit/factFields';
import { optionsOf, optionsOrNone } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';
import { type Diagnosed, DiagnosesProvider, useDiagnoses } from './askedTest';
import { DiagnosisAnswer } from './DiagnosisAnswer';
import { LeakageCards, LeakAnswer, LeakCaution } from './Leakage';
import { ReadingCard } from './ReadingCard';
import { ReadingGauge } from '../../figures/ReadingGauge';
import { VisitTrends } from '../../job/VisitTrends';
import {
  Button,
  Checkbox,
  FormControlLabel,
  Radio,
  RadioGroup,
  Stack,
  FormControl,
  FormLabel,
  Typography,
} from '@mui/material';
import { useSnackbar } from 'notistack';
import { useId } from 'react';
import { useController, useFormContext } from 'react-hook-form';

const checkPulses = factFields('check.pulses');
const checkLooked = factFields('check.looked');
const checkDiagnosis = factFields('check.diagnosis');
const STANDING: Readonly<Record<ReadingVerdict['verdict'], LampTone>> = {
  good: 'good',
  falling: 'care',
  spent: 'no',
  'over the limit': 'no',
  'too little': 'care',
  suspect: 'care',
  open: 'no',
  'shorted turns': 'no',
  'runs too late': 'no',
  off: 'care',
  'not this cell': 'no',
  'not judged': 'open',
};

const WHOSE: Readonly<Record<ReadingVerdict['reference']['whose'], string>> = {
  'this movement': 'this movement’s own range',
  'its family': 'the range of its family',
  general: 'general figures',
};

/** Read on nearly every watch; the others where there is a doubt. */
const USUAL: readonly Measure[] = ['restVoltageV', 'loadedVoltageV', 'currentUA'];

/** A measure where it is taken: once, or at each cell of a watch that has several. */
function ReadingCards({ measure }: { readonly measure: Measure }) {
  const { state } = useJob();
  if (state.wells.length === 1 || !isOfACell(measure)) return <ReadingCard measure={measure} well={null} />;
  return (
    <>
      {/* Taken before the cells were told apart it stands, and names none of them. */}
      {readingIn(state.facts, measure) !== undefined && <ReadingCard measure={measure} well={null} />}
      {state.wells.map((well) => (
        <ReadingCard key={well.name} measure={measure} well={well} />
      ))}
    </>
  );
}

/** Listens for motor pulses with the bench meter’s pick-up and fills the form. */
function PickUp() {
  const connected = useConnected('bench-meter', 'pulses');
  const form = useFormContext();
  const { enqueueSnackbar } = useSnackbar();
  if (!connected) return null;
  const listen = async (): Promise<void> => {
    const said = await askDevice('bench-meter', { ask: 'pulses' });
    if (said.says !== 'pulses') {
      enqueueSnackbar(faultWords(said) ?? 'The meter detected nothing clear.', { variant: 'error' });
      return;
    }
    form.setValue('there', said.everyS !== null, { shouldDirty: true });
    form.setValue('everyS', said.everyS, { shouldDirty: true });
    // What was asked for is answered now.
    form.clearErrors(['there', 'everyS']);
  };
  return (
    <Button variant="outlined" onClick={() => void listen()} sx={{ alignSelf: 'flex-start' }}>
      Detect pulses with the bench meter
    </Button>
  );
}

function PulsesCard() {
  const { state } = useJob();
  const isOpen = openness(state.facts) === 'open';
  return (
    <FactCard
      kind="check.pulses"
      title="Motor pulses"
      recorded={state.facts.pulses}
      defaults={{ there: null, through: isOpen ? 'the open watch' : 'the closed watch', everyS: null }}
    >
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2} sx={{ alignItems: { sm: 'center' } }}>
        <PickUp />
        <checkPulses.YesNo name="there" yes="Detected" no="None" />
      </Stack>
      <checkPulses.Choice name="through" options={optionsOf(['the closed watch', 'the open watch'])} />
      <checkPulses.MeasureField name="everyS" quantity="durationS" optional helper="blank if not known" />
    </FactCard>
  );
}

/** Yes, no, or not examined. */
function Looked({
  name,
  label,
  yes,
  no,
}: {
  readonly name: string;
  readonly label: string;
  readonly yes: string;
  readonly no: string;
}) {
  const { field } = useController({ name });
  const labelId = useId();
  const value = field.value === true ? 'yes' : field.value === false ? 'no' : 'none';
  return (
    <FormControl>
      <FormLabel id={labelId}>{label}</FormLabel>
      <RadioGroup
        row
        aria-labelledby={labelId}
        value={value}
        onChange={(_, next) => field.onChange(next === 'none' ? null : next === 'yes')}
      >
        {[
          ['none', 'Not examined'],
          ['yes', yes],
          ['no', no],
        ].map(([each, words]) => (
          <FormControlLabel key={each} value={each} label={words} control={<Radio />} />
        ))}
      </RadioGroup>
    </FormControl>
  );
}

const notLooked = (values: readonly string[]) => optionsOrNone(values, 'not examined');

/** Signs seen with the loupe; none of them ticked is a look too, once somebody says it was taken. */
function Signs() {
  const { field } = useController({ name: 'signs' });
  const looked = field.value !== null;
  return (
    <Stack spacing={0.5}>
      <FormControlLabel
        label="Loupe examination"
        control={<Checkbox checked={looked} onChange={(_, on) => field.onChange(on ? [] : null)} />}
      />
      {looked && <checkLooked.Several name="signs" options={optionsOf(SIGNS_OF_FAULT)} />}
    </Stack>
  );
}

function LookedCard() {
  const { state } = useJob();
  return (
    <FactCard kind="check.looked" title="Examined" recorded={state.facts.looked} defaults={NOT_LOOKED}>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <checkLooked.ListChoice name="shows" options={notLooked(SHOWS)} />
        <checkLooked.MeasureField
          name="watchedSeconds"
          quantity="durationS"
          optional
          helper="longer than one step"
        />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <checkLooked.ListChoice name="crown" options={notLooked(CROWN_SEEN)} />
        <checkLooked.ListChoice name="atFitting" options={notLooked(AT_FITTING)} />
      </Stack>
      <Looked name="freshCell" label="Fresh cell fitted" yes="Yes" no="No, the old one" />
      {state.calibre?.resetContact && (
        <Looked name="resetUsed" label={`Reset: ${state.calibre.resetContact}`} yes="Used" no="Not used" />
      )}
      <Signs />
    </FactCard>
  );
}

/** Puts what the lamp found into the form. */
function AsTheLampSays({ diagnosis }: { readonly diagnosis: Diagnosis }) {
  const form = useFormContext();
  const [cause, also = null] = diagnosis.causes;
  if (cause === undefined) return null;
  return (
    <Button
      variant="outlined"
      sx={{ alignSelf: 'flex-start' }}
      onClick={() => {
        form.setValue('cause', cause, { shouldDirty: true });
        form.setValue('also', also, { shouldDirty: true });
        const next = diagnosis.remedies[0]?.next;
        if (next !== undefined) form.setValue('next', next, { shouldDirty: true });
      }}
    >
      As the lamp suggests: {diagnosis.causes.join(' and ')}
    </Button>
  );
}

/** One finding of the watch, or one for each of its cells once they were read apart. */
function FindingCards({ diagnoses }: { readonly diagnoses: readonly Diagnosed[] }) {
  const { findings } = useJob().state.facts;
  const ofWatch = findings.get(wellOf({ well: null })) ?? null;
  return (
    <>
      {/* Found before the cells were told apart it stands, and names none of them. */}
      {ofWatch !== null && diagnoses.every(({ well }) => well !== null) && (
        <FindingCard well={null} diagnosis={null} />
      )}
      {diagnoses.map(({ well, diagnosis }) => (
        <FindingCard key={well} well={well} diagnosis={diagnosis} />
      ))}
    </>
  );
}

function FindingCard({
  well,
  diagnosis,
}: {
  readonly well: string | null;
  readonly diagnosis: Diagnosis | null;
}) {
  const { state, asks } = useJob();
  return (
    <FactCard
      kind="check.diagnosis"
      title={well === null ? 'Finding' : `Finding, ${well}`}
      well={well}
      recorded={state.facts.findings.get(wellOf({ well })) ?? null}
      defaults={{ cause: null, also: null, next: null, words: '' }}
    >
      {diagnosis !== null && <AsTheLampSays diagnosis={diagnosis} />}
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <checkDiagnosis.ListChoice
          name="cause"
          options={optionsOrNone(CAUSES, 'not recorded yet')}
          wanted={asks('check.diagnosis')}
        />
        <checkDiagnosis.ListChoice name="also" options={optionsOrNone(CAUSES, 'nothing else')} />
      </Stack>
      <checkDiagnosis.Choice name="next" options={optionsOf(NEXT_STEPS)} />
      <checkDiagnosis.TextLine name="words" />
    </FactCard>
  );
}

function Mat() {
  const { state, asks, context } = useJob();
  const { facts } = state;
  const { diagnoses, inLamp } = useDiagnoses();
  const here = (measure: Measure): boolean => !inLamp.includes(measure);
  const rare = (Object.keys(measures) as Measure[]).filter((measure) => !USUAL.includes(measure));
  const pulsesFirst = pulsesComeFirst(state, context.policy);
  return (
    <>
      {pulsesFirst && <PulsesCard />}
      {USUAL.filter(here).map((measure) => (
        <ReadingCards key={measure} measure={measure} />
      ))}
      <OptionalFacts
        facts={[
          {
            title: 'Examined',
            shown: facts.looked !== null || asks('check.diagnosis'),
            card: <LookedCard />,
          },
          {
            title: 'Finding',
            shown: facts.findings.size > 0 || asks('check.diagnosis'),
            card: <FindingCards diagnoses={diagnoses} />,
          },
          { title: 'Leakage', shown: facts.leakages.length > 0, card: <LeakageCards /> },
          ...(pulsesFirst
            ? []
            : [{ title: 'Motor pulses', shown: facts.pulses !== null, card: <PulsesCard /> }]),
          ...rare.filter(here).map((measure) => ({
            title: capital(measures[measure].words),
            shown: lastReading(facts, measure) !== null,
            card: <ReadingCards measure={measure} />,
          })),
        ]}
      />
    </>
  );
}

function Lamp() {
  const { state, book, context, earlier } = useJob();
  const first = wayTaken(context.policy.schools, 'check');
  const verdicts = judgeJobReadings(state, book);
  const { diagnoses } = useDiagnoses();
  const earlierOf = (measure: Measure, well: string | null): readonly number[] =>
    earlier ? earlierReadings(earlier.history, measure, well) : [];
  const leak = leakAdviceOf(state, book, context.policy);
  const { looked, pulses } = state.facts;
  if (verdicts.length === 0 && looked === null && pulses === null && leak === null) {
    return (
      <LampAnswer
        question="Readings"
        tone="open"
        answer="No reading yet"
        reasons={[
          'Measure the rest voltage of the old cell first. The current shows whether a new cell will last.',
          `This shop: ${first.way}. ${first.reason}`,
        ]}
      />
    );
  }
  const last = verdicts.at(-1);
  // What the readings say together decides; each by itself is there on demand.
  const diagnosisStands = diagnoses.some(({ diagnosis }) => diagnosis.ranked.length > 0) || leak !== null;
  return (
    <>
      {leak && <LeakCaution advice={leak} />}
      {diagnoses.map((diagnosed) => (
        <DiagnosisAnswer
          key={diagnosed.well}
          keyed={diagnosed === diagnoses.find(({ asked }) => asked !== null)}
          diagnosed={diagnosed}
          currency={context.policy.currency}
        />
      ))}
      {leak && <LeakAnswer advice={leak} />}
      {verdicts.map((verdict) => {
        const { words, quantity } = measures[verdict.measure];
        const { unit } = quantities[quantity];
        return (
          <LampAnswer
            key={`${verdict.measure} ${verdict.well ?? ''}`}
            question={`${capital(words)}${verdict.well === null ? '' : `, ${verdict.well},`} ${figure(verdict.value, 3)} ${unit}, against ${WHOSE[verdict.reference.whose]}`}
            tone={STANDING[verdict.verdict]}
            answer={capital(verdict.verdict)}
            working={verdict.working}
            folded={verdict !== last || diagnosisStands}
          >
            <ReadingGauge
              gauge={gaugeOf(verdict, earlierOf(verdict.measure, verdict.well))}
              title={capital(words)}
              unit={unit}
            />
            {verdict.reasons.map((reason) => (
              <Typography key={reason} sx={{ mt: 0.5 }}>
                {reason}
              </Typography>
            ))}
          </LampAnswer>
        );
      })}
    </>
  );
}

/** What was read at earlier visits, and today. */
function Trends() {
  const { state, context, earlier, book } = useJob();
  const trends = earlier && trendsOfWatch(earlier.history, state, state.calibre, book);
  return trends && <VisitTrends trends={trends} zone={context.shop.zone} atLeast={2} />;
}

export default function CheckStage() {
  return (
    <DiagnosesProvider>
      <BenchLayout mat={<Mat />} lamp={<Lamp />} below={<Trends />} />
    </DiagnosesProvider>
  );
}
