import { z } from 'zod';
import {
  carriedBy,
  POINTS_KEPT,
  pressedAt,
  pressureWords,
  recordContradictions,
  TEST_METHODS,
  TEST_OUTCOMES,
  volumeContradiction,
} from '../../core/craft/tightness';
import { type KeptRecord, LEAK_DONE, LEAK_SEATS, LEAK_SIDES, type TestPayloads } from '../../core/logbook';
import { clock, id, number, oneOf, optionalText, several, text } from '../fields';
import { addsFields, changes, type KindDefinitions, kind } from './define';

const deflection = (words: string) => number({ words, min: -500, max: 500, unit: 'µm', example: 12.4 });
const seconds = (words: string) => number({ words, min: 1, max: 86_400, unit: 's', example: 60 });

const column = (words: string, min: number, max: number, unit: string, example: number) =>
  z
    .array(number({ words, min, max, unit, example }))
    .max(
      POINTS_KEPT,
      `Record: at most ${POINTS_KEPT} points; a longer one is condensed before it is stored.`,
    );

const record: z.ZodType<KeptRecord, KeptRecord> = z
  .strictObject({
    atS: column('Time', 0, 1_000_000, 's', 12),
    overBar: column('Pressure', -0.99, 130, 'bar', 3),
    deflectionUm: column('Deflection', -5000, 5000, 'µm', 12.4),
    from: text({ words: 'Where the record is from', max: 120, example: 'the tester' }),
    repairs: z
      .array(optionalText({ words: 'What was put right', max: 300, example: 'Left out, a spike: line 40.' }))
      .max(20),
  })
  .superRefine((kept, wrong) => {
    for (const message of recordContradictions(kept)) wrong.addIssue({ code: 'custom', message });
  });

/** A blank run is one with nothing pressing, bar. */
const NOTHING_PRESSED_BAR = 0.1;
/** A gauge is read to this, bar, and to this share. */
const READ_TO_BAR = 0.03;
const READ_TO_SHARE = 0.02;
/** A watch is stopped by hand within this, s, and to this share. */
const STOPPED_WITHIN_S = 3;
const STOPPED_WITHIN_SHARE = 0.05;

/** Whether a test was made at the pressure its record held; a record in which none stood is told by its verdict. */
function agrees(held: number | null, pressureBar: number | null): boolean {
  return (
    held === null ||
    pressureBar === null ||
    Math.abs(held - pressureBar) <= READ_TO_BAR + READ_TO_SHARE * Math.abs(held)
  );
}

/** How an older program told a place: a clock position and the side it was seen from. */
interface OldPlace {
  readonly leakClock?: number | null;
  readonly leakSeenFrom?: 'the dial' | 'behind' | null;
  readonly retestOf?: string | null;
}

/** Built at once: it is longer than a function may be. */
const madeTest = z
  .strictObject({
    method: oneOf('Method', TEST_METHODS),
    pressureBar: number({ words: 'Pressure', min: -0.9, max: 130, unit: 'bar', example: 3 }).nullable(),
    seconds: seconds('Watched for'),
    outcome: oneOf('Result', TEST_OUTCOMES).nullable(),
    record: record.nullable(),
    deflectionStartUm: deflection('Deflection at the start').nullable(),
    deflectionEndUm: deflection('Deflection at the end').nullable(),
    testerNoiseUm: number({
      words: 'Noise of the tester',
      min: 0,
      max: 50,
      unit: 'µm',
      example: 0.05,
    }).nullable(),
    usualUmPerBar: number({
      words: 'What it gave before',
      min: 0,
      max: 500,
      unit: 'µm a bar',
      example: 5,
    }).nullable(),
    places: several(
      'Places',
      z.strictObject({ side: oneOf('Side', LEAK_SIDES), clock: clock('Clock position') }),
      24,
    ),
    fogSeconds: number({
      words: 'Fog duration',
      min: 1,
      max: 86_400,
      unit: 's',
      example: 40,
    }).nullable(),
    temperatureC: number({
      words: 'Temperature',
      min: -10,
      max: 60,
      unit: '°C',
      example: 22,
    }).nullable(),
    note: optionalText({
      words: 'Work before the test',
      max: 300,
      example: 'crown seal renewed, tested again',
    }),
    retestOf: several('Retest of', id, 50),
    excessReason: optionalText({
      words: 'Reason for exceeding the limit',
      max: 200,
      example: 'the owner asks for the full rating and knows the risk',
    }),
  })
  .refine((test) => test.places.length === 0 || test.outcome === 'leak seen', {
    path: ['places'],
    error: 'Places: of a leak, only where a leak was seen; otherwise leave it out.',
  })
  .refine(
    (test) => test.fogSeconds === null || (test.method === 'condensation' && test.outcome === 'leak seen'),
    {
      path: ['fogSeconds'],
      error: 'Fog duration: only of a condensation test at which fog was seen.',
    },
  )
  .refine((test) => (test.deflectionStartUm === null) === (test.deflectionEndUm === null), {
    path: ['deflectionEndUm'],
    error: 'Deflection at the end: wanted with the one at the start, e.g. 12.4 and 12.1, or neither.',
  })
  .refine((test) => (test.method === 'condensation') === (test.pressureBar === null), {
    path: ['pressureBar'],
    error: 'Pressure: wanted for dry air and wet tests, e.g. 3, and none for condensation.',
  })
  .refine((test) => test.method === 'dry air' || (test.record === null && test.deflectionStartUm === null), {
    path: ['deflectionStartUm'],
    error: 'Deflection at the start: of a dry test alone; a wet one and condensation are judged by eye.',
  })
  .refine(
    (test) =>
      test.outcome !== null ||
      (test.method === 'dry air' && (test.record !== null || test.deflectionStartUm !== null)),
    {
      path: ['outcome'],
      error:
        'Result: choose what was seen. Only a dry test with its record or both deflections is judged without it.',
    },
  )
  .refine((test) => test.record === null || test.deflectionStartUm === null, {
    path: ['deflectionStartUm'],
    error: 'Deflection at the start: its record holds it; leave the two figures blank.',
  })
  .superRefine(({ record: kept, pressureBar, seconds: givenS }, wrong) => {
    const held = kept === null ? null : carriedBy(kept);
    if (held === null) return;
    if (!agrees(held.overBar, pressureBar))
      wrong.addIssue({
        code: 'custom',
        path: ['pressureBar'],
        message: `Pressure: its record shows ${pressureWords(held.overBar)} for ${held.seconds} s. Enter that pressure.`,
      });
    if (givenS > held.seconds + Math.max(STOPPED_WITHIN_S, STOPPED_WITHIN_SHARE * held.seconds))
      wrong.addIssue({
        code: 'custom',
        path: ['seconds'],
        message: `Watched for: its record shows ${held.seconds} s at ${pressureWords(held.overBar)}. Enter that duration.`,
      });
  });

