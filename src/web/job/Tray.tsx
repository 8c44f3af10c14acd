import { Button, Paper, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useController, useFormContext, useWatch } from 'react-hook-form';
import {
  outcomesFor,
  partsToOrder,
  type PartOff,
  type PartOutcome,
  positionsToNote,
  requestWith,
} from '../../core/logbook';
import {
  asNoted,
  countOf,
  type Part,
  partInWords,
  PARTS,
  PROVED_BY,
  SERVED,
  serves,
  whatToNote,
} from '../../core/craft/parts';
import { colours } from '../kit/theme';
import { factFields } from '../kit/factFields';
import { optionsOf } from '../kit/fields';
import { FactCard } from './FactCard';
import { RecordedBy } from './RecordedBy';
import { FileThumb } from './files';
import { useJob } from './JobContext';
import { NativeSelect } from '../kit/NativeSelect';

const openPart = factFields('open.part');

/** Records what became of a part. */
export function useSettle(): (part: PartOff, outcome: PartOutcome) => void {
  const { record } = useJob();
  return ({ off, settled }, outcome) =>
    void record(
      'open.part-settled',
      { partEntryId: off.id, outcome, note: '' },
      { supersedes: settled ? [settled.id] : [] },
    );
}

function PartLine({ part }: { readonly part: PartOff }) {
  const { resource } = useJob();
  const settle = useSettle();
  const { off, settled } = part;
  const words = partInWords(off.payload);
  const missing = settled?.payload.outcome === 'lost';
  const [correcting, setCorrecting] = useState(false);
  return (
    <Stack
      component="li"
      direction="row"
      spacing={1}
      sx={{
        alignItems: 'center',
        flexWrap: 'wrap',
        borderTop: `1px solid ${colours.thread}`,
        pt: 0.5,
        rowGap: 0.5,
      }}
    >
      <Stack sx={{ flexGrow: 1, flexBasis: 180 }}>
        <Typography>
          {settled === null ? '○' : missing ? '■' : '●'} {words} · <RecordedBy entry={off} />
        </Typography>
        <Typography variant="body2" color="text.secondary">
          used for: {off.payload.serves.join(', ') || 'no function of its own'}
        </Typography>
      </Stack>
      {off.attachments.map((hash) => (
        <FileThumb
          key={hash}
          hash={hash}
          attachment={resource.attachments.find((each) => each.hash === hash)}
        />
      ))}
      {settled && <Typography sx={{ fontWeight: 700 }}>{settled.payload.outcome}</Typography>}
      <Button
        size="small"
        onClick={() => setCorrecting(!correcting)}
        aria-label={`${words}: ${correcting ? 'done' : 'place, photo'}`}
      >
        {correcting ? 'Done' : 'Place, photo'}
      </Button>
      <Stack direction="row" spacing={0.5} sx={{ flexShrink: 0 }}>
        {outcomesFor(part).map((outcome) => (
          <Button
            key={outcome}
            size="small"
            variant="outlined"
            onClick={() => settle(part, outcome)}
            aria-label={`${words}: ${outcome}`}
          >
            {outcome}
          </Button>
        ))}
      </Stack>
      {correcting && (
        <Stack sx={{ flexBasis: '100%' }}>
          <FactCard
            kind="open.part"
            title={`Off: ${off.payload.part}`}
            recorded={off}
            onCorrected={() => setCorrecting(false)}
            files
            defaults={off.payload}
          >
            <openPart.TextLine
              name="position"
              helper="e.g. which hole of the bar, which way the pin points, which screw"
            />
            <openPart.MeasureField name="count" quantity="figureOnly" />
          </FactCard>
        </Stack>
      )}
    </Stack>
  );
}

