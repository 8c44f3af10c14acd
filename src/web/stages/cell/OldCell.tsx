import { Button } from '@mui/material';
import { capital } from '../../../core/craft/judgement';
import {
  CELL_CONDITIONS,
  LOOSE_CELL_CAUTION,
  nextToSettle,
  type WellState,
  wellKey,
} from '../../../core/logbook';
import { Caution } from '../../kit/Lamp';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { wellTitle } from './wells';

const cellFound = factFields('cell.found');

function FoundFields({ well }: { readonly well: WellState }) {
  const { setWellDraft } = useJob();
  const marking = cellFound.useValue('marking');
  return (
    <>
      {marking !== null && (
        <cellFound.TextLine
          name="marking"
          mono
          wanted
          helper="as printed, e.g. SR 621 SW (364)"
          onText={(text) => setWellDraft(well.name, { found: text })}
        />
      )}
      {marking !== null && <cellFound.Choice name="condition" options={optionsOf(CELL_CONDITIONS)} />}
    </>
  );
}

function NoCellButton({ well }: { readonly well: WellState }) {
  const { record, technician } = useJob();
  return (
    <Button
      disabled={technician === null}
      onClick={() =>
        void record(
          'cell.found',
          { marking: null, condition: null },
          { well: wellKey(well), supersedes: well.found ? [well.found.id] : [] },
        )
      }
      sx={{ alignSelf: 'flex-start' }}
    >
      No cell was found
    </Button>
  );
}

/** What was in the place, and where it went. */
export function OldCellCards({ well }: { readonly well: WellState }) {
  return (
    <>
      <FoundCard well={well} />
      <SettledCard well={well} />
    </>
  );
}

export function FoundCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.found"
      title={capital(`${wellTitle(well)}cell found`)}
      recorded={well.found}
      well={wellKey(well)}
      defaults={{ marking: '', condition: null }}
      beside={<NoCellButton well={well} />}
    >
      <FoundFields well={well} />
    </FactCard>
  );
}

export function SettledCard({ well }: { readonly well: WellState }) {
  const { state } = useJob();
  return (
    <FactCard
      kind="cell.old-settled"
      title={capital(`${wellTitle(well)}the old cell`)}
      recorded={well.oldSettled}
      well={wellKey(well)}
      defaults={{ taped: null, to: null }}
      hint={<Caution grave>{LOOSE_CELL_CAUTION} Tape it and bin it before the next step.</Caution>}
      keyed={nextToSettle(state.wells)?.name === well.name}
      answers={[
        { label: 'Taped, into the spent bin', payload: { taped: true, to: 'spent bin' } },
        { label: 'Taped, to the owner', payload: { taped: true, to: 'owner' } },
        { label: 'Not taped, into the spent bin', payload: { taped: false, to: 'spent bin' } },
        { label: 'Not taped, to the owner', payload: { taped: false, to: 'owner' } },
      ]}
    />
  );
}
