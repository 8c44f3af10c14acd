import fc from 'fast-check';
import { context, idOf, Logbook, readingOf, readyJob } from '../../testing/fixtures';
import { samples } from '../../testing/samples';
import { type Entry } from './entry';
import { foldJob } from './foldJob';
import { resolveCorrections } from './corrections';

const voltage = (value: number) => readingOf('restVoltageV', value);

describe('superseding and withdrawing', () => {
  it('lets a correction stand in place of what it corrects', () => {
    const job = new Logbook();
    const wrong = job.add('check.reading', voltage(1.3));
    job.add('check.reading', voltage(1.53), { supersedes: [wrong.id] });
    const state = job.state();
    expect(state.facts.readings.get('restVoltageV')?.payload.value).toBe(1.53);
    expect(state.activeEntries).toHaveLength(1);
    expect(state.replaced.get(wrong.id)).toHaveLength(1);
  });

  it('brings back what was corrected when the correction is withdrawn', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1.3));
    const correction = job.add('check.reading', voltage(1.53), { supersedes: [first.id] });
    job.add('logbook.withdrawn', { reason: 'was right' }, { withdraws: correction.id });
    expect(job.state().facts.readings.get('restVoltageV')?.payload.value).toBe(1.3);
  });

  it('lets one stand of corrections corrected again, and brings back the one before when the last is withdrawn', () => {
    const job = new Logbook();
    const chain = [job.add('check.leakage', samples['check.leakage'])];
    for (let round = 0; round < 4; round += 1)
      chain.push(
        job.add('check.leakage', samples['check.leakage'], { supersedes: [chain.at(-1)?.id ?? ''] }),
      );
    const active = () => job.state().facts.leakages.map(({ id }) => id);
    expect(active()).toEqual([chain.at(-1)?.id]);
    expect(job.state().conflicts).toEqual([]);
    expect(chain.map(({ id }) => job.state().standsFor(id))).toEqual(chain.map(() => chain.at(-1)?.id));
    job.add('logbook.withdrawn', { reason: 'wrong' }, { withdraws: chain.at(-1)?.id ?? '' });
    expect(active()).toEqual([chain.at(-2)?.id]);
  });

  it('tells a conflict once, where it arose, and among what stands there now', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1));
    const one = job.add('check.reading', voltage(1.1), { supersedes: [first.id] });
    const other = job.add('check.reading', voltage(1.2), { supersedes: [first.id] });
    const again = job.add('check.reading', voltage(1.3), { supersedes: [one.id] });
    const [conflict, ...more] = job.state().conflicts;
    expect([conflict?.target.id, conflict?.rivals.map(({ id }) => id).sort(), more]).toEqual([
      first.id,
      [other.id, again.id].sort(),
      [],
    ]);
  });

  it('tells a conflict among corrections of a correction at that correction, and nowhere above', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1));
    const one = job.add('check.reading', voltage(1.1), { supersedes: [first.id] });
    job.add('check.reading', voltage(1.2), { supersedes: [one.id] });
    job.add('check.reading', voltage(1.3), { supersedes: [one.id] });
    expect(job.state().conflicts.map(({ target }) => target.id)).toEqual([one.id]);
  });

  it('is settled by one correction of all that disagreed', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1));
    const one = job.add('check.reading', voltage(1.1), { supersedes: [first.id] });
    const last = job.add('check.reading', voltage(1.2), { supersedes: [first.id, one.id] });
    expect(job.state().conflicts).toEqual([]);
    expect(job.state().activeEntries).toEqual([last]);
  });

  it('a correction withdrawn beside another leaves the other, and the entry corrected stays fallen', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1));
    const one = job.add('check.reading', voltage(1.1), { supersedes: [first.id] });
    const other = job.add('check.reading', voltage(1.2), { supersedes: [one.id] });
    const away = job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: one.id });
    // Corrected and withdrawn at once: who is right has to be said.
    expect(job.state().conflicts.map(({ rivals }) => rivals.map(({ id }) => id))).toContainEqual([
      other.id,
      away.id,
    ]);
  });

  it('shows a conflict when two corrections name one entry, keeps both, and settles it', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1.3));
    const one = job.add('check.reading', voltage(1.4), { supersedes: [first.id] });
    job.add('check.reading', voltage(1.5), { supersedes: [first.id] });
    const state = job.state();
    expect(state.conflicts).toHaveLength(1);
    expect(state.conflicts[0]?.rivals).toHaveLength(2);
    job.add('logbook.withdrawn', { reason: 'settled' }, { withdraws: one.id });
    expect(job.state().conflicts).toHaveLength(0);
    expect(job.state().facts.readings.get('restVoltageV')?.payload.value).toBe(1.5);
  });

  it('counts a reference forward, or to itself, for nothing', () => {
    const job = new Logbook();
    job.add('check.reading', voltage(1.3), { id: idOf('a'), supersedes: [idOf('a'), idOf('b')] });
    job.add('check.reading', voltage(1.5), { id: idOf('b') });
    expect(job.state().activeEntries).toHaveLength(2);
  });

  it('settles entries that each correct the ten before them as fast as any others', () => {
    const job = new Logbook();
    for (let count = 0; count < 200; count += 1) {
      job.add('check.reading', voltage(1 + count / 1000), {
        supersedes: job.entries.slice(-10).map((entry) => entry.id),
      });
    }
    const { activeEntries } = resolveCorrections(job.entries);
    expect(activeEntries.at(-1)?.id).toBe(job.entries.at(-1)?.id);
  });

  it('folds to the same state in whatever order entries arrive', () => {
    const { entries } = readyJob();
    const expected = JSON.stringify(foldJob(entries, context).activeEntries.map((entry) => entry.id));
    fc.assert(
      fc.property(
        fc.shuffledSubarray(entries, { minLength: entries.length }),
        (shuffled) =>
          JSON.stringify(foldJob(shuffled, context).activeEntries.map((entry) => entry.id)) === expected,
      ),
    );
  });

  it('never loses an entry: each stands, or something stands in its place', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(20), { minLength: 1, maxLength: 20 }), (targets) => {
        const job = new Logbook();
        job.add('check.reading', voltage(1));
        targets.forEach((target, index) => {
          const known = job.entries[target % job.entries.length] as Entry;
          if (index % 3 === 2) job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: known.id });
          else job.add('check.reading', voltage(1 + index / 100), { supersedes: [known.id] });
        });
        const { activeEntries, replaced } = resolveCorrections(job.entries);
        const stands = new Set(activeEntries.map((entry) => entry.id));
        // An entry stands exactly when nothing standing replaces it.
        return job.entries.every((entry) => stands.has(entry.id) === !replaced.has(entry.id));
      }),
    );
  });
});
