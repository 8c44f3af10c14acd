import {
  Alert,
  Autocomplete,
  Checkbox,
  FormControl,
  FormControlLabel,
  FormLabel,
  Radio,
  RadioGroup,
  Button,
  LinearProgress,
  Paper,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { useEffect, useId, useMemo, useState } from 'react';
import { FormProvider, useController, useFormContext, useWatch } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { mutate } from 'swr';
import { useResource } from '../api/resource';
import { v7 } from 'uuid';
import { z } from 'zod';
import {
  type Customer,
  customer,
  type FindResult,
  type JobImported,
  type JobResource,
  kindDefinition,
  makeEntry,
  type KnownWatch,
  type NewJob,
} from '../../contract';
import { promiseFor } from '../../core/advice/arrival';
import { type EntryKind, foldJob, RISKS, sameDetails, watchNameWithSerial } from '../../core/logbook';
import { SERVICES } from '../../core/craft/policy';
import { useBench } from '../api/bench';
import { failedInWords, postJson, sendFile } from '../api/http';
import { useBook } from '../api/book';
import { type SeenShop, useCustomer, useShop, shopNow } from '../api/resources';
import { Caution, LampAnswer } from '../kit/Lamp';
import { fieldsOf, optionsOf } from '../kit/fields';
import { FileButton } from '../kit/FileButton';
import { useCheckedForm, whenSent } from '../kit/form';
import { GO_ON } from '../job/BenchLayout';
import { StageLayout } from '../kit/StageLayout';
import {
  ComplaintFields,
  PriceOfService,
  RiskFields,
  StoppedField,
  WatchFields,
} from '../stages/arrive/fields';
import { PromiseField } from '../stages/arrive/PromiseField';
const FACTS = {
  watch: 'arrive.watch',
  complaint: 'arrive.complaint',
  stopped: 'arrive.stopped',
  service: 'arrive.service',
  promise: 'arrive.promise',
  consent: 'arrive.consent',
} as const satisfies Record<string, EntryKind>;

const intake = z.object({
  customer,
  watch: kindDefinition(FACTS.watch).schema,
  complaint: kindDefinition(FACTS.complaint).schema,
  stopped: kindDefinition(FACTS.stopped).schema,
  service: kindDefinition(FACTS.service).schema,
  promise: kindDefinition(FACTS.promise).schema,
  consent: kindDefinition(FACTS.consent).schema,
});
type Intake = z.infer<typeof intake>;

/** A field of one of the facts taken in at once. */
type IntakeField = { [Fact in keyof Intake]: `${Fact}.${keyof Intake[Fact] & string}` }[keyof Intake];
const intakeFields = fieldsOf<Record<IntakeField, unknown>>();
const under = <Fact extends keyof Intake>(fact: Fact): `${Fact}.` => `${fact}.`;

const DRAFT_KEY = 'wax-lantern.intake';
const QUERY_PAUSE_MS = 150;

function emptyIntake({ policy, shop }: Pick<SeenShop, 'policy' | 'shop'>, nowUtc: string): Intake {
  return {
    customer: { id: v7(), name: '', phone: '', email: '' },
    watch: { maker: '', reference: '', serial: '', engraved: '', ratingBar: null, crownClock: null },
    complaint: { picked: [], words: '' },
    stopped: { stoppedOn: null },
    service: { service: 'cell only', priceMinor: policy.services['cell only'].priceMinor },
    promise: { promisedAt: promiseFor('cell only', null, { policy, shop, nowUtc, catalogue: null }) },
    consent: { risks: ['old parts', 'water resistance'], given: false },
  };
}

/** Watches taken in from this page: their form tells its values once more as it goes, and the next one would open with them. */
const takenIn = new Set<string>();

/** The next watch of a visit: owner and promise as they are, the rest empty. */
function intakeOf(visit: BegunVisit, shop: SeenShop): Intake {
  const empty = emptyIntake(shop, shopNow(shop));
  return {
    ...empty,
    customer: visit.customer,
    promise: { promisedAt: visit.promisedAt ?? empty.promise.promisedAt },
  };
}

/** Wrong in kind, not merely half filled in: a draft of another version, or of another hand. */
const WRONG_SHAPE: readonly string[] = ['invalid_type', 'invalid_value', 'unrecognized_keys'];

/** What was typed before a reload, half filled in or not, as long as it has the shape of today's form. */
function keptIntake(): Intake | null {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(DRAFT_KEY) ?? 'null');
    const read = intake.safeParse(kept);
    const fits = read.success || !read.error.issues.some(({ code }) => WRONG_SHAPE.includes(code));
    return fits ? (kept as Intake) : null;
  } catch {
    return null;
  }
}

/** Whether it is said since when it stands; of a watch that runs nothing is recorded, whatever was typed before. */
const saysWhen = ({ complaint, stopped }: Pick<Intake, 'complaint' | 'stopped'>): boolean =>
  complaint.picked.includes('stopped') && stopped.stoppedOn !== null;

