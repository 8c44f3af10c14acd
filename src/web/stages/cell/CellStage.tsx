import { Button, FormControlLabel, Radio, RadioGroup, Stack, Typography } from '@mui/material';
import { type FormEvent, useMemo, useState } from 'react';
import {
  type CellReading,
  crossReference,
  looksLike,
  mayBeFitted,
  readCellMarking,
} from '../../../core/cells';
import { capital, figure, type WorkingLine } from '../../../core/judgement';
import {
  ACCUMULATOR_WAYS,
  CELL_CONDITIONS,
  CHARGE_OUTCOMES,
  MAIN_WELL,
  type WellState,
} from '../../../core/logbook';
import { type Calibre, type Charge, HOLDER_CAUTIONS, openRevisions } from '../../../core/movements';
import { wayTaken } from '../../../core/policy';
import { chooseLots, type Lot, type LotOffer } from '../../../core/stock';
import { focusNextWanted } from '../../app/keys/wanted';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { CellFigure } from '../../figures/CellFigure';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { useFormContext } from 'react-hook-form';
import { Choice, MeasureField, optionsOf, TextLine, Tick, useFieldValue } from '../../job/fields';
import { FactCard } from '../../job/FactCard';
import { type OpenJob, useJob } from '../../job/JobContext';
import { FactList } from '../../job/FactList';
import { MoreFacts } from '../../job/MoreFacts';
import { NativeSelect } from '../../job/NativeSelect';
import { StageLayout } from '../../job/StageLayout';

function useOffers(well: WellState): readonly LotOffer[] {
  const { lots, book, today } = useJob();
  return useMemo(
    () => (well.wanted ? chooseLots(lots, well.wanted, book.cell, today, { alkalineAgreed: false }) : []),
    [lots, book, today, well.wanted],
  );
}

function wellTitle(well: WellState): string {
  return well.name === MAIN_WELL ? '' : `${well.name}: `;
}

function FoundFields({ well }: { readonly well: WellState }) {
  const { setDraft } = useJob();
  const marking = useFieldValue('marking');
  return (
    <>
      {marking !== null && (
        <TextLine
          name="marking"
          label="Marking of the old cell"
          mono
          wanted
          helper="as printed, e.g. SR 621 SW (364)"
          onText={(text) => setDraft(`found.${well.name}`, text)}
        />
      )}
      {marking !== null && <Choice name="condition" label="Condition" options={optionsOf(CELL_CONDITIONS)} />}
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
      There was no cell in it
    </Button>
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
      <TextLine name="reason" label="Why" helper="e.g. reseal only, measured 1.56 V" />
    </FactCard>
  );
}

/** The kit for this calibre, from the stock or from elsewhere. */
function AccumulatorFields({ kits }: { readonly kits: readonly Lot[] }) {
  const form = useFormContext();
  const lotId = useFieldValue('lotId') as string | null;
  return (
    <>
      <NativeSelect
        label="Taken from"
        value={lotId ?? ''}
        options={[
          { value: '', label: 'not from this stock' },
          ...kits.map((lot) => ({
            value: lot.id,
            label: `${lot.code}, lot ${lot.lotCode}, ${lot.supplier}, ${lot.balance} left`,
          })),
        ]}
        onChange={(id) => {
          const lot = kits.find((each) => each.id === id);
          form.setValue('lotId', lot?.id ?? null);
          if (lot) {
            form.setValue('kitCode', lot.code);
            form.setValue('supplier', lot.supplier);
            form.setValue('lotCode', lot.lotCode);
          }
        }}
      />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <TextLine name="kitCode" label="Kit" mono />
        <TextLine name="supplier" label="Supplier" />
        <TextLine name="lotCode" label="Lot" mono />
      </Stack>
      <Choice name="way" label="Renewed as" options={optionsOf(ACCUMULATOR_WAYS)} />
    </>
  );
}

