import { Paper, Stack, Typography } from '@mui/material';
import { useFormContext } from 'react-hook-form';
import {
  LEAK_DECISIONS,
  LEAK_SEVERITIES,
  LEAK_PLACES,
  type LeakAdvice,
  type LeakOption,
} from '../../../core/craft/health';
import { money } from '../../../core/craft/money';
import { capital } from '../../../core/craft/judgement';
import { leakWords } from '../../../core/logbook';
import { Caution, LampAnswer } from '../../kit/Lamp';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';

const checkLeakage = factFields('check.leakage');
const FROM_METER = { device: 'bench-meter', ask: { ask: 'measure', measure: 'currentUA' } } as const;

/** Where on this layout something leaked: pointed at, or typed. */
function LeakageFields() {
  const { state, book } = useJob();
  const form = useFormContext();
  const [xMm, yMm] = [checkLeakage.useValue('xMm'), checkLeakage.useValue('yMm')];
  const there = state.facts.leakages.map(({ payload }) => payload);
  const spots = [...there, { xMm, yMm }].flatMap((spot) =>
    spot.xMm !== null && spot.yMm !== null ? [{ xMm: spot.xMm, yMm: spot.yMm }] : [],
  );
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
      {state.calibre && (
        <Stack sx={{ alignItems: 'center', maxWidth: 230, flexShrink: 0 }}>
          <CalibreFigure
            calibre={state.calibre}
            cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
            spots={spots}
            legend={false}
            onPick={(spot) => {
              form.setValue('xMm', spot.xMm, { shouldDirty: true });
              form.setValue('yMm', spot.yMm, { shouldDirty: true });
            }}
          />
          <Typography variant="body2" color="text.secondary">
            From behind. Click the place, or enter it.
          </Typography>
        </Stack>
      )}
      <Stack spacing={1.5} sx={{ flexGrow: 1 }}>
        <checkLeakage.Choice name="place" options={optionsOf(LEAK_PLACES)} />
        <checkLeakage.Choice name="severity" options={optionsOf(LEAK_SEVERITIES)} />
        {state.calibre && (
          <Stack direction="row" spacing={1.5}>
            <checkLeakage.MeasureField name="xMm" quantity="lengthMm" optional helper="from the centre" />
            <checkLeakage.MeasureField name="yMm" quantity="lengthMm" optional helper="from the centre" />
          </Stack>
        )}
        <checkLeakage.TextLine name="treated" />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <checkLeakage.MeasureField name="currentBeforeUA" quantity="currentUA" optional from={FROM_METER} />
          <checkLeakage.MeasureField name="currentAfterUA" quantity="currentUA" optional from={FROM_METER} />
        </Stack>
        <checkLeakage.Choice name="decision" options={optionsOf(LEAK_DECISIONS)} />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <checkLeakage.TextLine name="supplier" />
          <checkLeakage.TextLine name="lotCode" mono />
        </Stack>
      </Stack>
    </Stack>
  );
}

/** Every leak found on the layout, by its number. */
function WhereItLeaked() {
  const { state, book } = useJob();
  const placed = state.facts.leakages.flatMap(({ id, payload }) =>
    payload.xMm !== null && payload.yMm !== null
      ? [{ id, xMm: payload.xMm, yMm: payload.yMm, words: leakWords(payload) }]
      : [],
  );
  if (!state.calibre || placed.length === 0) return null;
  return (
    <Paper component="section" aria-label="Place of the leakage" sx={{ p: 2 }}>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2} sx={{ alignItems: { sm: 'center' } }}>
        <CalibreFigure
          calibre={state.calibre}
          cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
          spots={placed}
          legend={false}
        />
        <Stack component="ol" sx={{ m: 0, pl: 3 }}>
          {placed.map(({ id, words }) => (
            <Typography component="li" key={id}>
              {capital(words)}.
            </Typography>
          ))}
        </Stack>
      </Stack>
    </Paper>
  );
}

/** What leaked where, with photographs, what was done and what was decided. */
export function LeakageCards() {
  const { state, earlier } = useJob();
  const last = earlier?.history.cells[0];
  return (
    <>
      <WhereItLeaked />
      <FactList
        kind="check.leakage"
        files
        title="Leakage"
        recorded={state.facts.leakages}
        defaults={{
          place: null,
          severity: null,
          xMm: null,
          yMm: null,
          treated: '',
          decision: 'not decided yet',
          currentBeforeUA: state.facts.readings.get('currentUA')?.payload.value ?? null,
          currentAfterUA: null,
          // What this shop fitted last, so that a leak finds its supplier.
          supplier: last?.supplier ?? '',
          lotCode: last?.lotCode ?? '',
        }}
      >
        <LeakageFields />
      </FactList>
    </>
  );
}

function optionWords({ decision, priceMinor, risk }: LeakOption, currency: string): string {
  return `${capital(decision)}: ${priceMinor === null ? 'not in the price list' : money(priceMinor, currency)}. ${risk}`;
}

/** What electrolyte does to people, first of all. */
export function LeakCaution({ advice }: { readonly advice: LeakAdvice }) {
  return <Caution grave>Electrolyte burns skin and eyes. Wear gloves and glasses. {advice.care}</Caution>;
}

/** What to do about a leak, for the owner to decide on. */
export function LeakAnswer({ advice }: { readonly advice: LeakAdvice }) {
  const { context } = useJob();
  return (
    <LampAnswer
      question="After a leak: options for the owner"
      folded
      working={advice.working}
      tone="care"
      answer={capital(advice.verdict)}
      reasons={advice.reasons}
    >
      {advice.options.map((option) => (
        <Typography key={option.decision} sx={{ mt: 0.5, fontWeight: option.advised ? 700 : undefined }}>
          {optionWords(option, context.policy.currency)}
        </Typography>
      ))}
    </LampAnswer>
  );
}
