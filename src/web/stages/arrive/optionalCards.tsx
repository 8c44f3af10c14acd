import { Button, Checkbox, FormControlLabel, Paper, Stack, Typography } from '@mui/material';
import { useMemo } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import {
  availability,
  type Need,
  needsOf,
  promiseAfterParts,
  requestFor,
} from '../../../core/advice/arrival';
import { capital } from '../../../core/craft/judgement';
import { money } from '../../../core/craft/money';
import { localTime } from '../../../core/craft/time';
import { AGREED_HOW, CHANGED_BY, MARK_KINDS, MARK_VIEWS, REFER_REASONS, WEAR } from '../../../core/logbook';
import { CaseFigure } from '../../figures/CaseFigure';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';
import { factFields } from '../../kit/factFields';
import { MeasureField, optionsOf, optionsOrNone, TextLine } from '../../kit/fields';
import { StoppedField } from './fields';

const arriveEstimate = factFields('arrive.estimate');
const arrivePartsRequest = factFields('arrive.parts-request');
const arriveMark = factFields('arrive.mark');
const arriveCellHistory = factFields('arrive.cell-history');
const arriveWear = factFields('arrive.wear');
const arriveOriginality = factFields('arrive.originality');
const arriveAgreement = factFields('arrive.agreement');
const arriveReady = factFields('arrive.ready');
const arrivePartsArrived = factFields('arrive.parts-arrived');
const arriveDecision = factFields('arrive.decision');

/** One drawing with what is marked on it, and the fields of the next mark. */
function MarkFields() {
  const { state } = useJob();
  const form = useFormContext();
  const view = arriveMark.useValue('view') ?? 'front';
  const kind = arriveMark.useValue('kind');
  const clock = arriveMark.useValue('clock');
  const there = state.facts.marks
    .filter((mark) => mark.payload.view === view)
    .map(({ payload }) => ({ clock: payload.clock, label: payload.kind }));
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
      <Stack sx={{ alignItems: 'center' }}>
        <CaseFigure
          view={view}
          marks={Number.isNaN(clock) ? there : [...there, { clock, label: kind ?? '' }]}
          onPick={(picked) => form.setValue('clock', picked, { shouldDirty: true })}
        />
        <Typography variant="body2" color="text.secondary">
          Click the place, or enter the hour.
        </Typography>
      </Stack>
      <Stack spacing={1.5} sx={{ flexGrow: 1 }}>
        <arriveMark.Choice name="view" options={optionsOf(MARK_VIEWS)} />
        <arriveMark.ListChoice name="kind" options={optionsOrNone(MARK_KINDS, 'see which it is')} />
        <arriveMark.MeasureField
          name="clock"
          quantity="figureOnly"
          optional
          helper="o’clock as seen from there; blank for the middle"
        />
        {kind === 'original film' && (
          <arriveMark.Choice name="film" options={optionsOf(['keep', 'remove'])} />
        )}
        <arriveMark.TextLine name="note" />
      </Stack>
    </Stack>
  );
}

/** What may come on top of the service, ticked from the price list. */
function EstimateFields() {
  const { context } = useJob();
  const form = useFormContext();
  const lines = arriveEstimate.useValue('lines');
  const { extras, currency } = context.policy;
  // Lines agreed at another time's price stay on the list as they are.
  const known = new Set(extras.map((extra) => extra.what));
  const all = [...extras, ...lines.filter((line) => !known.has(line.what))];
  return (
    <Stack>
      {all.map(({ what, priceMinor }) => {
        const on = lines.some((line) => line.what === what);
        return (
          <FormControlLabel
            key={what}
            control={
              <Checkbox
                checked={on}
                onChange={() =>
                  form.setValue(
                    'lines',
                    on ? lines.filter((line) => line.what !== what) : [...lines, { what, priceMinor }],
                    { shouldDirty: true },
                  )
                }
              />
            }
            label={`${what}, ${money(priceMinor, currency)}`}
          />
        );
      })}
    </Stack>
  );
}

