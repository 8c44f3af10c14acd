import {
  Alert,
  Button,
  Checkbox,
  FormControlLabel,
  LinearProgress,
  Paper,
  Stack,
  Typography,
} from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { FormProvider, useFormContext, useWatch, useFormState } from 'react-hook-form';
import { useSearchParams } from 'react-router';
import { type JobResource } from '../../contract';
import { promiseFor } from '../../core/advice/arrival';
import { SERVICES } from '../../core/craft/policy';
import { foldJob, RISKS } from '../../core/logbook';
import { useBook } from '../api/book';
import { useResource } from '../api/resource';
import { type SeenShop, shopNow, useShop } from '../api/resources';
import { optionsOf } from '../kit/fields';
import { Caution, LampAnswer } from '../kit/Lamp';
import { StageLayout } from '../kit/StageLayout';
import {
  ComplaintFields,
  PriceOfService,
  RiskFields,
  StoppedField,
  WatchFields,
} from '../stages/arrive/fields';
import { PromiseField } from '../stages/arrive/PromiseField';
import { FromElsewhere } from './newJob/FromElsewhere';
import { type BegunVisit, type Intake, intakeFields, under } from './newJob/intake';
import { CustomerFields, PutsOwnerRight, WhichWatch } from './newJob/OwnerFields';
import { useTakeIn } from './newJob/useTakeIn';

/** Asked of a watch that stopped: how long an accumulator lay flat, and how long a cell ran. */
function StoppedSince() {
  const picked = useWatch<Intake, 'complaint.picked'>({ name: 'complaint.picked' });
  return picked.includes('stopped') ? <StoppedField at={under('stopped')} /> : null;
}

/** Proposes a promise by the service: until a hand says when, a recharge is promised by what the lights of this shop give. */
function PromiseOfService({ shop }: { readonly shop: SeenShop }) {
  const { book } = useBook(shop.catalogueRevision);
  const form = useFormContext<Intake>();
  const service = useWatch<Intake, 'service.service'>({ name: 'service.service' });
  const [first] = useState(service);
  useEffect(() => {
    // What was typed before a reload, or holds for the whole visit, stays until another service is chosen.
    if (service === first || form.getFieldState('promise.promisedAt').isDirty) return;
    const { policy, shop: where } = shop;
    const promisedAt = promiseFor(service, null, {
      policy,
      shop: where,
      nowUtc: shopNow(shop),
      catalogue: book ?? null,
    });
    form.setValue('promise.promisedAt', promisedAt);
  }, [service, first, book, form, shop]);
  return null;
}

/** Fills in what the book knows of the case, once its reference is typed. */
function KnownCase({ shop }: { readonly shop: SeenShop }) {
  const { book } = useBook(shop.catalogueRevision);
  const form = useFormContext<Intake>();
  const reference = useWatch<Intake, 'watch.reference'>({ name: 'watch.reference' });
  const known = book?.caseTypeOfReference(reference) ?? null;
  useEffect(() => {
    if (!known) return;
    if (form.getValues('watch.maker') === '')
      form.setValue('watch.maker', book?.maker(known.makerId)?.name ?? '');
    form.setValue('watch.ratingBar', known.ratingBar);
    form.setValue('watch.crownClock', known.crownClock);
  }, [known, form, book]);
  return known ? (
    <LampAnswer
      question="The book knows this case"
      tone="good"
      answer={known.code}
      reasons={[
        `Back: ${known.backKind}.`,
        known.ratingBar === null ? 'No water rating.' : `Rated ${known.ratingBar} bar when new.`,
        `Crown at ${known.crownClock}.`,
      ]}
    />
  ) : (
    <LampAnswer
      question="The case"
      tone="open"
      answer="Not known yet"
      reasons={['Enter the reference or case code to see how the back opens.']}
    />
  );
}

/** Whose it is, and which of theirs. */
function WhoAndWhich({
  known,
  onKnown,
}: Pick<ReturnType<typeof useTakeIn>, 'known'> & {
  readonly onKnown: ReturnType<typeof useTakeIn>['setKnown'];
}) {
  return (
    <>
      <CustomerFields onKnown={(owner) => onKnown({ ...known, owner })} />
      {known.owner !== null && (
        <PutsOwnerRight
          known={known.owner}
          onAnother={() => onKnown({ ...known, owner: null, watch: null })}
        />
      )}
      {known.owner !== null && (
        <WhichWatch
          customerId={known.owner.id}
          watchId={known.watch?.watchId ?? null}
          onPick={(watch) => onKnown({ ...known, watch, comesBack: false })}
        />
      )}
      {known.watch && (
        <FormControlLabel
          control={
            <Checkbox
              checked={known.comesBack}
              onChange={(_, comesBack) => onKnown({ ...known, comesBack })}
            />
          }
          label={`Comeback of ${known.watch.ticket}`}
        />
      )}
    </>
  );
}

