import { Autocomplete, Box, Button, Paper, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { standsForIt } from '../../../core/craft/identify';
import { capital, figure, percent } from '../../../core/craft/judgement';
import { bareCode, type Calibre, calibreWords, openRevisions } from '../../../core/craft/movements';
import { formatLignes } from '../../../core/craft/units';
import { Caution, LampAnswer, type LampTone, Working } from '../../kit/Lamp';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { factFields } from '../../kit/factFields';

import { FactCard } from '../../job/FactCard';
import { RecordedBy } from '../../job/RecordedBy';
import { useJob } from '../../job/JobContext';
import { BenchLayout } from '../../job/BenchLayout';
import { Candidates } from './Candidates';
import { EnterUnknownCalibre } from './EnterUnknownCalibre';
import { Evidence } from './Evidence';
import { NextLookAnswer } from './NextLookAnswer';
import { useRecordMovement } from './recordMovement';
import { IdentificationProvider, useAnswer, useAskedLook, useEvidence } from './useIdentification';

const identifyEngraving = factFields('identify.engraving');

const MOST_OFFERED = 50;

function ByHand() {
  const { book, technician } = useJob();
  const [picked, setPicked] = useState<Calibre | null>(null);
  const [typed, setTyped] = useState('');
  const recordMovement = useRecordMovement();
  // A code typed in full is the calibre's, picked from the list or not.
  const calibre =
    picked ?? book.calibresHolding(typed).find(({ code }) => bareCode(code) === bareCode(typed)) ?? null;
  const code = calibre?.code ?? typed.trim();
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
          if (code !== '')
            recordMovement({ calibreId: calibre?.id ?? null, revision: null, code, by: 'hand' });
        }}
      >
        <Autocomplete
          freeSolo
          fullWidth
          options={[...book.calibres]}
          value={picked}
          inputValue={typed}
          getOptionLabel={(option) => (typeof option === 'string' ? option : option.code)}
          getOptionKey={(option) => (typeof option === 'string' ? option : option.id)}
          filterOptions={(options, { inputValue }) =>
            (inputValue.trim() === '' ? options : book.calibresHolding(inputValue)).slice(0, MOST_OFFERED)
          }
          onInputChange={(_, text) => {
            setTyped(text);
            if (picked && text !== picked.code) setPicked(null);
          }}
          onChange={(_, chosen) => setPicked(typeof chosen === 'string' ? null : chosen)}
          renderOption={({ key, ...props }, option) => (
            <li key={key} {...props}>
              {option.code}, {book.maker(option.makerId)?.name ?? option.makerId}
            </li>
          )}
          renderInput={(params) => (
            <TextField
              {...params}
              label="Calibre"
              helperText={typed.trim() !== '' && !calibre ? 'Not in the book. Named by hand.' : undefined}
            />
          )}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={technician === null}
          sx={{ flexShrink: 0, alignSelf: 'flex-start', minHeight: 56 }}
        >
          Confirm this movement
        </Button>
      </Stack>
    </Paper>
  );
}

