import CloseIcon from '@mui/icons-material/Close';
import {
  Autocomplete,
  Box,
  Button,
  IconButton,
  InputAdornment,
  Paper,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { type ReactNode, useState } from 'react';
import { kindDefinition } from '../../../contract';
import { capital } from '../../../core/craft/judgement';
import type { JobEvidence } from '../../../core/advice/identify';
import { type Look, LOOKS, lookSpec, seenWords } from '../../../core/craft/identify';
import { SIGNS } from '../../../core/craft/movements';
import { formatLignes, readSize } from '../../../core/craft/units';
import { MONO } from '../../kit/theme';
import { SignFigure } from '../../figures/SignFigure';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { TakeButton } from '../../kit/TakeButton';
import { typedSeen, useAnswer, useAskedLook, useEvidence, useTypedText } from './useIdentification';

/** Records, corrects and takes back one look. */
export function useLook(look: Look) {
  const { record, technician } = useJob();
  const { evidence, setTyped } = useEvidence();
  const there = evidence.find((each) => each.look === look) ?? null;
  const own = there?.from === 'here' && look !== 'engraving' ? there.entryId : null;
  const give = (value: string | number | null, withinMm = 0): void => {
    setTyped(look, null);
    void record('identify.evidence', { look, value, withinMm }, { supersedes: own === null ? [] : [own] });
  };
  const takeBack = (): void => {
    setTyped(look, null);
    const entryId = there?.entryId ?? null;
    if (entryId !== null) void record('logbook.withdrawn', { reason: 'removed' }, { withdraws: entryId });
    else give(null);
  };
  return { there, give, takeBack, mayRecord: technician !== null };
}

const label = (look: Look): string => capital(LOOKS[look].words);

function PickLook({ look }: { readonly look: Look }) {
  const { there, give, takeBack } = useLook(look);
  const spec = lookSpec(look);
  const value = there?.seen ? String(there.seen.value) : '';
  const values = spec.as === 'pick' ? spec.values : [];
  return (
    <NativeSelect
      label={label(look)}
      value={value}
      options={[
        { value: '', label: 'not examined' },
        ...values.map((each) => ({ value: each, label: each })),
      ]}
      onChange={(next) => (next === '' ? takeBack() : give(next))}
    />
  );
}

/** A text or a size among the others, unless it is asked for in the lamp. */
function TypedLook(props: { readonly look: Look; readonly helper?: string }) {
  return useAskedLook() === props.look ? null : <TypedLookField {...props} />;
}

/** What stands at the end of such a field: its unit and caliper, or the way to record what was typed. */
function LookEnd({
  look,
  changed,
  mayRecord,
  onText,
}: {
  readonly look: Look;
  readonly changed: boolean;
  readonly mayRecord: boolean;
  readonly onText: (text: string) => void;
}) {
  return (
    <InputAdornment position="end">
      {LOOKS[look].as === 'mm' && !changed && (
        <>
          mm
          <TakeButton device="caliper" ask={{ ask: 'length' }} label={label(look)} onText={onText} />
        </>
      )}
      {changed && (
        <Button type="submit" disabled={!mayRecord} sx={{ minWidth: 0 }}>
          Record
        </Button>
      )}
    </InputAdornment>
  );
}

/** A text or a size: the ranking follows while it is typed, Enter records it. */
export function TypedLookField({ look, helper }: { readonly look: Look; readonly helper?: string }) {
  const { setTyped: showTyped, setHeld } = useEvidence();
  const wanted = useAskedLook() === look;
  const { there, give, mayRecord } = useLook(look);
  const { as } = LOOKS[look];
  const written = there?.seen ? String(there.seen.value) : '';
  const typed = useTypedText(look);
  const [refused, setRefused] = useState<string | null>(null);
  const text = typed ?? written;
  const take = (next: string): void => {
    setRefused(null);
    showTyped(look, next);
  };
  const submit = (): void => {
    // What stands there already is not recorded once more.
    if (text.trim() === written) return;
    const seen = typedSeen(look, text);
    if (seen === null) {
      setRefused(
        text.trim() === '' ? null : `“${text.trim()}” is not a size. Enter e.g. 23.31 or 10½ lignes.`,
      );
      return;
    }
    const checked = kindDefinition('identify.evidence').schema.safeParse(seen);
    if (!checked.success) {
      setRefused(checked.error.issues[0]?.message ?? null);
      return;
    }
    give(seen.value, seen.withinMm);
  };
  const size = as === 'mm' ? readSize(text) : null;
  const changed = typed !== undefined && typed.trim() !== written;
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <TextField
        label={label(look)}
        value={text}
        fullWidth
        onChange={(event) => take(event.target.value)}
        onFocus={() => setHeld(wanted ? null : look)}
        onBlur={() => setHeld(null)}
        error={refused !== null}
        helperText={
          refused ??
          (size !== null && changed
            ? `Understood: ${size.mm.toFixed(2)} mm${size.withinMm > 0 ? `, ${formatLignes(size.mm)}` : ''}`
            : helper)
        }
        slotProps={{
          inputLabel: { shrink: true },
          input: {
            endAdornment: <LookEnd look={look} changed={changed} mayRecord={mayRecord} onText={take} />,
          },
          htmlInput: {
            'data-wanted': wanted,
            ...(as === 'mm' ? { 'data-measure': 'lengthMm', inputMode: 'decimal' } : {}),
            autoComplete: 'off',
            spellCheck: false,
            style: { fontFamily: MONO },
          },
        }}
      />
    </Box>
  );
}

