import fc from 'fast-check';
import {
  asToday,
  type CatalogueResource,
  type JobResource,
  kindDefinition,
  type NewEntry,
  type Problem,
  type ShopResource,
  type StockResource,
} from '../../contract';
import { catalogueOf, openBook, recordsIn } from '../../core/craft/book';
import { type EntryKind, foldJob, type JobContext } from '../../core/logbook';
import { bodiesOf } from '../../testing/bodies';
import { Counter, delivery, entryOf, NOW } from '../../testing/counter';
import { idOf } from '../../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../../testing/samples';
import { lotsOf, type Refused, refusalHere } from './refusalHere';

/**
 * What may be recorded is judged twice: by the browser before it sends, and by the server before it writes. Both must say the
 * same of every kind, whatever is in it and however the job stands.
 */
let counter: Counter;
let context: JobContext;
let names = 0;
const answer = { admitted: 0, refused: 0 };
const read = async <T>(path: string): Promise<T> => (await counter.get<T>(path)).body;
beforeAll(async () => {
  counter = await Counter.open();
  await counter.post('/api/deliveries', { ...delivery });
  const [shop, data] = [
    await read<ShopResource>('/api/shop'),
    await read<CatalogueResource>('/api/catalogue'),
  ];
  const catalogue = openBook(
    catalogueOf(data.revision, (kind) => recordsIn(kind, data).map((each) => asToday(kind, each))),
  );
  context = { catalogue, policy: shop.policy, shop: shop.shop, nowUtc: NOW };
});
afterAll(() => counter.close());

type Step = readonly [EntryKind, object, Partial<NewEntry>?];

/** How far a job has come: each goes on from the one before. */
const WAY: readonly (readonly Step[])[] = [
  [],
  [
    ['open.back', samples['open.back']],
    ['open.seals', { rim: 1, innerCover: 0, hatch: 0 }],
    ['cell.found', { marking: '364', condition: 'clean' }],
    ['cell.well-measured', { diameterMm: 7, depthMm: 2.3 }],
  ],
  [
    ['cell.old-settled', samples['cell.old-settled']],
    [
      'seal.gasket',
      { ...samples['seal.gasket'], state: 'reused', findings: ['cracked'], lotId: null, size: '' },
    ],
  ],
  [['seal.closed', { ...samples['seal.closed'], seamEven: true, raisedClocks: [], seenFrom: null }]],
];

/** Jobs at hand, by how far they had come: each entry that is admitted takes its job on, so that few states come twice. */
const jobs = new Map<number, string>();
const KINDS_A_JOB = 6;
let kindsSeen = 0;
beforeEach(() => {
  kindsSeen += 1;
  if (kindsSeen % KINDS_A_JOB === 0) jobs.clear();
});

async function jobThatCame(far: number): Promise<string> {
  const known = jobs.get(far);
  if (known !== undefined) return known;
  names += 1;
  const job = await counter.takeIn(`door ${names}`);
  for (const [kind, payload, more] of WAY.slice(0, far + 1).flat()) {
    names += 1;
    const { status, body } = await counter.record(job, `way ${names}`, kind, payload as never, more);
    if (status !== 201) throw new Error(`${kind}: ${JSON.stringify(body)}`);
  }
  jobs.set(far, job);
  return job;
}

/** What the browser says before it sends. */
async function atTheBrowser(jobId: string, made: NewEntry): Promise<Refused | null> {
  const [resource, stock] = await Promise.all([
    read<JobResource>(`/api/jobs/${jobId}`),
    read<StockResource>('/api/stock'),
  ]);
  const { entries } = resource;
  return refusalHere(made, {
    jobId,
    state: foldJob(entries, context),
    entries,
    lots: lotsOf(stock, resource),
    context,
  });
}

const IDS = [idOf('nobody'), delivery.id];
/** Payloads of a kind, most of them good: the sample, with some of its fields drawn anew. */
function payloadsOf(kind: EntryKind): fc.Arbitrary<object> {
  const good: object = samples[kind];
  const { schema } = kindDefinition(kind);
  return bodiesOf(schema, IDS).chain((drawn) =>
    fc.subarray(Object.keys(good)).map((taken) => ({
      ...good,
      ...Object.fromEntries(
        Object.entries(typeof drawn === 'object' && drawn !== null ? drawn : {}).filter(([name]) =>
          taken.includes(name),
        ),
      ),
    })),
  );
}

describe('what may be recorded', () => {
  it.each(SAMPLE_KINDS)('is judged alike by browser and server: %s', async (kind) => {
    await fc.assert(
      fc.asyncProperty(
        payloadsOf(kind),
        fc.integer({ min: 0, max: WAY.length - 1 }),
        fc.constantFrom(null, 'main', 'hands'),
        fc.boolean(),
        async (payload, far, well, corrects) => {
          // What is no payload of the kind stops at the form, by the schema the server reads it by.
          fc.pre(kindDefinition(kind).schema.safeParse(payload).success);
          const job = await jobThatCame(far);
          names += 1;
          const last = (await read<JobResource>(`/api/jobs/${job}`)).entries.at(-1);
          const made = entryOf(`made ${names}`, kind, payload as never, {
            well,
            supersedes: corrects && last?.kind === kind ? [last.id] : [],
          });
          const here = await atTheBrowser(job, made);
          const there = await counter.post<Problem>(`/api/jobs/${job}/entries`, made);
          expect([kind, payload, there.status]).toEqual([kind, payload, here ? 422 : 201]);
          answer[here ? 'refused' : 'admitted'] += 1;
          if (!here) return;
          expect([there.body.detail, there.body.whatToDo]).toEqual([here.reasons.join(' '), here.whatToDo]);
          expect(there.body.fields?.map(({ path }) => path)).toEqual(
            here.path === null ? undefined : [`payload.${here.path}`],
          );
        },
      ),
      { numRuns: 6 },
    );
  });

  it('was refused often enough to tell, and admitted', () => {
    expect(answer.refused).toBeGreaterThan(25);
    expect(answer.admitted).toBeGreaterThan(100);
  });
});
