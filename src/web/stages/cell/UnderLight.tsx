import { Stack, Typography } from '@mui/material';
import { lazy, Suspense, useMemo } from 'react';
import { useFormContext } from 'react-hook-form';
import {
  type ChargeHere,
  chargeHere,
  chargeUnderLight,
  lightRack,
  placesFor,
  startOnRecord,
} from '../../../core/advice/charging';
import { CHARGE_STATES, type ChargingPlan } from '../../../core/craft/charging';
import { capital, figure } from '../../../core/craft/judgement';
import { localTime } from '../../../core/craft/time';
import type { Calibre } from '../../../core/craft/movements';
import { useRack } from '../../api/resources';
import { Columns } from '../../kit/Columns';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { Caution, LampAnswer, type LampTone, Working } from '../../kit/Lamp';
import { NativeSelect } from '../../kit/NativeSelect';
import { FactCard } from '../../job/FactCard';
import { FactList } from '../../job/FactList';
import { useJob } from '../../job/JobContext';

const Curve = lazy(() => import('../../figures/Curve'));

const lit = factFields('cell.lit');

const STANDING: Readonly<Record<ChargingPlan['verdict'], LampTone>> = {
  charges: 'good',
  'never full': 'care',
  'does not charge': 'no',
  'not known': 'open',
  refused: 'no',
};

/** The light on the watch and when it is charged, line by line. */
function ChargeSeen({ here }: { readonly here: ChargeHere }) {
  const { context } = useJob();
  const { zone } = context.shop;
  const { there, plan } = here;
  const at = (utc: string | null): string => (utc === null ? 'never' : localTime(utc, zone));
  return (
    <Stack spacing={0.5}>
      {there.lux !== null && (
        <Typography>
          {figure(there.lux, 0)} lx on the watch
          {there.caseC === null ? '' : `, case temperature ${figure(there.caseC, 0)} °C`}.
        </Typography>
      )}
      {there.reasons.map((reason) => (
        <Caution key={reason} grave={there.verdict === 'too hot'}>
          {reason}
        </Caution>
      ))}
      {plan?.marks
        .filter(({ share }) => share !== null)
        .map(({ mark, likelyUtc, earliestUtc, latestUtc, lightH }) => (
          <Typography key={mark}>
            <strong>{capital(mark)}:</strong> {at(likelyUtc)}
            {likelyUtc !== null && `, between ${at(earliestUtc)} and ${at(latestUtc)}`}
            {lightH !== null && lightH > 0 && `; ${figure(lightH, 1)} h under this light`}.
          </Typography>
        ))}
      {plan?.reasons.map((reason) => (
        <Typography key={reason} color="text.secondary">
          {reason}
        </Typography>
      ))}
    </Stack>
  );
}

/** How the charge goes over the days, likely and within what 95 of 100 lie. */
function Course({ plan }: { readonly plan: ChargingPlan }) {
  const { context } = useJob();
  const { zone } = context.shop;
  if (plan.curve.length === 0) return null;
  const full = plan.marks.find(({ mark }) => mark === 'full');
  return (
    <Suspense>
      <Curve
        title="Charge under this light"
        says={`likely full ${full?.likelyUtc ? localTime(full.likelyUtc, zone) : 'never'}`}
        as="line"
        along={{
          label: 'local time',
          places: plan.curve.map(({ atUtc }) => localTime(atUtc, zone, 'ddd D HH:mm')),
        }}
        up={{ label: 'of full, most likely', unit: '%' }}
        values={plan.curve.map(({ likely }) => likely * 100)}
        limits={plan.marks.flatMap(({ mark, share }) =>
          share === null || mark === 'full' ? [] : [{ label: mark, value: share * 100 }],
        )}
        band={{
          label: '95 % interval',
          low: plan.curve.map(({ low }) => low * 100),
          high: plan.curve.map(({ high }) => high * 100),
        }}
      />
    </Suspense>
  );
}

/** What is typed, worked out as it is typed. */
function Preview({ calibre }: { readonly calibre: Calibre }) {
  const { context } = useJob();
  const placeId = lit.useValue('placeId');
  const distanceMm = lit.useValue('distanceMm');
  const roomC = lit.useValue('roomC');
  const shows = lit.useValue('shows');
  const percent = lit.useValue('percent');
  const here = useMemo(
    () =>
      placeId && typeof roomC === 'number' && Number.isFinite(roomC)
        ? chargeHere(
            calibre,
            {
              placeId,
              distanceMm: distanceMm ?? null,
              roomC,
              shows: shows ?? null,
              percent: percent ?? null,
              fromUtc: context.nowUtc,
              seen: [],
            },
            context,
          )
        : null,
    [calibre, placeId, distanceMm, roomC, shows, percent, context],
  );
  return here && <ChargeSeen here={here} />;
}