export const testKinds: KindDefinitions<TestPayloads> = {
  'test.made': kind({
    version: 5,
    upcasts: [
      addsFields('deflections, place of the leak, temperature and note', {
        deflectionStartUm: null,
        deflectionEndUm: null,
        leakClock: null,
        temperatureC: null,
        note: '',
      }),
      addsFields('the test it repeats, and why it went beyond a limit', { retestOf: null, excessReason: '' }),
      // Until then every place was asked for as seen from the dial.
      changes('the side a leak was seen from', (payload) => ({
        ...payload,
        leakSeenFrom: ((payload as OldPlace).leakClock ?? null) === null ? null : 'the dial',
      })),
      // Until then a test had one place, one test it tried anew, and no record.
      changes('several places and tests it repeats, and the record of a tester', (payload) => {
        const { leakClock, leakSeenFrom, retestOf, ...rest } = payload as OldPlace;
        return {
          ...rest,
          record: null,
          testerNoiseUm: null,
          usualUmPerBar: null,
          places:
            (leakClock ?? null) === null
              ? []
              : [{ side: leakSeenFrom === 'behind' ? 'back' : 'front', clock: leakClock }],
          fogSeconds: null,
          retestOf: (retestOf ?? null) === null ? [] : [retestOf],
        };
      }),
    ],
    schema: () => madeTest,
  }),
  'test.case': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          freeVolumeCm3: number({
            words: 'Free volume',
            min: 0.05,
            max: 50,
            unit: 'cm³',
            example: 1.4,
          }).nullable(),
          withinPercent: number({
            words: 'Known within',
            min: 1,
            max: 100,
            unit: '%',
            example: 10,
          }).nullable(),
          diameterMm: number({
            words: 'Case diameter',
            min: 8,
            max: 90,
            unit: 'mm',
            example: 36,
          }).nullable(),
          thicknessMm: number({ words: 'Thickness', min: 2, max: 40, unit: 'mm', example: 9 }).nullable(),
        })
        .refine((size) => (size.freeVolumeCm3 === null) === (size.withinPercent === null), {
          path: ['withinPercent'],
          error: 'Known within: how well the volume was measured, e.g. 10 %, and only where it was.',
        })
        .refine(
          (size) => size.freeVolumeCm3 !== null || (size.diameterMm !== null && size.thicknessMm !== null),
          {
            path: ['freeVolumeCm3'],
            error: 'Free volume as measured, or the case’s diameter and thickness.',
          },
        )
        .superRefine((size, wrong) => {
          const message = volumeContradiction(size.freeVolumeCm3, size.diameterMm, size.thicknessMm);
          if (message !== null) wrong.addIssue({ code: 'custom', path: ['freeVolumeCm3'], message });
        }),
  }),
  'test.blank': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          record: record.nullable(),
          typed: z
            .strictObject({
              startUm: deflection('Deflection at the start'),
              endUm: deflection('Deflection at the end'),
              seconds: seconds('Duration'),
            })
            .nullable(),
        })
        .refine((blank) => (blank.record === null) !== (blank.typed === null), {
          path: ['typed'],
          error: 'Blank run: its record, or what the tester showed at both ends.',
        })
        .refine((blank) => blank.record === null || Math.abs(pressedAt(blank.record)) < NOTHING_PRESSED_BAR, {
          path: ['record'],
          error: 'Blank run: nothing may press; this one was pressed.',
        })
        .refine((blank) => (blank.typed?.seconds ?? Infinity) >= 20, {
          path: ['typed'],
          error: 'Blank run: 20 s at least, e.g. 120.',
        }),
  }),
  'test.finding': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        seat: oneOf('Source of the leak', LEAK_SEATS),
        foundBy: z.array(id).max(50),
        done: oneOf('What was done', LEAK_DONE),
        note: optionalText({ words: 'Note', max: 300, example: 'tube worn, seal of 2.0 mm' }),
      }),
  }),
};
