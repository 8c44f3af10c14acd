import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { v5 } from 'uuid';
import { DEVICE_IDS, makeEntry, type NewEntry } from '../src/contract';
import { recordsIn } from '../src/core/craft/book';
import { withinHours } from '../src/core/advice/dayplan';
import { handback } from '../src/core/advice/handback';
import { DEFAULT_POLICY } from '../src/core/craft/policy';
import { foldJob, type EntryKind, type Payloads } from '../src/core/logbook';
import { addMinutes } from '../src/core/craft/time';
import { TOOL_KINDS } from '../src/core/craft/tools';
import { builtProgramId } from '../src/server/program';
import { openStore, type Store } from '../src/server/store/store';
import { calibres, caseTypes, gaskets, makers } from './book';
import { history } from './history';
import { order, DEMO_START_UTC, jobs, lots, shop } from './scenario';
import { tools } from './tools';
import { type DemoJob, LAST_TEST, type Step, type TechnicianKey, technicians } from './steps';

const NAMESPACE = '6f1d2a7c-3b54-4e0e-9a61-0c5b8f2d9e10';
const PICTURES = join('src', 'server', 'devices', 'drivers', 'pictures');

/** The program that serves the demo: it was built from the same sources before. Answers stored by it are not worked out again. */
export const demoProgram = (): string => builtProgramId(join('dist', 'server'));

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
  for (const kind of TOOL_KINDS) store.catalogue.write(kind, recordsIn(kind, tools));
}

/**
 * Builds the demo's database in an empty folder, through the same store the application writes with. `withPast`: with the
 * hundreds of jobs of the years before, too.
 */