/** The parts one job lacks, a line each. */
function RequestFields() {
  const { fields, append, remove } = useFieldArray({ name: 'lines' });
  return (
    <>
      {fields.map((field, index) => (
        <Stack key={field.id} direction="row" spacing={1.5} sx={{ alignItems: 'start' }}>
          <TextLine name={`lines.${index}.what`} label={`Part ${index + 1}`} />
          <MeasureField name={`lines.${index}.count`} label="How many" quantity="figureOnly" />
          {fields.length > 1 && (
            <Button onClick={() => remove(index)} aria-label={`Remove part ${index + 1}`}>
              Remove
            </Button>
          )}
        </Stack>
      ))}
      <Button onClick={() => append({ what: '', count: 1 })} sx={{ alignSelf: 'flex-start' }}>
        Add part
      </Button>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <arrivePartsRequest.TextLine name="supplier" />
        <arrivePartsRequest.TextLine
          name="expectedOn"
          helper="e.g. 2029-01-31, blank if not known"
          blankIsNull
        />
      </Stack>
    </>
  );
}

/** What this watch will need, against stock and tools. */
export function useNeeds(): readonly Need[] {
  const { state, book, lots, suppliers, context, earlier, today } = useJob();
  return useMemo(
    () =>
      needsOf({
        state,
        history: earlier?.history ?? null,
        book,
        lots,
        records: suppliers,
        policy: context.policy,
        day: today,
      }),
    [state, earlier, book, lots, suppliers, context.policy, today],
  );
}

function NeedsList({ needs }: { readonly needs: readonly Need[] }) {
  return (
    <Stack component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {needs.map((need) => (
        <Typography component="li" key={`${need.of} ${need.words}`}>
          <strong>{capital(need.of)}</strong>: {need.words} · {need.status}
        </Typography>
      ))}
    </Stack>
  );
}

/** Parts with a day move the promise: nobody is told an hour at which nothing can be done. */
function PromiseAfterParts() {
  const { state, context, record, technician } = useJob();
  const later = promiseAfterParts(state, context);
  if (later === null) return null;
  return (
    <Paper component="section" aria-label="Promise after the parts" sx={{ p: 2 }}>
      <Typography>
        The promise is earlier than the parts are expected. Agree a later time with the owner.
      </Typography>
      <Button
        variant="outlined"
        disabled={technician === null}
        onClick={() =>
          void record(
            'arrive.promise',
            { promisedAt: later },
            { supersedes: state.facts.promise ? [state.facts.promise.id] : [] },
          )
        }
        sx={{ mt: 1 }}
      >
        Change promise to {localTime(later, context.shop.zone)}
      </Button>
    </Paper>
  );
}

export function LastChangeCard() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="arrive.cell-history"
      title="Last cell change"
      recorded={facts.cellHistory}
      defaults={{ changedBy: null, changedOn: null }}
    >
      <arriveCellHistory.Choice name="changedBy" options={optionsOf(CHANGED_BY)} />
      <arriveCellHistory.TextLine
        name="changedOn"
        helper="year or month, e.g. 2023-05; blank if not known"
        blankIsNull
      />
    </FactCard>
  );
}

export function StoppedCard() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="arrive.stopped"
      title="When it stopped"
      recorded={facts.stopped}
      defaults={{ stoppedOn: null }}
    >
      <StoppedField />
    </FactCard>
  );
}

export function WearCard() {
  const { state, asks } = useJob();
  const { facts } = state;
  return (
    <FactCard
      kind="arrive.wear"
      title="Use and exposure to water"
      recorded={facts.wear}
      defaults={{ uses: [], words: '' }}
    >
      <arriveWear.Several name="uses" options={optionsOf(WEAR)} wanted={asks('arrive.wear')} />
      <arriveWear.TextLine name="words" />
    </FactCard>
  );
}

