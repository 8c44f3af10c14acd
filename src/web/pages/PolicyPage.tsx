import {
  Alert,
  Box,
  Button,
  Checkbox,
  FormControl,
  FormControlLabel,
  FormLabel,
  Paper,
  Radio,
  RadioGroup,
  Stack,
  Typography,
} from '@mui/material';
import { type ReactNode, useId, useState } from 'react';
import { FormProvider, useController, useFieldArray, useWatch, useFormState } from 'react-hook-form';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { useResource } from '../api/resource';
import { capital } from '../../core/craft/judgement';
import {
  policyNumbers,
  type PolicyRevision,
  policySums,
  type PolicyWrite,
  policyWrite,
  shopWords,
} from '../../contract';
import {
  type OpenHours,
  REQUIREMENTS,
  type Requirement,
  SCHOOL_IDS,
  type SchoolId,
  SCHOOLS,
  SERVICES,
  type Service,
  STAGE_WORDS,
  STAGES,
  waysOf,
  WEEKDAYS,
  type Weekday,
} from '../../core/craft/policy';
import { localMoment } from '../../core/craft/time';
import { useCheckedForm, submitHandler } from '../kit/form';
import { useBench } from '../api/bench';
import { failedInWords, postJson } from '../api/http';
import { type SeenShop, useShop } from '../api/resources';
import { Loading } from '../kit/Loading';
import { Fold } from '../kit/Fold';
import { LampAnswer } from '../kit/Lamp';
import { colours } from '../kit/theme';
import { DescribedField } from '../kit/DescribedField';
import { MoneyField, TextLine } from '../kit/fields';
import { StageLayout } from '../kit/StageLayout';

function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Paper component="section" aria-label={title} sx={{ p: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Stack spacing={1.5}>{children}</Stack>
    </Paper>
  );
}

/** One question on which good technicians differ, each way with its reason. */
function SchoolChoice({ school }: { readonly school: SchoolId }) {
  const { field } = useController({ name: `policy.schools.${school}` });
  const labelId = useId();
  const { question, ways, usual } = SCHOOLS[school];
  return (
    <FormControl>
      <FormLabel id={labelId} sx={{ fontWeight: 700 }}>
        {question}
      </FormLabel>
      <RadioGroup
        aria-labelledby={labelId}
        value={field.value as string}
        onChange={(_, way) => field.onChange(way)}
      >
        {waysOf(school).map((way) => (
          <FormControlLabel
            key={way}
            value={way}
            control={<Radio />}
            label={
              <span>
                <strong>{capital(way)}</strong>
                {way === usual ? ', default' : ''}. {(ways as Readonly<Record<string, string>>)[way]}
              </span>
            }
          />
        ))}
      </RadioGroup>
    </FormControl>
  );
}

function DayHours({ day }: { readonly day: Weekday }) {
  const name = `policy.hours.${day}` as const;
  const { field } = useController({ name });
  const hours = field.value as OpenHours | null;
  return (
    <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
      <FormControlLabel
        sx={{ width: 150, flexShrink: 0 }}
        label={day}
        control={
          <Checkbox
            checked={hours !== null}
            onChange={(_, open) => field.onChange(open ? { from: '08:30', to: '17:30' } : null)}
          />
        }
      />
      {hours === null ? (
        <Typography color="text.secondary">closed</Typography>
      ) : (
        <>
          <TextLine name={`${name}.from`} label={`${day}, from`} mono />
          <TextLine name={`${name}.to`} label={`${day}, to`} mono />
        </>
      )}
    </Stack>
  );
}

/** What a service asks for, stage by stage. */
function ServiceFacts({ service }: { readonly service: Service }) {
  const { field, fieldState } = useController({ name: `policy.services.${service}.requires` });
  const asked = field.value as readonly Requirement[];
  const all = Object.keys(REQUIREMENTS) as Requirement[];
  return (
    <>
      <Fold
        summary={`${capital(service)} requires ${asked.length} facts`}
        sx={{ minHeight: 44, pt: 1, fontWeight: 400 }}
      >
        {STAGES.map((stage) => {
          const own = all.filter((requirement) => REQUIREMENTS[requirement].stage === stage);
          return own.length === 0 ? null : (
            <Box key={stage} role="group" aria-label={`${service}, ${STAGE_WORDS[stage]}`}>
              <Typography sx={{ fontWeight: 700 }}>{STAGE_WORDS[stage]}</Typography>
              {own.map((requirement) => (
                <FormControlLabel
                  key={requirement}
                  label={REQUIREMENTS[requirement].words}
                  control={
                    <Checkbox
                      checked={asked.includes(requirement)}
                      onChange={(_, on) =>
                        field.onChange(
                          on ? [...asked, requirement] : asked.filter((each) => each !== requirement),
                        )
                      }
                    />
                  }
                />
              ))}
            </Box>
          );
        })}
      </Fold>
      {fieldState.error && <Alert severity="error">{fieldState.error.message}</Alert>}
    </>
  );
}

function Earnings() {
  const currency = useWatch<PolicyWrite, 'policy.currency'>({ name: 'policy.currency' });
  return (
    <>
      <MoneyField
        name="policy.ownCostMinor"
        label={policySums.ownCostMinor.label}
        currency={currency}
        helper="labour and material, without tax"
      />
      <MoneyField
        name="policy.referralMarginMinor"
        label={policySums.referralMarginMinor.label}
        currency={currency}
      />
    </>
  );
}

