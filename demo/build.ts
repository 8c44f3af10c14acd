import { v5 } from 'uuid';
import { kindDefinition, type NewEntry } from '../src/contract';
import { handback } from '../src/core/handback';
import { foldJob, type EntryKind, type Payloads } from '../src/core/logbook';
import { addMinutes } from '../src/core/time';
import { openStore, type Store } from '../src/server/store';
import { calibres, caseTypes, gaskets, makers } from './book';
import { DEMO_START_UTC, type DemoJob, jobs, lots, shop, type TechnicianKey, technicians } from './scenario';

const NAMESPACE = '6f1d2a7c-3b54-4e0e-9a61-0c5b8f2d9e10';

/** The same name gives the same id in every build of the demo. */
export function demoId(...names: readonly (string | number)[]): string {
  return v5(names.join('/'), NAMESPACE);
}

/** Writes the invented makers, calibres and case types into a shop's book. */
export function writeBook(store: Store): void {
  store.catalogue.write('maker', makers);
  store.catalogue.write('calibre', calibres);
  store.catalogue.write('caseType', caseTypes);
  store.catalogue.write('gasket', gaskets);
}

/** Builds the demo's database in an empty folder, through the same store the application writes with. */
export function buildDemo(dataDir: string): void {
  let now = addMinutes(DEMO_START_UTC, -60 * 24 * 365 * 3);
  const store = openStore({ dataDir, clock: { nowUtc: () => now }, demo: true, shop });
  for (const { key, name, initials } of technicians)
    store.shops.addTechnician({ id: demoId('technician', key), name, initials });
  writeBook(store);
  for (const delivery of lots) {
    store.stock.receive({
      ...delivery,
      id: demoId('lot', delivery.lotCode),
      technicianId: demoId('technician', 'edda'),
    });
  }

  let made = 0;
  const entry = <K extends EntryKind>(
    job: DemoJob,
    kind: K,
    payload: Payloads[K],
    more: { by?: TechnicianKey; well?: string; supersedes?: string[] } = {},
  ): NewEntry => {
    made += 1;
    return {
      id: demoId('entry', job.key, made),
      kind,
      payload,
      payloadVersion: kindDefinition(kind).version,
      occurredAt: now,
      technicianId: demoId('technician', more.by ?? job.technician),
      bench: 'window bench',
      well: more.well ?? null,
      supersedes: more.supersedes ?? [],
      withdraws: null,
      attachments: [],
    } as unknown as NewEntry;
  };
  const append = (jobId: string, given: NewEntry): void => {
    const appended = store.logbook.append(jobId, given);
    if (!('entry' in appended))
      throw new Error(`Demo entry ${given.kind} of ${jobId}: ${JSON.stringify(appended)}`);
  };

  for (const job of [...jobs].sort((a, b) => b.arrivedMinutesAgo - a.arrivedMinutesAgo)) {
    const arrived = addMinutes(DEMO_START_UTC, -job.arrivedMinutesAgo);
    const jobId = demoId('job', job.key);
    now = arrived;
    const service = job.service ?? { service: 'cell only', priceMinor: 1400 };
    const taken = store.logbook.takeIn({
      id: jobId,
      visitId: demoId('visit', job.key),
      watchId: demoId('watch', job.sameWatchAs ?? job.key),
      customer: { id: demoId('customer', job.sameWatchAs ?? job.key), ...job.customer },
      entries: [
        entry(job, 'arrive.watch', job.watch),
        entry(job, 'arrive.complaint', job.complaint),
        entry(job, 'arrive.service', service),
        entry(job, 'arrive.promise', { promisedAt: addMinutes(DEMO_START_UTC, job.promisedInMinutes) }),
        entry(job, 'arrive.consent', {
          risks: ['old parts', 'water resistance'],
          given: job.consent ?? true,
        }),
      ],
    });
    if (!('job' in taken)) throw new Error(`Demo job ${job.key}: ${JSON.stringify(taken)}`);
    let lastOfKind = new Map<EntryKind, string>();
    for (const step of job.steps) {
      now = addMinutes(arrived, step.minutes);
      const payload =
        step.kind === 'cell.fitted'
          ? { ...step.payload, lotId: demoId('lot', step.payload.lotCode) }
          : step.payload;
      const corrected = step.corrects ? lastOfKind.get(step.corrects) : undefined;
      const given = entry(job, step.kind, payload, {
        ...(step.by ? { by: step.by } : {}),
        ...(step.well ? { well: step.well } : {}),
        supersedes: corrected ? [corrected] : [],
      });
      append(jobId, given);
      // A correction leaves the first entry the target, so that two rivals make the conflict of the scenario.
      if (!step.corrects) lastOfKind = lastOfKind.set(step.kind, given.id);
    }
    if (job.signedAfter !== undefined) {
      now = addMinutes(arrived, job.signedAfter);
      const entries = store.logbook.job(jobId)?.entries ?? [];
      const context = store.context();
      const state = foldJob(entries, context);
      const result = handback(state, store.stock.lots(), context);
      if (result.verdict === 'not ready') throw new Error(`Demo job ${job.key}: ${result.reasons.join(' ')}`);
      append(
        jobId,
        entry(job, 'handback.signed', {
          initials: technicians.find(({ key }) => key === job.technician)?.initials ?? '',
          catalogueRevision: context.catalogue.revision,
          policyRevision: context.policy.revision,
          restsOnSequence: state.lastSequence,
          statement: result.statement,
        }),
      );
    }
    if (job.collectedAfter !== undefined) {
      now = addMinutes(arrived, job.collectedAfter);
      append(jobId, entry(job, 'handback.collected', { by: 'the owner', paidMinor: service.priceMinor }));
    }
  }
  store.close();
}
