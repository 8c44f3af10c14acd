import { Box, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import { useFormContext } from 'react-hook-form';
import { backs, VIEWS } from '../../../core/craft/cases';
import { GASKET_FINDINGS, type GasketFinding, RING_STATES } from '../../../core/craft/gaskets';
import { reasonWanted, ringOffers } from '../../../core/advice/seal';
import {
  GASKET_PROFILES,
  GREASED_BY,
  meetsWater,
  pairBack,
  SEAL_STATES,
  sealsInside,
  activeRing,
} from '../../../core/logbook';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { Photographs } from '../../job/Photographs';
import { useMarkedPhotos } from '../../job/photos';
import { NativeSelect } from '../../kit/NativeSelect';
import { Tray } from '../../job/Tray';
import { BenchLayout } from '../../job/BenchLayout';
import { useEffect } from 'react';
import { GrooveCard, InsideSealsCard, OldRingCard, PressCard } from './Measured';
import { OrderOfClosing } from './OrderOfClosing';
import { SealLamp } from './SealLamp';
import { SealingProvider, useSealing } from './useSealing';

const sealGasket = factFields('seal.gasket');
const sealNow = factFields('seal.now');
const sealPaired = factFields('seal.paired');
const sealClosed = factFields('seal.closed');
const sealOther = factFields('seal.other');

/** What most rings show that are not as new. */
const USUAL_FINDINGS: readonly GasketFinding[] = ['nicked', 'cracked', 'flattened', 'hard', 'missing'];

/** Tells the lamp what is ticked while it is not recorded yet. */
function GasketFields() {
  const { setDraft } = useJob();
  const findings = sealGasket.useValue('findings');
  const ageYears = sealGasket.useValue('ageYears');
  const meetsWater = sealGasket.useValue('meetsWater');
  useEffect(() => {
    setDraft('gasket', { findings, ageYears, meetsWater });
  }, [findings, ageYears, meetsWater, setDraft]);
  const { lots, book, state: job, today } = useJob();
  const lotId = sealGasket.useValue('lotId');
  const rings = ringOffers(job, book, lots, lotId, today);
  const state = sealGasket.useValue('state');
  const reason = sealGasket.useValue('reason');
  const { advice } = useSealing();
  const [size, profile] = [sealGasket.useValue('size'), sealGasket.useValue('profile') ?? 'not seen'];
  const wanted =
    state === null
      ? null
      : reasonWanted({ state, size, profile }, advice, job.facts.groove?.payload ?? null, job.caseType);
  const form = useFormContext();
  useEffect(() => {
    // Only a new ring comes from a lot.
    if (state !== 'renewed') form.setValue('lotId', null);
    // What is not there is not greased.
    if (state === 'none there') form.setValue('greased', false);
  }, [state, form]);
  return (
    <>
      <sealGasket.Choice name="state" options={optionsOf(RING_STATES)} wanted />
      {state === 'renewed' && (
        <NativeSelect
          label="Ring taken from"
          wanted={lotId === null}
          value={lotId ?? ''}
          options={[
            { value: '', label: 'not from stock' },
            ...rings.map(({ lot, ofThisCase }) => ({
              value: lot.id,
              label: `${lot.code}${ofThisCase ? ' (this case)' : ''}, lot ${lot.lotCode}, ${lot.balance} left`,
            })),
          ]}
          onChange={(id) => {
            const lot = rings.find((each) => each.lot.id === id)?.lot;
            form.setValue('lotId', lot?.id ?? null, { shouldDirty: true });
            if (lot) form.setValue('size', lot.code, { shouldDirty: true });
          }}
        />
      )}
      {state !== 'none there' && <sealGasket.YesNo name="greased" yes="A trace, surplus off" no="None" />}
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <sealGasket.TextLine name="size" mono helper="inside × section, e.g. 30.5 × 0.70" />
        <sealGasket.ListChoice name="profile" options={optionsOf(GASKET_PROFILES)} />
        <sealGasket.ListChoice name="greasedBy" options={optionsOf(GREASED_BY)} />
      </Stack>
      <sealGasket.YesNo name="meetsWater" yes="Yes" no="No" />
      <sealGasket.Several name="findings" options={optionsOf(GASKET_FINDINGS)} usual={USUAL_FINDINGS} />
      {(wanted !== null || reason !== '') && <sealGasket.TextLine name="reason" />}
    </>
  );
}

/** The look along the seam: even, or where it stands up. */
function SeamFields() {
  const even = sealClosed.useValue('seamEven');
  return (
    <>
      <sealClosed.YesNo name="seamEven" yes="Even all round" no="Not even" />
      {even === false && (
        <>
          <sealClosed.Choice name="seenFrom" options={optionsOf(VIEWS)} />
          <sealClosed.ClockSetField name="raisedClocks" />
        </>
      )}
    </>
  );
}

/** How it looks as it is closed, beside how it was found. */
function NowCard() {
  const { now } = useJob().state.facts;
  return (
    <FactCard kind="seal.now" files title="Closing check" recorded={now} defaults={{ note: '' }}>
      <sealNow.TextLine name="note" />
    </FactCard>
  );
}

function GasketCard() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="seal.gasket"
      files
      title="Gasket"
      recorded={activeRing(facts)}
      defaults={{
        state: null,
        findings: [],
        ageYears: null,
        meetsWater: facts.wear ? meetsWater(facts.wear.payload.uses) : null,
        greased: null,
        greasedBy: 'not noted',
        profile: 'not seen',
        size: '',
        lotId: null,
        reason: '',
      }}
      beside={
        <>
          <Box sx={{ width: 190 }}>
            <sealGasket.MeasureField name="ageYears" quantity="years" optional helper="blank if not known" />
          </Box>
        </>
      }
    >
      <GasketFields />
    </FactCard>
  );
}

