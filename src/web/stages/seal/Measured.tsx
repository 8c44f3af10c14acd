import { Stack } from '@mui/material';
import { useEffect } from 'react';
import { useWatch } from 'react-hook-form';
import { NO_PRESS_MEASURES } from '../../../core/craft/closing';
import { SEATS, USUALLY_WITHIN_MM } from '../../../core/craft/gaskets';
import { GASKET_PROFILES, type Payloads, SEAL_STATES } from '../../../core/logbook';
import { Columns } from '../../kit/Columns';
import { fieldsOf, optionsOf } from '../../kit/fields';
import type { Drafts } from '../../job/drafts';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';

const groove = fieldsOf<Payloads['seal.groove']>();
const oldRing = fieldsOf<Payloads['seal.old-ring']>();
const press = fieldsOf<Payloads['seal.press']>();
const inside = fieldsOf<Payloads['seal.inside']>();

/** Tells the lamp the groove while it is typed: the whole assortment is judged with every key. */
function Told() {
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
      title="The groove"
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
      <Told />
      <groove.Choice name="seat" label="The ring lies on the" options={optionsOf(SEATS)} />
      <Columns>
        <groove.MeasureField name="innerMm" label="Groove inside" quantity="lengthMm" />
        <groove.MeasureField name="outerMm" label="Groove outside" quantity="lengthMm" />
        <groove.MeasureField name="depthMm" label="Depth in the case" quantity="lengthMm" />
        <groove.MeasureField
          name="stepMm"
          label="So far the back enters it"
          quantity="lengthMm"
          helper="0 where the back lies flat on its rim"
        />
        <groove.MeasureField
          name="depthWithinMm"
          label="Depth is good to ±"
          quantity="lengthMm"
          helper={`usually ${USUALLY_WITHIN_MM}; under a section of 0.5 mm, 0.01`}
        />
        <groove.MeasureField
          name="sectionWithinMm"
          label="Sections are good to ±"
          quantity="lengthMm"
          helper="of the rings as bought, or as you measured them"
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
      title="The old ring, measured"
      recorded={recorded}
      defaults={{ heightMm: null, widthMm: null, insideMm: null, outsideMm: null, profile: 'not seen' }}
    >
      <Columns>
        <oldRing.MeasureField name="heightMm" label="Ring height" quantity="lengthMm" optional />
        <oldRing.MeasureField name="widthMm" label="Ring width" quantity="lengthMm" optional />
        <oldRing.MeasureField name="insideMm" label="Ring inside diameter" quantity="lengthMm" optional />
        <oldRing.MeasureField name="outsideMm" label="Ring outside diameter" quantity="lengthMm" optional />
      </Columns>
      <oldRing.ListChoice name="profile" label="Profile" options={optionsOf(GASKET_PROFILES)} />
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
        <press.MeasureField name="crystalMm" label="Crystal across" quantity="lengthMm" optional />
        <press.MeasureField name="bezelMm" label="Bezel outside" quantity="lengthMm" optional />
        <press.MeasureField
          name="crystalAboveMm"
          label="Crystal over its bezel"
          quantity="lengthMm"
          optional
          helper="minus where it lies lower, 0 where level"
        />
        <press.MeasureField
          name="caseMm"
          label="Case across"
          quantity="lengthMm"
          optional
          helper="without crown and lugs"
        />
        <press.MeasureField name="backMm" label="Back across" quantity="lengthMm" optional />
        <press.MeasureField
          name="backBulgeMm"
          label="Bulge of the back"
          quantity="lengthMm"
          optional
          helper="over its rim; 0 where flat"
        />
        <press.MeasureField
          name="glassMm"
          label="Glass in the back"
          quantity="lengthMm"
          optional
          helper="blank where the back is solid"
        />
        <press.MeasureField name="glassAboveMm" label="Glass over its rim" quantity="lengthMm" optional />
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
        <inside.Choice
          name="innerCover"
          label="Inner cover"
          options={optionsOf(SEAL_STATES)}
          wanted={wanted}
        />
        <inside.Choice name="hatch" label="Hatch" options={optionsOf(SEAL_STATES)} />
      </Stack>
    </FactCard>
  );
}
