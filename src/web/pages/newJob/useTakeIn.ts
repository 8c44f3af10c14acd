import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import { v7 } from 'uuid';
import { type Customer, type JobResource, type KnownWatch, makeEntry, type NewJob } from '../../../contract';
import { sameDetails } from '../../../core/logbook';
import { useBench } from '../../api/bench';
import { failedInWords, postJson } from '../../api/http';
import { type SeenShop, shopNow, useCustomer } from '../../api/resources';
import { GO_ON } from '../../job/BenchLayout';
import { useCheckedForm, submitHandler } from '../../kit/form';
import {
  type BegunVisit,
  DRAFT_KEY,
  emptyIntake,
  FACTS,
  type Intake,
  intake,
  intakeOf,
  keptIntake,
  saysWhen,
  takenIn,
} from './intake';

/** What is known of the owner and the watch beside what is typed. */
interface Known {
  /** The owner as found again, before anything was typed over it. */
  readonly owner: Customer | null;
  readonly watch: KnownWatch | null;
  /** Whether it comes back about its last job. */
  readonly comesBack: boolean;
}

/** The form a watch is taken in with, what is known beside it, and how it is sent: the very same at a second try. */
export function useTakeIn(shop: SeenShop, visit: BegunVisit | null) {
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
  const [known, setKnown] = useState<Known>({
    owner: visit?.customer ?? null,
    watch: null,
    comesBack: false,
  });
  const { data: owner } = useCustomer(known.owner?.id ?? null);
  const [firstTriedAt, setFirstTriedAt] = useState<string | null>(null);
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

  const entriesOf = (values: Intake, technicianId: string, occurredAt: string): NewJob['entries'] =>
    (Object.keys(FACTS) as (keyof typeof FACTS)[]).flatMap((fact, index) =>
      fact === 'stopped' && !saysWhen(values)
        ? []
        : makeEntry(FACTS[fact], values[fact], {
            id: ids.facts[index] ?? v7(),
            occurredAt,
            technicianId,
            bench: bench.name,
          }),
    );
  const take = submitHandler(form, async (values) => {
    if (!technician) return;
    setFailed(null);
    // Sent again it is the very same, or the server would take it for another watch under its id.
    const occurredAt = firstTriedAt ?? shopNow(shop);
    setFirstTriedAt(occurredAt);
    const seenOwner = known.owner;
    const job: NewJob = {
      id: ids.job,
      visitId: visit?.visitId ?? ids.visit,
      watchId: known.watch?.watchId ?? ids.newWatch,
      customer: values.customer,
      ...(seenOwner && owner
        ? {
            customerSeen: owner.revisions
              .filter((revision) => sameDetails(revision, seenOwner))
              .map(({ id }) => id),
          }
        : {}),
      followsJobId: known.comesBack && known.watch ? known.watch.jobId : null,
      entries: entriesOf(values, technician.id, occurredAt),
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
          'no ticket can be issued. Your entries stay in the form. Record them again when the server is back.',
        ),
      );
    }
  });
  return { form, take, failed, known, setKnown, mayTake: technician !== undefined };
}
