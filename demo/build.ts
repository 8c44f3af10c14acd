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
  const clock = { nowUtc: addMinutes(DEMO_START_UTC, -60 * 24 * 365 * 3) };
  const store = openStore({
    dataDir,
    clock: { nowUtc: () => clock.nowUtc },
    demo: true,
    shop,
    program: demoProgram(),
  });
  for (const { key, name, initials } of technicians)
    store.shops.addTechnician({ id: demoId('technician', key), name, initials });
  writeBook(store);
  for (const id of DEVICE_IDS) store.devices.change(id, { connected: true });
  const past = withPast ? history(store.catalogue.book()) : { jobs: [], lots: [] };
  const all = [...past.jobs, ...jobs].sort((a, b) => b.arrivedMinutesAgo - a.arrivedMinutesAgo);
  const writer = new JobWriter(store, clock, await keepPictures(store, all));
  // One transaction for the whole story: nobody waits for each of its thousands of entries to be on disk.
  store.inOne(() => {
    for (const delivery of [...past.lots, ...lots])
      store.stock.receive({
        ...delivery,
        id: demoId('lot', delivery.lotCode),
        technicianId: demoId('technician', 'edda'),
      });
    for (const job of all) writer.write(job);
    placeOrder(store, clock);
    emptyBin(store, clock);
  });
  store.close();
}

/** The demo's clock, set to when each thing happened. */
interface DemoClock {
  nowUtc: ReturnType<typeof addMinutes>;
}

/** Keeps each picture of the story once; gives the hash of each by its name. */
async function keepPictures(store: Store, all: readonly DemoJob[]): Promise<ReadonlyMap<string, string>> {
  const hashes = new Map<string, string>();
  for (const picture of new Set(all.flatMap((job) => job.steps.flatMap((step) => step.picture ?? [])))) {
    const name = `${picture}.png`;
    const kept = await store.attachments.keep(Readable.from([readFileSync(join(PICTURES, name))]), {
      name,
      technicianId: demoId('technician', 'edda'),
    });
    if (kept.outcome === 'kept') hashes.set(picture, kept.attachment.hash);
  }
  return hashes;
}

/** An order placed the day before, due today. */
function placeOrder(store: Store, clock: DemoClock): void {
  clock.nowUtc = addMinutes(DEMO_START_UTC, -60 * 26);
  store.stock.placeOrder(
    { id: demoId('order'), ...order.placed, technicianId: demoId('technician', 'jorun') },
    { dueAt: addMinutes(DEMO_START_UTC, -30), ...order.delivered },
  );
}

/** The spent bin was collected forty days ago. */
function emptyBin(store: Store, clock: DemoClock): void {
  clock.nowUtc = addMinutes(DEMO_START_UTC, -60 * 24 * 40);
  store.stock.collect({
    id: demoId('collection'),
    count: Math.floor(store.stock.spentInBin() * 0.9),
    weightG: 118,
    collectedOn: '2026-02-05',
    receipt: 'VHT-2207',
    technicianId: demoId('technician', 'edda'),
  });
}

interface EntryOptions {
  readonly by?: TechnicianKey;
  readonly well?: string;
  readonly supersedes?: string[];
  readonly attachments?: string[];
}

/** Writes the jobs of the story: takes a watch in, records what happened, signs it and hands it over. */
class JobWriter {
  private made = 0;

  constructor(
    private readonly store: Store,
    private readonly clock: DemoClock,
    private readonly pictures: ReadonlyMap<string, string>,
  ) {}

  write(job: DemoJob): void {
    const arrived = addMinutes(DEMO_START_UTC, -job.arrivedMinutesAgo);
    const jobId = demoId('job', job.key);
    this.clock.nowUtc = arrived;
    this.takeIn(job, jobId);
    this.recordSteps(job, jobId, arrived);
    if (job.signedAfter !== undefined) {
      this.clock.nowUtc = addMinutes(arrived, job.signedAfter);
      this.sign(job, jobId);
    }
    if (job.collectedAfter !== undefined) {
      this.clock.nowUtc = addMinutes(arrived, job.collectedAfter);
      const paidMinor = serviceOf(job).priceMinor;
      this.append(jobId, this.entry(job, 'handback.collected', { by: 'the owner', paidMinor }));
    }
  }

