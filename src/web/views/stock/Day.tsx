import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { mutate } from 'swr';
import { type DayResource, kindDefinition, type NewEntry } from '../../../contract';
import type { EntryKind, Payloads } from '../../../core/logbook';
import { LOOSE_CELL_CAUTION, MAIN_WELL } from '../../../core/logbook';
import { dayInWords } from '../../../core/time';
import { useBench } from '../../api/bench';
import { postJson } from '../../api/http';
import { type SeenShop, useDay } from '../../api/resources';
import { Caution } from '../../app/Lamp';
import { Section } from '../../app/Section';
import { shopNow } from '../../job/JobContext';
import { refusedWords } from './StockForm';

type Loose = DayResource['loose'][number];

/** What can be said of a loose cell: where it is, and the entry that records it. */
type Where = {
  [K in EntryKind]: { readonly words: string; readonly kind: K; readonly payload: Payloads[K] };
}[EntryKind];

function wheresOf({ cell }: Loose): readonly Where[] {
  if (cell.dropped) return [];
  const lost: Where = {
    words: 'Nobody has it',
    kind: 'cell.dropped',
    payload: {
      what: cell.kind === 'old' ? 'the old cell' : 'a fresh cell',
      where: 'missed at the close of the day',
    },
  };
  return cell.kind === 'old'
    ? [
        { words: 'Taped, in the bin', kind: 'cell.old-settled', payload: { taped: true, to: 'spent bin' } },
        { words: 'With its owner', kind: 'cell.old-settled', payload: { taped: true, to: 'owner' } },
        lost,
      ]
    : [
        {
          words: 'Back in its lot',
          kind: 'cell.out-settled',
          payload: { outEntryId: cell.entryId, to: 'back in its lot' },
        },
        {
          words: 'Taped, in the bin',
          kind: 'cell.out-settled',
          payload: { outEntryId: cell.entryId, to: 'spent bin' },
        },
        lost,
      ];
}

/** The close of the day: every loose cell is listed and asked after; the day closes with none. */
export function Day({ shop, technicianId }: { readonly shop: SeenShop; readonly technicianId: string }) {
  const { data: day } = useDay();
  const bench = useBench();
  const [said, setSaid] = useState<{ readonly wrong: boolean; readonly text: string } | null>(null);
  if (!day) return <LinearProgress aria-label="Loading the day" />;
  const after = async (work: Promise<unknown>, text: string): Promise<void> => {
    try {
      await work;
      setSaid({ wrong: false, text });
    } catch (error) {
      setSaid({ wrong: true, text: refusedWords(error) });
    }
    await Promise.all([mutate('/api/day'), mutate('/api/stock'), mutate('/api/rack')]);
  };
  const say = ({ jobId, ticket, cell }: Loose, { words, kind, payload }: Where): void => {
    const entry = {
      id: v7(),
      kind,
      payloadVersion: kindDefinition(kind).version,
      payload,
      occurredAt: shopNow(shop),
      technicianId,
      bench: bench.name,
      well: cell.well === MAIN_WELL ? null : cell.well,
      supersedes: [],
      withdraws: null,
      attachments: [],
    } as unknown as NewEntry;
    void after(postJson(`/api/jobs/${jobId}/entries`, entry), `${cell.marking} of ${ticket}: ${words}.`);
  };
  return (
    <Section title={`Close ${dayInWords(day.day)}`}>
      <Stack spacing={1.5}>
        {day.loose.length > 0 && <Caution grave>{LOOSE_CELL_CAUTION}</Caution>}
        {day.loose.map((loose) => (
          <Stack
            key={`${loose.jobId}-${loose.cell.entryId}`}
            component="section"
            aria-label={`${loose.cell.marking} of ${loose.ticket}`}
            spacing={0.5}
          >
            <Typography>
              <strong>{loose.cell.marking}</strong>,{' '}
              {loose.cell.kind === 'old' ? 'taken out of' : 'fresh, out for'}{' '}
              <Link to={`/jobs/${loose.jobId}/cell`}>{loose.ticket}</Link> {loose.watch}
              {loose.cell.well === MAIN_WELL ? '' : `, ${loose.cell.well}`}.{' '}
              {loose.cell.dropped
                ? 'It was dropped: find it, or tell who is above, in its job.'
                : 'Where is it?'}
            </Typography>
            <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', rowGap: 1 }}>
              {wheresOf(loose).map((where) => (
                <Button key={where.words} variant="outlined" onClick={() => say(loose, where)}>
                  {where.words}
                </Button>
              ))}
            </Stack>
          </Stack>
        ))}
        {day.loose.length === 0 && <Typography>Every button cell is accounted for.</Typography>}
        <Typography>
          {day.spentInBin} spent cells lie in the bin.{' '}
          {day.toBeCounted.length === 0
            ? ''
            : `Still to be counted: ${day.toBeCounted.map(({ code, lotCode }) => `${code}, lot ${lotCode}`).join('; ')}.`}
        </Typography>
        {said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>}
        {day.closed ? (
          <Typography>The day is closed.</Typography>
        ) : (
          <Button
            variant="contained"
            sx={{ alignSelf: 'flex-start' }}
            onClick={() =>
              void after(postJson('/api/day/close', { day: day.day, technicianId }), 'The day is closed.')
            }
          >
            Close the day
          </Button>
        )}
      </Stack>
    </Section>
  );
}