function Movement() {
  const { state, book } = useJob();
  const { movement } = state.facts;
  if (!movement) return null;
  const { code, revision, calibreId, by } = movement.payload;
  const inBook = book.calibre(calibreId);
  return (
    <Paper component="section" aria-label="Movement" sx={{ p: 2 }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <div>
          <Typography variant="h3" component="h2">
            Movement
          </Typography>
          <Typography>
            <Typography variant="mark" component="span">
              {calibreWords(code, revision)}
            </Typography>{' '}
            {calibreId === null
              ? 'not in the book, '
              : inBook?.shopsOwn
                ? 'shop’s own, to be completed, '
                : ''}
            by {by} · <RecordedBy entry={movement} />
          </Typography>
        </div>
        {calibreId === null ? (
          <EnterUnknownCalibre />
        ) : (
          <Button component={Link} to={`/book/calibres/${encodeURIComponent(calibreId)}`}>
            Its page in the book
          </Button>
        )}
      </Stack>
    </Paper>
  );
}

function UnknownMovement() {
  const { state, book } = useJob();
  const { answer } = useAnswer();
  if (answer?.identification.verdict !== 'not in the book' || state.facts.movement !== null) return null;
  const { sisterOf } = answer.identification;
  const sister = sisterOf && book.calibre(sisterOf.calibreId);
  return (
    <Paper component="section" aria-label="An unknown calibre" sx={{ p: 2 }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography>
          {sister
            ? `It looks like a close relative of ${sister.code} that is not in the book. Add it based on that one, with only what you know, or name it by hand below.`
            : 'This may be a movement that is not in the book. Add it to the book with what is known, or pick a movement by hand below.'}
        </Typography>
        {sister && <EnterUnknownCalibre sister={sister} />}
        <EnterUnknownCalibre />
      </Stack>
    </Paper>
  );
}

function Mat() {
  const { state } = useJob();
  const { setTyped } = useEvidence();
  return (
    <>
      <FactCard
        kind="identify.engraving"
        title="Engraving inside the back and on the movement"
        recorded={state.facts.engraving}
        defaults={{ text: '' }}
        inline
        action="Read engraving"
      >
        <Box sx={{ flex: '1 1 300px' }}>
          <identifyEngraving.TextLine
            name="text"
            mono
            helper="everything engraved inside the back and on the movement; ? for each worn character"
            // Once it is named nothing more is asked for here, and the next key is a shortcut again.
            wanted={state.facts.movement === null}
            onText={(text) => setTyped('engraving', text)}
          />
        </Box>
      </FactCard>
      <Candidates />
      <UnknownMovement />
      <Movement />
      <Evidence />
      <ByHand />
    </>
  );
}

/** What is known of a calibre, with its layout. */
function CalibreCard({ calibre }: { readonly calibre: Calibre }) {
  const { book } = useJob();
  const asked = useAskedLook();
  const size =
    calibre.widthMm === null
      ? 'Its size is not in the book yet'
      : `${figure(calibre.widthMm, 1)} × ${figure(calibre.lengthMm ?? calibre.widthMm, 1)} mm (${formatLignes(calibre.widthMm)})`;
  const held = [...new Set(calibre.wells.map((well) => well.heldBy))].join(' and ');
  return (
    <LampAnswer
      question={`${book.maker(calibre.makerId)?.name ?? ''} ${calibre.code} takes`}
      // While a look is asked for, that decides.
      folded={asked !== null}
      tone={calibre.shopsOwn ? 'care' : 'good'}
      answer={
        calibre.charge?.kitCode ??
        (calibre.wells
          .map((well) => well.cellCode)
          .filter(Boolean)
          .join(' and ') ||
          'Its cell is not entered yet')
      }
      reasons={[
        `${size}${held && `, held by ${held}`}.`,
        ...(calibre.stepIntervalS === null
          ? calibre.functions.includes('hands')
            ? []
            : ['A display, no hands to step.']
          : [`Steps every ${figure(calibre.stepIntervalS)} s.`]),
        ...(calibre.lowSupplySignal ? [`Low-supply sign: ${calibre.lowSupplySignal}.`] : []),
      ]}
    >
      <CalibreFigure calibre={calibre} cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null} />
    </LampAnswer>
  );
}

const STANDING: Readonly<Record<string, LampTone>> = {
  known: 'good',
  likely: 'care',
  open: 'open',
  'not in the book': 'care',
  'nothing seen': 'open',
};

/** How improbable, in words that claim no more than the models do. */
function oneIn(chance: number): string {
  if (chance < 1e-6) return 'less than once in a million';
  return `once in ${Math.round(1 / chance).toLocaleString('en')}`;
}

function Lamp() {
  const { state, book } = useJob();
  const { answer, failed } = useAnswer();
  const identification = answer?.identification ?? null;
  const top = identification?.candidates[0];
  const movement = state.facts.movement?.payload ?? null;
  const likely = identification && standsForIt(identification);
  const calibre = state.calibre ?? (likely ? book.calibre(likely.calibreId) : null);
  const namedOutsideBook = movement !== null && state.calibre === null;
  const notInBook = identification?.verdict === 'not in the book';
  const inQuestion = openRevisions(state.calibre, movement?.revision ?? null);
  return (
    <>
      <LampAnswer
        question="Which movement?"
        tone={
          state.calibre
            ? 'good'
            : namedOutsideBook
              ? 'care'
              : (STANDING[identification?.verdict ?? 'nothing seen'] ?? 'open')
        }
        answer={
          movement
            ? calibreWords(movement.code, movement.revision)
            : notInBook
              ? `Not in the book, ${percent(identification.notInBook)}`
              : top && identification?.verdict !== 'nothing seen'
                ? `${calibreWords(top.code, top.revision)}, ${percent(top.probability)}`
                : 'Not yet known'
        }
        reasons={
          namedOutsideBook
            ? ['Not in the book: the cell found and its well decide what to fit.']
            : failed
              ? ['The search through the book could not start. Pick it by hand, or reload the page.']
              : (identification?.reasons ?? ['Searching the book.']).map(capital)
        }
      />
      {identification?.conflicting && (
        <Caution grave>
          {capital(identification.conflicting.pair[0])} and {identification.conflicting.pair[1]} contradict
          each other. On the movements of the book, both occur together{' '}
          {oneIn(identification.conflicting.chance)} times, most likely on{' '}
          {identification.conflicting.nearest}. Check both again. If both are right, this movement is not in
          the book.
        </Caution>
      )}
      {inQuestion.length > 0 && (
        <Caution>
          There are several revisions: {inQuestion.map(({ name, seenBy }) => `${name}, ${seenBy}`).join('; ')}
          . Find out which one this is.
        </Caution>
      )}
      {answer && movement === null && <NextLookAnswer next={answer.next} />}
      {calibre?.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {calibre && <CalibreCard calibre={calibre} />}
      {answer && (
        <Working
          lines={[
            ...(answer.engraved?.working ?? []),
            ...answer.identification.working,
            ...answer.next.working,
          ]}
        />
      )}
    </>
  );
}

export default function IdentifyStage() {
  return (
    <IdentificationProvider>
      <BenchLayout mat={<Mat />} lamp={<Lamp />} />
    </IdentificationProvider>
  );
}
