import { Stack, Typography } from '@mui/material';
import { Fragment } from 'react';
import { accumulatorInQuestion, oldCellAway, witnessesOf } from '../../../core/advice/cell';
import { supplyOf } from '../../../core/advice/supply';
import { capital } from '../../../core/craft/judgement';
import { wellKey, type WellState } from '../../../core/logbook';
import { ABOVE_CELL, openRevisions } from '../../../core/craft/movements';
import { Caution } from '../../kit/Lamp';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';
import { ChargeLamp, ChargingMat } from './Charging';
import { FitCard, OwnersOwnCard } from './Fit';
import { useGuides } from './Guide';
import { LifeCard, UsageCard } from './Life';
import { DroppedCard, LooseCells } from './Loose';
import { FoundCard, SettledCard } from './OldCell';
import { SupplyAnswer, SupplyCard } from './Supply';
import { useChosenLot, useFit } from './useFit';
import { WellLamp } from './WellLamp';
import { WellMeasuredCard } from './WellMeasured';
import { wellTitle } from './wells';

const cellAbove = factFields('cell.above');
const cellPlaces = factFields('cell.places');
const cellPutBack = factFields('cell.put-back');

/** What lies above the cells of this watch: steps of the way to them, whatever holds the cell. */
function AboveCard() {
  const { state } = useJob();
  return (
    <FactCard
      kind="cell.above"
      title="Parts above the cell"
      recorded={state.facts.above}
      defaults={{ above: [] }}
      hint={
        <Typography color="text.secondary">
          {state.calibre && state.calibre.aboveCell.length > 0
            ? `The book says: ${state.calibre.aboveCell.join(', then ')}.`
            : 'Listed in order of removal. If none is ticked, nothing lies above the cell.'}
        </Typography>
      }
    >
      <cellAbove.Several name="above" options={optionsOf(ABOVE_CELL)} />
    </FactCard>
  );
}

/** The book names the places of the movements it knows; of any other the technician does. */
function PlacesCard() {
  const { state } = useJob();
  return (
    <FactCard
      kind="cell.places"
      title="Two cells"
      recorded={state.facts.places}
      defaults={{ first: '', second: '' }}
      hint={
        <Typography color="text.secondary">
          This movement is not in the book. Name each cell by its function or its place. Records made so far
          belong to the first cell.
        </Typography>
      }
    >
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <cellPlaces.TextLine name="first" helper="e.g. hands" />
        <cellPlaces.TextLine name="second" helper="e.g. display" />
      </Stack>
    </FactCard>
  );
}

/** A reseal only, or a good cell: what was in the watch goes in again. */
function PutBackCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.put-back"
      title={capital(`${wellTitle(well)}the same cell put back`)}
      recorded={well.putBack}
      well={wellKey(well)}
      defaults={{ reason: '' }}
      action="Put back"
    >
      <cellPutBack.TextLine name="reason" helper="e.g. reseal only, measured 1.56 V" />
    </FactCard>
  );
}

/** The life of what went in, or of what is chosen to go in, beside the other candidates. */
function Life({ well }: { readonly well: WellState }) {
  const { lots } = useJob();
  const fit = useFit(well);
  const fitted = lots.find(({ id }) => id === well.fitted?.payload.lotId);
  const [chosen] = useChosenLot(well, fit);
  const first = fitted ?? chosen?.lot;
  const candidates = fit?.offers.filter(({ verdict }) => verdict === 'take').map(({ lot }) => lot) ?? [];
  return (
    <LifeCard
      well={well}
      title={capital(`${wellTitle(well)}how long it lasts`)}
      lots={first ? [first, ...candidates.filter(({ id }) => id !== first.id)] : candidates}
    />
  );
}