/** A movement that charges its cell: charged and watched, or the accumulator renewed by its kit. */
function ChargingMat() {
  const { state, context, lots, asks } = useJob();
  const { facts, calibre } = state;
  const kitCode = calibre?.charge?.kitCode ?? '';
  const kits = lots.filter(
    (lot) => lot.item === 'kit' && lot.balance > 0 && (kitCode === '' || lot.code === kitCode),
  );
  const [first] = kits;
  return (
    <>
      <FactList
        kind="cell.charged"
        title="Charged and watched"
        recorded={facts.charges}
        defaults={{
          by: calibre?.charge?.by ?? 'light',
          hours: undefined,
          outcome: 'steps normally',
        }}
      >
        <Choice name="by" label="By" options={optionsOf(['light', 'rotor', 'charger'])} />
        <MeasureField
          name="hours"
          label="For"
          quantity="hours"
          wanted={asks('cell.charged') && facts.charges.length === 0}
        />
        <Choice name="outcome" label="Then it" options={optionsOf(CHARGE_OUTCOMES)} />
      </FactList>
      <FactCard
        key={first?.id ?? 'none'}
        kind="cell.accumulator"
        title="Accumulator renewed"
        recorded={facts.accumulator}
        defaults={{
          kitCode: first?.code ?? kitCode,
          lotId: first?.id ?? null,
          supplier: first?.supplier ?? '',
          lotCode: first?.lotCode ?? '',
          way: context.policy.schools.accumulator,
        }}
        action="Renewed"
        hint={
          <Caution grave>Never a primary cell in its place: driven backwards it leaks or bursts.</Caution>
        }
      >
        <AccumulatorFields kits={kits} />
      </FactCard>
      {facts.accumulator && state.wells.map((well) => <OldCellCards key={well.name} well={well} />)}
    </>
  );
}

function wellKey(well: WellState): string | null {
  return well.name === MAIN_WELL ? null : well.name;
}