/** What is wrong, what is done, for how much and until when. */
function WorkFields({ shop }: { readonly shop: SeenShop }) {
  return (
    <>
      <ComplaintFields at={under('complaint')} />
      <StoppedSince />
      <intakeFields.Choice name="service.service" label="Service" options={optionsOf(SERVICES)} />
      <PriceOfService at={under('service')} policy={shop.policy} />
      <PromiseOfService shop={shop} />
      <PromiseField
        name="promise.promisedAt"
        zone={shop.shop.zone}
        nowUtc={shopNow(shop)}
        hours={shop.policy.hours}
      />
    </>
  );
}

function IntakeLamp({ shop }: { readonly shop: SeenShop }) {
  return (
    <>
      <KnownCase shop={shop} />
      <LampAnswer
        question="Tell the owner"
        tone="care"
        answer="Risks, before opening"
        reasons={Object.values(RISKS)}
      />
      <Caution>Ask who last changed the cell and when. A cheap cell may have leaked since.</Caution>
    </>
  );
}

function IntakeForm({ shop, visit }: { readonly shop: SeenShop; readonly visit: BegunVisit | null }) {
  const { form, take, failed, known, setKnown, mayTake } = useTakeIn(shop, visit);
  const { isSubmitting } = useFormState({ control: form.control });
  return (
    <FormProvider {...form}>
      <StageLayout
        mat={
          <Stack
            component="form"
            spacing={2}
            onSubmit={(event) => void take(event)}
            noValidate
            aria-label="New job"
          >
            <Typography variant="h1">New job</Typography>
            {!visit && <FromElsewhere />}
            {visit && <Typography>Another watch of the visit of {visit.ticket}.</Typography>}
            <Paper sx={{ p: 2 }}>
              <Stack spacing={1.5}>
                <WhoAndWhich known={known} onKnown={setKnown} />
                <WatchFields at={under('watch')} />
                <intakeFields.TextLine
                  name="customer.email"
                  label="E-mail"
                  helper="to send a message when the watch is ready"
                />
              </Stack>
            </Paper>
            <Paper sx={{ p: 2 }}>
              <Stack spacing={1.5}>
                <WorkFields shop={shop} />
              </Stack>
            </Paper>
            <Paper sx={{ p: 2 }}>
              <RiskFields at={under('consent')} />
              <intakeFields.Tick name="consent.given" label="The owner agrees to them" wanted />
            </Paper>
            {failed && <Alert severity="error">{failed}</Alert>}
            <Button
              type="submit"
              variant="contained"
              size="large"
              disabled={!mayTake || isSubmitting}
              sx={{ alignSelf: 'flex-start' }}
            >
              Take in
            </Button>
          </Stack>
        }
        lamp={<IntakeLamp shop={shop} />}
      />
    </FormProvider>
  );
}

/** Taking a watch in: owner, watch, complaint, service, promise and consent, then ticket and label. */
export default function NewJobView() {
  const { data: shop } = useShop();
  const [asked] = useSearchParams();
  const withJob = asked.get('with');
  const { data: job, error } = useResource<JobResource>(withJob === null ? null : `/api/jobs/${withJob}`, {
    kept: false,
  });
  const { book } = useBook(shop?.catalogueRevision);
  const visit = useMemo<BegunVisit | null>(() => {
    if (!job?.customer || !shop || !book) return null;
    const context = { catalogue: book, policy: shop.policy, shop: shop.shop, nowUtc: shop.nowUtc };
    return {
      visitId: job.job.visitId,
      ticket: job.job.ticket,
      customer: job.customer,
      promisedAt: foldJob(job.entries, context).facts.promise?.payload.promisedAt ?? null,
    };
  }, [job, shop, book]);
  // An erased owner begins no visit again: then it is a job like any other.
  const awaited = withJob !== null && !error && (job === undefined || (job.customer !== null && !visit));
  if (!shop || awaited) return <LinearProgress aria-label="Loading" />;
  return <IntakeForm key={withJob ?? 'new'} shop={shop} visit={visit} />;
}
