import { Button, Checkbox, FormControlLabel, Radio, RadioGroup, Stack, Typography } from '@mui/material';
import type { FormEvent } from 'react';
import { money } from '../../../core/craft/money';
import { capital } from '../../../core/craft/judgement';
import { MAIN_WELL, openDrops, wellKey, type WellState, type Payloads } from '../../../core/logbook';
import { type LotOffer, recordWords, type WhatToFit } from '../../../core/craft/stock';
import { focusNextWanted } from '../../kit/keys/wanted';
import { FactCard } from '../../job/FactCard';
import { fieldsOf } from '../../kit/fields';
import { useJob } from '../../job/JobContext';
import { TakeOut } from './Loose';
import { useAlkalineWord, useChosenLot, useFit } from './useFit';
import { wellTitle } from './wells';

const cellFitted = fieldsOf<Payloads['cell.fitted']>();

/** A cheaper cell beside what a leak of it costs, and the owner’s word where that lets it in. */
function PriceBesideLeak({ well, fit }: { readonly well: WellState; readonly fit: WhatToFit }) {
  const { context } = useJob();
  const { currency } = context.policy;
  const [agreed, setAgreed] = useAlkalineWord(well);
  const alkaline = well.wanted?.chemistry === 'silver-oxide';
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
          {saving.cheaper.lot.code} would save {money(saving.savesMinor, currency)}; a leak costs{' '}
          {leak.length > 0 ? leak.join(' to ') : 'what the price list does not say'}.
        </Typography>
      )}
      {alkaline && (
        <FormControlLabel
          control={<Checkbox checked={agreed} onChange={(_, on) => setAgreed(on)} />}
          label="Alkaline on the owner’s word: told that it ends sooner and leaks more often"
        />
      )}
    </>
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
      },
      { well: wellKey(well), supersedes: well.fitted ? [well.fitted.id] : [] },
    ).then(() => requestAnimationFrame(() => requestAnimationFrame(focusNextWanted)));
  };
  return (
    <Stack component="form" spacing={1} onSubmit={fitted}>
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
      {paused && (
        <Typography>The job pauses: nothing is fitted until the dropped cell is found or told of.</Typography>
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
        {lot.bestBefore ?? 'not printed'}
        {cross.verdict === 'accepted' ? `. ${cross.reasons[0] ?? ''}` : ''}
      </Typography>
    </span>
  );
}

/** Where the movement is not in the book: the cell named by hand, refused if it is never fitted to a watch. */
function FitByName({ well }: { readonly well: WellState }) {
  const { lots } = useJob();
  const usable = lots.filter((lot) => lot.item === 'cell' && lot.balance > 0).map((lot) => lot.code);
  const found = well.foundCell?.code ?? '';
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
      <cellFitted.TextLine name="cellCode" label="Cell" mono wanted />
      <Stack direction="row" spacing={1.5}>
        <cellFitted.TextLine name="supplier" label="Supplier" />
        <cellFitted.TextLine name="lotCode" label="Lot" mono />
      </Stack>
    </FactCard>
  );
}

/** The cell to fit: from the stock where the book knows what belongs there, else by name. */
export function FitCard({ well }: { readonly well: WellState }) {
  const fit = useFit(well);
  if (fit === null) return <FitByName well={well} />;
  return (
    <FactCard
      kind="cell.fitted"
      title={capital(`${wellTitle(well)}cell to fit`)}
      recorded={well.fitted}
      defaults={{}}
      instead={<FitForm well={well} fit={fit} />}
    >
      {null}
    </FactCard>
  );
}