export function OriginalityCard() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="arrive.originality"
      title="Originality"
      recorded={facts.originality}
      defaults={{ matters: null, words: '' }}
    >
      <arriveOriginality.YesNo
        name="matters"
        yes="Yes: repair before replacing, ask the owner first"
        no="No"
      />
      <arriveOriginality.TextLine name="words" />
    </FactCard>
  );
}

export function MarksCard() {
  const { facts } = useJob().state;
  return (
    <FactList
      kind="arrive.mark"
      files
      title="Mark on arrival"
      recorded={facts.marks}
      defaults={{ view: null, kind: null, clock: null, film: null, note: '' }}
      action="Record mark"
    >
      <MarkFields />
    </FactList>
  );
}

export function EstimateCard() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="arrive.estimate"
      title="Estimate for extra work"
      recorded={facts.estimate}
      defaults={{ lines: [] }}
    >
      <EstimateFields />
    </FactCard>
  );
}

export function AgreementCard() {
  const { state, context } = useJob();
  const { facts } = state;
  return (
    <FactList
      kind="arrive.agreement"
      title="Later agreement"
      recorded={facts.agreements}
      defaults={{ what: '', upToMinor: null, by: '', how: null }}
    >
      <arriveAgreement.TextLine name="what" />
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <arriveAgreement.MoneyField
          name="upToMinor"
          currency={context.policy.currency}
          optional
          helper="blank if no price was named"
        />
        <arriveAgreement.TextLine name="by" helper="e.g. the owner or their partner, no names" />
      </Stack>
      <arriveAgreement.Choice name="how" options={optionsOf(AGREED_HOW)} />
    </FactList>
  );
}

export function ReadyCard() {
  const { facts } = useJob().state;
  const needs = useNeeds();
  return (
    <FactCard
      kind="arrive.ready"
      title="Ready to open?"
      recorded={facts.ready}
      defaults={{
        // Worked out from stock and tools, and shown above: nothing of it is anybody's word.
        cell: availability(needs, 'cell'),
        seal: availability(needs, 'ring'),
        closingTool: availability(needs, 'closing tool'),
        parts: availability(needs, 'opener'),
        riskAccepted: false,
      }}
    >
      <NeedsList needs={needs} />
      <arriveReady.Tick name="riskAccepted" />
    </FactCard>
  );
}

export function PartsCard() {
  const { facts } = useJob().state;
  const lacking = requestFor(useNeeds());
  return (
    <>
      <FactCard
        kind="arrive.parts-request"
        title="Parts requested"
        recorded={facts.partsRequest}
        key={JSON.stringify(lacking)}
        defaults={{
          lines: lacking.length > 0 ? lacking : [{ what: '', count: 1 }],
          supplier: '',
          expectedOn: null,
        }}
        action="Record request"
      >
        <RequestFields />
      </FactCard>
      <PromiseAfterParts />
      {facts.partsRequest && (
        <FactCard
          kind="arrive.parts-arrived"
          title="Parts arrived"
          recorded={facts.partsArrived}
          defaults={{ note: '' }}
          action="Record arrival"
        >
          <arrivePartsArrived.TextLine name="note" />
        </FactCard>
      )}
    </>
  );
}

export function DecisionCard() {
  const { state, asks } = useJob();
  const { facts } = state;
  return (
    <FactCard
      kind="arrive.decision"
      title="Refer or decline"
      recorded={facts.decision}
      defaults={{ decision: null, reason: null, to: '', told: '' }}
    >
      <arriveDecision.Choice
        name="decision"
        options={optionsOf(['referred', 'declined'])}
        wanted={asks('arrive.decision')}
      />
      <arriveDecision.ListChoice name="reason" options={optionsOrNone(REFER_REASONS, 'give the reason')} />
      <arriveDecision.TextLine name="to" />
      <arriveDecision.TextLine name="told" />
    </FactCard>
  );
}
