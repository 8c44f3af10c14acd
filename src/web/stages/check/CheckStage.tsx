import { Stack, Typography } from '@mui/material';
import { useFormContext } from 'react-hook-form';
import { judgeJobReadings, measures, type Measure, type ReadingVerdict } from '../../../core/health';
import { capital, figure } from '../../../core/judgement';
import { CAUSES, LEAK_DECISIONS, LEAK_PLACES, LEAK_SEVERITIES, NEXT_STEPS } from '../../../core/logbook';
import { wayTaken } from '../../../core/policy';
import { quantities } from '../../../core/units';
import { Caution, LampAnswer, type Standing, Working } from '../../app/Lamp';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { Choice, ListChoice, MeasureField, optionsOf, TextLine, Tick, useFieldValue } from '../../job/fields';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';
import { MoreFacts } from '../../job/MoreFacts';
import { StageLayout } from '../../job/StageLayout';

const STANDING: Readonly<Record<ReadingVerdict['verdict'], Standing>> = {
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
  'not judged': 'open',
};

const HINT: Readonly<Record<Measure, string>> = {
  restVoltageV: 'of the old cell, out of the watch',
  loadedVoltageV: 'after 1 s: 2 kΩ for silver, 1 kΩ for lithium',
  currentUA: 'through the movement, crown home',
  stoppedCurrentUA: 'the circuit alone, crown pulled',
  coilKOhm: 'across the coil, no cell in',
  lowestRunningV: 'the supply turned down until it stops',
  rateSPerDay: 'positive when it gains',
};

/** Read on nearly every watch; the others where there is a doubt. */
const USUAL: readonly Measure[] = ['restVoltageV', 'loadedVoltageV', 'currentUA'];

function ReadingCard({ measure }: { readonly measure: Measure }) {
  const { state, context } = useJob();
  const service = state.facts.service?.payload.service;
  const required: readonly string[] = service ? context.policy.services[service].requires : [];
  return (
    <FactCard
      kind="check.reading"
      title={capital(measures[measure].words)}
      recorded={state.facts.readings.get(measure) ?? null}
      defaults={{ measure, value: undefined }}
    >
      <MeasureField
        name="value"
        label={capital(measures[measure].words)}
        quantity={measures[measure].quantity}
        wanted={required.includes(`check.${measure}`)}
        helper={HINT[measure]}
        from={{ device: 'bench-meter', ask: { ask: 'measure', measure } }}
      />
    </FactCard>
  );
}

/** Where on this layout something leaked: pointed at, or typed. */
function LeakageFields() {
  const { state, book } = useJob();
  const form = useFormContext();
  const [xMm, yMm] = [useFieldValue('xMm') as number | null, useFieldValue('yMm') as number | null];
  const there = state.facts.leakages.map(({ payload }) => payload);
  const spots = [...there, { xMm, yMm }].flatMap((spot) =>
    spot.xMm !== null && spot.yMm !== null ? [{ xMm: spot.xMm, yMm: spot.yMm }] : [],
  );
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
      {state.calibre && (
        <Stack sx={{ alignItems: 'center' }}>
          <CalibreFigure
            calibre={state.calibre}
            cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
            spots={spots}
            onPick={(spot) => {
              form.setValue('xMm', spot.xMm, { shouldDirty: true });
              form.setValue('yMm', spot.yMm, { shouldDirty: true });
            }}
          />
          <Typography variant="body2" color="text.secondary">
            From behind. Point at the place, or type it.
          </Typography>
        </Stack>
      )}
      <Stack spacing={1.5} sx={{ flexGrow: 1 }}>
        <Choice name="place" label="Where" options={optionsOf(LEAK_PLACES)} />
        <Choice name="severity" label="How bad" options={optionsOf(LEAK_SEVERITIES)} />
        {state.calibre && (
          <Stack direction="row" spacing={1.5}>
            <MeasureField
              name="xMm"
              label="To 3 o’clock"
              quantity="lengthMm"
              optional
              helper="from the centre"
            />
            <MeasureField
              name="yMm"
              label="To 12 o’clock"
              quantity="lengthMm"
              optional
              helper="from the centre"
            />
          </Stack>
        )}
        <TextLine name="treated" label="What was done" />
        <Choice name="decision" label="Decided with the owner" options={optionsOf(LEAK_DECISIONS)} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <TextLine name="supplier" label="Supplier of the leaked cell" />
          <TextLine name="lotCode" label="Its lot" mono />
        </Stack>
      </Stack>
    </Stack>
  );
}

