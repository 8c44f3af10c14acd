import { Button, Paper, Stack, Typography } from '@mui/material';
import {
  DROPPED,
  LOOSE_CELL_CAUTION,
  looseCells,
  MAIN_WELL,
  openDrops,
  outcomesOf,
  type WellState,
  wellKey,
} from '../../../core/logbook';
import type { Lot } from '../../../core/craft/stock';
import { Caution } from '../../kit/Lamp';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { useJob } from '../../job/JobContext';

const cellDroppedSettled = factFields('cell.dropped-settled');
const cellDropped = factFields('cell.dropped');

/** Takes a fresh cell or kit of the lot chosen out of its blister: from then on it is loose until it is fitted. */
export function TakeOut({ well, lot }: { readonly well: WellState; readonly lot: Lot }) {
  const { record, technician, state } = useJob();
  const out = [...state.facts.cellsOut.values()].some(
    ({ out: { payload }, settled }) => settled === null && payload.lotId === lot.id,
  );
  if (out) return null;
  return (
    <Button
      disabled={technician === null}
      onClick={() =>
        void record(
          'cell.out',
          { cellCode: lot.code, lotId: lot.id, lotCode: lot.lotCode },
          { well: wellKey(well) },
        )
      }
    >
      Fresh cell out of its blister
    </Button>
  );
}

/** Cells of this job that lie loose, each with what can become of it; and a cell that was dropped. */
export function LooseCells() {
  const { state, record, technician } = useJob();
  const loose = looseCells(state);
  const drops = openDrops(state.facts);
  const fresh = loose.filter(({ kind }) => kind === 'fresh');
  return (
    <>
      {drops.map(({ dropped }) => (
        <Paper key={dropped.id} component="section" aria-label="Dropped" sx={{ p: 2 }}>
          <Typography variant="h3" component="h2">
            The job is paused: {dropped.payload.what} was dropped
            {dropped.payload.where ? `, ${dropped.payload.where}` : ''}
          </Typography>
          <Caution grave>{LOOSE_CELL_CAUTION}</Caution>
          <Stack direction="row" spacing={1} sx={{ mt: 1 }}>
            <Button
              variant="contained"
              disabled={technician === null}
              onClick={() =>
                void record(
                  'cell.dropped-settled',
                  { droppedEntryId: dropped.id, outcome: 'found', words: '' },
                  { well: dropped.well },
                )
              }
            >
              Found
            </Button>
          </Stack>
          <FactCard
            kind="cell.dropped-settled"
            title="Not found: reported to"
            recorded={null}
            well={dropped.well}
            defaults={{ droppedEntryId: dropped.id, outcome: 'escalated', words: '' }}
          >
            <cellDroppedSettled.TextLine name="words" />
          </FactCard>
        </Paper>
      ))}
      {fresh.map((cell) => (
        <Paper key={cell.entryId} component="section" aria-label={`Loose: ${cell.marking}`} sx={{ p: 2 }}>
          <Typography>
            <strong>{cell.marking}</strong>
            {cell.well === MAIN_WELL ? '' : `, ${cell.well}`} is out of its blister and not fitted.
          </Typography>
          <Stack direction="row" spacing={1}>
            {outcomesOf(cell, 'lost at the bench').map(({ words, kind, payload }) => (
              <Button
                key={words}
                disabled={technician === null}
                onClick={() => void record(kind, payload, { well: wellKey({ name: cell.well }) })}
              >
                {words}
              </Button>
            ))}
          </Stack>
        </Paper>
      ))}
    </>
  );
}

/** A cell that fell: the job pauses until it is found or somebody above was told. */
export function DroppedCard({ well }: { readonly well: WellState }) {
  const { state } = useJob();
  return (
    <FactList
      kind="cell.dropped"
      title="A cell was dropped"
      recorded={[...state.facts.dropped.values()].map(({ dropped }) => dropped)}
      well={wellKey(well)}
      defaults={{ what: well.found === null ? 'a fresh cell' : 'the old cell', where: '' }}
    >
      <Caution grave>{LOOSE_CELL_CAUTION}</Caution>
      <cellDropped.Choice name="what" options={optionsOf(DROPPED)} />
      <cellDropped.TextLine name="where" />
    </FactList>
  );
}
