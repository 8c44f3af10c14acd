import fc from 'fast-check';
import { z } from 'zod';
import type { EntryKind } from '../core/logbook';
import { addsFields, changes } from './entries/define';
import { dryTest, idOf, newEntryOf, readyJob, wetTest } from '../testing/fixtures';
import {
  ENTRY_KINDS,
  fieldsOf,
  kindDefinition,
  newEntry,
  upcastNewEntry,
  upcastPayload,
  type KindDefinition,
} from '.';

const envelope = { technicianId: idOf('t'), id: idOf('e') };

describe('entries on the wire', () => {
  it('takes every entry of a whole job, and gives it back as it was', () => {
    for (const entry of readyJob().entries) {
      const sent = newEntryOf(entry.kind, entry.payload, { ...envelope });
      expect(newEntry.parse(JSON.parse(JSON.stringify(sent)))).toEqual(sent);
    }
  });

  it('refuses half a character, as a text cut in its middle ends with, before it is kept anywhere', () => {
    const said = (words: string) =>
      newEntry.safeParse(newEntryOf('arrive.complaint', { picked: ['stopped'], words }, envelope));
    expect(said('fell from a \u{1f6b2}').success).toBe(true);
    const cut = said('fell from a \ud83d');
    expect(cut.success).toBe(false);
    expect(JSON.stringify(cut.error?.issues)).toContain('in the middle of a character');
  });

  it('refuses any kind it does not know, and any field it does not know', () => {
    const sent = newEntryOf('set.time', { set: true }, envelope);
    expect(newEntry.safeParse({ ...sent, kind: 'set.nothing' }).success).toBe(false);
    expect(newEntry.safeParse({ ...sent, sequence: 4 }).success).toBe(false);
    expect(newEntry.safeParse({ ...sent, payload: { set: true, more: 1 } }).success).toBe(false);
  });

  it('never throws, whatever body it is given', () => {
    fc.assert(
      fc.property(
        fc.anything(),
        (body) => typeof newEntry.safeParse(upcastNewEntry(body)).success === 'boolean',
      ),
    );
  });

  it.each([
    ['an occurrence in the wrong century', { occurredAt: '1926-03-17T10:00:00.000Z' }],
    ['a time without a zone', { occurredAt: '2026-03-17 10:00' }],
    ['an id that is none', { id: '7' }],
    ['no bench', { bench: ' ' }],
  ])('refuses %s with an example', (_, wrong) => {
    const result = newEntry.safeParse({ ...newEntryOf('set.time', { set: true }, envelope), ...wrong });
    expect(result.success).toBe(false);
    if (!result.success) expect(fieldsOf(result.error)[0]?.message).toMatch(/e\.g\.|good value/);
  });

  it('keeps line breaks and other control characters out of texts', () => {
    const result = newEntry.safeParse(newEntryOf('identify.engraving', { text: 'OR 41.2\u0007' }, envelope));
    expect(result.success).toBe(false);
  });

  it('has a definition for every kind', () => {
    expect(ENTRY_KINDS.length).toBeGreaterThanOrEqual(25);
    for (const kind of ENTRY_KINDS) expect(kindDefinition(kind).version).toBeGreaterThanOrEqual(1);
  });
});

describe('older payloads', () => {
  const definition: KindDefinition<{ volts: number; load: string }> = {
    version: 3,
    schema: z.object({ volts: z.number(), load: z.string() }),
    upcasts: [
      changes('volts are called so', (payload) => ({ volts: (payload as { v: number }).v })),
      addsFields('the load', { load: 'not stated' }),
    ],
  };

  it('are raised step by step to today’s', () => {
    expect(upcastPayload(definition, 1, { v: 1.5 })).toEqual({ volts: 1.5, load: 'not stated' });
    expect(upcastPayload(definition, 2, { volts: 1.5 })).toEqual({ volts: 1.5, load: 'not stated' });
    expect(upcastPayload(definition, 3, { volts: 1.5, load: '2 kΩ' })).toEqual({ volts: 1.5, load: '2 kΩ' });
  });

  it('of every kind have one named step from each version to the next', () => {
    for (const kind of ENTRY_KINDS) {
      const { version, upcasts = [] } = kindDefinition(kind);
      expect([kind, upcasts.length]).toEqual([kind, version - 1]);
      for (const { name } of upcasts) expect([kind, name]).toEqual([kind, expect.stringMatching(/\w{3}/)]);
    }
  });

  it('are refused where no way leads up, or when they are newer than the program', () => {
    expect(() => upcastPayload({ ...definition, upcasts: [] }, 1, {})).toThrow(/No way/);
    expect(() => upcastPayload(definition, 4, {})).toThrow(/newer/);
  });
});

