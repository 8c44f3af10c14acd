import fc from 'fast-check';
import { book, context, idOf, Logbook, lot, movementOf, readingOf, readyJob } from '../../testing/fixtures';
import { samples } from '../../testing/samples';
import { handback } from '../advice/handback';
import { DEFAULT_POLICY, STAGES } from '../craft/policy';
import { waitsFor } from '../advice/dayplan';
import { type Entry, entryInWords } from './entry';
import { foldJob, undoable } from './foldJob';
import { judgeEntry } from '../admission';
import { settleEntries } from './settle';
const voltage = (value: number) => readingOf('restVoltageV', value);
const admitted = (job: Logbook, entry: Entry, lots = [lot]) =>
  judgeEntry(
    entry,
    foldJob(
      job.entries.filter((each) => each.id !== entry.id),
      context,
    ),
    job.entries.filter((each) => each.id !== entry.id),
    () => lots,
    context,
  );

describe('superseding and withdrawing', () => {
  it('lets a correction stand in place of what it corrects', () => {
    const job = new Logbook();
    const wrong = job.add('check.reading', voltage(1.3));
    job.add('check.reading', voltage(1.53), { supersedes: [wrong.id] });
    const state = job.state();
    expect(state.facts.readings.get('restVoltageV')?.payload.value).toBe(1.53);
    expect(state.standing).toHaveLength(1);
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
    const standing = () => job.state().facts.leakages.map(({ id }) => id);
    expect(standing()).toEqual([chain.at(-1)?.id]);
    expect(job.state().conflicts).toEqual([]);
    expect(chain.map(({ id }) => job.state().standsFor(id))).toEqual(chain.map(() => chain.at(-1)?.id));
    job.add('logbook.withdrawn', { reason: 'wrong' }, { withdraws: chain.at(-1)?.id ?? '' });
    expect(standing()).toEqual([chain.at(-2)?.id]);
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

  it('shows a conflict when two corrections name one entry, keeps both, and settles it', () => {
    const job = new Logbook();
    const first = job.add('check.reading', voltage(1.3));
    const one = job.add('check.reading', voltage(1.4), { supersedes: [first.id] });
    job.add('check.reading', voltage(1.5), { supersedes: [first.id] });
    const state = job.state();
    expect(state.conflicts).toHaveLength(1);
    expect(state.conflicts[0]?.rivals).toHaveLength(2);
    expect(waitsFor(state)).toBe('a conflict to settle');
    job.add('logbook.withdrawn', { reason: 'settled' }, { withdraws: one.id });
    expect(job.state().conflicts).toHaveLength(0);
    expect(job.state().facts.readings.get('restVoltageV')?.payload.value).toBe(1.5);
  });

  it('counts a reference forward, or to itself, for nothing', () => {
    const job = new Logbook();
    job.add('check.reading', voltage(1.3), { id: idOf('a'), supersedes: [idOf('a'), idOf('b')] });
    job.add('check.reading', voltage(1.5), { id: idOf('b') });
    expect(job.state().standing).toHaveLength(2);
  });

  it('settles entries that each correct the ten before them as fast as any others', () => {
    const job = new Logbook();
    for (let count = 0; count < 200; count += 1) {
      job.add('check.reading', voltage(1 + count / 1000), {
        supersedes: job.entries.slice(-10).map((entry) => entry.id),
      });
    }
    const { standing } = settleEntries(job.entries);
    expect(standing.at(-1)?.id).toBe(job.entries.at(-1)?.id);
  });

  it('folds to the same state in whatever order entries arrive', () => {
    const { entries } = readyJob();
    const expected = JSON.stringify(foldJob(entries, context).standing.map((entry) => entry.id));
    fc.assert(
      fc.property(
        fc.shuffledSubarray(entries, { minLength: entries.length }),
        (shuffled) =>
          JSON.stringify(foldJob(shuffled, context).standing.map((entry) => entry.id)) === expected,
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
        const { standing, replaced } = settleEntries(job.entries);
        const stands = new Set(standing.map((entry) => entry.id));
        // An entry stands exactly when nothing standing replaces it.
        return job.entries.every((entry) => stands.has(entry.id) === !replaced.has(entry.id));
      }),
    );
  });
});

describe('progress', () => {
  it('asks first for the watch, and moves stage by stage through the service', () => {
    expect(new Logbook().state().current).toBe('arrive');
    const full = readyJob().entries;
    const seen = full.map((_, count) => foldJob(full.slice(0, count + 1), context).current);
    const order = seen.map((stage) => STAGES.indexOf(stage ?? 'handback'));
    // From the moment the service is known the current stage never goes back.
    expect(order.slice(4)).toEqual([...order.slice(4)].sort((a, b) => a - b));
    expect(seen.at(-1)).toBe('handback');
  });

  it('leaves out the test for a cell only, and shows a skipped stage with its reason', () => {
    const job = readyJob();
    expect(job.state().progress.find((stage) => stage.stage === 'test')?.status).toBe('not needed');
    const short = new Logbook();
    short.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    short.add('logbook.stage-skipped', { stage: 'check', reason: 'meter away' });
    expect(short.state().progress.find((stage) => stage.stage === 'check')).toMatchObject({
      status: 'skipped',
      reason: 'meter away',
    });
  });

  it('asks for the current where the service does', () => {
    expect(DEFAULT_POLICY.services['cell and reseal'].requires).toContain('check.currentUA');
  });

  it('needs no old voltage and no disposal where there was no cell', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    job.add('cell.found', { marking: null, condition: null });
    const missing = job.state().progress.flatMap((stage) => stage.missing.map((each) => each.requirement));
    expect(missing).not.toContain('check.restVoltageV');
    expect(missing).not.toContain('cell.old-settled');
  });

  it('asks for both cells of a movement with two', () => {
    const job = new Logbook();
    job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
    job.add('identify.movement', movementOf('quillbeck-22-4', 'QB 22-4'));
    job.add('cell.found', { marking: '395', condition: 'clean' }, { well: 'hands' });
    expect(job.state().wells.map((well) => [well.name, well.wanted?.code, well.found !== null])).toEqual([
      ['hands', 'SR927SW', true],
      ['display', 'CR1216', false],
    ]);
  });

  it('voids what was proved on the closed watch when it is opened again, but not when the opening is corrected', () => {
    const again = readyJob();
    again.add('open.back', {
      kind: 'snap-on',
      openedWith: 'case knife',
      protection: 'film',
      went: 'freely',
      spotClock: 7,
      lipClock: null,
      toolIds: [],
      separationMm: null,
      rearMm: null,
    });
    expect(again.state().facts.closed).toBeNull();
    expect(again.state().facts.runs).toBeNull();
    expect(again.state().current).toBe('seal');
    const corrected = readyJob();
    const opening = corrected.entries.find((entry) => entry.kind === 'open.back') as Entry;
    corrected.add(
      'open.back',
      {
        kind: 'snap-on',
        openedWith: 'other knife',
        protection: 'film',
        went: 'freely',
        spotClock: 7,
        lipClock: null,
        toolIds: [],
        separationMm: null,
        rearMm: null,
      },
      { supersedes: [opening.id] },
    );
    expect(corrected.state().facts.closed).not.toBeNull();
    expect(corrected.state().facts.back?.payload.openedWith).toBe('other knife');
  });
});

