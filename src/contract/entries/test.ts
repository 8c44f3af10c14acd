import { z } from 'zod';
import { TEST_METHODS } from '../../core/logbook';
import type { TestPayloads } from '../../core/logbook/facts/test';
import { number, oneOf } from '../fields';
import type { KindDefinitions } from './define';

export const testKinds: KindDefinitions<TestPayloads> = {
  'test.made': {
    version: 1,
    schema: z
      .strictObject({
        method: oneOf('Method', TEST_METHODS),
        pressureBar: number({ words: 'Pressure', min: -0.9, max: 130, unit: 'bar', example: 3 }).nullable(),
        seconds: number({ words: 'Duration', min: 1, max: 86_400, unit: 's', example: 60 }),
        outcome: oneOf('Outcome', ['no leak seen', 'leak seen', 'not clear']),
      })
      .refine((test) => (test.method === 'condensation') === (test.pressureBar === null), {
        path: ['pressureBar'],
        error: 'Pressure: wanted for dry air and wet tests, e.g. 3, and none for condensation.',
      }),
  },
};