/** The lots that may go in, best first; the first is already chosen, so Enter fits it. */
function FitForm({ well, offers }: { readonly well: WellState; readonly offers: readonly LotOffer[] }) {
  const { record, technician } = useJob();
  const takeable = offers.filter((offer) => offer.verdict === 'take');
  const blocked = offers.filter((offer) => offer.verdict === 'blocked');
  const [picked, setPicked] = useState<string | null>(null);
  const chosen = takeable.find((offer) => offer.lot.id === picked) ?? takeable[0];
  const fit = (event: FormEvent): void => {
    event.preventDefault();
    if (!chosen) return;
    const { lot } = chosen;
    void record(
      'cell.fitted',
      {
        cellCode: lot.code,
        lotId: lot.id,
        supplier: lot.supplier,
        lotCode: lot.lotCode,
        alkalineAgreed: false,
      },
      { well: wellKey(well), supersedes: well.fitted ? [well.fitted.id] : [] },
    ).then(() => requestAnimationFrame(() => requestAnimationFrame(focusNextWanted)));
  };
  return (
    <Stack component="form" spacing={1} onSubmit={fit}>
      {takeable.length === 0 && <Typography>No lot in stock may go in.</Typography>}
      <RadioGroup
        aria-label={`Lot to take${well.name === MAIN_WELL ? '' : `, ${well.name}`}`}
        value={chosen?.lot.id ?? ''}
        onChange={(_, id) => setPicked(id)}
      >
        {takeable.map((offer) => (
          <FormControlLabel
            key={offer.lot.id}
            value={offer.lot.id}
            control={
              <Radio
                slotProps={{
                  input: {
                    'data-wanted': offer === chosen && well.fitted === null,
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
            label={<LotLine offer={offer} />}
          />
        ))}
      </RadioGroup>
      {chosen && (
        <Button
          type="submit"
          variant="contained"
          disabled={technician === null}
          sx={{ alignSelf: 'flex-start' }}
        >
          Fitted {chosen.lot.code} from lot {chosen.lot.lotCode}
        </Button>
      )}
      {blocked.length > 0 && (
        <details>
          <summary>{blocked.length} not to be taken</summary>
          {blocked.map((offer) => (
            <Typography key={offer.lot.id} sx={{ mt: 0.5 }}>
              <Typography variant="mark" component="span" sx={{ fontSize: '1rem' }}>
                {offer.lot.code}
              </Typography>{' '}
              lot {offer.lot.lotCode}: {offer.reasons.join(' ')}
            </Typography>
          ))}
        </details>
      )}
    </Stack>
  );
}

function LotLine({ offer }: { readonly offer: LotOffer }) {
  const { lot, cross } = offer;
  return (
    <span>
      <Typography variant="mark" component="span">
        {lot.code}
      </Typography>{' '}
      <strong>{cross.verdict}</strong>, lot {lot.lotCode}
      <Typography variant="body2" component="span" sx={{ display: 'block' }}>
        {lot.supplier}, {lot.balance} left, best before {lot.bestBefore ?? 'not printed'}
        {cross.verdict === 'accepted' ? `. ${cross.reasons[0] ?? ''}` : ''}
      </Typography>
    </span>
  );
}

/** Where the movement is not in the book: the cell named by hand, refused if it is never fitted to a watch. */
function FitByName({ well }: { readonly well: WellState }) {
  const { lots, book } = useJob();
  const usable = lots.filter((lot) => lot.balance > 0).map((lot) => lot.code);
  const found = well.found?.payload.marking ? (book.cell(well.found.payload.marking)?.code ?? '') : '';
  return (
    <FactCard
      key={found}
      kind="cell.fitted"
      title={`${capital(wellTitle(well))}Cell fitted`}
      recorded={well.fitted}
      well={wellKey(well)}
      defaults={{ cellCode: found, lotId: null, supplier: '', lotCode: '', alkalineAgreed: false }}
      action="Fitted"
      hint={
        <Typography color="text.secondary">
          The movement is not in the book: the cell found and the measured well must agree. In stock:{' '}
          {[...new Set(usable)].join(', ') || 'nothing'}.
        </Typography>
      }
    >
      <TextLine name="cellCode" label="Cell" mono wanted />
      <Stack direction="row" spacing={1.5}>
        <TextLine name="supplier" label="Supplier" />
        <TextLine name="lotCode" label="Lot" mono />
      </Stack>
    </FactCard>
  );
}

/** What was in the place, and where it went. */
function OldCellCards({ well }: { readonly well: WellState }) {
  return (
    <>
      <FoundCard well={well} />
      <SettledCard well={well} />
    </>
  );
}

function FoundCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.found"
      title={capital(`${wellTitle(well)}cell found`)}
      recorded={well.found}
      well={wellKey(well)}
      defaults={{ marking: '', condition: 'clean' }}
    >
      <FoundFields well={well} />
      <NoCellButton well={well} />
    </FactCard>
  );
}

function SettledCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.old-settled"
      title={capital(`${wellTitle(well)}the old cell`)}
      recorded={well.oldSettled}
      well={wellKey(well)}
      defaults={{ taped: true, to: 'spent bin' }}
      action="Settled so"
      hint={
        <Caution grave>
          A loose cell shorts and burns; swallowed by a child it can kill within hours: call the emergency
          services at once. Tape it and bin it before the next step.
        </Caution>
      }
    >
      <Tick name="taped" label="Insulated with tape" wanted />
      <Choice name="to" label="Goes to" options={optionsOf(['spent bin', 'owner'])} />
    </FactCard>
  );
}

function WellMat({ well }: { readonly well: WellState }) {
  const offers = useOffers(well);
  const { asks } = useJob();
  const noCell = well.found !== null && well.found.payload.marking === null;
  const fitting = well.putBack === null;
  return (
    <>
      <FoundCard well={well} />
      {!fitting ? null : well.wanted ? (
        <FactCard
          kind="cell.fitted"
          title={capital(`${wellTitle(well)}cell to fit`)}
          recorded={well.fitted}
          defaults={{}}
          instead={<FitForm well={well} offers={offers} />}
        >
          {null}
        </FactCard>
      ) : (
        <FitByName well={well} />
      )}
      {!noCell && fitting && <SettledCard well={well} />}
      {!noCell && well.fitted === null && (
        <MoreFacts
          label={`Also to record${well.name === MAIN_WELL ? '' : `, ${well.name}`}`}
          facts={[
            {
              title: capital(`${wellTitle(well)}the same cell goes back`),
              shown: well.putBack !== null || !asks('cell.fitted'),
              card: <PutBackCard well={well} />,
            },
          ]}
        />
      )}
    </>
  );
}

