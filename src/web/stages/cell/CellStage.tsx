import { Button, FormControlLabel, Radio, RadioGroup, Stack, Typography } from '@mui/material';
import { type FormEvent, useMemo, useState } from 'react';
import {
  type CellReading,
  crossReference,
  looksLike,
  mayBeFitted,
  readCellMarking,
} from '../../../core/cells';
import { figure, type WorkingLine } from '../../../core/judgement';
import { CELL_CONDITIONS, MAIN_WELL, type WellState } from '../../../core/logbook';
import { HOLDER_CAUTIONS } from '../../../core/movements';
import { chooseLots, type LotOffer } from '../../../core/stock';
import { focusNextWanted } from '../../app/keys/wanted';
import { Caution, LampAnswer, Working } from '../../app/Lamp';
import { CellFigure } from '../../figures/CellFigure';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { Choice, optionsOf, TextLine, Tick, useFieldValue } from '../../job/fields';
import { capital, FactCard } from '../../job/FactCard';
import { type OpenJob, useJob } from '../../job/JobContext';
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
        cellCode: lot.cellCode,
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
          Fitted {chosen.lot.cellCode} from lot {chosen.lot.lotCode}
        </Button>
      )}
      {blocked.length > 0 && (
        <details>
          <summary>{blocked.length} not to be taken</summary>
          {blocked.map((offer) => (
            <Typography key={offer.lot.id} sx={{ mt: 0.5 }}>
              <Typography variant="mark" component="span" sx={{ fontSize: '1rem' }}>
                {offer.lot.cellCode}
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
        {lot.cellCode}
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
  const usable = lots.filter((lot) => lot.balance > 0).map((lot) => lot.cellCode);
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

function WellMat({ well }: { readonly well: WellState }) {
  const offers = useOffers(well);
  const noCell = well.found !== null && well.found.payload.marking === null;
  return (
    <>
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
      {well.wanted ? (
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
      {!noCell && (
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
      )}
    </>
  );
}

function Mat() {
  const { state } = useJob();
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
        standing={well.fitted || best ? 'good' : 'no'}
        answer={well.fitted?.payload.cellCode ?? best?.lot.cellCode ?? `${wanted.code}: none in stock`}
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

function Lamp() {
  const { state } = useJob();
  return (
    <>
      {state.wells.map((well) => (
        <WellLamp key={well.name} well={well} />
      ))}
      {state.calibre?.cautions.map((caution) => (
        <Caution key={caution}>{caution}</Caution>
      ))}
      {state.calibre?.resetContact && (
        <Caution>After fitting, join the reset contact: {state.calibre.resetContact}.</Caution>
      )}
    </>
  );
}

export default function CellStage() {
  return <StageLayout mat={<Mat />} lamp={<Lamp />} />;
}
