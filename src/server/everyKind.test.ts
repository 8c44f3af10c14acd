import type { JobResource } from '../contract';
import type { EntryKind } from '../core/logbook';
import { Counter, entryOf } from '../testing/counter';
import { idOf } from '../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../testing/samples';

/** What only the job as it stands allows has its own tests. */
const NEEDS_MORE: readonly EntryKind[] = [
  'arrive.received',
  'handback.signed',
  'handback.collected',
  'handback.reminded',
  'logbook.withdrawn',
  'open.photo-mark',
];
/** What must stand before. */
const AFTER: Partial<Record<EntryKind, EntryKind>> = {
  'open.part-settled': 'open.part',
  'arrive.parts-arrived': 'arrive.parts-request',
  'cell.fitted': 'cell.found',
  'set.run-ended': 'set.run-began',
  'cell.lit-seen': 'cell.lit',
  'cell.out-settled': 'cell.out',
  'cell.dropped-settled': 'cell.dropped',
  'test.made': 'arrive.crown',
};

let counter: Counter;
beforeAll(async () => {
  counter = await Counter.open();
});
afterAll(() => counter.close());

describe('every kind, through HTTP into the database and back', () => {
  it.each(SAMPLE_KINDS.filter((kind) => !NEEDS_MORE.includes(kind)))('%s', async (kind) => {
    const job = await counter.takeIn(kind);
    const before = AFTER[kind];
    if (before) {
      const first = entryOf(`first of ${kind}`, before, samples[before], { id: idOf(`sample ${before}`) });
      const { status, body } = await counter.post(`/api/jobs/${job}/entries`, first);
      expect([status, body]).toEqual([201, expect.anything()]);
    }
    const sent = entryOf(`sample of ${kind}`, kind, samples[kind]);
    const answer = await counter.post<{ detail?: string }>(`/api/jobs/${job}/entries`, sent);
    expect([answer.status, answer.body.detail]).toEqual([201, undefined]);
    expect((await counter.post(`/api/jobs/${job}/entries`, sent)).status).toBe(200);
    const { body } = await counter.get<JobResource>(`/api/jobs/${job}`);
    // What shows that a watch is open may be followed by a line about the watch open beside it.
    const at = body.entries.findIndex(({ id }) => id === sent.id);
    expect(body.entries[at]).toMatchObject({ kind, payload: samples[kind] });
    const after = body.entries.slice(at + 1);
    expect(after.filter(({ kind }) => kind !== 'open.together')).toEqual([]);
  });

  it.each(NEEDS_MORE.filter((kind) => kind !== 'arrive.received'))(
    '%s is refused where nothing supports it',
    async (kind) => {
      const job = await counter.takeIn(`bare ${kind}`);
      const { status } = await counter.post(
        `/api/jobs/${job}/entries`,
        entryOf(`bare sample of ${kind}`, kind, samples[kind]),
      );
      expect(status).toBe(422);
    },
  );

  it.each(Object.entries(AFTER))('%s is refused before %s', async (kind) => {
    const job = await counter.takeIn(`early ${kind}`);
    const { status } = await counter.post(
      `/api/jobs/${job}/entries`,
      entryOf(`early sample of ${kind}`, kind as EntryKind, samples[kind as EntryKind]),
    );
    expect(status).toBe(422);
  });
});
