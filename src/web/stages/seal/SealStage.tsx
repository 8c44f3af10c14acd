import { Stack } from '@mui/material';
import { useController, useFormContext } from 'react-hook-form';
import { backs } from '../../../core/backs';
import { GASKET_FINDINGS, type GasketFinding, renewOrReuse } from '../../../core/gaskets';
import { openParts } from '../../../core/logbook';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { Choice, MeasureField, optionsOf, Several, TextLine, Tick, useFieldValue } from '../../job/fields';
import { capital, FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { StageLayout } from '../../job/StageLayout';
import { useEffect } from 'react';

/** Tells the lamp what is ticked while it is not recorded yet. */
function GasketFields() {
  const { setDraft } = useJob();
  const findings = useFieldValue('findings') as readonly GasketFinding[];
  const ageYears = useFieldValue('ageYears') as number | null;
  const { field } = useController({ name: 'meetsWater' });
  useEffect(() => {
    setDraft('gasket', JSON.stringify({ findings, ageYears, meetsWater: field.value as boolean | null }));
  }, [findings, ageYears, field.value, setDraft]);
  const advice = useAdvice();
  const form = useFormContext();
  const [advisedState, advisedReason] = [
    advice.verdict === 'renew' ? 'renewed' : 'reused',
    advice.reasons[0] ?? '',
  ];
  useEffect(() => {
    // What was done and why follow the advice until a hand says otherwise.
    for (const [name, advised] of [
      ['state', advisedState],
      ['reason', advisedReason],
    ] as const) {
      if (!form.getFieldState(name).isDirty && form.getValues(name) !== advised)
        form.resetField(name, { defaultValue: advised });
    }
  }, [advisedState, advisedReason, form]);
  return (
    <>
      <Several name="findings" label="Found on the ring" options={optionsOf(GASKET_FINDINGS)} />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <MeasureField
          name="ageYears"
          label="Age of the ring"
          quantity="years"
          optional
          helper="blank if nobody knows"
        />
        <Tick name="meetsWater" label="The watch will meet water" />
      </Stack>
      <Choice
        name="state"
        label="What was done"
        options={optionsOf(['renewed', 'reused', 'left in place'])}
        wanted
      />
      <Tick name="greased" label="A trace of silicone grease, surplus off" />
      <TextLine name="reason" label="Why" />
    </>
  );
}

interface Question {
  readonly findings: readonly GasketFinding[];
  readonly ageYears: number | null;
  readonly meetsWater: boolean | null;
}

function useAdvice() {
  const { state, context, draft } = useJob();
  const recorded = state.facts.gasket?.payload;
  const asked: Question =
    recorded ??
    (draft.gasket
      ? (JSON.parse(draft.gasket) as Question)
      : { findings: [], ageYears: null, meetsWater: null });
  return renewOrReuse({
    findings: asked.findings,
    ageYears: Number.isFinite(asked.ageYears) ? asked.ageYears : null,
    meetsWater: asked.meetsWater,
    ratingBar: state.facts.watch?.payload.ratingBar ?? null,
    staysClosedYears: null,
    rule: context.policy.gasketRule,
  });
}

function Mat() {
  const { state } = useJob();
  const { facts } = state;
  const advice = useAdvice();
  const kind = facts.back?.payload.kind ?? 'snap-on';
  const [firstWay = 'thumbs'] = backs[kind].closes;
  return (
    <>
      <FactCard
        kind="seal.gasket"
        title="Gasket"
        recorded={facts.gasket}
        defaults={{
          state: advice.verdict === 'renew' ? 'renewed' : 'reused',
          findings: [],
          ageYears: null,
          meetsWater: false,
          greased: true,
          reason: advice.reasons[0] ?? '',
        }}
      >
        <GasketFields />
      </FactCard>
      <FactCard
        kind="seal.closed"
        title="Closed"
        recorded={facts.closed}
        defaults={{ how: firstWay, seamEven: true }}
      >
        <Choice name="how" label="How" options={optionsOf(backs[kind].closes)} wanted />
        <Tick name="seamEven" label="Looked along the whole seam: even all round" />
      </FactCard>
    </>
  );
}

function Lamp() {
  const { state } = useJob();
  const { facts } = state;
  const advice = useAdvice();
  const followed =
    facts.gasket === null || (advice.verdict === 'renew') === (facts.gasket.payload.state === 'renewed');
  const open = openParts(facts);
  const fitted = state.wells.every((well) => well.fitted);
  return (
    <>
      <LampAnswer
        question="Gasket: renew or reuse?"
        standing={followed ? 'good' : 'care'}
        answer={capital(advice.verdict)}
        reasons={[
          ...advice.reasons,
          ...(followed ? [] : [`Recorded otherwise: ${facts.gasket?.payload.reason ?? ''}`]),
        ]}
      />
      <Caution>
        Silicone grease only: mineral grease swells rubber. Change cots before touching cell or movement.
      </Caution>
      {!fitted && <Caution grave>No cell is fitted yet: do not close.</Caution>}
      {open.length > 0 && (
        <Caution>Before closing, account for: {open.map((part) => part.words).join('; ')}.</Caution>
      )}
      {facts.closed?.payload.seamEven === false && (
        <Caution grave>
          The seam is not even: the ring is pinched or the back not down. Open it again.
        </Caution>
      )}
      <Working lines={advice.working} />
    </>
  );
}

export default function SealStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
