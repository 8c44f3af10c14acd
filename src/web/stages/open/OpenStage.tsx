import { Button, Paper, Stack, Typography } from '@mui/material';
import { useController, useFormContext } from 'react-hook-form';
import { type BackKind, BACK_KINDS, backs, KNIFE_KINDS, prySpot } from '../../../core/backs';
import { AS_FOUND, OPENED_HOW, openParts, PARTS, type PartOff, PROTECTIONS } from '../../../core/logbook';
import { wayTaken } from '../../../core/policy';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { BackFigure } from '../../figures/BackFigure';
import { Choice, ClockField, MeasureField, optionsOf, Several, TextLine } from '../../job/fields';
import { FactCard, RecordedBy } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { FactList } from '../../job/FactList';
import { LastTime } from '../../job/LastTime';
import { MoreFacts } from '../../job/MoreFacts';
import { StageLayout } from '../../job/StageLayout';
import { NativeSelect } from '../../job/NativeSelect';

function knownBack(kind: string | undefined): BackKind | null {
  return BACK_KINDS.find((each) => each === kind) ?? null;
}

/** The back chosen in the form, told to the lamp, with the opener that goes with it. */
function BackKindField({ spotClock }: { readonly spotClock: number | null }) {
  const { setDraft } = useJob();
  const { field, fieldState } = useController({ name: 'kind' });
  const form = useFormContext();
  return (
    <NativeSelect
      label="Kind of back"
      wanted
      value={field.value as string}
      error={fieldState.error?.message}
      options={BACK_KINDS.map((kind) => ({ value: kind, label: `${kind}: ${backs[kind].knownBy}` }))}
      onChange={(kind) => {
        field.onChange(kind);
        form.setValue('openedWith', backs[kind as BackKind].opener);
        form.setValue('spotClock', KNIFE_KINDS.includes(kind as BackKind) ? spotClock : null);
        setDraft('back', kind);
      }}
    />
  );
}

function Tray() {
  const { state, record } = useJob();
  const parts = [...state.facts.parts.values()];
  const settle = (part: PartOff, outcome: 'back in place' | 'replaced' | 'lost'): void =>
    void record('open.part-settled', { partEntryId: part.off.id, outcome, note: '' });
  return (
    <>
      <Stack component="ul" spacing={1} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {parts.map((part) => {
          const { part: name, count, position } = part.off.payload;
          const words = `${count > 1 ? `${count} × ` : ''}${name}${position ? `, ${position}` : ''}`;
          return (
            <Stack
              component="li"
              key={part.off.id}
              direction="row"
              spacing={1}
              sx={{ alignItems: 'center', flexWrap: 'wrap' }}
            >
              <Typography sx={{ flexGrow: 1 }}>
                {words} · <RecordedBy entry={part.off} />
              </Typography>
              {part.settled ? (
                <Typography sx={{ fontWeight: 700 }}>{part.settled.payload.outcome}</Typography>
              ) : (
                (['back in place', 'replaced', 'lost'] as const).map((outcome) => (
                  <Button
                    key={outcome}
                    size="small"
                    variant="outlined"
                    onClick={() => settle(part, outcome)}
                    aria-label={`${words}: ${outcome}`}
                  >
                    {outcome}
                  </Button>
                ))
              )}
            </Stack>
          );
        })}
      </Stack>
      {parts.length === 0 && (
        <Typography color="text.secondary">Nothing has come off this watch yet.</Typography>
      )}
    </>
  );
}

function Mat() {
  const { state, context, asks } = useJob();
  const { facts, caseType } = state;
  const { schools } = context.policy;
  const likely = knownBack(caseType?.backKind);
  const spot = prySpot({
    crownClock: facts.watch?.payload.crownClock ?? caseType?.crownClock ?? null,
    lipClock: caseType?.lipClock ?? null,
  });
  return (
    <>
      <FactCard
        kind="open.back"
        title="Case back"
        recorded={facts.back}
        defaults={{
          kind: likely ?? 'snap-on',
          openedWith: backs[likely ?? 'snap-on'].opener,
          protection: schools.protection,
          went: 'freely',
          spotClock: likely === null || KNIFE_KINDS.includes(likely) ? spot.clock : null,
          lipClock: caseType?.lipClock ?? null,
        }}
      >
        <BackKindField spotClock={spot.clock} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <TextLine name="openedWith" label="Opened with" />
          <ClockField name="spotClock" label="Spot of the tool" />
          <ClockField name="lipClock" label="Lip or nick at" />
        </Stack>
        <Choice
          name="protection"
          label="Between tool and back"
          options={optionsOf(PROTECTIONS.slice(0, 2))}
        />
        <Choice name="went" label="It opened" options={optionsOf(OPENED_HOW.slice(0, 3))} />
      </FactCard>
      <Paper component="section" aria-label="Parts tray" sx={{ p: 2 }}>
        <Typography variant="h3" component="h2">
          Parts tray
        </Typography>
        <Tray />
      </Paper>
      <PartComesOff />
      <FactCard
        kind="open.as-found"
        files
        title="As found, before anything is touched"
        recorded={facts.asFound}
        defaults={{ found: [], note: '' }}
      >
        <Several name="found" label="Left by earlier hands" options={optionsOf(AS_FOUND)} />
        <TextLine name="note" label="Note" />
      </FactCard>
      <FactCard
        key={`technique-${facts.techniques.length}`}
        kind="open.technique"
        title="For next time"
        recorded={null}
        defaults={{ note: '' }}
        action="Note it"
      >
        {facts.techniques.map((technique) => (
          <Typography key={technique.id}>
            {technique.payload.note} · <RecordedBy entry={technique} />
          </Typography>
        ))}
        <TextLine name="note" label="What to do the same, or not" />
      </FactCard>
      <MoreFacts
        facts={[
          {
            title: 'Seals counted',
            shown: facts.seals !== null || asks('open.seals'),
            card: (
              <FactCard
                kind="open.seals"
                title="Seals counted"
                recorded={facts.seals}
                defaults={{ rim: 1, innerCover: 0, hatch: 0 }}
              >
                <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
                  <MeasureField name="rim" label="At the rim" quantity="figureOnly" />
                  <MeasureField name="innerCover" label="On an inner cover" quantity="figureOnly" />
                  <MeasureField name="hatch" label="At a hatch" quantity="figureOnly" />
                </Stack>
              </FactCard>
            ),
          },
          {
            title: 'Printed inside',
            shown: facts.prints.length > 0,
            card: (
              <FactList
                kind="open.print"
                title="Printed inside"
                recorded={facts.prints}
                defaults={{ text: '' }}
              >
                <TextLine name="text" label="As it stands there: cell, polarity, reset" mono />
              </FactList>
            ),
          },
        ]}
      />
    </>
  );
}

