import { Stack } from '@mui/material';
import { useEffect } from 'react';
import { useWatch } from 'react-hook-form';
import { NO_PRESS_MEASURES } from '../../../core/craft/closing';
import { SEATS, USUALLY_WITHIN_MM } from '../../../core/craft/gaskets';
import { GASKET_PROFILES, SEAL_STATES } from '../../../core/logbook';
import { Columns } from '../../kit/Columns';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import type { Drafts } from '../../job/drafts';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';

const groove = factFields('seal.groove');
const oldRing = factFields('seal.old-ring');
const press = factFields('seal.press');
const inside = factFields('seal.inside');

/** Tells the lamp the groove while it is typed: the whole assortment is judged with every key. */
function MeasuresInWords() {
  const { setDraft } = useJob();
  const typed = useWatch() as Drafts['groove'];
  useEffect(() => setDraft('groove', typed), [typed, setDraft]);
  useEffect(() => () => setDraft('groove', null), [setDraft]);
  return null;
}

/** The groove of the seam, and on which wall its ring lies. */
export function GrooveCard() {
  const { state } = useJob();
  const { groove: recorded } = state.facts;
  return (
    <FactCard
      kind="seal.groove"
      files
      title="Groove"
      recorded={recorded}
      defaults={{
        innerMm: null,
        outerMm: null,
        depthMm: null,
        stepMm: null,
        seat: null,
        depthWithinMm: USUALLY_WITHIN_MM,
        sectionWithinMm: USUALLY_WITHIN_MM,
      }}
    >
      <MeasuresInWords />
      <groove.Choice name="seat" options={optionsOf(SEATS)} />
      <Columns>
        <groove.MeasureField name="innerMm" quantity="lengthMm" />
        <groove.MeasureField name="outerMm" quantity="lengthMm" />
        <groove.MeasureField name="depthMm" quantity="lengthMm" />
        <groove.MeasureField name="stepMm" quantity="lengthMm" helper="0 if the back lies flat on its rim" />
        <groove.MeasureField
          name="depthWithinMm"
          quantity="lengthMm"
          helper={`usually ${USUALLY_WITHIN_MM}; for sections under 0.5 mm, 0.01`}
        />
        <groove.MeasureField
          name="sectionWithinMm"
          quantity="lengthMm"
          helper="tolerance of the rings as bought or measured"
        />
      </Columns>
    </FactCard>
  );
}

/** The old ring between the jaws: its height as it was pressed, its width from wall to wall. */
export function OldRingCard() {
  const { oldRing: recorded } = useJob().state.facts;
  return (
    <FactCard
      kind="seal.old-ring"
      files
      title="Old ring, measured"
      recorded={recorded}
      defaults={{ heightMm: null, widthMm: null, insideMm: null, outsideMm: null, profile: 'not seen' }}
    >
      <Columns>
        <oldRing.MeasureField name="heightMm" quantity="lengthMm" optional />
        <oldRing.MeasureField name="widthMm" quantity="lengthMm" optional />
        <oldRing.MeasureField name="insideMm" quantity="lengthMm" optional />
        <oldRing.MeasureField name="outsideMm" quantity="lengthMm" optional />
      </Columns>
      <oldRing.ListChoice name="profile" options={optionsOf(GASKET_PROFILES)} />
    </FactCard>
  );
}

/** What the press goes by. */
export function PressCard() {
  const { state } = useJob();
  return (
    <FactCard
      kind="seal.press"
      title="Measures for the press"
      recorded={state.facts.press}
      defaults={NO_PRESS_MEASURES}
    >
      <Columns>
        <press.MeasureField name="crystalMm" quantity="lengthMm" optional />
        <press.MeasureField name="bezelMm" quantity="lengthMm" optional />
        <press.MeasureField
          name="crystalAboveMm"
          quantity="lengthMm"
          optional
          helper="minus if it lies lower, 0 if level"
        />
        <press.MeasureField name="caseMm" quantity="lengthMm" optional helper="without crown and lugs" />
        <press.MeasureField name="backMm" quantity="lengthMm" optional />
        <press.MeasureField
          name="backBulgeMm"
          quantity="lengthMm"
          optional
          helper="above its rim; 0 if flat"
        />
        <press.MeasureField name="glassMm" quantity="lengthMm" optional helper="blank if the back is solid" />
        <press.MeasureField name="glassAboveMm" quantity="lengthMm" optional />
      </Columns>
    </FactCard>
  );
}

/** The seals that were counted inside: of the inner cover and of the hatch. */
export function InsideSealsCard({ wanted }: { readonly wanted: boolean }) {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="seal.inside"
      title="Seals of inner cover and hatch"
      recorded={facts.insideSeals}
      defaults={{ innerCover: null, hatch: null }}
    >
      <Stack spacing={1}>
        <inside.Choice name="innerCover" options={optionsOf(SEAL_STATES)} wanted={wanted} />
        <inside.Choice name="hatch" options={optionsOf(SEAL_STATES)} />
      </Stack>
    </FactCard>
  );
}