function Mat() {
  const { state, asks } = useJob();
  if (state.calibre?.charge || (state.calibre === null && asks('cell.charged'))) return <ChargingMat />;
  return state.wells.map((well) => <WellMat key={well.name} well={well} />);
}

function foundReading({ draft, book }: OpenJob, well: WellState): CellReading | null {
  const text = draft[`found.${well.name}`] ?? well.found?.payload.marking ?? '';
  return text.trim() === '' ? null : readCellMarking(text, book.cellTable);
}

/** The arithmetic behind what is said of the old cell. */
function foundWorking(job: OpenJob, well: WellState): readonly WorkingLine[] {
  const reading = foundReading(job, well);
  if (reading === null) return [];
  const cross = reading.verdict === 'read' && well.wanted ? crossReference(well.wanted, reading.cell) : null;
  return [...reading.working, ...(cross?.working ?? [])];
}

function FoundAnswer({ well }: { readonly well: WellState }) {
  const job = useJob();
  const reading = foundReading(job, well);
  const wantedType = well.wanted ? job.book.cell(well.wanted.code) : null;
  if (reading === null) {
    return (
      <LampAnswer
        question={capital(`${wellTitle(well)}the old cell`)}
        standing={well.found ? 'good' : 'open'}
        answer={well.found ? 'None found' : 'Not yet read'}
        reasons={[
          well.found
            ? 'Nothing to compare with: the book alone says what to fit.'
            : 'Its marking would tell whether the last hand fitted the right one.',
        ]}
      />
    );
  }
  if (reading.verdict !== 'read') {
    return (
      <LampAnswer
        question="The old cell"
        standing="no"
        answer={capital(reading.verdict)}
        reasons={reading.reasons}
      />
    );
  }
  const { cell } = reading;
  const cross = well.wanted ? crossReference(well.wanted, cell) : null;
  const likeness = wantedType ? looksLike(wantedType, cell) : null;
  return (
    <>
      <LampAnswer
        question="The old cell"
        standing={cross === null ? 'open' : mayBeFitted(cross.verdict) ? 'good' : 'no'}
        answer={cross === null ? cell.code : `${cell.code}: ${cross.verdict}`}
        reasons={[...reading.reasons.map(capital), ...(cross?.reasons ?? [])]}
      />
      {likeness && (
        <Caution>
          {cell.code} is easily taken for {well.wanted?.code}: {likeness.how}. The last hand may have done so.
        </Caution>
      )}
    </>
  );
}

function WellLamp({ well }: { readonly well: WellState }) {
  const job = useJob();
  const { state, book } = job;
  const offers = useOffers(well);
  const best = offers.find((offer) => offer.verdict === 'take');
  const { wanted } = well;
  if (!wanted) {
    return (
      <>
        <LampAnswer
          question={capital(`${wellTitle(well)}what to fit`)}
          standing="open"
          answer="Not yet known"
          reasons={[
            state.facts.movement
              ? 'The movement is not in the book: go by the cell found and measure the well.'
              : 'Which movement is it? Stage 3 answers that.',
          ]}
        />
        <FoundAnswer well={well} />
      </>
    );
  }
  return (
    <>
      <LampAnswer
        question={capital(`${wellTitle(well)}${well.fitted ? 'fitted' : 'fit'}`)}
        standing={well.fitted || well.putBack || best ? 'good' : 'no'}
        answer={
          well.putBack
            ? 'The same cell again'
            : (well.fitted?.payload.cellCode ?? best?.lot.code ?? `${wanted.code}: none in stock`)
        }
        reasons={
          well.fitted
            ? [`The movement wants ${wanted.code}.`]
            : best
              ? [
                  `Lot ${best.lot.lotCode}, best before ${best.lot.bestBefore ?? 'not printed'}: the oldest still in date.`,
                  ...best.reasons,
                ]
              : [`Order ${wanted.code}, ${figure(wanted.diameterMm)} × ${figure(wanted.heightMm)} mm.`]
        }
      >
        <Stack direction="row" spacing={1} sx={{ alignItems: 'center', mt: 0.5 }}>
          <CellFigure code={wanted.code} diameterMm={wanted.diameterMm} heightMm={wanted.heightMm} />
          <Typography variant="body2">
            {figure(wanted.diameterMm)} × {figure(wanted.heightMm)} mm, {figure(wanted.nominalV)} V,{' '}
            {well.well?.faceUp} up
          </Typography>
        </Stack>
      </LampAnswer>
      {well.well && <Caution>{HOLDER_CAUTIONS[well.well.heldBy]}</Caution>}
      <FoundAnswer well={well} />
      <Working lines={[...(best?.cross.working ?? []), ...foundWorking(job, well)]} />
      {state.calibre && well === state.wells[0] && (
        <CalibreFigure
          calibre={state.calibre}
          cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
        />
      )}
    </>
  );
}