/** The form that lays one more part on the tray; it stays open, since parts come off one after another. */
function PartComesOff() {
  const { state } = useJob();
  return (
    <FactCard
      key={state.facts.parts.size}
      kind="open.part"
      title="A part comes off"
      recorded={null}
      defaults={{ part: 'spring bar', position: '', count: 1 }}
      action="Lay it on the tray"
    >
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <PartField />
        <TextLine name="position" label="Where it sat" />
        <MeasureField name="count" label="How many" quantity="figureOnly" />
      </Stack>
    </FactCard>
  );
}

function PartField() {
  const { field } = useController({ name: 'part' });
  return (
    <NativeSelect
      label="Part"
      value={field.value as string}
      options={optionsOf(PARTS)}
      onChange={field.onChange}
    />
  );
}

function Lamp() {
  const { state, draft, earlier, context } = useJob();
  const { facts, caseType } = state;
  const kind =
    knownBack(facts.back?.payload.kind) ??
    knownBack(draft.back) ??
    knownBack(caseType?.backKind) ??
    'snap-on';
  const sure = facts.back !== null || draft.back !== undefined || caseType !== null;
  const back = backs[kind];
  const crownClock = facts.watch?.payload.crownClock ?? caseType?.crownClock ?? null;
  const spot = prySpot({ crownClock, lipClock: facts.back?.payload.lipClock ?? caseType?.lipClock ?? null });
  const knife = KNIFE_KINDS.includes(kind);
  const open = openParts(facts);
  return (
    <>
      {earlier !== null && earlier.visits.length > 0 && <LastTime watch={earlier} zone={context.shop.zone} />}
      <LampAnswer
        question={facts.back ? 'Opened' : 'Opens with'}
        standing={facts.back ? 'good' : 'open'}
        answer={back.opener}
        reasons={[
          `Known by ${back.knownBy}.`,
          `Mind: ${back.minds}.`,
          ...(caseType
            ? [`The book says ${caseType.backKind} for ${caseType.code}.`]
            : sure
              ? []
              : ['Choose the kind of back to be sure.']),
        ]}
      />
      <Caution>{back.caution}</Caution>
      {facts.seals && (
        <LampAnswer
          question="Seals to account for at closing"
          standing="good"
          answer={`${facts.seals.payload.rim + facts.seals.payload.innerCover + facts.seals.payload.hatch}`}
        />
      )}
      {knife && (
        <LampAnswer
          question="Where the knife goes"
          standing={spot.verdict === 'not yet known' ? 'open' : 'good'}
          answer={spot.clock === null ? 'Not yet known' : `${spot.clock} o’clock from behind`}
          reasons={spot.reasons}
        >
          <BackFigure crownClock={crownClock} spotClock={spot.clock} />
        </LampAnswer>
      )}
      {facts.back === null && (
        <LampAnswer
          question="This shop puts between tool and back"
          standing="good"
          answer={context.policy.schools.protection}
          reasons={[
            wayTaken(context.policy.schools, 'protection').reason,
            `Opener: ${context.policy.schools.opener}. Small parts: ${context.policy.schools.parts}.`,
          ]}
        />
      )}
      <LampAnswer
        question="On the tray"
        standing={open.length === 0 ? 'good' : 'care'}
        answer={open.length === 0 ? 'Nothing open' : `${open.length} to account for`}
        reasons={open.map((part) => part.words)}
      />
      <Working lines={knife ? spot.working : []} />
    </>
  );
}

export default function OpenStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
