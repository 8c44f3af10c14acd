import { judgeJobReadings, measures, type Measure, type ReadingVerdict } from '../../../core/health';
import { figure } from '../../../core/judgement';
import { quantities } from '../../../core/units';
import { LampAnswer, type Standing, Working } from '../../app/Lamp';
import { MeasureField } from '../../job/fields';
import { capital, FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { StageLayout } from '../../job/StageLayout';

const STANDING: Readonly<Record<ReadingVerdict['verdict'], Standing>> = {
  good: 'good',
  falling: 'care',
  spent: 'no',
  'over the limit': 'no',
  'too little': 'care',
  'not judged': 'open',
};

const HINT: Readonly<Record<Measure, string>> = {
  restVoltageV: 'of the old cell, out of the watch',
  loadedVoltageV: 'after 1 s: 2 kΩ for silver, 1 kΩ for lithium',
  currentUA: 'through the movement, crown home',
};

function Mat() {
  const { state, context } = useJob();
  const service = state.facts.service?.payload.service;
  const required: readonly string[] = service ? context.policy.services[service].requires : [];
  return (Object.keys(measures) as Measure[]).map((measure) => (
    <FactCard
      key={measure}
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
      />
    </FactCard>
  ));
}

function Lamp() {
  const { state, book } = useJob();
  const verdicts = judgeJobReadings(state, book);
  if (verdicts.length === 0) {
    return (
      <LampAnswer
        question="What do the readings say?"
        standing="open"
        answer="Nothing yet"
        reasons={[
          'The rest voltage of the old cell would answer first; the current says whether a new one will last.',
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
      <Working lines={verdicts.flatMap((verdict) => verdict.working)} />
    </>
  );
}

export default function CheckStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