/** What this shop fitted last, so that a leak finds its supplier. */
function useLastCell(): { readonly supplier: string; readonly lotCode: string } {
  const { earlier } = useJob();
  const last = earlier?.history.cells[0];
  return { supplier: last?.supplier ?? '', lotCode: last?.lotCode ?? '' };
}

function Mat() {
  const { state, asks } = useJob();
  const { facts } = state;
  const lastCell = useLastCell();
  const rare = (Object.keys(measures) as Measure[]).filter((measure) => !USUAL.includes(measure));
  return (
    <>
      {USUAL.map((measure) => (
        <ReadingCard key={measure} measure={measure} />
      ))}
      <MoreFacts
        facts={[
          {
            title: 'Finding',
            shown: facts.diagnosis !== null || asks('check.diagnosis'),
            card: (
              <FactCard
                kind="check.diagnosis"
                title="Finding"
                recorded={facts.diagnosis}
                defaults={{ cause: 'not found yet', next: 'nothing more', words: '' }}
              >
                <ListChoice
                  name="cause"
                  label="Cause"
                  options={optionsOf(CAUSES)}
                  wanted={asks('check.diagnosis')}
                />
                <Choice name="next" label="What it needs" options={optionsOf(NEXT_STEPS)} />
                <TextLine name="words" label="In words" />
              </FactCard>
            ),
          },
          {
            title: 'Leakage',
            shown: facts.leakages.length > 0,
            card: (
              <FactList
                kind="check.leakage"
                files
                title="Leakage"
                recorded={facts.leakages}
                defaults={{
                  place: 'contact',
                  severity: 'bloom',
                  xMm: null,
                  yMm: null,
                  treated: '',
                  decision: 'not decided yet',
                  ...lastCell,
                }}
              >
                <LeakageFields />
              </FactList>
            ),
          },
          {
            title: 'Motor pulses',
            shown: facts.pulses !== null,
            card: (
              <FactCard
                kind="check.pulses"
                title="Motor pulses"
                recorded={facts.pulses}
                defaults={{ there: true, through: 'the closed watch' }}
              >
                <Tick name="there" label="Pulses are heard or picked up" />
                <Choice
                  name="through"
                  label="Through"
                  options={optionsOf(['the closed watch', 'the open watch'])}
                />
              </FactCard>
            ),
          },
          ...rare.map((measure) => ({
            title: capital(measures[measure].words),
            shown: facts.readings.has(measure),
            card: <ReadingCard measure={measure} />,
          })),
        ]}
      />
    </>
  );
}

function Lamp() {
  const { state, book, context } = useJob();
  const first = wayTaken(context.policy.schools, 'check');
  const verdicts = judgeJobReadings(state, book);
  if (verdicts.length === 0) {
    return (
      <LampAnswer
        question="What do the readings say?"
        standing="open"
        answer="Nothing yet"
        reasons={[
          'The rest voltage of the old cell would answer first; the current says whether a new one will last.',
          `This shop: ${first.way}. ${first.reason}`,
        ]}
      />
    );
  }
  return (
    <>
      {verdicts.map((verdict) => {
        const { words, quantity } = measures[verdict.measure];
        return (
          <LampAnswer
            key={verdict.measure}
            question={`${capital(words)} ${figure(verdict.value, 3)} ${quantities[quantity].unit}, against ${verdict.reference.whose === 'this movement' ? 'this movement’s own range' : 'general figures'}`}
            standing={STANDING[verdict.verdict]}
            answer={capital(verdict.verdict)}
            reasons={verdict.reasons}
          />
        );
      })}
      {state.facts.leakages.length > 0 && (
        <Caution grave>
          Electrolyte burns skin and eyes: gloves and glasses. Silver and alkaline: a trace of weak acid, then
          alcohol, dry. Lithium: no water.
        </Caution>
      )}
      <Working lines={verdicts.flatMap((verdict) => verdict.working)} />
    </>
  );
}

export default function CheckStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
