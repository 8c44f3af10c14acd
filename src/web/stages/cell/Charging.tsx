import { Paper, Stack, Typography } from '@mui/material';
import { useFormContext } from 'react-hook-form';
import { accumulatorInQuestion } from '../../../core/advice/cell';
import { judgeAccumulator } from '../../../core/advice/charging';
import { figure } from '../../../core/craft/judgement';
import { ACCUMULATOR_WAYS, CHARGE_OUTCOMES, type Payloads } from '../../../core/logbook';
import type { Calibre, Charge } from '../../../core/craft/movements';
import type { Lot } from '../../../core/craft/stock';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { optionsOf, fieldsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { useGuides } from './Guide';
import { LooseCells, TakeOut } from './Loose';
import { FoundCard, OldCellCards } from './OldCell';
import { UnderLightCards, UnderLightLamp } from './UnderLight';

const cellAccumulator = fieldsOf<Payloads['cell.accumulator']>();
const cellCharged = fieldsOf<Payloads['cell.charged']>();

/** The kit for this calibre, from the stock or from elsewhere. */
function AccumulatorFields({ kits }: { readonly kits: readonly Lot[] }) {
  const form = useFormContext();
  const lotId = cellAccumulator.useValue('lotId');
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
        <cellAccumulator.TextLine name="kitCode" label="Kit" mono />
        <cellAccumulator.TextLine name="supplier" label="Supplier" />
        <cellAccumulator.TextLine name="lotCode" label="Lot" mono />
      </Stack>
      <cellAccumulator.Choice name="way" label="Renewed as" options={optionsOf(ACCUMULATOR_WAYS)} />
    </>
  );
}

/** A movement that charges its cell: charged and watched, or the accumulator renewed by its kit. */
export function ChargingMat() {
  const { state, lots, asks } = useJob();
  const { facts, calibre } = state;
  const kitCode = calibre?.charge?.kitCode ?? '';
  const kits = lots.filter(
    (lot) => lot.item === 'kit' && lot.balance > 0 && (kitCode === '' || lot.code === kitCode),
  );
  // A kit is for one calibre: where nobody knows which this is, none is proposed.
  const [first] = kitCode === '' ? [] : kits;
  const [well] = state.wells;
  const guideOf = useGuides();
  return (
    <>
      <LooseCells />
      {(calibre === null || state.wells.some(({ found }) => found)) &&
        !facts.accumulator &&
        state.wells.map((each) => <FoundCard key={each.name} well={each} />)}
      {calibre?.charge?.by === 'light' && <UnderLightCards calibre={calibre} />}
      <FactList
        kind="cell.charged"
        title="Charged and watched"
        recorded={facts.charges}
        defaults={{
          by: null,
          hours: undefined,
          outcome: null,
        }}
      >
        <cellCharged.Choice name="by" label="By" options={optionsOf(['light', 'rotor', 'charger'])} />
        <cellCharged.MeasureField
          name="hours"
          label="For"
          quantity="hours"
          wanted={asks('cell.charged') && facts.charges.length === 0}
        />
        <cellCharged.Choice name="outcome" label="Then it" options={optionsOf(CHARGE_OUTCOMES)} />
      </FactList>
      {first && well && !facts.accumulator && (
        <Paper component="section" aria-label="The kit" sx={{ p: 2 }}>
          <Typography>
            Kit {first.code}, lot {first.lotCode}: once out of its blister it is loose until it is fitted.
          </Typography>
          <TakeOut well={well} lot={first} />
        </Paper>
      )}
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
          way: null,
        }}
        action="Renewed"
        hint={
          <Caution grave>Never a primary cell in its place: driven backwards it leaks or bursts.</Caution>
        }
      >
        <AccumulatorFields kits={kits} />
      </FactCard>
      {accumulatorInQuestion(facts) && state.wells.map(guideOf)}
      {facts.accumulator && state.wells.map((well) => <OldCellCards key={well.name} well={well} />)}
    </>
  );
}

const NEXT_STANDING = {
  fine: 'good',
  charge: 'care',
  clean: 'care',
  renew: 'no',
} as const;

export function ChargeLamp({ calibre, charge }: { readonly calibre: Calibre; readonly charge: Charge }) {
  const { state, lots, book } = useJob();
  const kits = lots.filter((lot) => lot.item === 'kit' && lot.code === charge.kitCode);
  const left = kits.reduce((sum, lot) => sum + lot.balance, 0);
  const next = judgeAccumulator(state, book);
  return (
    <>
      {next && (
        <LampAnswer
          question="Tired, flat or fine?"
          standing={NEXT_STANDING[next.verdict]}
          answer={next.answer}
          reasons={next.reasons}
        />
      )}
      <UnderLightLamp />
      <LampAnswer
        question={`${calibre.code} runs from an ${charge.oldPart === 'capacitor' ? 'accumulator or capacitor' : 'accumulator'}`}
        standing={left > 0 ? 'good' : 'care'}
        answer={`Kit ${charge.kitCode}: ${left === 0 ? 'none in stock' : `${left} in stock`}`}
        reasons={[`Charged by ${charge.by}; full it runs ${figure(charge.reserveDays, 0)} days.`]}
      />
    </>
  );
}
