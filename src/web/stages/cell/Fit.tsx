import { Button, Checkbox, FormControlLabel, Radio, RadioGroup, Stack, Typography } from '@mui/material';
import { type FormEvent, Fragment, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { fitByMeasure, placeWants, primaryBarred, type Refusal } from '../../../core/advice/cell';
import { money } from '../../../core/craft/money';
import { capital } from '../../../core/craft/judgement';
import { MAIN_WELL, openDrops, wellKey, type WellState } from '../../../core/logbook';
import { type LotOffer, recordWords, type WhatToFit } from '../../../core/craft/stock';
import { dayInWords } from '../../../core/craft/time';
import { Fold } from '../../kit/Fold';
import { focusRequired } from '../../kit/keys/required';
import { FactCard } from '../../job/FactCard';
import { factFields } from '../../kit/factFields';

import { useJob } from '../../job/JobContext';
import { TakeOut } from './Loose';
import { orderAt, useAlkalineWord, useChosenLot, useFit } from './useFit';
import { wellTitle } from './wells';

const cellFitted = factFields('cell.fitted');

/** A cheaper cell beside what a leak of it costs, and the owner’s word where that lets it in. */
function PriceBesideLeak({ well, fit }: { readonly well: WellState; readonly fit: WhatToFit }) {
  const { context, book, state } = useJob();
  const { currency } = context.policy;
  const [agreed, setAgreed] = useAlkalineWord(well);
  const alkaline = placeWants(state, well, book)?.wanted.chemistry === 'silver-oxide';
  const { saving } = fit;
  const leak = saving
    ? [saving.leakMinor.cleaned, saving.leakMinor.circuit].flatMap((minor) =>
        minor === null ? [] : [money(minor, currency)],
      )
    : [];
  return (
    <>
      {saving && (
        <Typography variant="body2">
          {saving.cheaper.lot.code} saves {money(saving.savesMinor, currency)}; a leak would cost{' '}
          {leak.length > 0 ? leak.join(' to ') : 'an amount that is not in the price list'}.
        </Typography>
      )}
      {alkaline && (
        <FormControlLabel
          control={<Checkbox checked={agreed} onChange={(_, on) => setAgreed(on)} />}
          label="The owner agrees to an alkaline cell (shorter life, leaks more often)"
        />
      )}
    </>
  );
}

function NoneToTake({ order }: Pick<WhatToFit, 'order'>) {
  return (
    <Typography>
      No lot in stock can be used.
      {order && (
        <>
          {' '}
          <Link to={orderAt(order)}>Order {order.code}</Link>
        </>
      )}
    </Typography>
  );
}

function NotToTake({ blocked }: { readonly blocked: readonly LotOffer[] }) {
  return (
    <Fold summary={`${blocked.length} excluded`} sx={{ fontWeight: 400 }}>
      {blocked.map((offer) => (
        <Typography key={offer.lot.id} sx={{ mt: 0.5 }}>
          <Typography variant="mark" component="span" sx={{ fontSize: '1rem' }}>
            {offer.lot.code}
          </Typography>{' '}
          lot {offer.lot.lotCode}: {offer.reasons.join(' ')}
        </Typography>
      ))}
    </Fold>
  );
}

/** The lots that may go in, best first; the first is already chosen, so Enter fits it. */
function FitForm({ well, fit }: { readonly well: WellState; readonly fit: WhatToFit }) {
  const { record, technician, state } = useJob();
  const paused = openDrops(state.facts).length > 0;
  const [agreed] = useAlkalineWord(well);
  const takeable = fit.offers.filter((offer) => offer.verdict === 'take');
  const blocked = fit.offers.filter((offer) => offer.verdict === 'blocked');
  const [chosen, setPicked] = useChosenLot(well, fit);
  const fitted = (event: FormEvent): void => {
    event.preventDefault();
    if (!chosen || paused) return;
    const { lot, cell } = chosen;
    void record(
      'cell.fitted',
      {
        cellCode: lot.code,
        lotId: lot.id,
        supplier: lot.supplier,
        lotCode: lot.lotCode,
        alkalineAgreed: agreed && cell.chemistry === 'alkaline',
        ownersOwn: false,
      },
      { well: wellKey(well), supersedes: well.fitted ? [well.fitted.id] : [] },
    ).then(focusRequired);
  };
  return (
    <Stack component="form" spacing={1} onSubmit={fitted}>
      {takeable.length === 0 && <NoneToTake order={fit.order} />}
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
      {paused && (
        <Typography>
          The job is paused. Nothing is fitted until the dropped cell is found, or its loss is reported.
        </Typography>
      )}
      {chosen && !paused && (
        <Stack direction="row" spacing={1}>
          <Button type="submit" variant="contained" disabled={technician === null}>
            Fitted {chosen.lot.code} from lot {chosen.lot.lotCode}
          </Button>
          <TakeOut well={well} lot={chosen.lot} />
        </Stack>
      )}
      <PriceBesideLeak well={well} fit={fit} />
      {blocked.length > 0 && <NotToTake blocked={blocked} />}
    </Stack>
  );
}

function LotLine({ offer }: { readonly offer: LotOffer }) {
  const { suppliers } = useJob();
  const { lot, cross } = offer;
  const record = suppliers.find(({ supplier }) => supplier === lot.supplier);
  return (
    <span>
      <Typography variant="mark" component="span">
        {lot.code}
      </Typography>{' '}
      <strong>{cross.verdict}</strong>, lot {lot.lotCode}
      <Typography variant="body2" component="span" sx={{ display: 'block' }}>
        {lot.supplier}
        {record && record.fitted > 0 ? ` (${recordWords(record)})` : ''}, {lot.balance} left, best before{' '}
        {lot.bestBefore === null ? 'not printed' : dayInWords(lot.bestBefore)}
        {cross.verdict === 'accepted' ? `. ${cross.reasons[0] ?? ''}` : ''}
      </Typography>
    </span>
  );
}

/** Where nothing names the cell: what of the stock lies in the measured well. */
function FitByMeasure({ well }: { readonly well: WellState }) {
  const { state, lots, book, today, record, technician } = useJob();
  const [picked, setPicked] = useState<string | null>(null);
  const {
    lots: usable,
    refusal,
    toOrder,
  } = useMemo(() => fitByMeasure(state, well, lots, book, today), [state, well, lots, book, today]);
  const chosen = usable.find(({ id }) => id === picked) ?? null;
  const paused = openDrops(state.facts).length > 0;
  if (refusal) return <RefusalText refusal={refusal} />;
  if (usable.length === 0)
    return well.measured ? (
      <Typography>
        No cell in stock fits the measured well.
        {toOrder.map((cell) => (
          <Fragment key={cell.code}>
            {' '}
            <Link to={orderAt({ code: cell.code, supplier: null })}>Order {cell.code}</Link>
          </Fragment>
        ))}
      </Typography>
    ) : (
      <Typography>Measure the well or read the old cell. Matching lots then appear here.</Typography>
    );
  return (
    <Stack
      component="form"
      spacing={1}
      onSubmit={(event) => {
        event.preventDefault();
        if (!chosen) return;
        void record(
          'cell.fitted',
          {
            cellCode: chosen.code,
            lotId: chosen.id,
            supplier: chosen.supplier,
            lotCode: chosen.lotCode,
            alkalineAgreed: false,
            ownersOwn: false,
          },
          { well: wellKey(well), supersedes: well.fitted ? [well.fitted.id] : [] },
        );
      }}
    >
      <Typography color="text.secondary">
        No cell name was read. These cells fit the measured well. The drain type is not known.
      </Typography>
      <RadioGroup
        aria-label={`Lot to take${well.name === MAIN_WELL ? '' : `, ${well.name}`}`}
        value={picked ?? ''}
        onChange={(_, id) => setPicked(id)}
      >
        {usable.map((lot) => (
          <FormControlLabel
            key={lot.id}
            value={lot.id}
            control={<Radio />}
            label={`${lot.code}, lot ${lot.lotCode}, ${lot.supplier}, ${lot.balance} left`}
          />
        ))}
      </RadioGroup>
      {chosen && !paused && (
        <Stack direction="row" spacing={1}>
          <Button type="submit" variant="contained" disabled={technician === null}>
            Fitted {chosen.code} from lot {chosen.lotCode}
          </Button>
          <TakeOut well={well} lot={chosen} />
        </Stack>
      )}
    </Stack>
  );
}

/** Why something may not go in, and what to do instead. */
function RefusalText({ refusal }: { readonly refusal: Refusal }) {
  return (
    <Typography>
      {refusal.reasons.join(' ')} {refusal.whatToDo}
    </Typography>
  );
}

/** A cell the owner brought: it comes from no lot, and nobody knows its age. */
export function OwnersOwnCard({ well }: { readonly well: WellState }) {
  return (
    <FactCard
      kind="cell.fitted"
      title={capital(`${wellTitle(well)}the owner’s own cell`)}
      recorded={well.fitted?.payload.ownersOwn === true ? well.fitted : null}
      well={wellKey(well)}
      defaults={{
        cellCode: '',
        lotId: null,
        supplier: '',
        lotCode: '',
        alkalineAgreed: false,
        ownersOwn: true,
      }}
      action="Fitted"
      hint={<Typography color="text.secondary">Its age is not known, so no date can be given.</Typography>}
    >
      <cellFitted.TextLine name="cellCode" mono helper="as printed on it, e.g. SR621SW" />
    </FactCard>
  );
}

/** The cell to fit, from the stock: as the book has it, as the witnesses say, or what lies in the measured well. */
export function FitCard({ well }: { readonly well: WellState }) {
  const { state, book } = useJob();
  const fit = useFit(well);
  const barred = primaryBarred(state, book);
  return (
    <FactCard
      kind="cell.fitted"
      title={capital(`${wellTitle(well)}cell to fit`)}
      recorded={well.fitted}
      defaults={{}}
      instead={
        barred ? (
          <RefusalText refusal={barred} />
        ) : fit === null ? (
          <FitByMeasure well={well} />
        ) : (
          <FitForm well={well} fit={fit} />
        )
      }
    >
      {null}
    </FactCard>
  );
}