/** Asked of a watch that stopped: how long an accumulator lay flat, and how long a cell ran. */
function StoppedSince() {
  const picked = useWatch<Intake, 'complaint.picked'>({ name: 'complaint.picked' });
  return picked.includes('stopped') ? <StoppedField at={under('stopped')} /> : null;
}

/** The owner: found again by name or phone, or new. */
function CustomerFields({ onKnown }: { readonly onKnown: (customer: Customer) => void }) {
  const { field, fieldState } = useController<Intake, 'customer'>({ name: 'customer' });
  const { formState } = useFormContext<Intake>();
  const { value } = field;
  const [query, setQuery] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setQuery(value.name.trim()), QUERY_PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value.name]);
  const { data } = useResource<FindResult>(
    query.length < 2 ? null : `/api/find?q=${encodeURIComponent(query)}`,
    { kept: false, keepPreviousData: true },
  );
  const known = (query.length < 2 ? [] : (data?.customers ?? [])).filter(
    (each) => each.id !== value.id || each.name !== value.name,
  );
  const nameError = formState.errors.customer?.name?.message ?? fieldState.error?.message;
  return (
    <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
      <Autocomplete
        freeSolo
        fullWidth
        options={known}
        filterOptions={(options) => options}
        getOptionLabel={(option) => (typeof option === 'string' ? option : option.name)}
        getOptionKey={(option) => (typeof option === 'string' ? option : option.id)}
        inputValue={value.name}
        onInputChange={(_, name, reason) => {
          if (reason === 'input') field.onChange({ ...value, name });
        }}
        onChange={(_, picked) => {
          if (picked !== null && typeof picked !== 'string') {
            field.onChange(picked);
            onKnown(picked);
          }
        }}
        renderOption={({ key, ...props }, option) => (
          <li key={key} {...props}>
            {option.name}, {option.phone || 'no phone'}
          </li>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Owner"
            autoFocus
            error={nameError !== undefined}
            helperText={nameError ?? 'found again, or new'}
          />
        )}
      />
      <intakeFields.TextLine name="customer.phone" label="Phone" />
    </Stack>
  );
}

/** What is typed over an owner found again puts that owner right, on every job; or it is somebody else. */
function PutsOwnerRight({ known, onAnother }: { readonly known: Customer; readonly onAnother: () => void }) {
  const form = useFormContext<Intake>();
  const typed = useWatch<Intake, 'customer'>({ name: 'customer' });
  if (sameDetails(known, typed)) return null;
  return (
    <Alert
      severity="info"
      action={
        <Button
          color="inherit"
          onClick={() => {
            form.setValue('customer', { ...form.getValues('customer'), id: v7() });
            onAnother();
          }}
        >
          It is another person
        </Button>
      }
    >
      Puts {[known.name, known.phone].filter(Boolean).join(', ')} right, on every job.
    </Alert>
  );
}

/** Which of the owner's watches it is: one that was here before, described as it was then, or another. */
function WhichWatch({
  customerId,
  watchId,
  onPick,
}: {
  readonly customerId: string;
  readonly watchId: string | null;
  readonly onPick: (watch: KnownWatch | null) => void;
}) {
  const { data } = useCustomer(customerId);
  const form = useFormContext<Intake>();
  const labelId = useId();
  if (!data || data.watches.length === 0) return null;
  return (
    <FormControl>
      <FormLabel id={labelId}>Which watch?</FormLabel>
      <RadioGroup
        aria-labelledby={labelId}
        value={watchId ?? ''}
        onChange={(_, picked) => {
          const known = data.watches.find((each) => each.watchId === picked);
          onPick(known ?? null);
          if (known) form.setValue('watch', known.watch);
        }}
      >
        <FormControlLabel value="" control={<Radio />} label="One that was not here before" />
        {data.watches.map(({ watchId: id, ticket, watch }) => (
          <FormControlLabel
            key={id}
            value={id}
            control={<Radio />}
            label={`${watchNameWithSerial(watch)}, last ${ticket}`}
          />
        ))}
      </RadioGroup>
    </FormControl>
  );
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
      standing="good"
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
      standing="open"
      answer="Not known yet"
      reasons={['The reference or case code would tell how the back opens.']}
    />
  );
}

/** A visit already begun: its owner and promise hold for the next watch too. */
interface BegunVisit {
  readonly visitId: string;
  readonly ticket: string;
  readonly customer: Customer;
  readonly promisedAt: string | null;
}

