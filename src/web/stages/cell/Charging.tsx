import { Button, Paper, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { useFormContext } from 'react-hook-form';
import { accumulatorInQuestion } from '../../../core/advice/cell';
import { hasLeaked, judgeAccumulator, kitLots, kitsHere, woundHere } from '../../../core/advice/charging';
import { capital, figure } from '../../../core/craft/judgement';
import { ACCUMULATOR_WAYS, CHARGE_OUTCOMES } from '../../../core/logbook';
import type { Calibre, Charge } from '../../../core/craft/movements';
import type { Lot } from '../../../core/craft/stock';
import type { DeviceSays } from '../../../contract';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { useGuides } from './Guide';
import { LooseCells, TakeOut } from './Loose';
import { FoundCard, OldCellCards } from './OldCell';
import { UnderLightCards, UnderLightLamp } from './UnderLight';

const cellAccumulator = factFields('cell.accumulator');
const cellCharged = factFields('cell.charged');

/** The kit for this calibre, from the stock or from elsewhere. */
function AccumulatorFields({ kits }: { readonly kits: readonly Lot[] }) {
  const form = useFormContext();
  const { state } = useJob();
  const lotId = cellAccumulator.useValue('lotId');
  const way = cellAccumulator.useValue('way');
  return (
    <>
      <NativeSelect
        label="Taken from"
        value={lotId ?? ''}
        options={[
          { value: '', label: 'not from stock' },
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
        <cellAccumulator.TextLine name="kitCode" mono />
        <cellAccumulator.TextLine name="supplier" />
        <cellAccumulator.TextLine name="lotCode" mono />
      </Stack>
      <cellAccumulator.Choice name="way" options={optionsOf(ACCUMULATOR_WAYS)} />
      {way === 'old tab transferred' && (
        <cellAccumulator.MeasureField
          name="tabContactOhm"
          quantity="resistanceOhm"
          optional
          helper="measured with the tab pressed on"
        />
      )}
      {state.facts.charges.length === 0 && !hasLeaked(state) && (
        <cellAccumulator.TextLine
          name="unchargedBecause"
          helper="blank if it was charged first"
          blankIsNull
        />
      )}
    </>
  );
}

/** A movement that charges its cell: charged and watched, or the accumulator renewed by its kit. */
export function ChargingMat() {
  const { state, lots, asks, today } = useJob();
  const { facts, calibre } = state;
  const foreseen = calibre?.charge ? kitsHere(calibre.charge, lots, today) : null;
  const kits = foreseen === null ? kitLots(lots, null, today) : foreseen.flatMap((kit) => kit.lots);
  const kitCode = foreseen?.[0]?.kitCode ?? '';
  // A kit is for one calibre: where nobody knows which this is, none is proposed.
  const [first] = foreseen === null ? [] : kits;
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
        <cellCharged.Choice name="by" options={optionsOf(['light', 'rotor', 'charger'])} />
        <cellCharged.MeasureField
          name="hours"
          quantity="hours"
          wanted={asks('cell.charged') && facts.charges.length === 0}
        />
        <cellCharged.Choice name="outcome" options={optionsOf(CHARGE_OUTCOMES)} />
      </FactList>
      {first && well && !facts.accumulator && (
        <Paper component="section" aria-label="The kit" sx={{ p: 2 }}>
          <Typography>
            Kit {first.code}, lot {first.lotCode}. Out of its blister it counts as loose until it is fitted.
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
          tabContactOhm: null,
          unchargedBecause: null,
        }}
        action="Renewed"
        hint={
          <Caution grave>Never fit a primary cell here. The charging current makes it leak or burst.</Caution>
        }
      >
        {/* The one it was taken from stays to be seen, though it is used up or set aside since. */}
        <AccumulatorFields
          kits={[
            ...kits,
            ...lots.filter((lot) => lot.id === facts.accumulator?.payload.lotId && !kits.includes(lot)),
          ]}
        />
      </FactCard>
      {(calibre?.charge || accumulatorInQuestion(state)) && state.wells.map(guideOf)}
      {facts.accumulator && state.wells.map((well) => <OldCellCards key={well.name} well={well} />)}
    </>
  );
}

/** How long it is worn or wound, from flat. */
function WoundLamp() {
  const { state, context } = useJob();
  const connected = useConnected('winder', 'turns');
  const [said, setSaid] = useState<DeviceSays | null>(null);
  // As the winder turns just now, where it was asked; else as the policy has it.
  const read = said?.says === 'figure' ? said.value : null;
  const fault = said && faultWords(said);
  const plan = woundHere(state, context, read);
  if (plan === null) return null;
  const back = plan.marks.find(({ mark }) => mark === 'hand back');
  const [wornH, winderH] = [back?.wornH ?? null, back?.winderH ?? null];
  return (
    <>
      <LampAnswer
        question="Charging by wearing or winder, from flat"
        tone={plan.verdict === 'charges' ? 'good' : 'open'}
        shown={2}
        working={plan.working}
        answer={
          wornH !== null
            ? `Hand back after ${figure(wornH, 0)} h worn`
            : winderH !== null
              ? `Hand back after ${figure(winderH, 0)} h on the winder`
              : capital(plan.verdict)
        }
        reasons={[
          ...plan.reasons,
          ...plan.marks.map(
            (each) =>
              `${capital(each.mark)}: ${[
                each.wornH === null ? '' : `${figure(each.wornH, 1)} h worn`,
                each.turns === null || each.winderH === null
                  ? ''
                  : `${figure(each.turns / 1000, 0)} thousand turns, ${figure(each.winderH, 0)} h on the winder`,
              ]
                .filter(Boolean)
                .join(', or ')}.`,
          ),
        ]}
      >
        {connected && (
          <Stack direction="row" spacing={1.5} sx={{ mt: 1, alignItems: 'center' }}>
            <Button
              variant="outlined"
              onClick={() => void askDevice('winder', { ask: 'turns' }).then(setSaid)}
            >
              Read winder
            </Button>
            <Typography role="status" variant="body2">
              {fault ? `■ ${fault}` : read !== null && `At the current ${figure(read, 0)} turns an hour.`}
            </Typography>
          </Stack>
        )}
      </LampAnswer>
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
  const { state, lots, context, today } = useJob();
  const kits = kitsHere(charge, lots, today);
  const [own] = kits;
  const next = judgeAccumulator(state, context);
  return (
    <>
      {next && (
        <LampAnswer
          question="Accumulator condition"
          tone={NEXT_STANDING[next.verdict]}
          answer={next.answer}
          reasons={next.reasons}
        />
      )}
      <UnderLightLamp calibre={calibre} />
      <WoundLamp />
      <LampAnswer
        folded={next !== null && (own?.left ?? 0) > 0}
        question={`${calibre.code} runs from an ${charge.oldPart === 'capacitor' ? 'accumulator or capacitor' : 'accumulator'}`}
        tone={kits.some(({ left }) => left > 0) ? 'good' : 'care'}
        answer={`Kit ${charge.kitCode}: ${(own?.left ?? 0) === 0 ? 'none in stock' : `${own?.left} in stock`}`}
        reasons={[
          `Charged by ${charge.by}; full, it runs ${figure(charge.reserveDays, 0)} days.`,
          ...(charge.contents.length > 0 ? [`The kit contains: ${charge.contents.join(', ')}.`] : []),
          ...(charge.reused.length > 0 ? [`Reuse: ${charge.reused.join(', ')}.`] : []),
          ...kits
            .slice(1)
            .map(
              ({ kitCode, reserveDays, gainDays, left }) =>
                `Or ${kitCode}, a modern replacement listed in the book. Full, it runs ${figure(reserveDays, 0)} days, ${figure(gainDays, 0)} more; ${left === 0 ? 'none' : left} in stock.`,
            ),
          ...kits.flatMap(({ aside }) => aside),
        ]}
      />
    </>
  );
}