export async function buildDemo(dataDir: string, { withPast = true } = {}): Promise<void> {
  let now = addMinutes(DEMO_START_UTC, -60 * 24 * 365 * 3);
  const store = openStore({
    dataDir,
    clock: { nowUtc: () => now },
    demo: true,
    shop,
    program: demoProgram(),
  });
  for (const { key, name, initials } of technicians)
    store.shops.addTechnician({ id: demoId('technician', key), name, initials });
  writeBook(store);
  for (const id of DEVICE_IDS) store.devices.change(id, { connected: true });
  const past = withPast ? history(store.catalogue.book()) : { jobs: [], lots: [] };
  const all = [...past.jobs, ...jobs];
  const pictures = new Map<string, string>();
  for (const picture of new Set(all.flatMap((job) => job.steps.flatMap((step) => step.picture ?? [])))) {
    const kept = await store.attachments.keep(
      Readable.from([readFileSync(join(PICTURES, `${picture}.png`))]),
      {
        name: `${picture}.png`,
        technicianId: demoId('technician', 'edda'),
      },
    );
    if (kept.outcome === 'kept') pictures.set(picture, kept.attachment.hash);
  }

  let made = 0;
  const entry = <K extends EntryKind>(
    job: DemoJob,
    kind: K,
    payload: Payloads[K],
    more: { by?: TechnicianKey; well?: string; supersedes?: string[]; attachments?: string[] } = {},
  ): NewEntry => {
    made += 1;
    const { by = job.technician, ...rest } = more;
    return makeEntry(kind, payload, {
      id: demoId('entry', job.key, made),
      occurredAt: now,
      technicianId: demoId('technician', by),
      bench: 'window bench',
      ...rest,
    });
  };
  const append = (jobId: string, given: NewEntry): void => {
    const appended = store.logbook.append(jobId, given);
    if (!('entry' in appended))
      throw new Error(`Demo entry ${given.kind} of ${jobId}: ${JSON.stringify(appended)}`);
  };

  const receive = (): void => {
    for (const delivery of [...past.lots, ...lots]) {
      store.stock.receive({
        ...delivery,
        id: demoId('lot', delivery.lotCode),
        technicianId: demoId('technician', 'edda'),
      });
    }
  };

  /** Takes a watch in, records what happened, and signs and hands it over where the story says so. */
  const tell = (job: DemoJob): void => {
    const arrived = addMinutes(DEMO_START_UTC, -job.arrivedMinutesAgo);
    const jobId = demoId('job', job.key);
    now = arrived;
    const service = job.service ?? { service: 'cell only', priceMinor: 1400 };
    const owner = job.sameWatchAs ?? job.sameVisitAs ?? job.key;
    const taken = store.logbook.takeIn({
      id: jobId,
      visitId: demoId('visit', job.sameVisitAs ?? job.key),
      watchId: demoId('watch', job.sameWatchAs ?? job.key),
      customer: { id: demoId('customer', owner), ...job.customer },
      followsJobId: job.comesBackAbout === undefined ? null : demoId('job', job.comesBackAbout),
      entries: [
        entry(job, 'arrive.watch', job.watch),
        entry(job, 'arrive.complaint', job.complaint),
        entry(job, 'arrive.service', service),
        entry(job, 'arrive.promise', {
          promisedAt: withinHours(
            addMinutes(DEMO_START_UTC, job.promisedInMinutes),
            DEFAULT_POLICY.hours,
            shop.zone,
          ),
        }),
        entry(job, 'arrive.consent', {
          risks: ['old parts', 'water resistance'],
          given: job.consent ?? true,
        }),
      ],
    });
    if (!('job' in taken)) throw new Error(`Demo job ${job.key}: ${JSON.stringify(taken)}`);
    const lastOfKind = new Map<EntryKind, string>();
    const partsOff: string[] = [];
    for (const step of job.steps) {
      now = addMinutes(arrived, step.minutes);
      const corrected = step.corrects ? lastOfKind.get(step.corrects) : undefined;
      const picture = step.picture === undefined ? undefined : pictures.get(step.picture);
      const given = entry(
        job,
        step.kind,
        payloadOf(step, pictures, partsOff, lastOfKind.get('test.made') ?? ''),
        {
          ...(step.by ? { by: step.by } : {}),
          ...(step.well ? { well: step.well } : {}),
          supersedes: corrected ? [corrected] : [],
          attachments: picture === undefined ? [] : [picture],
        },
      );
      append(jobId, given);
      if (step.kind === 'open.part') partsOff.push(given.id);
      // A correction leaves the first entry the target, so that two rivals make the conflict of the scenario.
      if (!step.corrects) lastOfKind.set(step.kind, given.id);
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
  };

  // One transaction for the whole story: nobody waits for each of its thousands of entries to be on disk.
  store.inOne(() => {
    receive();
    for (const job of [...all].sort((a, b) => b.arrivedMinutesAgo - a.arrivedMinutesAgo)) tell(job);
    now = addMinutes(DEMO_START_UTC, -60 * 24 * 40);
    now = addMinutes(DEMO_START_UTC, -60 * 26);
    store.stock.placeOrder(
      { id: demoId('order'), ...order.placed, technicianId: demoId('technician', 'jorun') },
      { dueAt: addMinutes(DEMO_START_UTC, -30), ...order.delivered },
    );
    now = addMinutes(DEMO_START_UTC, -60 * 24 * 40);
    store.stock.collect({
      id: demoId('collection'),
      count: Math.floor(store.stock.spentInBin() * 0.9),
      weightG: 118,
      collectedOn: '2026-02-05',
      receipt: 'VHT-2207',
      technicianId: demoId('technician', 'edda'),
    });
  });
  store.close();
}

/** A step's payload, with lot, picture and part, which the story names in its own way, by what they are in the database. */
function payloadOf(
  step: Step,
  pictures: ReadonlyMap<string, string>,
  partsOff: readonly string[],
  lastTest: string,
): Payloads[EntryKind] {
  const named = (ids: readonly string[]): readonly string[] =>
    ids.map((id) => (id === LAST_TEST ? lastTest : id));
  if (step.kind === 'test.made') return { ...step.payload, retestOf: named(step.payload.retestOf) };
  if (step.kind === 'test.finding') return { ...step.payload, foundBy: named(step.payload.foundBy) };
  if (step.kind === 'open.photo-mark')
    return { ...step.payload, photo: pictures.get(step.payload.photo) ?? step.payload.photo };
  if (step.kind === 'open.part-settled')
    return {
      ...step.payload,
      partEntryId: partsOff[Number(step.payload.partEntryId)] ?? step.payload.partEntryId,
    };
  const { payload } = step;
  return 'lotId' in payload && payload.lotId !== null
    ? { ...payload, lotId: demoId('lot', payload.lotId) }
    : payload;
}
