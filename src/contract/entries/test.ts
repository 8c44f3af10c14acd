import { z } from 'zod';
import { VIEWS } from '../../core/craft/cases';
import { TEST_METHODS, TEST_OUTCOMES } from '../../core/craft/tightness';
import type { TestPayloads } from '../../core/logbook';
import { clock, id, number, oneOf, optionalText } from '../fields';
import type { KindDefinitions } from './define';
const deflection = number({ words: 'Deflection', min: -500, max: 500, unit: 'µm', example: 12.4 });

export const testKinds: KindDefinitions<TestPayloads> = {
  'test.made': {
    version: 4,
    raise: {
      1: (payload) => ({
        ...(payload as object),
        deflectionStartUm: null,
        deflectionEndUm: null,
        leakClock: null,
        temperatureC: null,
        note: '',
      }),
      2: (payload) => ({ retestOf: null, excessReason: '', ...(payload as object) }),
      // Until then every place was asked for as seen from the dial.
      3: (payload) => ({
        ...(payload as object),
        leakSeenFrom:
          ((payload as { leakClock?: number | null }).leakClock ?? null) === null ? null : 'the dial',
      }),
    },
    schema: z
      .strictObject({
        method: oneOf('Method', TEST_METHODS),
        pressureBar: number({ words: 'Pressure', min: -0.9, max: 130, unit: 'bar', example: 3 }).nullable(),
        seconds: number({ words: 'Duration', min: 1, max: 86_400, unit: 's', example: 60 }),
        outcome: oneOf('Outcome', TEST_OUTCOMES),
        deflectionStartUm: deflection.nullable(),
        deflectionEndUm: deflection.nullable(),
        leakClock: clock.nullable(),
        leakSeenFrom: oneOf('Seen from', VIEWS).nullable(),
        temperatureC: number({ words: 'Temperature', min: -10, max: 60, unit: '°C', example: 22 }).nullable(),
        note: optionalText({ words: 'What was done', max: 300, example: 'crown seal renewed, tested again' }),
        retestOf: id.nullable(),
        excessReason: optionalText({
          words: 'Why beyond the limit',
          max: 200,
          example: 'the owner asks for its full rating, told of the risk',
        }),
      })
      .refine((test) => test.retestOf === null || test.note !== '', {
        path: ['note'],
        error: 'What was done: a retest follows a repair, e.g. “crown seal renewed”.',
      })
      .refine((test) => test.leakClock === null || test.outcome === 'leak seen', {
        path: ['leakClock'],
        error: 'Place of the leak: only where a leak was seen; otherwise leave it blank.',
      })
      .refine((test) => test.leakClock === null || test.leakSeenFrom !== null, {
        path: ['leakSeenFrom'],
        error: 'Place of the leak: say from which side it was seen, the dial or behind.',
      })
      .refine((test) => (test.deflectionStartUm === null) === (test.deflectionEndUm === null), {
        path: ['deflectionEndUm'],
        error: 'Deflection: at the start and at the end, e.g. 12.4 and 12.1, or neither.',
      })
      .refine((test) => (test.method === 'condensation') === (test.pressureBar === null), {
        path: ['pressureBar'],
        error: 'Pressure: wanted for dry air and wet tests, e.g. 3, and none for condensation.',
      }),
  },
};
