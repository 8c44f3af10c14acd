import { Button, Paper, Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { useController, useFormContext, useFormState, useWatch } from 'react-hook-form';
import {
  BACK_KINDS,
  type BackKind,
  backs,
  BRACELETS,
  COATINGS,
  CROSS_SIZES,
  DUST_COVERS,
  HATCH_OPENS,
  type MeasuredBack,
  NOTHING_MEASURED,
  measuresOf,
  measureWords,
  PANEL_HELD_BY,
  SCREW_HEADS,
  TOOTH_FORMS,
  turnedBack,
  type View,
  VIEWS,
  workedFrom,
} from '../../../core/craft/cases';
import { capital } from '../../../core/craft/judgement';
import type { TypedBack } from '../../../core/advice/opening';
import { Columns } from '../../kit/Columns';
import { factFields } from '../../kit/factFields';
import { Radios } from '../../kit/choiceFields';
import { optionsOf, optionsOrNone } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { useOpening } from './useOpening';

const openMeasured = factFields('open.measured');

/** Tells the lamp what is typed, as long as the form stands. */
function MeasuresInWords() {
  const { setDraft } = useJob();
  const back = useWatch<TypedBack>() as TypedBack;
  const kindChosen = useFormState().dirtyFields.kind === true;
  useEffect(() => setDraft('back', { back, kindChosen }), [back, kindChosen, setDraft]);
  useEffect(() => () => setDraft('back', null), [setDraft]);
  return null;
}

/** Positions nobody typed are turned with the side; what a hand typed stays as it was seen. */
function useTurn(): (to: View) => void {
  const form = useFormContext<MeasuredBack>();
  return (to) => {
    const turned = turnedBack(form.getValues(), to);
    for (const name of ['lipClock', 'pusherClocks'] as const)
      if (!form.getFieldState(name).isDirty) form.resetField(name, { defaultValue: turned[name] });
    form.setValue('seenFrom', to);
  };
}

/** From which side lip and pushers are seen. */
function SeenFrom() {
  const { field, fieldState } = useController({ name: 'seenFrom' });
  const turn = useTurn();
  return (
    <Radios
      label="Positions seen from"
      value={field.value as string}
      options={optionsOf(VIEWS)}
      onChange={(to) => turn(to as View)}
      onBlur={field.onBlur}
      error={fieldState.error?.message}
    />
  );
}

type Asks = (name: keyof MeasuredBack) => boolean;

/** Notches or holes round the rim. */
function NotchFields({ asks, holes }: { readonly asks: Asks; readonly holes: boolean }) {
  const odd = Number(useWatch({ name: 'notchCount' })) % 2 === 1;
  return (
    <>
      {asks('notchCount') && (
        <openMeasured.MeasureField
          name="notchCount"
          shownAs={holes ? 'Holes' : 'Notches'}
          quantity="figureOnly"
          optional
          wanted
          helper="count all round"
        />
      )}
      {asks('notchWidthMm') && (
        <openMeasured.MeasureField
          name="notchWidthMm"
          shownAs={holes ? 'Diameter of a hole' : 'Width of a notch'}
          quantity="lengthMm"
          optional
          wanted
        />
      )}
      {asks('pitchMm') && (
        <openMeasured.MeasureField
          name="pitchMm"
          quantity="lengthMm"
          optional
          wanted={!odd}
          helper="centre to centre, straight across"
        />
      )}
      {asks('chordMm') && odd && (
        <openMeasured.MeasureField
          name="chordMm"
          quantity="lengthMm"
          optional
          wanted
          helper="with an odd count none is straight across"
        />
      )}
      {asks('notchClocks') && (
        <openMeasured.NumbersField
          name="notchClocks"
          helper="from behind, e.g. 12 3.8 8.2; blank where even"
        />
      )}
    </>
  );
}

/** Flats, teeth, and the heads of what is turned. */
function HeadFields({ asks }: { readonly asks: Asks }) {
  const [slotLengthMm, slotWidthMm] = [
    openMeasured.useValue('slotLengthMm'),
    openMeasured.useValue('slotWidthMm'),
  ];
  const crossed = openMeasured.useValue('screwHead') === 'cross-head';
  const pried = openMeasured.useValue('hatchOpens') === 'pried';
  // What contradicts the heads or the hatch stays in sight, to be taken out.
  const slotAsked = (!crossed && !pried) || slotLengthMm !== null || slotWidthMm !== null;
  const crossAsked = crossed || openMeasured.useValue('crossSize') !== null;
  return (
    <>
      {asks('flatCount') && (
        <openMeasured.MeasureField name="flatCount" quantity="figureOnly" optional wanted />
      )}
      {asks('acrossMm') && <openMeasured.MeasureField name="acrossMm" quantity="lengthMm" optional wanted />}
      {asks('toothForm') && (
        <openMeasured.ListChoice name="toothForm" options={optionsOrNone(TOOTH_FORMS, 'not seen yet')} />
      )}
      {asks('screwCount') && (
        <openMeasured.MeasureField name="screwCount" quantity="figureOnly" optional wanted />
      )}
      {asks('screwHead') && (
        <openMeasured.ListChoice name="screwHead" options={optionsOrNone(SCREW_HEADS, 'not seen yet')} />
      )}
      {asks('crossSize') && crossAsked && (
        <openMeasured.ListChoice name="crossSize" options={optionsOrNone(CROSS_SIZES, 'not measured')} />
      )}
      {asks('hatchOpens') && (
        <openMeasured.ListChoice name="hatchOpens" options={optionsOrNone(HATCH_OPENS, 'not seen yet')} />
      )}
      {asks('slotLengthMm') && slotAsked && (
        <openMeasured.MeasureField name="slotLengthMm" quantity="lengthMm" optional wanted />
      )}
      {asks('slotWidthMm') && slotAsked && (
        <openMeasured.MeasureField name="slotWidthMm" quantity="lengthMm" optional wanted />
      )}
    </>
  );
}

/** What holds a panel, in the order it is undone. */
function PanelFields() {
  return (
    <>
      <openMeasured.Choice name="panelHeldBy" options={optionsOf(PANEL_HELD_BY)} wanted />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <openMeasured.ListChoice name="panelThenBy" options={optionsOrNone(PANEL_HELD_BY, 'nothing more')} />
        <openMeasured.ListChoice name="panelLastBy" options={optionsOrNone(PANEL_HELD_BY, 'nothing more')} />
      </Stack>
    </>
  );
}

function Fields() {
  const { state } = useJob();
  const { field, fieldState } = useController({ name: 'kind' });
  const form = useFormContext();
  const kind = field.value as BackKind | null;
  const asked = kind === null ? [] : measuresOf(kind);
  const asks = (name: keyof MeasuredBack): boolean => asked.includes(name);
  const seenFrom = openMeasured.useValue('seenFrom') ?? 'behind';
  const turn = useTurn();
  return (
    <>
      <NativeSelect
        label="Kind of back"
        wanted={state.facts.back === null}
        value={kind ?? ''}
        error={fieldState.error?.message}
        options={[
          ...(kind === null ? [{ value: '', label: 'choose the kind' }] : []),
          ...BACK_KINDS.map((each) => ({ value: each, label: `${each}: ${backs[each].knownBy}` })),
        ]}
        onChange={(next) => {
          field.onChange(next);
          // A place that was typed keeps the side it was typed for, whatever side is worked on now.
          const typed = ['lipClock', 'pusherClocks'].some((name) => form.getFieldState(name).isDirty);
          if (!typed) turn(workedFrom(next as BackKind));
          // What was measured of another kind of back is no measure of this one.
          const kept = measuresOf(next as BackKind);
          for (const name of asked)
            if (!kept.includes(name)) form.setValue(name, Array.isArray(form.getValues(name)) ? [] : null);
        }}
      />
      <Columns>
        <NotchFields asks={asks} holes={kind === 'screwed, round holes'} />
        <HeadFields asks={asks} />
        {asks('lipClock') && <openMeasured.ClockField name="lipClock" from={seenFrom} />}
        <openMeasured.MeasureField name="diameterMm" quantity="lengthMm" optional />
        <openMeasured.MeasureField
          name="caseMm"
          quantity="lengthMm"
          optional
          helper="without crown and lugs: the holder fits this"
        />
        {asks('pusherClocks') && (
          <openMeasured.NumbersField
            name="pusherClocks"
            helper={`seen from ${seenFrom}, e.g. 2 4; blank if none`}
          />
        )}
      </Columns>
      {(asks('lipClock') || asks('pusherClocks')) && <SeenFrom />}
      {asks('panelHeldBy') && <PanelFields />}
      <openMeasured.Choice name="coating" options={optionsOf(COATINGS)} />
      <openMeasured.ListChoice name="bracelet" options={optionsOrNone(BRACELETS, 'not seen yet')} />
      <openMeasured.ListChoice name="dustCover" options={optionsOrNone(DUST_COVERS, 'none known')} />
    </>
  );
}

/** What is known without measuring, in a line: most watches are seen before, by the book or by this shop. */
export function KnownAlready({ onMeasure }: { readonly onMeasure: () => void }) {
  const { earlier, state } = useJob();
  const { back } = useOpening();
  const [kind = '', ...measures] = measureWords(back);
  return (
    <Paper component="section" aria-label="Case back, known so far" sx={{ px: 2, py: 0.75 }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography>
          <strong>{capital(kind)}</strong>
          {measures.map((each) => ` · ${each}`)}
          <Typography component="span" color="text.secondary">
            {' '}
            · from {earlier?.history.measured ? 'the last visit' : `the book, ${state.caseType?.code ?? ''}`}
          </Typography>
        </Typography>
        <Button size="small" onClick={onMeasure} sx={{ flexShrink: 0 }}>
          Measure
        </Button>
      </Stack>
    </Paper>
  );
}

/** Whether book or last visit tell enough of the back, so that nothing of it need be measured. */
export function useBackIsKnown(): boolean {
  const { state, draft } = useJob();
  const { opener, kindKnown } = useOpening();
  const enough = kindKnown && opener.verdict !== 'not yet known' && opener.verdict !== 'impossible';
  return state.facts.measured === null && enough && !draft.back;
}

/** The back as it lies there: its kind and the few measures that matter for it. */
export function Measured() {
  const job = useJob();
  const { facts, caseType } = job.state;
  const { back, kindKnown } = useOpening();
  return (
    <FactCard
      key={`${caseType?.id ?? ''} ${job.earlier?.history.measured ? 'seen' : ''}`}
      kind="open.measured"
      title="Case back, measured"
      recorded={facts.measured}
      defaults={{
        ...NOTHING_MEASURED,
        // What was measured is what a hand measured here; what book or last visit have stands in the lamp.
        kind: kindKnown ? back.kind : null,
        chordMm: null,
        lipClock: null,
        bracelet: null,
        pusherClocks: [],
        seenFrom: workedFrom(back.kind),
      }}
    >
      <MeasuresInWords />
      <Fields />
    </FactCard>
  );
}
