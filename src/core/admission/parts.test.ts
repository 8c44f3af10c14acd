import fc from 'fast-check';
import { context, idOf, readyJob } from '../../testing/fixtures';
import { judgeEntry } from './judgeEntry';
describe('a part corrected again and again', () => {
  const bar = { part: 'spring bar', count: 1, serves: ['bracelet'], step: '' } as const;
  it('stays settled, and is settled under whichever entry a bench knew it by', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5 }), fc.nat(5), fc.boolean(), (corrections, named, before) => {
        const job = readyJob();
        const ids = [job.add('open.part', { ...bar, position: 'at 12' }).id];
        const settle = () =>
          job.add('open.part-settled', {
            partEntryId: ids[Math.min(named, ids.length - 1)] ?? '',
            outcome: 'back in place',
            note: '',
          });
        if (before) settle();
        for (let round = 0; round < corrections; round += 1)
          ids.push(
            job.add('open.part', { ...bar, position: `hole ${round}` }, { supersedes: [ids.at(-1) ?? ''] })
              .id,
          );
        if (!before) {
          const late = settle();
          job.entries.pop();
          const admitted = judgeEntry(late, job.state(), job.entries, () => [], context);
          expect(admitted.verdict).toBe('admitted');
          job.entries.push(late);
        }
        const parts = [...job.state().facts.parts.values()];
        expect(parts.map(({ off, settled }) => [off.id, settled?.payload.outcome])).toEqual([
          [ids.at(-1), 'back in place'],
        ]);
      }),
    );
  });

  it('is on the tray no longer once it is withdrawn', () => {
    const job = readyJob();
    const { id } = job.add('open.part', { ...bar, position: '' });
    job.add('logbook.withdrawn', { reason: 'not of this watch' }, { withdraws: id });
    const late = job.add(
      'open.part-settled',
      { partEntryId: id, outcome: 'lost', note: '' },
      { id: idOf('late') },
    );
    job.entries.pop();
    expect(judgeEntry(late, job.state(), job.entries, () => [], context).verdict).toBe('refused');
  });
});