function ChargeLamp({ calibre, charge }: { readonly calibre: Calibre; readonly charge: Charge }) {
  const { state, lots } = useJob();
  const kits = lots.filter((lot) => lot.item === 'kit' && lot.code === charge.kitCode);
  const left = kits.reduce((sum, lot) => sum + lot.balance, 0);
  const last = state.facts.charges.at(-1)?.payload;
  return (
    <>
      <LampAnswer
        question={`${calibre.code} runs from an ${charge.oldPart === 'capacitor' ? 'accumulator or capacitor' : 'accumulator'}`}
        standing={left > 0 ? 'good' : 'care'}
        answer={`Kit ${charge.kitCode}: ${left === 0 ? 'none in stock' : `${left} in stock`}`}
        reasons={[
          `Charged by ${charge.by}; full it runs ${figure(charge.reserveDays, 0)} days.`,
          'Charge and watch first: a watch from a drawer is not condemned.',
        ]}
      />
      {last && (
        <LampAnswer
          question="After the last charge"
          standing={last.outcome === 'steps normally' ? 'good' : 'care'}
          answer={capital(last.outcome)}
          reasons={
            last.outcome === 'steps normally'
              ? []
              : ['Low-supply steps returning soon after a full charge: a tired accumulator.']
          }
        />
      )}
    </>
  );
}

function Lamp() {
  const { state, context } = useJob();
  const charge = state.calibre?.charge ?? null;
  const inQuestion = openRevisions(state.calibre, state.facts.movement?.payload.revision ?? null);
  const cells = new Set(inQuestion.map(({ cellCode }) => cellCode));
  if (state.calibre && charge) {
    return (
      <>
        <ChargeLamp calibre={state.calibre} charge={charge} />
        {state.calibre.wells.map((well) => (
          <Caution key={well.name}>{HOLDER_CAUTIONS[well.heldBy]}</Caution>
        ))}
        {state.calibre.cautions.map((caution) => (
          <Caution key={caution}>{caution}</Caution>
        ))}
        <CalibreFigure calibre={state.calibre} cellDiameterMm={() => null} />
      </>
    );
  }
  return (
    <>
      {cells.size > 1 && (
        <Caution grave>
          Its revisions take different cells:{' '}
          {inQuestion
            .map(({ name, cellCode, seenBy }) => `${name} ${cellCode ?? 'as above'}, ${seenBy}`)
            .join('; ')}
          . Say at stage 3 which it is before one is fitted.
        </Caution>
      )}
      {state.wells.map((well) => (
        <WellLamp key={well.name} well={well} />
      ))}
      {state.calibre?.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {!state.wells.every((well) => well.fitted) && (
        <Caution>
          {capital(context.policy.schools.hands)}: {wayTaken(context.policy.schools, 'hands').reason} Metal
          across both faces shorts a cell.
        </Caution>
      )}
      {state.calibre?.resetContact && (
        <Caution>After fitting, join the reset contact: {state.calibre.resetContact}.</Caution>
      )}
    </>
  );
}

export default function CellStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
