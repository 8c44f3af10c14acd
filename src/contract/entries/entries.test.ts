import fc from 'fast-check';
import {
  entryInWords,
  foldJob,
  reopens,
  type Entry,
  type EntryKind,
  type Payloads,
} from '../../core/logbook';
import { context, idOf, Logbook, newEntryOf } from '../../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../../testing/samples';
import { ENTRY_KINDS, kindDefinition, newEntry, upcastNewEntry, type KindDefinition } from './entries';
import { fieldsOf } from '../problems';

const schemaOf = (kind: EntryKind) => (kindDefinition(kind) as KindDefinition<unknown>).schema;
const envelope = { technicianId: idOf('t'), id: idOf('e') };

describe('every kind of entry', () => {
  it('has a sample, and every sample a kind', () => {
    expect(new Set(SAMPLE_KINDS)).toEqual(new Set(ENTRY_KINDS));
  });

  it.each(SAMPLE_KINDS)('%s goes over the wire and comes back as it was', (kind) => {
    const sent = newEntryOf(kind, samples[kind], envelope);
    expect(newEntry.parse(JSON.parse(JSON.stringify(sent)))).toEqual(sent);
  });

  it.each(SAMPLE_KINDS)('%s says itself in a few words', (kind) => {
    const job = new Logbook();
    const words = entryInWords(job.add(kind, samples[kind]));
    expect(words).toMatch(/^[^!]{4,200}$/);
    expect(words).not.toMatch(/undefined|NaN|null|\[object/);
  });

  it.each(SAMPLE_KINDS)(
    '%s is refused with a field too many, with one missing, and as another kind',
    (kind) => {
      const payload = samples[kind] as Record<string, unknown>;
      expect(schemaOf(kind).safeParse({ ...payload, more: 1 }).success).toBe(false);
      for (const field of Object.keys(payload)) {
        const { [field]: _, ...rest } = payload;
        expect([field, schemaOf(kind).safeParse(rest).success]).toEqual([field, false]);
      }
      expect(
        newEntry.safeParse({ ...newEntryOf(kind, samples[kind], envelope), kind: `${kind}x` }).success,
      ).toBe(false);
    },
  );

  it.each(SAMPLE_KINDS)('%s refuses a wrong value in each field, in words that help', (kind) => {
    const payload = samples[kind] as Record<string, unknown>;
    for (const field of Object.keys(payload)) {
      const refused = schemaOf(kind).safeParse({ ...payload, [field]: { of: 'another kind' } });
      expect([field, refused.success]).toEqual([field, false]);
      if (!refused.success)
        for (const { message } of fieldsOf(refused.error))
          expect([field, message]).toEqual([field, expect.stringMatching(/[a-z].{8,}/i)]);
    }
  });

  it.each(SAMPLE_KINDS)('%s never throws on whatever is given', (kind) => {
    fc.assert(
      fc.property(fc.anything(), (payload) => typeof schemaOf(kind).safeParse(payload).success === 'boolean'),
      { numRuns: 30 },
    );
  });

  it('puts something into the facts, unless it only takes away or settles', () => {
    const nothing = foldJob([], context).facts;
    for (const kind of SAMPLE_KINDS) {
      const job = new Logbook();
      if (kind === 'open.part-settled')
        job.add('open.part', samples['open.part'], { id: idOf('sample open.part') });
      for (const [settles, opened] of [
        ['cell.out-settled', 'cell.out'],
        ['cell.dropped-settled', 'cell.dropped'],
        ['set.run-ended', 'set.run-began'],
        ['cell.lit-seen', 'cell.lit'],
      ] as const)
        if (kind === settles) job.add(opened, samples[opened], { id: idOf(`sample ${opened}`) });
      job.add(kind, samples[kind]);
      const same = JSON.stringify([...flat(job.state().facts)]) === JSON.stringify([...flat(nothing)]);
      expect([kind, same]).toEqual([kind, kind === 'logbook.withdrawn']);
    }
  });

  it('reopens a signed job where the record would read otherwise', () => {
    const keeps = SAMPLE_KINDS.filter((kind) => !reopens(new Logbook().add(kind, samples[kind])));
    expect(keeps.sort()).toEqual(
      [
        'arrive.cell-history',
        'arrive.mark',
        'arrive.originality',
        'arrive.parts-arrived',
        'arrive.parts-request',
        'arrive.promise',
        'arrive.ready',
        'arrive.stopped',
        'arrive.wear',
        'cell.above',
        'cell.out-settled',
        'cell.steps',
        'cell.well-measured',
        'handback.collected',
        'handback.reminded',
        'handback.signed',
        'identify.evidence',
        'open.inside-serial',
        'open.measured',
        'open.photo-mark',
        'open.print',
        'open.seals',
        'open.steps',
        'open.technique',
        'open.together',
        'seal.groove',
        'seal.now',
        'seal.old-ring',
        'seal.press',
        'seal.steps',
      ].sort(),
    );
  });

  it('folds in any order without throwing, and the same entries always to the same facts', () => {
    const all: Entry[] = SAMPLE_KINDS.map((kind, index) => ({
      ...new Logbook().add(kind, samples[kind], { id: idOf(`any ${index}`) }),
      sequence: index + 1,
    }));
    fc.assert(
      fc.property(fc.shuffledSubarray(all), (some) => {
        const renumbered = some.map((entry, index) => ({ ...entry, sequence: index + 1 }));
        const once = foldJob(renumbered, context);
        const again = foldJob([...renumbered].reverse(), context);
        expect([...flat(again.facts)]).toEqual([...flat(once.facts)]);
        expect(again.current).toBe(once.current);
      }),
      { numRuns: 40 },
    );
  });
});

describe('evidence that cannot be', () => {
  const refused = (payload: Payloads['identify.evidence']): string => {
    const parsed = schemaOf('identify.evidence').safeParse(payload);
    return parsed.success
      ? ''
      : fieldsOf(parsed.error)
          .map(({ message }) => message)
          .join(' ');
  };
  it.each([
    [{ look: 'widthMm', value: 90, withinMm: 0 }, 'plausible is 5 to 60 mm'],
    [{ look: 'heightMm', value: -1, withinMm: 0 }, 'plausible is 0.5 to 15 mm'],
    [{ look: 'heldBy', value: 'glue', withinMm: 0 }, 'one of side lever'],
    [{ look: 'mark', value: 7, withinMm: 0 }, 'as it is seen, not a figure'],
    [{ look: 'widthMm', value: 'wide', withinMm: 0 }, 'plausible is'],
  ] as const)('%j is refused with what is plausible', (payload, words) => {
    expect(refused(payload)).toContain(words);
  });
  it('may be anything the look can show, and left out by hand', () => {
    expect(refused({ look: 'date', value: '4.5', withinMm: 0 })).toBe('');
    expect(refused({ look: 'caseCode', value: 'nobody’s', withinMm: 0 })).toBe('');
    expect(refused({ look: 'caseCode', value: null, withinMm: 0 })).toBe('');
  });
});

describe('an entry made by an older page', () => {
  it('is raised before it is judged; one from a newer program stays as it is', () => {
    const sent = newEntryOf('seal.closed', samples['seal.closed'], envelope);
    const older = { ...sent, payloadVersion: 1, payload: { how: 'thumbs', seamEven: true } };
    expect(upcastNewEntry(older)).toMatchObject({
      payloadVersion: 3,
      payload: { how: 'thumbs', seamEven: true, raisedClocks: [], interim: false },
    });
    for (const [kind, payload, raised] of [
      ['check.reading', { measure: 'currentUA', value: 1 }, { loadKOhm: null, loadSeconds: null }],
      ['check.pulses', { there: true, through: 'the open watch' }, { everyS: null }],
      ['check.diagnosis', { cause: 'spent cell', next: 'new cell', words: '' }, { also: null }],
      ['identify.movement', { calibreId: null, code: 'X', by: 'hand', note: '' }, { revision: null }],
      [
        'cell.fitted',
        { cellCode: '364', lotId: null, supplier: '', lotCode: '', alkalineAgreed: false },
        { ownersOwn: false },
      ],
    ] as const)
      expect(upcastNewEntry({ ...sent, kind, payloadVersion: 1, payload })).toMatchObject({
        payloadVersion: 2,
        payload: { ...payload, ...raised },
      });
    const old = {
      method: 'wet',
      pressureBar: 3,
      seconds: 60,
      outcome: 'leak seen',
      deflectionStartUm: null,
      deflectionEndUm: null,
      leakClock: 3,
      leakSeenFrom: 'behind',
      temperatureC: 21,
      note: '',
    };
    const { leakClock: _, leakSeenFrom: __, ...kept } = old;
    const raised = {
      ...kept,
      record: null,
      testerNoiseUm: null,
      usualUmPerBar: null,
      places: [{ side: 'back', clock: 3 }],
      fogSeconds: null,
      retestOf: [],
      excessReason: '',
    };
    for (const [payloadVersion, payload, retestOf, side] of [
      [2, old, [], 'front'],
      [4, { ...old, retestOf: null, excessReason: '' }, [], 'back'],
      [4, { ...old, retestOf: idOf('first'), excessReason: '' }, [idOf('first')], 'back'],
    ] as const)
      expect(upcastNewEntry({ ...sent, kind: 'test.made', payloadVersion, payload })).toMatchObject({
        payloadVersion: 5,
        payload: { ...raised, retestOf, places: [{ side, clock: 3 }] },
      });
    expect(
      upcastNewEntry({
        ...sent,
        kind: 'test.made',
        payloadVersion: 4,
        payload: { ...old, leakClock: null, leakSeenFrom: null, retestOf: null, excessReason: '' },
      }),
    ).toMatchObject({ payload: { places: [] } });
    const newer = { ...sent, payloadVersion: 99 };
    expect(upcastNewEntry(newer)).toEqual(newer);
  });
});

/** The facts as comparable pairs: maps by their entries, lists and entries by id. */
function* flat(facts: object): Generator<[string, string]> {
  for (const [name, value] of Object.entries(facts)) {
    if (value instanceof Map) yield [name, JSON.stringify([...(value as Map<string, unknown>)].sort())];
    else if (Array.isArray(value))
      yield [name, JSON.stringify(value.map((entry) => (entry as Entry).id).sort())];
    else if (value !== null && typeof value === 'object' && ('began' in value || 'put' in value))
      yield [name, JSON.stringify(value)];
    else yield [name, (value as Entry | null)?.id ?? ''];
  }
}