/** Where each part sat whose place was to be noted; asked while the eye still sees it, at the latest before closing. */
function WhereItSat() {
  const { state, record, technician } = useJob();
  const [seen, setSeen] = useState<Readonly<Record<string, string>>>({});
  const parts = positionsToNote(state.facts);
  if (parts.length === 0) return null;
  const typed = parts.filter(({ off }) => (seen[off.id] ?? '').trim() !== '');
  const note = async (): Promise<void> => {
    for (const { off } of typed)
      await record(
        'open.part',
        { ...off.payload, position: asNoted(off.payload.position, seen[off.id] ?? '') },
        { supersedes: [off.id], attachments: off.attachments },
      );
  };
  return (
    <Stack
      component="form"
      aria-label="Position not recorded yet"
      spacing={1}
      sx={{ mt: 1 }}
      onSubmit={(event) => {
        event.preventDefault();
        void note();
      }}
    >
      <Typography sx={{ fontWeight: 700 }}>Record the position before the part goes back</Typography>
      <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1, alignItems: 'center' }}>
        {parts.map(({ off }) => (
          <TextField
            key={off.id}
            size="small"
            label={whatToNote(off.payload)}
            value={seen[off.id] ?? ''}
            onChange={(event) => setSeen((before) => ({ ...before, [off.id]: event.target.value }))}
            sx={{ flexGrow: 1, minWidth: 220 }}
          />
        ))}
        <Button type="submit" variant="outlined" disabled={technician === null || typed.length === 0}>
          Record position
        </Button>
      </Stack>
    </Stack>
  );
}

/** What came off this watch, and what became of it. */
export function Tray() {
  const { state, record, technician } = useJob();
  const { facts } = state;
  const parts = [...facts.parts.values()];
  const open = parts.filter(({ settled }) => settled === null);
  const toOrder = partsToOrder(facts);
  const allBack = async (): Promise<void> => {
    for (const { off } of open)
      await record('open.part-settled', { partEntryId: off.id, outcome: 'back in place', note: '' });
  };
  const order = (): void => {
    const request = facts.partsRequest;
    void record('arrive.parts-request', requestWith(request?.payload ?? null, toOrder), {
      supersedes: request ? [request.id] : [],
    });
  };
  if (parts.length === 0) return null;
  return (
    <Paper component="section" aria-label="Parts tray" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Parts tray
      </Typography>
      <Stack component="ul" spacing={0.5} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {parts.map((part) => (
          <PartLine key={part.off.id} part={part} />
        ))}
      </Stack>
      <WhereItSat />
      {open.length > 1 && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          disabled={technician === null}
          onClick={() => void allBack()}
        >
          All {open.length} back in place
        </Button>
      )}
      {toOrder.length > 0 && (
        <Stack direction="row" spacing={1} sx={{ mt: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography sx={{ fontWeight: 700 }}>
            Lost, to be ordered: {toOrder.map(({ what, count }) => countOf(what, count)).join(', ')}
          </Typography>
          <Button variant="contained" disabled={technician === null} onClick={order}>
            Add to the parts request
          </Button>
        </Stack>
      )}
    </Paper>
  );
}

function PartField() {
  const { field } = useController({ name: 'part' });
  const form = useFormContext();
  return (
    <NativeSelect
      label="Part"
      value={field.value as string}
      options={optionsOf(PARTS)}
      onChange={(part) => {
        field.onChange(part);
        form.setValue('serves', serves(part as Part));
      }}
    />
  );
}

/** What the part serves: as such parts usually do, until a hand says otherwise. */
function ServesField() {
  const served = useWatch({ name: 'serves' }) as readonly string[];
  const [changing, setChanging] = useState(false);
  if (changing)
    return (
      <openPart.Several
        name="serves"
        shownAs="Used for (retest if lost or replaced)"
        options={SERVED.map((each) => ({ value: each, label: `${each} (${PROVED_BY[each]})` }))}
      />
    );
  return (
    <Stack direction="row" sx={{ alignItems: 'center' }}>
      <Typography color="text.secondary">
        Used for: {served.join(', ') || 'no function of its own'}.
      </Typography>
      <Button size="small" onClick={() => setChanging(true)} aria-label="Change what it is used for">
        Change
      </Button>
    </Stack>
  );
}

/** The form that lays one more part on the tray; it stays for the next, since parts come off one after another. */
export function PartComesOff() {
  return (
    <FactCard
      kind="open.part"
      title="Part removed"
      recorded={null}
      files
      defaults={{ part: 'spring bar', position: '', count: 1, serves: serves('spring bar'), step: '' }}
      action="Add to tray"
    >
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <PartField />
        <openPart.TextLine
          name="position"
          helper="e.g. which hole of the bar, which way the pin points, which screw"
        />
        <openPart.MeasureField name="count" quantity="figureOnly" />
      </Stack>
      <ServesField />
    </FactCard>
  );
}
