import { z } from 'zod';
import { CELL_CONDITIONS } from '../../core/logbook';
import type { CellPayloads } from '../../core/logbook/facts/cell';
import { id, oneOf, optionalText, text } from '../fields';
import type { KindDefinitions } from './define';

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
      supplier: optionalText({ words: 'Supplier', max: 80, example: 'Saltmarsh Wholesale' }),
      lotCode: optionalText({ words: 'Lot', max: 40, example: 'N-204' }),
      alkalineAgreed: z.boolean(),
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