describe('payloads of earlier versions of the program', () => {
  it.each([
    [
      'open.back',
      {
        kind: 'snap-on',
        openedWith: 'case knife',
        spotClock: 7,
        lipClock: null,
        seenFrom: 'behind',
        toolIds: [],
        separationMm: null,
        rearMm: null,
      },
    ],
    [
      'seal.gasket',
      { state: 'reused', findings: [], ageYears: 2, meetsWater: false, greased: true, reason: 'sound' },
    ],
    ['seal.closed', { how: 'thumbs', seamEven: true }],
    ['test.made', { method: 'dry air', pressureBar: 3, seconds: 60, outcome: 'no leak seen' }],
    ['set.functions', { proved: { hands: 'works', light: 'does not work' } }],
    ['set.outside', { proved: { bezel: 'works' } }],
    ['set.run-began', { shows: '09:42' }],
    ['set.run-ended', { shows: '17:42', stillRuns: true }],
  ] as const)('of %s are raised to what the program knows now', (kind, payload) => {
    const definition = kindDefinition(kind) as KindDefinition<unknown>;
    expect(definition.version).toBeGreaterThan(1);
    expect(definition.schema.safeParse(payload).success).toBe(false);
    const raised = upcastPayload(definition, 1, payload);
    expect(definition.schema.parse(raised)).toEqual(raised);
    expect(raised).toMatchObject(payload);
  });
});

describe('facts that contradict themselves are refused in words', () => {
  const refused = (kind: EntryKind, payload: unknown): string =>
    (kindDefinition(kind) as KindDefinition<unknown>).schema.safeParse(payload).error?.issues[0]?.message ??
    'taken';
  it.each([
    [
      'arrive.mark',
      { view: 'back', kind: 'dent', clock: 4, film: 'keep', note: '' },
      'only when the mark is original film',
    ],
    ['arrive.wear', { uses: [], words: '' }, 'pick how'],
    ['arrive.cell-history', { changedBy: 'nobody knows', changedOn: '2023' }, 'leave it blank'],
    ['arrive.cell-history', { changedBy: 'the owner', changedOn: '23' }, 'a year'],
    [
      'arrive.decision',
      { decision: 'referred', reason: 'not possible at this bench', to: '', told: '' },
      'say where',
    ],
    ['arrive.parts-request', { lines: [], supplier: '', expectedOn: null }, 'at least one'],
    [
      'seal.closed',
      { how: 'press', seamEven: true, raisedClocks: [4], seenFrom: 'behind', interim: false },
      'even all round and raised',
    ],
    ['set.run-began', { toSee: 'how it keeps time', shows: '25:10' }, 'hours and minutes'],
    ['test.made', { ...dryTest, places: [{ side: 'front', clock: 3 }] }, 'only where a leak was seen'],
    ['test.made', { ...dryTest, record: null }, 'what was seen'],
    ['test.made', { ...dryTest, pressureBar: 5 }, 'its record shows 3 bar for 312 s'],
    ['test.made', { ...wetTest, fogSeconds: 30 }, 'only of a condensation test'],
    ['test.made', { ...wetTest, record: dryTest.record }, 'of a dry test alone'],
    ['test.blank', { record: dryTest.record, typed: null }, 'nothing may press'],
    ['test.blank', { record: null, typed: null }, 'what the tester showed at both ends'],
    [
      'test.case',
      { freeVolumeCm3: null, withinPercent: null, diameterMm: 36, thicknessMm: null },
      'diameter and thickness',
    ],
    ['test.made', { ...dryTest, record: null, deflectionStartUm: 12 }, 'or neither'],
    ['test.made', { ...dryTest, deflectionStartUm: 12, deflectionEndUm: 12 }, 'its record holds it'],
  ] as const)('%s', (kind, payload, words) => {
    expect(refused(kind, payload)).toContain(words);
  });
});
