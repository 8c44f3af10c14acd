import { Typography } from '@mui/material';
import { supplyOf } from '../../../core/advice/supply';
import { SUPPLIES, SUPPLY_WORDS } from '../../../core/craft/cells';
import { capital } from '../../../core/craft/judgement';
import { LampAnswer, type LampTone } from '../../kit/Lamp';
import { factFields } from '../../kit/factFields';

import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';

const identifySupply = factFields('identify.supply');

/** What the watch runs from, said by somebody who saw why: it lets in what was barred, and bars what was let in. */
export function SupplyCard() {
  const { state, book } = useJob();
  const { facts } = state;
  const supply = supplyOf(state, book);
  return (
    <FactCard
      kind="identify.supply"
      title="Power source"
      recorded={facts.supply}
      defaults={{ runsFrom: null, reason: '' }}
      hint={
        supply.reasons.length > 0 ? (
          <Typography color="text.secondary">{capital(supply.reasons.join('; '))}.</Typography>
        ) : undefined
      }
    >
      <identifySupply.Choice
        name="runsFrom"
        options={SUPPLIES.map((value) => ({ value, label: SUPPLY_WORDS[value] }))}
      />
      <identifySupply.TextLine
        name="reason"
        helper="e.g. solar cell under the dial; no solar cell and no rotor"
      />
    </FactCard>
  );
}

const STANDING: Readonly<Record<ReturnType<typeof supplyOf>['verdict'], LampTone>> = {
  primary: 'good',
  rechargeable: 'care',
  contradicted: 'no',
  'not known': 'open',
};

/** What the lamp says of the supply, where it is more than the book alone that speaks. */
export function SupplyAnswer() {
  const { state, book } = useJob();
  const supply = supplyOf(state, book);
  if (supply.againstPrimary.length === 0 || state.calibre?.charge) return null;
  return (
    <LampAnswer
      question="Power source"
      tone={STANDING[supply.verdict]}
      answer={
        supply.verdict === 'rechargeable'
          ? 'An accumulator'
          : supply.verdict === 'contradicted'
            ? 'The evidence conflicts'
            : 'May be rechargeable'
      }
      reasons={[
        ...supply.reasons.map((each) => `${capital(each)}.`),
        supply.verdict === 'rechargeable'
          ? 'Do not fit a primary cell. Charge and watch the watch first, then fit its kit if needed.'
          : 'Fit nothing until the power source is recorded with its reason.',
      ]}
    />
  );
}
