import { z } from 'zod';
import {
  ACCUMULATOR_WAYS,
  CELL_CONDITIONS,
  type CellPayloads,
  CHARGE_OUTCOMES,
  DROPPED,
  DROPPED_ENDS,
  MAIN_WELL,
  OUT_GOES_TO,
} from '../../core/logbook';
import { CHARGE_STATES } from '../../core/craft/charging';
import { ABOVE_CELL } from '../../core/craft/movements';
import { anyOf, id, number, oneOf, optionalText, several, text, yesNo } from '../fields';
import { addsFields, type KindDefinitions, kind } from './define';
const supplier = optionalText({ words: 'Supplier', max: 80, example: 'Saltmarsh Wholesale' });
const lotCode = optionalText({ words: 'Lot', max: 40, example: 'N-204' });

export const cellKinds: KindDefinitions<CellPayloads> = {
  'cell.found': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        marking: text({ words: 'Marking of the old cell', max: 60, example: 'SR 621 SW (364)' }).nullable(),
        condition: oneOf('Condition', CELL_CONDITIONS).nullable(),
      }),
  }),
  'cell.fitted': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({
          cellCode: text({ words: 'Cell', max: 30, example: 'SR621SW' }),
          lotId: id.nullable(),
          supplier,
          lotCode,
          alkalineAgreed: yesNo('The owner agrees to an alkaline cell'),
          ownersOwn: yesNo('The owner brought it'),
        })
        .refine(({ lotId, ownersOwn }) => lotId === null || !ownersOwn, {
          path: ['ownersOwn'],
          error: 'The owner’s own cell does not come from a lot of this shop. Choose one of the two.',
        }),
    upcasts: [addsFields('an owner can bring a cell', { ownersOwn: false })],
  }),
  'cell.put-back': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        reason: text({ words: 'Reason', max: 200, example: 'reseal only, measured 1.56 V' }),
      }),
  }),
  'cell.accumulator': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        kitCode: text({ words: 'Kit', max: 40, example: 'KT-Q31' }),
        lotId: id.nullable(),
        supplier,
        lotCode,
        way: oneOf('Renewed as', ACCUMULATOR_WAYS),
        tabContactOhm: number({
          words: 'Contact resistance of the tab',
          min: 0,
          max: 10_000,
          unit: 'Ω',
          example: 0.2,
        }).nullable(),
        unchargedBecause: text({
          words: 'Reason for skipping the test charge',
          max: 200,
          example: 'it swelled',
        }).nullable(),
      }),
    upcasts: [
      addsFields('tab contact and reason for no charge', { tabContactOhm: null, unchargedBecause: null }),
    ],
  }),
  'cell.charged': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        by: oneOf('Charged by', ['light', 'rotor', 'charger']),
        hours: number({ words: 'Charged for', min: 0.1, max: 2000, unit: 'h', example: 8 }),
        outcome: oneOf('Result', CHARGE_OUTCOMES),
      }),
  }),
  'cell.lit': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          placeId: text({ words: 'Light place', max: 60, example: 'sill' }),
          placeName: text({ words: 'Name of the light place', max: 60, example: 'sill of the east window' }),
          distanceMm: number({
            words: 'Distance to the lamp',
            min: 10,
            max: 3000,
            unit: 'mm',
            example: 200,
          }).nullable(),
          roomC: number({ words: 'Room temperature', min: -10, max: 50, unit: '°C', example: 22 }),
          shows: oneOf('Charge shown', CHARGE_STATES).nullable(),
          percent: number({
            words: 'Charge level',
            min: 0,
            max: 100,
            unit: '% of full',
            example: 40,
          }).nullable(),
        })
        .refine(({ shows, percent }) => (shows === null) !== (percent === null), {
          message: 'Enter either what it shows or its charge in percent, for example “flat”.',
          path: ['shows'],
        }),
  }),
  'cell.lit-seen': kind({
    version: 1,
    schema: () => z.strictObject({ stepsNormally: yesNo('It steps normally') }),
  }),
  'cell.well-measured': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        diameterMm: number({ words: 'Across the well', min: 3, max: 40, unit: 'mm', example: 7 }),
        depthMm: number({ words: 'Depth of the well', min: 0.5, max: 12, unit: 'mm', example: 2.3 }),
      }),
  }),
  'cell.usage': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        uses: several(
          'Uses',
          z.strictObject({
            name: text({ words: 'What is used', max: 40, example: 'light' }),
            secondsPerDay: number({
              words: 'Seconds a day',
              min: 0,
              max: 86_400,
              unit: 's',
              example: 12,
            }),
          }),
          12,
        ),
      }),
  }),
  'cell.out': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        cellCode: text({ words: 'Cell', max: 30, example: 'SR621SW' }),
        lotId: id.nullable(),
        lotCode,
      }),
  }),
  'cell.out-settled': kind({
    version: 1,
    schema: () => z.strictObject({ outEntryId: id, to: oneOf('Where it went', OUT_GOES_TO) }),
  }),
  'cell.dropped': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        what: oneOf('What was dropped', DROPPED),
        where: optionalText({ words: 'Where it fell', max: 120, example: 'under the bench, left' }),
      }),
  }),
  'cell.dropped-settled': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          droppedEntryId: id,
          outcome: oneOf('How it ended', DROPPED_ENDS),
          words: optionalText({
            words: 'Who was informed, where was searched',
            max: 200,
            example: 'reported to the head of the shop',
          }),
        })
        .refine(({ outcome, words }) => outcome === 'found' || words !== '', {
          path: ['words'],
          error: 'Who was informed, where was searched: fill this in.',
        }),
  }),
  'cell.places': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          first: text({ words: 'First cell', max: 30, example: 'hands' }),
          second: text({ words: 'Second cell', max: 30, example: 'display' }),
        })
        .refine(({ first, second }) => first.trim().toLowerCase() !== second.trim().toLowerCase(), {
          path: ['second'],
          error: 'Two cells cannot have the same name. Give the second one another name.',
        })
        .refine(({ first, second }) => ![first, second].some((each) => each.trim() === MAIN_WELL), {
          path: ['first'],
          error: `“${MAIN_WELL}” is what the only cell is called: name each by what it feeds.`,
        }),
  }),
  'cell.above': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        above: anyOf('Parts above the cell', ABOVE_CELL),
      }),
  }),
  'cell.steps': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        steps: z
          .array(text({ words: 'Step', max: 40, example: 'push' }))
          .min(1, 'Steps: at least one.')
          .max(30),
        asShown: z.boolean(),
      }),
  }),
  'cell.old-settled': kind({
    version: 1,
    schema: () =>
      z
        .strictObject({
          taped: yesNo('Insulated with tape'),
          to: oneOf('Where it went', ['spent bin', 'owner']),
        })
        .refine((settled) => settled.taped || settled.to === 'owner', {
          path: ['taped'],
          error: 'A spent cell is taped before it goes into the bin: loose cells short and burn.',
        }),
  }),
};