  private takeIn(job: DemoJob, jobId: string): void {
    const promisedAt = withinHours(
      addMinutes(DEMO_START_UTC, job.promisedInMinutes),
      DEFAULT_POLICY.hours,
      shop.zone,
    );
    const taken = this.store.logbook.takeIn({
      id: jobId,
      visitId: demoId('visit', job.sameVisitAs ?? job.key),
      watchId: demoId('watch', job.sameWatchAs ?? job.key),
      customer: {
        id: demoId('customer', job.sameWatchAs ?? job.sameVisitAs ?? job.key),
        ...job.customer,
      },
      followsJobId: job.comesBackAbout === undefined ? null : demoId('job', job.comesBackAbout),
      entries: [
        this.entry(job, 'arrive.watch', job.watch),
        this.entry(job, 'arrive.complaint', job.complaint),
        this.entry(job, 'arrive.service', serviceOf(job)),
        this.entry(job, 'arrive.promise', { promisedAt }),
        this.entry(job, 'arrive.consent', {
          risks: ['old parts', 'water resistance'],
          given: job.consent ?? true,
        }),
      ],
    });
    if (!('job' in taken)) throw new Error(`Demo job ${job.key}: ${JSON.stringify(taken)}`);
  }

  private recordSteps(job: DemoJob, jobId: string, arrived: DemoClock['nowUtc']): void {
    const lastOfKind = new Map<EntryKind, string>();
    const partsOff: string[] = [];
    for (const step of job.steps) {
      this.clock.nowUtc = addMinutes(arrived, step.minutes);
      const corrected = step.corrects ? lastOfKind.get(step.corrects) : undefined;
      const picture = step.picture === undefined ? undefined : this.pictures.get(step.picture);
      const payload = payloadOf(step, this.pictures, partsOff, lastOfKind.get('test.made') ?? '');
      const given = this.entry(job, step.kind, payload, {
        ...(step.by ? { by: step.by } : {}),
        ...(step.well ? { well: step.well } : {}),
        supersedes: corrected ? [corrected] : [],
        attachments: picture === undefined ? [] : [picture],
      });
      this.append(jobId, given);
      if (step.kind === 'open.part') partsOff.push(given.id);
      // A correction leaves the first entry the target, so that two rivals make the conflict of the scenario.
      if (!step.corrects) lastOfKind.set(step.kind, given.id);
    }
  }

  private sign(job: DemoJob, jobId: string): void {
    const context = this.store.context();
    const state = foldJob(this.store.logbook.job(jobId)?.entries ?? [], context);
    const result = handback(state, this.store.stock.lots(), context);
    if (result.verdict === 'not ready') throw new Error(`Demo job ${job.key}: ${result.reasons.join(' ')}`);
    this.append(
      jobId,
      this.entry(job, 'handback.signed', {
        initials: technicians.find(({ key }) => key === job.technician)?.initials ?? '',
        catalogueRevision: context.catalogue.revision,
        policyRevision: context.policy.revision,
        restsOnSequence: state.lastSequence,
        statement: result.statement,
      }),
    );
  }

  private entry<K extends EntryKind>(
    job: DemoJob,
    kind: K,
    payload: Payloads[K],
    { by = job.technician, ...options }: EntryOptions = {},
  ): NewEntry {
    this.made += 1;
    return makeEntry(kind, payload, {
      id: demoId('entry', job.key, this.made),
      occurredAt: this.clock.nowUtc,
      technicianId: demoId('technician', by),
      bench: 'window bench',
      ...options,
    });
  }

  private append(jobId: string, given: NewEntry): void {
    const appended = this.store.logbook.append(jobId, given);
    if (!('entry' in appended))
      throw new Error(`Demo entry ${given.kind} of ${jobId}: ${JSON.stringify(appended)}`);
  }
}

const serviceOf = (job: DemoJob): Payloads['arrive.service'] =>
  job.service ?? { service: 'cell only', priceMinor: 1400 };

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