function PriceList() {
  const currency = useWatch<PolicyWrite, 'policy.currency'>({ name: 'policy.currency' });
  const { fields, append, remove } = useFieldArray({ name: 'policy.extras' });
  const { errors } = useFormState<PolicyWrite>();
  const whole = errors.policy?.extras?.root?.message ?? errors.policy?.extras?.message;
  return (
    <>
      {SERVICES.map((service) => (
        <MoneyField
          key={service}
          name={`policy.services.${service}.priceMinor`}
          label={capital(service)}
          currency={currency}
        />
      ))}
      <Typography sx={{ fontWeight: 700 }}>Extras</Typography>
      {fields.map((field, index) => (
        <Stack key={field.id} direction="row" spacing={1.5} sx={{ alignItems: 'start' }}>
          <TextLine name={`policy.extras.${index}.what`} label={`Item ${index + 1}`} />
          <MoneyField
            name={`policy.extras.${index}.priceMinor`}
            label={`Price ${index + 1}`}
            currency={currency}
          />
          <Button
            onClick={() => remove(index)}
            aria-label={`Remove item ${index + 1}`}
            sx={{ flexShrink: 0 }}
          >
            Remove
          </Button>
        </Stack>
      ))}
      {whole && <Alert severity="error">{whole}</Alert>}
      <Button
        variant="outlined"
        onClick={() => append({ item: v7(), what: '' })}
        sx={{ alignSelf: 'flex-start' }}
      >
        Add item
      </Button>
    </>
  );
}

function PolicySections() {
  return (
    <>
      <Section title="The shop">
        <TextLine name="shop.name" label={shopWords.name} />
        <TextLine name="shop.place" label={shopWords.place} />
        <TextLine name="shop.zone" label={shopWords.zone} helper="e.g. Europe/Lisbon" />
      </Section>
      <Section title="Opening hours">
        {WEEKDAYS.map((day) => (
          <DayHours key={day} day={day} />
        ))}
      </Section>
      <Section title="Ways of working">
        {SCHOOL_IDS.map((school) => (
          <SchoolChoice key={school} school={school} />
        ))}
      </Section>
      <Section title="Price list">
        <TextLine name="policy.currency" label={shopWords.currency} mono />
        <PriceList />
      </Section>
      <Section title="Earnings of a job, to judge whether a tool pays">
        <Earnings />
      </Section>
      <Section title="Facts required by each service">
        {SERVICES.map((service) => (
          <ServiceFacts key={service} service={service} />
        ))}
      </Section>
      <Section title="Promises and testers">
        {Object.entries(policyNumbers).map(([name, spec]) => (
          <DescribedField key={name} name={`policy.${name}`} spec={spec} />
        ))}
      </Section>
    </>
  );
}

/** What holds now, and when it was changed by whom. */
function Revisions({ shop }: { readonly shop: SeenShop }) {
  const { revision } = shop.policy;
  const { data: revisions = [] } = useResource<PolicyRevision[]>('/api/policy/revisions', {
    kept: false,
    at: revision,
  });
  return (
    <>
      <LampAnswer
        question="Current policy"
        tone="good"
        answer={`Revision ${revision}`}
        reasons={['These rules apply from now on. A signed record keeps the revision of its day.']}
      />
      {revisions.map((each) => (
        <Typography key={each.revision} variant="body2">
          {each.revision}: {localMoment(each.recordedAt, shop.shop.zone)},{' '}
          {shop.technicians.find((person) => person.id === each.technicianId)?.initials ?? 'default'}
        </Typography>
      ))}
    </>
  );
}

function PolicyForm({ shop }: { readonly shop: SeenShop }) {
  const { technicianId } = useBench();
  const { revision, ...policy } = shop.policy;
  const [said, setSaid] = useState<{ readonly wrong: boolean; readonly text: string } | null>(null);
  const form = useCheckedForm<PolicyWrite>(policyWrite, {
    defaultValues: { shop: shop.shop, policy, basedOn: revision, technicianId: technicianId ?? '' },
  });
  const { isSubmitting } = useFormState({ control: form.control });
  const save = submitHandler(
    form,
    async (values) => {
      try {
        await postJson('/api/policy', { ...values, technicianId });
        await mutate('/api/shop');
      } catch (error) {
        setSaid({
          wrong: true,
          text: failedInWords(error, 'the policy was not saved.'),
        });
      }
    },
    () => setSaid({ wrong: true, text: 'The policy was not saved. Correct the fields marked above.' }),
  );
  return (
    <FormProvider {...form}>
      <StageLayout
        mat={
          <Stack
            component="form"
            spacing={2}
            noValidate
            aria-label="Policy"
            onSubmit={(event) => void save(event)}
          >
            <Typography variant="h1">Policy</Typography>
            <PolicySections />
            {said && <Alert severity={said.wrong ? 'error' : 'success'}>{said.text}</Alert>}
            <Box
              sx={{
                position: 'sticky',
                bottom: 0,
                py: 1,
                bgcolor: colours.tallow,
                borderTop: `1px solid ${colours.thread}`,
              }}
            >
              <Button
                type="submit"
                variant="contained"
                size="large"
                disabled={technicianId === null || isSubmitting}
              >
                Save policy
              </Button>
            </Box>
          </Stack>
        }
        lamp={<Revisions shop={shop} />}
      />
    </FormProvider>
  );
}

/** What the shop has decided: where good technicians differ, prices, hours, and what each service asks for. */
export default function PolicyPage() {
  const { data: shop } = useShop();
  return shop ? <PolicyForm key={shop.policy.revision} shop={shop} /> : <Loading what="the policy" />;
}