function SignLook() {
  const { there, give, takeBack } = useLook('sign');
  const value = there?.seen ? String(there.seen.value) : null;
  return (
    <Stack spacing={0.5}>
      <Typography id="sign-label" variant="body2">
        Maker’s sign on the movement
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={value}
        aria-labelledby="sign-label"
        onChange={(_, next: string | null) => (next === null ? takeBack() : give(next))}
        sx={{ flexWrap: 'wrap' }}
      >
        {SIGNS.map((sign) => (
          <ToggleButton key={sign} value={sign} aria-label={sign} title={sign} sx={{ color: 'text.primary' }}>
            <SignFigure sign={sign} />
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Stack>
  );
}

const MOST_OFFERED = 40;

function CaseLook() {
  const { book } = useJob();
  const { there, give, takeBack } = useLook('caseCode');
  const value = there?.seen ? String(there.seen.value) : '';
  return (
    <Autocomplete
      options={book.caseTypes.map(({ code }) => code)}
      value={value === '' ? null : value}
      filterOptions={(codes, { inputValue }) =>
        codes
          .filter((code) => code.toLowerCase().includes(inputValue.trim().toLowerCase()))
          .slice(0, MOST_OFFERED)
      }
      onChange={(_, next) => (next === null ? takeBack() : give(next))}
      renderInput={(params) => <TextField {...params} label={label('caseCode')} />}
    />
  );
}

function RevisionLook() {
  const { book } = useJob();
  const { answer } = useAnswer();
  const { there, give, takeBack } = useLook('revision');
  const value = there?.seen ? String(there.seen.value) : '';
  const likeliest = answer?.identification.candidates[0]?.calibreId ?? null;
  const calibre = book.calibre(value.split('|')[0] || likeliest);
  if (!calibre || calibre.revisions.length === 0) return null;
  return (
    <NativeSelect
      label={`Revision of ${calibre.code}`}
      value={value}
      options={[
        { value: '', label: 'not examined' },
        ...calibre.revisions.map(({ name, seenBy }) => ({
          value: `${calibre.id}|${name}`,
          label: `${name}: ${seenBy}`,
        })),
      ]}
      onChange={(next) => (next === '' ? takeBack() : give(next))}
    />
  );
}

function Grid({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Stack spacing={0.75} role="group" aria-label={title}>
      <Typography sx={{ fontWeight: 700 }}>{title}</Typography>
      <Box
        sx={{
          display: 'grid',
          gap: 0.75,
          alignItems: 'start',
          gridTemplateColumns: { xs: '1fr 1fr', lg: 'repeat(4, minmax(0, 1fr))' },
        }}
      >
        {children}
      </Box>
    </Stack>
  );
}

/** One piece that counts, and the way to take it back. */
function Piece({ piece }: { readonly piece: JobEvidence }) {
  const { takeBack, mayRecord } = useLook(piece.look);
  const out = piece.seen === null;
  const words =
    piece.seen === null ? `${LOOKS[piece.look].words}: ${piece.without ?? ''}` : seenWords(piece.seen);
  return (
    <Stack
      component="li"
      direction="row"
      sx={{ alignItems: 'center', border: 1, borderColor: 'divider', borderRadius: 1, pl: 1 }}
    >
      <Typography sx={{ textDecoration: piece.without === 'left out' ? 'line-through' : undefined }}>
        {words}
        {piece.from === 'here' ? '' : `, from ${piece.from}`}
      </Typography>
      {out ? (
        <Button
          size="small"
          disabled={!mayRecord}
          onClick={takeBack}
          aria-label={`Use again: ${LOOKS[piece.look].words}`}
        >
          Use again
        </Button>
      ) : (
        <IconButton
          disabled={!mayRecord}
          onClick={takeBack}
          aria-label={`Remove: ${LOOKS[piece.look].words}`}
          sx={{ minWidth: 36, minHeight: 36 }}
        >
          <CloseIcon fontSize="small" />
        </IconButton>
      )}
    </Stack>
  );
}

/** Everything that may be seen of the movement, in any order, and what counts so far. */
export function Evidence() {
  const { evidence } = useEvidence();
  const oblong = evidence.find(({ look }) => look === 'shape')?.seen?.value === 'oblong';
  return (
    <Paper component="section" aria-label="Observations" sx={{ px: 2, py: 1.5 }}>
      <Typography variant="h3" component="h2">
        Observations
      </Typography>
      {evidence.length > 0 && (
        <Stack
          component="ul"
          aria-label="Evidence"
          direction="row"
          sx={{ flexWrap: 'wrap', gap: 0.75, p: 0, m: 0, mt: 1, listStyle: 'none' }}
        >
          {evidence.map((piece) => (
            <Piece key={piece.look} piece={piece} />
          ))}
        </Stack>
      )}
      <Stack spacing={1} sx={{ mt: 1 }}>
        <Grid title="On the movement">
          <TypedLook look="mark" helper="? for each worn character" />
          <PickLook look="jewels" />
          <PickLook look="coils" />
          <PickLook look="cellAt" />
          <PickLook look="heldBy" />
          <TypedLook look="print" helper="other words on it" />
        </Grid>
        <SignLook />
        <RevisionLook />
        <Grid title="Measured">
          <PickLook look="shape" />
          <TypedLook look="widthMm" helper="mm, or 10½ lignes" />
          {oblong && <TypedLook look="lengthMm" />}
          <TypedLook look="heightMm" />
          <TypedLook look="cellDiameterMm" />
          <TypedLook look="cellHeightMm" />
        </Grid>
        <Grid title="From the front">
          <PickLook look="seconds" />
          <PickLook look="date" />
          <PickLook look="day" />
          <PickLook look="counters" />
          <PickLook look="display" />
          <PickLook look="step" />
          <CaseLook />
        </Grid>
      </Stack>
    </Paper>
  );
}
