import { z } from 'zod';
import { ACCUMULATOR_WAYS, CELL_CONDITIONS, CHARGE_OUTCOMES } from '../../core/logbook';
import type { CellPayloads } from '../../core/logbook/facts/cell';
import { id, number, oneOf, optionalText, text } from '../fields';
import type { KindDefinitions } from './define';

const supplier = optionalText({ words: 'Supplier', max: 80, example: 'Saltmarsh Wholesale' });
const lotCode = optionalText({ words: 'Lot', max: 40, example: 'N-204' });

export const cellKinds: KindDefinitions<CellPayloads> = {
  'cell.found': {
    version: 1,
    schema: z.strictObject({
      marking: text({ words: 'Marking of the old cell', max: 60, example: 'SR 621 SW (364)' }).nullable(),
      condition: oneOf('Condition', CELL_CONDITIONS).nullable(),
    }),
  },
  'cell.fitted': {
    version: 1,
    schema: z.strictObject({
      cellCode: text({ words: 'Cell', max: 30, example: 'SR621SW' }),
      lotId: id.nullable(),
      supplier,
      lotCode,
      alkalineAgreed: z.boolean(),
    }),
  },
  'cell.put-back': {
    version: 1,
    schema: z.strictObject({
      reason: text({ words: 'Reason', max: 200, example: 'reseal only, measured 1.56 V' }),
    }),
  },
  'cell.accumulator': {
    version: 1,
    schema: z.strictObject({
      kitCode: text({ words: 'Kit', max: 40, example: 'KT-Q31' }),
      lotId: id.nullable(),
      supplier,
      lotCode,
      way: oneOf('Renewed as', ACCUMULATOR_WAYS),
    }),
  },
  'cell.charged': {
    version: 1,
    schema: z.strictObject({
      by: oneOf('Charged by', ['light', 'rotor', 'charger']),
      hours: number({ words: 'Charged for', min: 0.1, max: 2000, unit: 'h', example: 8 }),
      outcome: oneOf('Outcome', CHARGE_OUTCOMES),
    }),
  },
  'cell.old-settled': {
    version: 1,
    schema: z
      .strictObject({ taped: z.boolean(), to: oneOf('Where it went', ['spent bin', 'owner']) })
      .refine((settled) => settled.taped || settled.to === 'owner', {
        path: ['taped'],
        error: 'A spent cell is taped before it goes into the bin: loose cells short and burn.',
      }),
  },
};