describe('undo', () => {
  it('offers this technician’s own last standing entry', () => {
    const job = readyJob();
    job.add('check.reading', voltage(1.4), { technicianId: idOf('other') });
    const last = undoable(job.state(), idOf('technician'));
    expect(last?.kind).toBe('set.functions');
    expect(undoable(job.state(), idOf('nobody'))).toBeNull();
    job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: last?.id ?? null });
    expect(undoable(job.state(), idOf('technician'))?.kind).toBe('set.time');
  });
});

describe('what is admitted', () => {
  it('records any cell as found, and refuses to fit one that must never go in', () => {
    const job = readyJob();
    expect(admitted(job, job.add('cell.found', { marking: 'ML621', condition: 'clean' })).verdict).toBe(
      'admitted',
    );
    for (const cellCode of ['SR626SW', 'CR2016', 'LR621', 'MR44', 'ML621', 'XY77']) {
      const refusal = admitted(
        job,
        job.add('cell.fitted', { cellCode, lotId: null, supplier: '', lotCode: '', alkalineAgreed: false }),
      );
      expect(refusal.verdict).toBe('refused');
    }
    expect(
      admitted(
        job,
        job.add('cell.fitted', {
          cellCode: 'LR621',
          lotId: null,
          supplier: '',
          lotCode: '',
          alkalineAgreed: true,
        }),
      ).verdict,
    ).toBe('admitted');
  });

  it.each([
    ['past its date', { bestBefore: '2026-03-01' }, 'past its date'],
    ['of another cell', { code: 'SR626SW' }, 'holds SR626SW'],
    ['unknown', { id: idOf('elsewhere') }, 'not in this stock'],
  ])('refuses a lot that is %s', (_, change, words) => {
    const job = readyJob();
    const entry = job.add('cell.fitted', {
      cellCode: 'SR621SW',
      lotId: lot.id,
      supplier: '',
      lotCode: 'S-1',
      alkalineAgreed: false,
    });
    const refusal = admitted(job, entry, [{ ...lot, ...change }]);
    expect(refusal).toMatchObject({ verdict: 'refused', reasons: [expect.stringContaining(words)] });
  });

  it('keeps a fitting from an empty lot: it was done', () => {
    const job = readyJob();
    const entry = job.add('cell.fitted', {
      cellCode: 'SR621SW',
      lotId: lot.id,
      supplier: '',
      lotCode: 'S-1',
      alkalineAgreed: false,
    });
    expect(admitted(job, entry, [{ ...lot, balance: 0 }]).verdict).toBe('admitted');
  });

  it('refuses a place the movement has not', () => {
    const job = readyJob();
    const entry = job.add(
      'cell.fitted',
      { cellCode: 'SR621SW', lotId: null, supplier: '', lotCode: '', alkalineAgreed: false },
      { well: 'display' },
    );
    expect(admitted(job, entry)).toMatchObject({ verdict: 'refused' });
  });

  it('refuses corrections of what is not there, of another kind, or of a signature', () => {
    const job = readyJob();
    expect(
      admitted(job, job.add('check.reading', voltage(1.2), { supersedes: [idOf('nowhere')] })).verdict,
    ).toBe('refused');
    const found = job.entries.find((entry) => entry.kind === 'cell.found') as Entry;
    expect(admitted(job, job.add('check.reading', voltage(1.2), { supersedes: [found.id] })).verdict).toBe(
      'refused',
    );
    expect(admitted(job, job.add('logbook.withdrawn', { reason: 'x' })).verdict).toBe('refused');
  });
});

