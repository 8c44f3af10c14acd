import { Box, Button, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { capital } from '../../../core/craft/judgement';
import { backs, differsFromBook, KNIFE_KINDS, notchAngles, pitchCircleMm } from '../../../core/craft/cases';
import type { OpenerChoice } from '../../../core/craft/opening';
import { openParts } from '../../../core/logbook';
import { type Schools, wayTaken } from '../../../core/craft/policy';
import { useRack } from '../../api/resources';
import { Fold } from '../../kit/Fold';
import { Caution, LampAnswer, type LampTone } from '../../kit/Lamp';
import { ScaleDialog } from '../../kit/ScaleDialog';
import { useScreenScale } from '../../kit/screenScale';
import { OpeningFigure } from '../../figures/OpeningFigure';
import { useJob } from '../../job/JobContext';
import { LastTime } from '../../job/LastTime';
import { PaybackAnswer } from './PaybackAnswer';
import { useOpening } from './useOpening';
const STANDING: Readonly<Record<OpenerChoice['verdict'], LampTone>> = {
  'opens with': 'good',
  'with care': 'care',
  'not yet known': 'open',
  'refer or buy': 'no',
  impossible: 'no',
};

/** Another watch that lies open while this one is about to be opened, or is open too. */
function OneAtATime() {
  const { resource, state } = useJob();
  const { data: rack } = useRack();
  if (state.facts.closed) return null;
  const others = (rack ?? []).flatMap(({ id, ticket, lyingOpen }) =>
    id !== resource.job.id && lyingOpen !== null && lyingOpen.insideSerial !== ''
      ? [{ id, ticket, serial: lyingOpen.insideSerial }]
      : [],
  );
  if (others.length === 0) return null;
  return (
    <Caution grave>
      Open one watch at a time:{' '}
      {others.map(({ id, ticket, serial }, index) => (
        <span key={id}>
          {index > 0 && ', '}
          <Link to={`/jobs/${id}`}>{ticket}</Link> is open, with serial {serial} inside the back
        </span>
      ))}
      . Backs can be exchanged. Close that watch first, or pair both by serial number at closing.
    </Caution>
  );
}

/** Width of a drawing that fills the lamp, px. */
const ENLARGED_PX = 240;

function Drawing() {
  const { back, opener, crownClock } = useOpening();
  const scale = useScreenScale();
  const [toSize, setToSize] = useState(false);
  const [calibrating, setCalibrating] = useState(false);
  const pitchMm =
    back.kind === 'screwed, notched' || back.kind === 'screwed, round holes' ? pitchCircleMm(back) : null;
  const possible = opener.verdict !== 'impossible';
  const found = possible ? (opener.jaws?.found ?? null) : null;
  return (
    <Box>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="group" aria-label="Drawing of the back">
        <OpeningFigure
          back={back}
          crownClock={crownClock}
          spotClock={opener.spot?.clock ?? null}
          pitchMm={possible ? pitchMm : null}
          anglesRad={
            back.notchCount === null || !possible ? [] : notchAngles(back.notchCount, back.notchClocks)
          }
          choice={found?.choice ?? null}
          jawMm={found?.jawMm ?? null}
          {...(toSize && scale !== null ? { pxPerMm: scale } : { widthPx: ENLARGED_PX })}
        />
      </Box>
      <Stack direction="row" sx={{ flexWrap: 'wrap' }}>
        <Button
          size="small"
          aria-pressed={toSize}
          onClick={() => (scale === null ? setCalibrating(true) : setToSize(!toSize))}
        >
          {toSize ? 'Enlarge' : 'Actual size'}
        </Button>
        {scale !== null && (
          <Button size="small" onClick={() => setCalibrating(true)}>
            Set scale again
          </Button>
        )}
      </Stack>
      {calibrating && (
        <ScaleDialog
          open
          onClose={(done) => {
            setCalibrating(false);
            if (done) setToSize(true);
          }}
        />
      )}
    </Box>
  );
}

/** What is set on the tool, in the order the hands do it. */
function Settings({ settings }: Pick<OpenerChoice, 'settings'>) {
  return (
    <Stack component="ol" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
      {settings.map(({ what, value }, index) => (
        <Typography key={what} component="li">
          {index + 1}. {what}{' '}
          <Typography component="span" variant="mark" sx={{ fontSize: '1.25rem' }}>
            {value}
          </Typography>
        </Typography>
      ))}
    </Stack>
  );
}

function NoOtherWay({
  others,
}: {
  readonly others: readonly { readonly words: string; readonly why: string }[];
}) {
  return (
    <Fold summary="Other ways, and why not">
      <Stack spacing={0.75}>
        {others.map(({ words, why }) => (
          <Typography key={words} variant="body2">
            <strong>{capital(words)}.</strong> {why}
          </Typography>
        ))}
      </Stack>
    </Fold>
  );
}

function ProtectedBy({ schools }: { readonly schools: Schools }) {
  return (
    <LampAnswer
      question="Protection of the back (shop policy)"
      folded
      tone="good"
      answer={schools.protection}
      reasons={[wayTaken(schools, 'protection').reason, `Opener: ${schools.opener}.`]}
    />
  );
}

export function OpenLamp() {
  const { state, earlier, context } = useJob();
  const { facts, caseType } = state;
  const { back, opener, kindKnown } = useOpening();
  const open = openParts(facts);
  const apart = caseType && kindKnown ? differsFromBook(back, caseType) : [];
  const others = opener.jaws?.others ?? [];
  return (
    <>
      <OneAtATime />
      {earlier !== null && earlier.visits.length > 0 && <LastTime watch={earlier} zone={context.shop.zone} />}
      <LampAnswer
        question={facts.back ? 'Opened' : 'Opens with'}
        tone={facts.back ? 'good' : kindKnown ? STANDING[opener.verdict] : 'open'}
        answer={facts.back ? facts.back.payload.openedWith : opener.opener}
        folded={facts.back !== null && facts.closed !== null}
        shown={opener.verdict === 'opens with' ? 3 : Infinity}
        working={opener.working}
        reasons={[
          ...opener.reasons,
          ...(kindKnown && opener.verdict === 'not yet known'
            ? [`Known by ${backs[back.kind].knownBy}.`]
            : []),
        ]}
      >
        {opener.settings.length > 0 && <Settings settings={opener.settings} />}
      </LampAnswer>
      {kindKnown && <Drawing />}
      {opener.toBuy !== null && facts.back === null && (
        <PaybackAnswer toBuy={opener.toBuy} kind={back.kind} refer={opener.verdict === 'refer or buy'} />
      )}
      {apart.length > 0 && (
        <LampAnswer
          question="Compared with the book"
          tone="care"
          answer={apart.length === 1 ? 'One measure differs' : `${apart.length} measures differ`}
          reasons={[
            ...apart.map(({ words }) => words),
            'It may be another case with this code, or a measuring error. Measure again.',
          ]}
        />
      )}
      {others.length > 0 && facts.back === null && <NoOtherWay others={others} />}
      {facts.seals && (
        <LampAnswer
          question="Seals to refit at closing"
          folded
          tone="good"
          answer={`${facts.seals.payload.rim + facts.seals.payload.innerCover + facts.seals.payload.hatch}`}
        />
      )}
      {facts.back === null && <ProtectedBy schools={context.policy.schools} />}
      <LampAnswer
        question="On the tray"
        folded={open.length === 0}
        tone={open.length === 0 ? 'good' : 'care'}
        answer={open.length === 0 ? 'Nothing open' : `${open.length} to account for`}
        reasons={open.map((part) => part.words)}
      />
      {kindKnown && KNIFE_KINDS.includes(back.kind) && facts.back === null && (
        <Typography variant="body2" color="text.secondary">
          If you see no lip, look again with the strap off. Then choose a spot and record it.
        </Typography>
      )}
    </>
  );
}