function PlaceFields({ calibre }: { readonly calibre: Calibre }) {
  const { book, state, context } = useJob();
  const form = useFormContext();
  const onRecord = startOnRecord(state, context);
  const placeId = lit.useValue('placeId');
  const place = book.lightPlaces.find(({ id }) => id === placeId);
  return (
    <>
      <Columns>
        <NativeSelect
          label="Light place"
          value={placeId ?? ''}
          options={[
            { value: '', label: 'not chosen' },
            ...book.lightPlaces.map(({ id, name, lux }) => ({
              value: id,
              label: `${name}, ${figure(lux, 0)} lx`,
            })),
          ]}
          onChange={(id) => {
            form.setValue('placeId', id);
            form.setValue('placeName', book.lightPlaces.find((each) => each.id === id)?.name ?? '');
            form.setValue('distanceMm', null);
          }}
        />
        {place && place.measuredAtMm !== null && (
          <lit.MeasureField
            name="distanceMm"
            quantity="lengthMm"
            optional
            helper={`blank: ${place.measuredAtMm} mm, as measured`}
          />
        )}
        <lit.MeasureField name="roomC" quantity="temperatureC" helper="°C, as read now" />
        <lit.MeasureField
          name="percent"
          quantity="figureOnly"
          unitShown="%"
          optional
          helper="blank if you go by its steps"
        />
      </Columns>
      <lit.Choice name="shows" options={optionsOf(CHARGE_STATES)} />
      {onRecord && (
        <Typography color="text.secondary">
          On record: {onRecord.shows}, {onRecord.because}. Enter what you see now.
        </Typography>
      )}
      <Preview calibre={calibre} />
    </>
  );
}

/** A watch that is charged by light: under which, since when, and what is seen of it there. */
export function UnderLightCards({ calibre }: { readonly calibre: Calibre }) {
  const { state, book, context } = useJob();
  const lies = state.facts.underLight;
  const here = useMemo(() => chargeUnderLight(state, context), [state, context]);
  if (book.lightPlaces.length === 0)
    return (
      <Typography color="text.secondary">
        This shop has no light place yet. Measure one and enter it under Tools to get charging times.
      </Typography>
    );
  return (
    <>
      <FactCard
        kind="cell.lit"
        title="Under the light"
        recorded={lies?.put ?? null}
        defaults={{
          placeId: '',
          placeName: '',
          distanceMm: null,
          roomC: undefined,
          shows: null,
          percent: null,
        }}
        action="Record placement"
      >
        <PlaceFields calibre={calibre} />
      </FactCard>
      {lies && (
        <FactList
          kind="cell.lit-seen"
          title="Check under the light"
          recorded={lies.seen}
          defaults={{}}
          answers={[
            { label: 'Steps normally', payload: { stepsNormally: true } },
            { label: 'Not yet', payload: { stepsNormally: false } },
          ]}
        />
      )}
      {here?.plan && <Course plan={here.plan} />}
    </>
  );
}

/** What each light of this shop would do for it, the soonest first. */
function WhichLight({ calibre }: { readonly calibre: Calibre }) {
  const { context } = useJob();
  const offers = useMemo(() => placesFor(calibre, context), [calibre, context]);
  const [best] = offers;
  if (best === undefined) return null;
  const { zone } = context.shop;
  const at = (utc: string): string => localTime(utc, zone);
  return (
    <LampAnswer
      question="Light places compared, from flat"
      tone={best.readyUtc === null ? 'care' : 'good'}
      answer={best.readyUtc === null ? 'No light place is known to charge it' : capital(best.place.name)}
      reasons={offers.map(({ place, verdict, readyUtc, readyLatestUtc }) =>
        readyUtc === null
          ? `${capital(place.name)}: ${verdict}.`
          : `${capital(place.name)}: ready ${at(readyUtc)}, ${readyLatestUtc === null ? 'or never' : `at the latest ${at(readyLatestUtc)}`}.`,
      )}
    />
  );
}

/** That it lies in the shade of its place, where others were laid down before it; nothing where it has the light. */
function WaitsForRoom() {
  const { resource, book, context } = useJob();
  const { data: jobs } = useRack();
  const own = lightRack(jobs ?? [], book.lightPlaces, context.nowUtc)
    .places.flatMap(({ watches }) => watches)
    .find(({ job }) => job.id === resource.job.id);
  if (!own?.waits) return null;
  return (
    <Caution>
      It is in the shade. Watches placed before it have the light. Room{' '}
      {own.roomFromUtc === null
        ? 'once one of them is taken away'
        : `from ${localTime(own.roomFromUtc, context.shop.zone)}`}
      . Move it, or record it again when it has the light. The times below count from when it was placed.
    </Caution>
  );
}

/** When it will be charged where it lies, or could be. */
export function UnderLightLamp({ calibre }: { readonly calibre: Calibre }) {
  const { state, context } = useJob();
  const here = useMemo(() => chargeUnderLight(state, context), [state, context]);
  if (here === null) return calibre.charge?.by === 'light' ? <WhichLight calibre={calibre} /> : null;
  const { place, there, plan } = here;
  const ready = plan?.marks.find(({ mark }) => mark === 'hand back');
  return (
    <>
      <WaitsForRoom />
      <LampAnswer
        question={`Under ${place.name}`}
        tone={there.verdict === 'too hot' ? 'no' : plan === null ? 'open' : STANDING[plan.verdict]}
        answer={
          plan === null
            ? capital(there.verdict)
            : ready?.likelyUtc
              ? `Ready ${localTime(ready.likelyUtc, context.shop.zone)}`
              : capital(plan.verdict)
        }
      >
        <ChargeSeen here={here} />
      </LampAnswer>
      <Working lines={[...there.working, ...(plan?.working ?? [])]} />
    </>
  );
}