/** The signature the screen would send for a job as it stands. */
function signatureOf(job: Logbook) {
  const state = job.state();
  return {
    initials: 'EV',
    catalogueRevision: book.revision,
    policyRevision: DEFAULT_POLICY.revision,
    restsOnSequence: state.lastSequence,
    statement: handback(state, [lot], context).statement,
  };
}

describe('signing', () => {
  it('signs a ready job, and a later fact reopens it without touching the statement', () => {
    const job = readyJob();
    const signature = signatureOf(job);
    const signed = job.add('handback.signed', signature);
    expect(admitted(job, signed).verdict).toBe('admitted');
    expect(job.state().signature.state).toBe('signed');
    expect(job.state().current).toBeNull();
    job.add('handback.collected', { by: 'the owner', paidMinor: 1400 });
    expect(job.state().signature.state).toBe('signed');
    job.add('check.reading', readingOf('currentUA', 1.3));
    const { signature: after } = job.state();
    expect(after).toMatchObject({
      state: 'reopened',
      entry: { payload: { statement: signature.statement } },
    });
    expect(job.state().current).toBe('handback');
  });

  it.each([
    [
      'a fact is missing',
      (job: Logbook) =>
        job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: job.entries.at(-1)?.id ?? null }),
      'Set and prove',
    ],
    [
      'a part lies on the tray',
      (job: Logbook) =>
        job.add('open.part', { part: 'spring bar', position: '12', count: 1, serves: [], step: '' }),
      'on the tray',
    ],
  ])('refuses while %s', (_, change, words) => {
    const job = readyJob();
    change(job);
    const refusal = admitted(job, job.add('handback.signed', signatureOf(job)));
    expect(refusal).toMatchObject({ verdict: 'refused' });
    if (refusal.verdict === 'refused') expect(refusal.reasons.join(' ')).toContain(words);
  });

  it('refuses a signature that rests on an older state, on other revisions, or on other words', () => {
    const job = readyJob();
    const good = signatureOf(job);
    const refused = (change: Partial<typeof good>) =>
      admitted(job, job.add('handback.signed', { ...good, ...change }));
    expect(refused({ restsOnSequence: 3 })).toMatchObject({ reasons: [expect.stringContaining('changed')] });
    expect(
      admitted(readyJob(), readyJob().add('handback.signed', { ...good, catalogueRevision: 1 })),
    ).toMatchObject({ reasons: [expect.stringContaining('Book or policy')] });
    const statement = { ...good.statement, water: 'Good to 100 metres.' };
    expect(admitted(readyJob(), readyJob().add('handback.signed', { ...good, statement }))).toMatchObject({
      reasons: [expect.stringContaining('not what the entries say')],
    });
  });

  it('lets only one of two signatures in, and hands nothing over unsigned', () => {
    const job = readyJob();
    expect(admitted(job, job.add('handback.collected', { by: 'x', paidMinor: 0 })).verdict).toBe('refused');
    const signed = readyJob();
    signed.add('handback.signed', signatureOf(signed));
    expect(admitted(signed, signed.add('handback.signed', signatureOf(readyJob())))).toMatchObject({
      reasons: [expect.stringContaining('signed already')],
    });
  });
});

describe('entryInWords', () => {
  it('names every entry of a job in a few words', () => {
    for (const entry of readyJob().entries) {
      expect(entryInWords(entry).length).toBeGreaterThan(3);
      expect(entryInWords(entry)).not.toMatch(/undefined|NaN|null/);
    }
  });
});
