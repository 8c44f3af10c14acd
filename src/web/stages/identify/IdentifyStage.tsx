import { Box, Button, LinearProgress, Paper, Stack, TextField, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { capital, figure, percent } from '../../../core/judgement';
import { formatLignes } from '../../../core/units';
import { type Calibre, type EngravingReading, readEngraving } from '../../../core/movements';
import { focusNextWanted } from '../../app/keys/wanted';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { TextLine } from '../../job/fields';
import { FactCard, RecordedBy } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../job/NativeSelect';
import { StageLayout } from '../../job/StageLayout';

const NOT_IN_BOOK = '';

function useReading(): { readonly text: string; readonly reading: EngravingReading | null } {
  const { draft, state, book } = useJob();
  const text = draft.engraving ?? state.facts.engraving?.payload.text ?? '';
  const reading = useMemo(() => (text.trim() === '' ? null : readEngraving(text, book)), [text, book]);
  return { text, reading };
}

function useRecordMovement(): (calibre: Calibre | null, code: string, by: 'engraving' | 'hand') => void {
  const { record, state } = useJob();
  return (calibre, code, by) => {
    const before = state.facts.movement;
    void record(
      'identify.movement',
      { calibreId: calibre?.id ?? null, code, by, note: '' },
      { supersedes: before ? [before.id] : [] },
    ).then(() => requestAnimationFrame(() => requestAnimationFrame(focusNextWanted)));
  };
}

function Candidates() {
  const { book, state, technician } = useJob();
  const { reading } = useReading();
  const recordMovement = useRecordMovement();
  if (reading === null) return null;
  const chosen = state.facts.movement?.payload.calibreId ?? null;
  if (reading.verdict === 'not read') {
    return (
      <Paper component="section" aria-label="Candidates" sx={{ p: 2 }}>
        <Typography>{reading.reasons[0]}</Typography>
      </Paper>
    );
  }
  return (
    <Paper component="section" aria-label="Candidates" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Candidates
      </Typography>
      <Stack component="ol" spacing={1} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {reading.movements.slice(0, 5).map((candidate, index) => (
          <Stack component="li" key={candidate.id} direction="row" spacing={2} sx={{ alignItems: 'center' }}>
            <Box sx={{ minWidth: 120 }}>
              <Typography variant="mark">{candidate.code}</Typography>
              <Typography variant="body2" color="text.secondary">
                {book.maker(candidate.makerId)?.name}
              </Typography>
            </Box>
            <Box sx={{ flexGrow: 1, minWidth: 80 }}>
              <LinearProgress
                variant="determinate"
                value={candidate.probability * 100}
                aria-label={`${candidate.code}: ${percent(candidate.probability)}`}
                sx={{ height: 10, borderRadius: 1 }}
              />
              <Typography variant="body2">
                {percent(candidate.probability)}: {candidate.reasons.join('; ')}
              </Typography>
            </Box>
            {chosen === candidate.id ? (
              <Typography sx={{ fontWeight: 700 }}>chosen</Typography>
            ) : (
              <Button
                variant={index === 0 ? 'contained' : 'outlined'}
                disabled={technician === null}
                data-wanted={index === 0 && chosen === null}
                onClick={() => recordMovement(book.calibre(candidate.id), candidate.code, 'engraving')}
                aria-label={`It is ${candidate.code}`}
              >
                It is this
              </Button>
            )}
          </Stack>
        ))}
        <Typography component="li">
          Not in the book: {percent(reading.movementNotInBook)}
          {reading.movements.length === 0 ? '. Pick by hand, or name it as it stands.' : ''}
        </Typography>
      </Stack>
      {(reading.cases.length > 0 || reading.serial !== null) && (
        <Typography sx={{ mt: 1 }}>
          {reading.cases[0] ? `Case code ${reading.cases[0].code}. ` : ''}
          {reading.serial !== null ? `Serial ${reading.serial}.` : ''}
        </Typography>
      )}
    </Paper>
  );
}

function ByHand() {
  const { book, technician } = useJob();
  const [calibreId, setCalibreId] = useState(book.calibres[0]?.id ?? NOT_IN_BOOK);
  const [code, setCode] = useState('');
  const recordMovement = useRecordMovement();
  const calibre = book.calibre(calibreId || null);
  return (
    <Paper component="section" aria-label="Picked by hand" sx={{ p: 2 }}>
      <Typography variant="h3" component="h2">
        Or picked by hand
      </Typography>
      <Stack
        component="form"
        direction={{ xs: 'column', sm: 'row' }}
        spacing={1.5}
        sx={{ mt: 1 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (calibre || code.trim() !== '') recordMovement(calibre, calibre?.code ?? code.trim(), 'hand');
        }}
      >
        <NativeSelect
          label="Calibre"
          value={calibreId}
          onChange={setCalibreId}
          options={[
            ...book.calibres.map((each) => ({
              value: each.id,
              label: `${each.code}, ${book.maker(each.makerId)?.name ?? each.makerId}`,
            })),
            { value: NOT_IN_BOOK, label: 'Not in the book' },
          ]}
        />
        {calibre === null && (
          <TextField
            label="As engraved"
            value={code}
            onChange={(event) => setCode(event.target.value)}
            fullWidth
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
        )}
        <Button type="submit" variant="outlined" disabled={technician === null} sx={{ flexShrink: 0 }}>
          It is this one
        </Button>
      </Stack>
    </Paper>
  );
}

function Mat() {
  const { state, setDraft } = useJob();
  const { movement, engraving } = state.facts;
  return (
    <>
      <FactCard
        kind="identify.engraving"
        title="Engraving inside the back and on the movement"
        recorded={engraving}
        defaults={{ text: '' }}
        hint={
          <Typography color="text.secondary" sx={{ mt: 0.5 }}>
            Type all that stands there; a ? for each worn character.
          </Typography>
        }
        action="Read it"
      >
        <TextLine name="text" label="Engraving" mono wanted onText={(text) => setDraft('engraving', text)} />
      </FactCard>
      <Candidates />
      {movement && (
        <Paper component="section" aria-label="Movement" sx={{ p: 2 }}>
          <Typography variant="h3" component="h2">
            Movement
          </Typography>
          <Typography>
            <Typography variant="mark" component="span">
              {movement.payload.code}
            </Typography>{' '}
            {movement.payload.calibreId === null ? 'not in the book, ' : ''}by {movement.payload.by} ·{' '}
            <RecordedBy entry={movement} />
          </Typography>
        </Paper>
      )}
      <ByHand />
    </>
  );
}

/** What is known of a calibre, with its layout. */
export function CalibreCard({ calibre }: { readonly calibre: Calibre }) {
  const { book } = useJob();
  return (
    <LampAnswer
      question={`${book.maker(calibre.makerId)?.name ?? ''} ${calibre.code} wants`}
      standing="good"
      answer={calibre.wells.map((well) => well.cellCode).join(' and ')}
      reasons={[
        `${figure(calibre.widthMm, 1)} × ${figure(calibre.lengthMm, 1)} mm (${formatLignes(calibre.widthMm)}), held by ${[...new Set(calibre.wells.map((well) => well.heldBy))].join(' and ')}.`,
        calibre.stepIntervalS === null
          ? 'A display, no hands to step.'
          : `Steps every ${calibre.stepIntervalS} s.`,
        ...(calibre.lowSupplySignal ? [`Low supply shows so: ${calibre.lowSupplySignal}.`] : []),
      ]}
    >
      <CalibreFigure calibre={calibre} cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null} />
      <Typography variant="body2">Hatched: coil, do not touch. Dashed: the holder’s push.</Typography>
    </LampAnswer>
  );
}

function Lamp() {
  const { state, book } = useJob();
  const { reading, text } = useReading();
  const top = reading?.verdict === 'read' ? reading.movements[0] : undefined;
  const calibre = state.calibre ?? (top && top.probability >= 0.5 ? book.calibre(top.id) : null);
  const stranger = state.facts.movement !== null && state.calibre === null;
  return (
    <>
      <LampAnswer
        question="Which movement?"
        standing={
          state.calibre ? 'good' : stranger ? 'care' : top && top.probability >= 0.5 ? 'care' : 'open'
        }
        answer={
          state.facts.movement?.payload.code ??
          (top ? `${top.code}, ${percent(top.probability)}` : 'Not yet known')
        }
        reasons={
          stranger
            ? ['Not in the book: the cell found and its well decide what to fit.']
            : reading
              ? reading.reasons.map(capital)
              : [text === '' ? 'The engraving would tell: type it, or pick by hand.' : '']
        }
      />
      {calibre?.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {calibre && <CalibreCard calibre={calibre} />}
      {reading && <Working lines={reading.working} />}
    </>
  );
}

export default function IdentifyStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