function IntakeForm({ shop, visit }: { readonly shop: SeenShop; readonly visit: BegunVisit | null }) {
  const navigate = useNavigate();
  const bench = useBench();
  const technician = shop.technicians.find((each) => each.id === bench.technicianId);
  const [failed, setFailed] = useState<string | null>(null);
  const form = useCheckedForm<Intake>(intake, {
    defaultValues: visit ? intakeOf(visit, shop) : (keptIntake() ?? emptyIntake(shop, shopNow(shop))),
  });
  // The same ids at a second try, so that one watch never becomes two jobs.
  const [ids] = useState(() => ({
    job: v7(),
    visit: v7(),
    newWatch: v7(),
    facts: Object.keys(FACTS).map(() => v7()),
  }));
  /** The owner as found again, before anything was typed over it. */
  const [knownOwner, setKnownOwner] = useState<Customer | null>(visit?.customer ?? null);
  const { data: owner } = useCustomer(knownOwner?.id ?? null);
  const [firstTriedAt, setFirstTriedAt] = useState<string | null>(null);
  const [knownWatch, setKnownWatch] = useState<KnownWatch | null>(null);
  const [comesBack, setComesBack] = useState(false);
  useEffect(
    () =>
      form.subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          if (!visit && !takenIn.has(ids.job)) sessionStorage.setItem(DRAFT_KEY, JSON.stringify(values));
        },
      }),
    [form, visit, ids.job],
  );

  const take = whenSent(form, async (values) => {
    if (!technician) return;
    setFailed(null);
    // Sent again it is the very same, or the server would take it for another watch under its id.
    const occurredAt = firstTriedAt ?? shopNow(shop);
    setFirstTriedAt(occurredAt);
    const entries = (Object.keys(FACTS) as (keyof typeof FACTS)[]).flatMap((fact, index) =>
      fact === 'stopped' && !saysWhen(values)
        ? []
        : makeEntry(FACTS[fact], values[fact], {
            id: ids.facts[index] ?? v7(),
            occurredAt,
            technicianId: technician.id,
            bench: bench.name,
          }),
    );
    const job: NewJob = {
      id: ids.job,
      visitId: visit?.visitId ?? ids.visit,
      watchId: knownWatch?.watchId ?? ids.newWatch,
      customer: values.customer,
      ...(knownOwner && owner
        ? {
            customerSeen: owner.revisions
              .filter((revision) => sameDetails(revision, knownOwner))
              .map(({ id }) => id),
          }
        : {}),
      followsJobId: comesBack && knownWatch ? knownWatch.jobId : null,
      entries,
    };
    try {
      const taken = await postJson<JobResource['job']>('/api/jobs', job);
      takenIn.add(ids.job);
      sessionStorage.removeItem(DRAFT_KEY);
      await mutate('/api/rack');
      await navigate(`/jobs/${taken.id}/arrive`, { state: GO_ON });
    } catch (error) {
      setFailed(
        failedInWords(
          error,
          'a ticket cannot be given. What you typed stays here; record it again when the server is back.',
        ),
      );
    }
  });

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
                <CustomerFields onKnown={setKnownOwner} />
                {knownOwner !== null && (
                  <PutsOwnerRight
                    known={knownOwner}
                    onAnother={() => {
                      setKnownOwner(null);
                      setKnownWatch(null);
                    }}
                  />
                )}
                {knownOwner !== null && (
                  <WhichWatch
                    customerId={knownOwner.id}
                    watchId={knownWatch?.watchId ?? null}
                    onPick={(watch) => {
                      setKnownWatch(watch);
                      setComesBack(false);
                    }}
                  />
                )}
                {knownWatch && (
                  <FormControlLabel
                    control={<Checkbox checked={comesBack} onChange={(_, on) => setComesBack(on)} />}
                    label={`It comes back about ${knownWatch.ticket}`}
                  />
                )}
                <WatchFields at={under('watch')} />
                <intakeFields.TextLine
                  name="customer.email"
                  label="E-mail"
                  helper="of the owner, to be told when it is ready"
                />
              </Stack>
            </Paper>
            <Paper sx={{ p: 2 }}>
              <Stack spacing={1.5}>
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
              disabled={!technician || form.formState.isSubmitting}
              sx={{ alignSelf: 'flex-start' }}
            >
              Take it in
            </Button>
          </Stack>
        }
        lamp={
          <>
            <KnownCase shop={shop} />
            <LampAnswer
              question="What the owner must hear"
              standing="care"
              answer="Risks, before opening"
              reasons={Object.values(RISKS)}
            />
            <Caution>Ask who last changed the cell and when: a cheap cell may have leaked by now.</Caution>
          </>
        }
      />
    </FormProvider>
  );
}

/** A job or visit that was saved at another counter: taken in whole, and never twice. */
function FromElsewhere() {
  const navigate = useNavigate();
  const [said, setSaid] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setSaid(null);
    try {
      const imported = await sendFile<JobImported[]>('/api/jobs/import', file);
      await mutate('/api/rack');
      const [first] = imported;
      if (first) await navigate(`/jobs/${first.jobId}`);
    } catch (error) {
      setSaid(`${file.name}: ${failedInWords(error, 'nothing was taken in.')}`);
    }
  };
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
      <Typography color="text.secondary">Saved at another counter?</Typography>
      <FileButton
        label="Job file from another counter"
        accept=".json,application/json"
        onFiles={([file]) => {
          if (file) void take(file);
        }}
      >
        Take a job file in
      </FileButton>
      {said && <Alert severity="error">{said}</Alert>}
    </Stack>
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
  // An owner who was erased begins no visit again: then it is a job like any other.
  const awaited = withJob !== null && !error && (job === undefined || (job.customer !== null && !visit));
  if (!shop || awaited) return <LinearProgress aria-label="Loading" />;
  return <IntakeForm key={withJob ?? 'new'} shop={shop} visit={visit} />;
}