function WellMat({ well, keyed }: { readonly well: WellState; readonly keyed: boolean }) {
  const { state, asks, book } = useJob();
  const noCell = well.found !== null && well.found.payload.marking === null;
  const fitting = well.putBack === null;
  return (
    <>
      <FoundCard well={well} />
      {fitting && <FitCard well={well} />}
      {!noCell && fitting && <SettledCard well={well} />}
      <OptionalFacts
        facts={[
          ...(well.putBack !== null || oldCellAway(well) === null
            ? [
                {
                  title: capital(`${wellTitle(well)}the same cell goes back`),
                  shown: well.putBack !== null || !asks('cell.fitted'),
                  card: <PutBackCard well={well} />,
                },
              ]
            : []),
          ...(fitting && well.fitted === null
            ? [
                {
                  title: capital(`${wellTitle(well)}the owner’s own cell`),
                  shown: false,
                  card: <OwnersOwnCard well={well} />,
                },
              ]
            : []),
          ...(witnessesOf(state, well, book).asksForWell
            ? []
            : [
                {
                  title: capital(`${wellTitle(well)}the well measured`),
                  shown: well.measured !== null,
                  card: <WellMeasuredCard well={well} />,
                },
              ]),
          {
            title: capital(`${wellTitle(well)}a cell was dropped`),
            shown: state.facts.dropped.size > 0,
            card: <DroppedCard well={well} />,
          },
          ...(keyed && (state.calibre?.wells.length ?? 0) === 0
            ? [{ title: 'Two cells', shown: state.facts.places !== null, card: <PlacesCard /> }]
            : []),
          ...(keyed
            ? [{ title: 'Parts above the cell', shown: state.facts.above !== null, card: <AboveCard /> }]
            : []),
          ...(state.calibre && state.calibre.functionDraws.length > 0 && keyed
            ? [{ title: 'How it is used', shown: state.facts.usage !== null, card: <UsageCard /> }]
            : []),
        ]}
      />
    </>
  );
}

function Mat() {
  const { state, book } = useJob();
  const supply = supplyOf(state, book);
  const doubted = supply.againstPrimary.length > 0 && !state.calibre?.charge;
  if (supply.verdict === 'rechargeable')
    return (
      <>
        <ChargingMat />
        {(doubted || state.facts.supply) && <SupplyCard />}
      </>
    );
  return (
    <>
      <LooseCells />
      {(doubted || state.facts.supply) && <SupplyCard />}
      {state.wells.map((well, index) => (
        <WellMat key={well.name} well={well} keyed={index === 0} />
      ))}
    </>
  );
}

/** How to fit it, and how long it lasts, a well at a time. */
function Below() {
  const { state, book } = useJob();
  const guideOf = useGuides();
  if (supplyOf(state, book).verdict === 'rechargeable') return null;
  return state.wells.map((well) => (
    <Fragment key={well.name}>
      {guideOf(well)}
      {well.putBack === null && <Life well={well} />}
    </Fragment>
  ));
}

function Lamp() {
  const { state } = useJob();
  const charge = state.calibre?.charge ?? null;
  const inQuestion = openRevisions(state.calibre, state.facts.movement?.payload.revision ?? null);
  const cells = new Set(inQuestion.map(({ cellCode }) => cellCode));
  if (state.calibre && charge) {
    return (
      <>
        <ChargeLamp calibre={state.calibre} charge={charge} />
        {state.calibre.cautions.map((caution) => (
          <Caution key={caution}>{caution}</Caution>
        ))}
        {!accumulatorInQuestion(state) && (
          <CalibreFigure calibre={state.calibre} cellDiameterMm={() => null} />
        )}
      </>
    );
  }
  return (
    <>
      <SupplyAnswer />
      {cells.size > 1 && (
        <Caution grave>
          Its revisions take different cells:{' '}
          {inQuestion
            .map(({ name, cellCode, seenBy }) => `${name} ${cellCode ?? 'as above'}, ${seenBy}`)
            .join('; ')}
          . Choose the revision at stage 3 before you fit a cell.
        </Caution>
      )}
      {state.wells.map((well) => (
        <WellLamp key={well.name} well={well} />
      ))}
      {state.calibre?.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
    </>
  );
}

export default function CellStage() {
  return <BenchLayout mat={<Mat />} lamp={<Lamp />} below={<Below />} />;
}
