import { deepEqual } from 'fast-equals';
import { Button, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { DayResource } from '../../../contract';
import { LOOSE_CELL_CAUTION, type LooseOutcome, MAIN_WELL, outcomesOf, wellKey } from '../../../core/logbook';
import { dayInWords } from '../../../core/craft/time';
import type { WaitingEntry } from '../../api/browserStore';
import { postJson } from '../../api/http';
import { type SeenShop, useDay } from '../../api/resources';
import { useWaiting } from '../../api/waiting';
import { Loading } from '../../kit/Loading';
import { Caution } from '../../kit/Lamp';
import { Section } from '../../kit/Section';
import { useRecorder } from '../../job/recorder';
import { useBooking } from './booking';

const MISSED = 'missing when the day was closed';

type Loose = DayResource['loose'][number];

/** What was said of a loose cell and waits here for the server. */
function waitingOf({ jobId, cell }: Loose, waiting: readonly WaitingEntry[]): WaitingEntry | undefined {
  const outcomes = outcomesOf(cell, MISSED);
  return waiting.find(
    ({ jobId: of, entry }) =>
      of === jobId &&
      (entry.well ?? MAIN_WELL) === cell.well &&
      outcomes.some(({ kind, payload }) => kind === entry.kind && deepEqual(payload, entry.payload)),
  );
}

function LooseOne({
  loose,
  waiting,
  onSay,
}: {
  readonly loose: Loose;
  readonly waiting: WaitingEntry | undefined;
  readonly onSay: (outcome: LooseOutcome) => void;
}) {
  const { jobId, ticket, watch, cell } = loose;
  return (
    <Stack component="section" aria-label={`${cell.marking} of ${ticket}`} spacing={0.5}>
      <Typography>
        <strong>{cell.marking}</strong>, {cell.kind === 'old' ? 'removed from the watch,' : 'fresh, out for'}{' '}
        <Link to={`/jobs/${jobId}/cell`}>{ticket}</Link> {watch}
        {cell.well === MAIN_WELL ? '' : `, ${cell.well}`}.{' '}
        {cell.dropped
          ? 'It was dropped. Find it, or report the loss to the person in charge. Then record that in its job.'
          : 'Where is it?'}
      </Typography>
      {waiting ? (
        <Typography>
          {waiting.refused
            ? `■ ${waiting.refused.title} ${waiting.refused.whatToDo ?? ''} Resolve this in its job.`
            : '▲ Stored in this browser. It is recorded when the server is back.'}
        </Typography>
      ) : (
        <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1 }}>
          {outcomesOf(cell, MISSED).map((outcome) => (
            <Button key={outcome.words} variant="outlined" onClick={() => onSay(outcome)}>
              {outcome.words}
            </Button>
          ))}
        </Stack>
      )}
    </Stack>
  );
}

/** The close of the day: every loose cell is listed and asked after; the day closes with none. */
export function Day({ shop, technicianId }: { readonly shop: SeenShop; readonly technicianId: string }) {
  const { data: day } = useDay();
  const { entries: waiting } = useWaiting();
  const record = useRecorder(shop);
  const { book, notice } = useBooking();
  if (!day) return <Loading what="the day" />;
  const say = ({ jobId, cell }: Loose, { kind, payload }: LooseOutcome): Promise<unknown> =>
    record(jobId, kind, payload, { well: wellKey({ name: cell.well }) });
  return (
    <Section title={`Close ${dayInWords(day.day)}`}>
      <Stack spacing={1.5}>
        {day.loose.length > 0 && <Caution grave>{LOOSE_CELL_CAUTION}</Caution>}
        {day.loose.map((loose) => (
          <LooseOne
            key={`${loose.jobId}-${loose.cell.entryId}`}
            loose={loose}
            waiting={waitingOf(loose, waiting)}
            onSay={(outcome) => void say(loose, outcome)}
          />
        ))}
        {day.loose.length === 0 && <Typography>Every button cell is accounted for.</Typography>}
        <Typography>
          {day.spentInBin} spent cells lie in the bin.{' '}
          {day.toBeCounted.length === 0
            ? ''
            : `Still to be counted: ${day.toBeCounted.map(({ code, lotCode }) => `${code}, lot ${lotCode}`).join('; ')}.`}
        </Typography>
        {notice}
        {day.closed ? (
          <Typography>The day is closed.</Typography>
        ) : (
          <Button
            variant="contained"
            sx={{ alignSelf: 'flex-start' }}
            onClick={() =>
              void book(
                () => postJson('/api/day/close', { day: day.day, technicianId }),
                'The day is closed.',
              )
            }
          >
            Close the day
          </Button>
        )}
      </Stack>
    </Section>
  );
}
