import { Alert, Button, Paper, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { type CustomerResource, type NewOwnerRevision, ownerRevision } from '../../contract';
import { type OwnerDetails, type OwnerRevision, activeRevisions } from '../../core/logbook';
import { localMoment } from '../../core/craft/time';
import { useBench } from '../api/bench';
import { failedInWords, postJson } from '../api/http';
import type { SeenShop } from '../api/resources';
import { fieldsOf } from '../kit/fields';
import { useCheckedForm, submitHandler } from '../kit/form';
import { Fold } from '../kit/Fold';

const fields = fieldsOf<NewOwnerRevision>();

const detailsWords = ({ name, phone, email }: OwnerDetails): string =>
  [name, phone || 'no phone', email || 'no e-mail'].join(', ');

function EarlierDetails({
  revisions,
  shop,
}: {
  readonly revisions: readonly OwnerRevision[];
  readonly shop: SeenShop;
}) {
  const active = activeRevisions(revisions);
  return (
    <Fold summary={`Earlier details (${revisions.length})`} sx={{ minHeight: 44, pt: 1 }}>
      {[...revisions].reverse().map((revision) => (
        <Typography key={revision.id}>
          {toldWords(revision, shop)}: {detailsWords(revision)}
          {active.includes(revision) ? ', current' : ''}
        </Typography>
      ))}
    </Fold>
  );
}

/** How an owner is reached, put right in the place of what is shown; every hand's version stays to be seen. */
export function OwnerDetailsCard({
  owner,
  shop,
}: {
  readonly owner: CustomerResource;
  readonly shop: SeenShop;
}) {
  const { customer, revisions } = owner;
  const bench = useBench();
  const [correcting, setCorrecting] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const active = activeRevisions(revisions);
  const send = async (revision: NewOwnerRevision): Promise<void> => {
    try {
      await postJson<CustomerResource>(`/api/customers/${customer.id}/details`, revision);
      await mutate(`/api/customers/${customer.id}`);
      setFailed(null);
      setCorrecting(false);
    } catch (error) {
      setFailed(failedInWords(error, 'nothing was changed.'));
    }
  };
  return (
    <>
      {active.length > 1 && (
        <Disagreement
          rivals={active}
          shop={shop}
          locked={bench.technicianId === null}
          onPick={({ name, phone, email }) =>
            void send({
              id: v7(),
              name,
              phone,
              email,
              supersedes: active.map(({ id }) => id),
              technicianId: bench.technicianId ?? '',
            })
          }
        />
      )}
      <Paper component="section" aria-label="Contact" sx={{ p: 2 }}>
        {correcting && bench.technicianId !== null ? (
          <DetailsForm
            start={{
              id: v7(),
              name: customer.name,
              phone: customer.phone,
              email: customer.email,
              supersedes: active.map(({ id }) => id),
              technicianId: bench.technicianId,
            }}
            onSend={send}
            onLeave={() => setCorrecting(false)}
          />
        ) : (
          <Stack direction="row" spacing={2} sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
            <div>
              <Typography>{customer.phone || 'No phone'}</Typography>
              <Typography>{customer.email || 'No e-mail'}</Typography>
            </div>
            <Button onClick={() => setCorrecting(true)} disabled={bench.technicianId === null}>
              Correct
            </Button>
          </Stack>
        )}
        {failed && <Alert severity="error">{failed}</Alert>}
        {revisions.length > 1 && <EarlierDetails revisions={revisions} shop={shop} />}
      </Paper>
    </>
  );
}

function toldWords({ technicianId, recordedAt }: OwnerRevision, shop: SeenShop): string {
  const who = shop.technicians.find(({ id }) => id === technicianId)?.initials ?? 'not recorded';
  return `${localMoment(recordedAt, shop.shop.zone)}, ${who}`;
}

/** Two hands put the same right at once: a person says which holds. */
function Disagreement({
  rivals,
  shop,
  locked,
  onPick,
}: {
  readonly rivals: readonly OwnerRevision[];
  readonly shop: SeenShop;
  readonly locked: boolean;
  readonly onPick: (revision: OwnerRevision) => void;
}) {
  return (
    <Alert severity="warning" icon={false} role="region" aria-label="Conflicting details" sx={{ border: 1 }}>
      <Typography sx={{ fontWeight: 700 }}>
        {rivals.length} people changed this owner at the same time. Which details are right?
      </Typography>
      <Stack spacing={1} sx={{ mt: 1 }}>
        {rivals.map((rival) => (
          <Stack key={rival.id} direction="row" spacing={2} sx={{ alignItems: 'center' }}>
            <Button variant="outlined" disabled={locked} onClick={() => onPick(rival)}>
              {detailsWords(rival)}
            </Button>
            <Typography>{toldWords(rival, shop)}</Typography>
          </Stack>
        ))}
      </Stack>
    </Alert>
  );
}

function DetailsForm({
  start,
  onSend,
  onLeave,
}: {
  readonly start: NewOwnerRevision;
  readonly onSend: (revision: NewOwnerRevision) => Promise<void>;
  readonly onLeave: () => void;
}) {
  const form = useCheckedForm<NewOwnerRevision>(ownerRevision, { defaultValues: start });
  return (
    <FormProvider {...form}>
      <Stack
        component="form"
        spacing={1.5}
        noValidate
        aria-label="Owner’s details"
        onSubmit={(event) => void submitHandler(form, onSend)(event)}
      >
        <fields.TextLine name="name" label="Name" autoFocus />
        <fields.TextLine name="phone" label="Phone" />
        <fields.TextLine name="email" label="E-mail" />
        <Stack direction="row" spacing={1.5}>
          <Button type="submit" variant="contained">
            Record
          </Button>
          <Button onClick={onLeave}>Cancel</Button>
        </Stack>
      </Stack>
    </FormProvider>
  );
}