function PairedCard() {
  const { facts } = useJob().state;
  const pairing = pairBack(facts);
  return pairing.verdict === 'not asked' ? null : (
    <FactCard
      key={`paired-${facts.paired?.id ?? ''}`}
      kind="seal.paired"
      title="Back and case paired"
      recorded={facts.paired}
      defaults={{ inBack: '' }}
      hint={<Typography color="text.secondary">{pairing.reasons.join(' ')}</Typography>}
    >
      <sealPaired.TextLine name="inBack" mono helper="blank if there is none" />
    </FactCard>
  );
}

function OtherSealsCard() {
  const { state, asks } = useJob();
  const { facts } = state;
  return (
    <FactCard
      kind="seal.other"
      title="Crown, pusher and crystal seals"
      recorded={facts.otherSeals}
      defaults={{ crown: null, pushers: null, crystal: null }}
    >
      <sealOther.Choice name="crown" options={optionsOf(SEAL_STATES)} wanted={asks('seal.other')} />
      <sealOther.Choice name="pushers" options={optionsOf(SEAL_STATES)} />
      <sealOther.Choice name="crystal" options={optionsOf(SEAL_STATES)} />
    </FactCard>
  );
}

function Mat() {
  const { state, asks, resource } = useJob();
  const followUp = resource.job.followedBy.find((each) => each.why === 'interim closing');
  const { facts } = state;
  const { kind } = useSealing();
  const photos = useMarkedPhotos();
  const insideCounted = sealsInside(facts) > 0;
  return (
    <>
      <GasketCard />
      {insideCounted && <InsideSealsCard wanted />}
      <PairedCard />
      <FactCard
        kind="seal.closed"
        files
        title="Closed"
        recorded={facts.closed}
        defaults={{ how: '', seamEven: null, raisedClocks: [], seenFrom: null, interim: false }}
      >
        <sealClosed.Choice name="how" options={optionsOf(backs[kind].closes)} wanted />
        <SeamFields />
        <sealClosed.Tick
          name="interim"
          shownAs="Temporary closing on the old seal. A follow-up job waits for the part."
        />
      </FactCard>
      {followUp && (
        <Typography>
          Closed temporarily; <Link to={`/jobs/${followUp.jobId}`}>{followUp.ticket}</Link> waits for the
          part.
        </Typography>
      )}
      <OrderOfClosing />
      {facts.parts.size > 0 && <Tray />}
      <OptionalFacts
        facts={[
          { title: 'Groove', shown: facts.groove !== null, card: <GrooveCard /> },
          { title: 'Old ring, measured', shown: facts.oldRing !== null, card: <OldRingCard /> },
          { title: 'Measures for the press', shown: facts.press !== null, card: <PressCard /> },
          ...(insideCounted
            ? []
            : [
                {
                  title: 'Seals of inner cover and hatch',
                  shown: facts.insideSeals !== null,
                  card: <InsideSealsCard wanted={false} />,
                },
              ]),
          {
            // Where it was photographed as found, it is photographed again.
            title: 'Closing check',
            shown: photos.length > 0 || facts.now !== null,
            card: <NowCard />,
          },
          {
            title: 'Crown, pusher and crystal seals',
            shown: facts.otherSeals !== null || asks('seal.other'),
            card: <OtherSealsCard />,
          },
        ]}
      />
    </>
  );
}

export default function SealStage() {
  return (
    <SealingProvider>
      <BenchLayout mat={<Mat />} lamp={<SealLamp />} below={<Photographs />} />
    </SealingProvider>
  );
}
