import { z } from 'zod';
import { CATALOGUE_KINDS, type CatalogueKind, type RecordBodies } from '../core/craft/book';
import type { Gasket } from '../core/craft/gaskets';
import type { CellRow } from '../core/craft/cells';
import {
  BACK_KINDS,
  type BackMeasures,
  type CaseType,
  COATINGS,
  MOST_NOTCHES,
  PANEL_HELD_BY,
} from '../core/craft/cases';
import { BLADE_FORMS, type ToolBodies, type ToolKind } from '../core/craft/tools';
import {
  type Calibre,
  CONTACT_KINDS,
  DIAL_PARTS,
  FUNCTION_KINDS,
  HOLD_KINDS,
  type Maker,
  SIGNS,
} from '../core/craft/movements';
import { clock, id, number, oneOf, optionalText, priceMinor, text } from './fields';
const code = (words: string, example: string) => text({ words, max: 40, example });
const recordKey = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'Id: small letters, digits and dashes, e.g. orrelin-41-2.');
const mm = (words: string, max: number, example: number) =>
  number({ words, min: 0.1, max, unit: 'mm', example });
/** A movement: under 5 mm or over 60 mm is a slip of the key. */
const size = (words: string, example: number) => number({ words, min: 5, max: 60, unit: 'mm', example });
const place = (words: string) => number({ words, min: -60, max: 60, unit: 'mm', example: 4.2 });
const degrees = (words: string) => number({ words, min: 0, max: 360, unit: '°', example: 210 });
const names = (words: string, example: string) => z.array(text({ words, max: 200, example })).max(40);

const cell: z.ZodType<CellRow> = z.strictObject({
  chemistry: oneOf('Chemistry', ['silver-oxide', 'lithium']),
  iec: optionalText({ words: 'IEC name', max: 20, example: 'SR60' }),
  diameterMm: mm('Diameter', 50, 6.8),
  heightMm: mm('Height', 20, 2.1),
  tradeLow: optionalText({ words: 'Trade name, low drain', max: 20, example: 'SR621SW' }),
  tradeHigh: optionalText({ words: 'Trade name, high drain', max: 20, example: 'SR621W' }),
  numberLow: optionalText({ words: 'Number, low drain', max: 20, example: '364' }),
  numberHigh: optionalText({ words: 'Number, high drain', max: 20, example: '' }),
  alkaline: optionalText({ words: 'Alkaline twin', max: 20, example: 'LR621' }),
  card: optionalText({ words: 'Name on the card', max: 20, example: 'AG1' }),
  capacityMinMAh: number({ words: 'Least capacity', min: 0, max: 5000, unit: 'mAh', example: 18 }),
  capacityMaxMAh: number({ words: 'Most capacity', min: 0, max: 5000, unit: 'mAh', example: 23 }),
});

const maker: z.ZodType<Maker> = z.strictObject({
  id: recordKey,
  name: text({ words: 'Name', max: 60, example: 'Orrelin' }),
  sign: oneOf('Sign', SIGNS).nullable(),
  patterns: z
    .array(
      z.strictObject({
        meaning: oneOf('Meaning', ['movement', 'case', 'serial']),
        template: text({ words: 'Pattern: d a digit, l a letter', max: 30, example: 'OR dd.d' }),
      }),
    )
    .max(20),
});

const calibre: z.ZodType<Calibre> = z.strictObject({
  id: recordKey,
  makerId: recordKey,
  code: code('Calibre', 'OR 41.2'),
  formerCodes: names('Former code', 'OR 40.2'),
  family: optionalText({ words: 'Family', max: 40, example: 'OR 41' }),
  shopsOwn: z.boolean(),
  shape: oneOf('Shape', ['round', 'oblong']),
  widthMm: size('Width', 23.3).nullable(),
  lengthMm: size('Length', 23.3).nullable(),
  heightMm: mm('Height', 20, 3.15).nullable(),
  jewels: number({ words: 'Jewels', min: 0, max: 31, example: 5 })
    .int('Jewels: a whole number, e.g. 5.')
    .nullable(),
  dial: z
    .array(
      z.strictObject({
        shows: oneOf('On the dial', DIAL_PARTS),
        clock: clock.nullable(),
      }),
    )
    .max(12),
  printed: names('Printed', 'two jewels'),
  wells: z
    .array(
      z.strictObject({
        name: code('Cell place', 'main'),
        xMm: place('Towards 3 o’clock'),
        yMm: place('Towards 12 o’clock'),
        cellCode: optionalText({ words: 'Cell', max: 20, example: 'SR621SW' }),
        otherHeightsMm: z.array(mm('Other height', 20, 1.65)).max(5),
        faceUp: oneOf('Face up', ['+', '−']),
        heldBy: oneOf('Held by', HOLD_KINDS),
        pushDegrees: degrees('Push'),
      }),
    )
    .max(4),
  coils: z
    .array(
      z.strictObject({
        xMm: place('Towards 3 o’clock'),
        yMm: place('Towards 12 o’clock'),
        lengthMm: mm('Length', 40, 9.2),
        widthMm: mm('Width', 20, 2.1),
        degrees: degrees('Direction'),
      }),
    )
    .max(6),
  functions: z
    .array(oneOf('Function', FUNCTION_KINDS))
    .min(1, 'Functions: at least one, e.g. hands.')
    .max(20),
  stepIntervalS: number({ words: 'Step interval', min: 0.01, max: 120, unit: 's', example: 1 }).nullable(),
  lowSupplySignal: optionalText({
    words: 'Low-supply signal',
    max: 120,
    example: 'the seconds hand steps in twos',
  }).nullable(),
  typicalUA: number({
    words: 'Typical current',
    min: 0.01,
    max: 100,
    unit: 'µA',
    example: 1.05,
  }).nullable(),
  limitUA: number({ words: 'Current limit', min: 0.01, max: 200, unit: 'µA', example: 1.6 }).nullable(),
  coilMinKOhm: number({ words: 'Coil from', min: 0.01, max: 100, unit: 'kΩ', example: 1.6 }).nullable(),
  coilMaxKOhm: number({ words: 'Coil to', min: 0.01, max: 100, unit: 'kΩ', example: 2.1 }).nullable(),
  lowestV: number({ words: 'Lowest voltage', min: 0.5, max: 4, unit: 'V', example: 1.2 }).nullable(),
  functionDraws: z
    .array(
      z.strictObject({
        name: text({ words: 'What draws', max: 40, example: 'light' }),
        drawUA: number({ words: 'It draws', min: 0, max: 50_000, unit: 'µA', example: 4200 }),
        secondsPerDay: number({ words: 'Seconds a day', min: 0, max: 86_400, unit: 's', example: 6 }),
      }),
    )
    .max(10),
  resetContact: optionalText({
    words: 'Reset contact',
    max: 120,
    example: 'AC to the cell, two seconds',
  }).nullable(),
  charge: z
    .strictObject({
      by: oneOf('Charged by', ['light', 'rotor']),
      kitCode: code('Kit', 'KT-V21'),
      oldPart: oneOf('Old part', ['accumulator', 'capacitor']),
      diameterMm: mm('Diameter', 50, 9.5),
      heightMm: mm('Height', 20, 2.1),
      nominalV: number({ words: 'Nominal voltage', min: 0.5, max: 5, unit: 'V', example: 1.5 }),
      reserveDays: number({ words: 'Runs when full', min: 0.1, max: 4000, unit: 'days', example: 180 }),
    })
    .nullable(),
  contacts: z
    .array(
      z.strictObject({
        kind: oneOf('Contact', CONTACT_KINDS),
        xMm: place('Towards 3 o’clock'),
        yMm: place('Towards 12 o’clock'),
      }),
    )
    .max(12),
  keepClearMm: number({ words: 'Keep clear of the coil by', min: 0, max: 10, unit: 'mm', example: 0.8 }),
  insulators: names('Insulator', 'under the cell, its notch towards the stem'),
  recipes: z
    .array(
      z.strictObject({
        what: text({ words: 'Recipe', max: 80, example: 'cell out and in' }),
        steps: names('Step', 'lever away from the coil until the cell rises'),
      }),
    )
    .max(20),
  revisions: z
    .array(
      z.strictObject({
        name: code('Revision', 'B'),
        seenBy: text({ words: 'Seen by', max: 120, example: 'contact with two fingers' }),
        cellCode: text({ words: 'Its cell', max: 20, example: 'SR626SW' }).nullable(),
        heightMm: mm('Its height', 20, 3.15).nullable(),
        jewels: number({ words: 'Its jewels', min: 0, max: 31, example: 5 })
          .int('Its jewels: a whole number, e.g. 5.')
          .nullable(),
        heldBy: oneOf('Its cell is held by', HOLD_KINDS).nullable(),
      }),
    )
    .max(9),
  dateQuickSet: z.boolean(),
  crownPositions: names('Crown position', 'home'),
  cautions: names('Caution', 'The lever is pushed toward the coil.'),
});

const count = (words: string, example: number) =>
  number({ words, min: 1, max: MOST_NOTCHES, example }).int(`${words}: a whole number, e.g. ${example}.`);

/** The measures of a back, in the book and at the bench. */
export const backMeasureFields = {
  diameterMm: mm('Back diameter', 80, 34.5).nullable(),
  coating: oneOf('Surface', COATINGS).nullable(),
  notchCount: count('Notches or holes', 6).nullable(),
  pitchMm: mm('Pitch circle', 80, 31.4).nullable(),
  notchWidthMm: mm('Width of a notch or hole', 20, 2.6).nullable(),
  notchClocks: z
    .array(number({ words: 'Notch at', min: 0.05, max: 12, unit: 'o’clock', example: 4.2 }))
    .max(48),
  flatCount: count('Flats', 12).nullable(),
  acrossMm: mm('Across the flats', 80, 29.5).nullable(),
  screwCount: count('Screws', 4).nullable(),
  slotLengthMm: mm('Slot length', 20, 1.6).nullable(),
  slotWidthMm: number({ words: 'Slot width', min: 0.05, max: 10, unit: 'mm', example: 0.35 }).nullable(),
  panelHeldBy: oneOf('Panel held by', PANEL_HELD_BY).nullable(),
} as const;
const backMeasures: z.ZodType<BackMeasures> = z.strictObject(backMeasureFields);

const caseType: z.ZodType<CaseType> = z.strictObject({
  id: recordKey,
  makerId: recordKey,
  code: code('Case code', 'C2140-3'),
  backKind: oneOf('Kind of back', BACK_KINDS),
  ratingBar: number({ words: 'Water rating', min: 0, max: 1000, unit: 'bar', example: 3 }).nullable(),
  crownClock: clock,
  lipClock: clock.nullable(),
  gasket: optionalText({ words: 'Gasket', max: 40, example: '30.5 × 0.70' }).nullable(),
  back: backMeasures.nullable(),
});

const gasket: z.ZodType<Gasket> = z.strictObject({
  id: recordKey,
  code: code('Size', '30.5 × 0.70'),
  profile: oneOf('Profile', ['round', 'flat', 'L-shaped', 'shaped to the case']),
  insideMm: mm('Inside diameter', 80, 30.5),
  sectionMm: mm('Section', 5, 0.7),
  material: text({ words: 'Material', max: 40, example: 'nitrile' }),
  caseCodes: names('Case', 'C2140-3'),
});

const tool = {
  id: recordKey,
  name: text({ words: 'Name', max: 60, example: 'bench wrench, long' }),
  costMinor: priceMinor,
};
const travel = (words: string, example: number) => number({ words, min: 0, max: 120, unit: 'mm', example });
const widths = (words: string, example: number) => z.array(mm(words, 20, example)).max(20);
const shank = text({ words: 'Shank', max: 20, example: 'S5' }).nullable();

const tools: { readonly [K in ToolKind]: z.ZodType<ToolBodies[K]> } = {
  wrench: z.strictObject({
    ...tool,
    jaws: z.union([z.literal(2), z.literal(3)], { error: 'Jaws: 2 or 3.' }),
    travelMinMm: travel('Jaws open from', 12),
    travelMaxMm: travel('Jaws open to', 42),
    rearMinMm: travel('Rear jaw from', 8).nullable(),
    rearMaxMm: travel('Rear jaw to', 36).nullable(),
    jawWidthsMm: widths('Jaw width', 2.2),
    pinDiametersMm: widths('Pin diameter', 1.4),
  }),
  openerDie: z.strictObject({
    ...tool,
    form: oneOf('Form', ['die', 'key']),
    flats: count('Flats', 12),
    acrossMm: mm('Across the flats', 80, 29.5),
    shank,
  }),
  holder: z.strictObject({
    ...tool,
    holds: oneOf('Holds', ['dies', 'the case', 'the movement']),
    shank,
    fromMm: travel('Holds from', 18).nullable(),
    toMm: travel('Holds to', 48).nullable(),
  }),
  pressDie: z.strictObject({
    ...tool,
    innerMm: mm('Inner diameter', 80, 30.5).nullable(),
    outerMm: mm('Outer diameter', 90, 34),
    recessMm: travel('Recess', 2),
    material: oneOf('Material', ['plastic', 'metal']),
    shank: text({ words: 'Shank', max: 20, example: 'P6' }),
  }),
  driver: z.strictObject({
    ...tool,
    bladeWidthMm: mm('Blade width', 20, 1.4),
    bladeThicknessMm: number({ words: 'Blade thickness', min: 0.05, max: 5, unit: 'mm', example: 0.28 }),
  }),
  blade: z.strictObject({
    ...tool,
    form: oneOf('Form', BLADE_FORMS),
    widthMm: mm('Width', 60, 8),
  }),
  ball: z.strictObject({
    ...tool,
    backFromMm: travel('Grips backs from', 24),
    backToMm: travel('Grips backs to', 44),
  }),
};

/** The shape of each kind of record, for its form and for the server. */
export const recordSchemas: { readonly [K in CatalogueKind]: z.ZodType<RecordBodies[K]> } = {
  cell,
  maker,
  calibre,
  caseType,
  gasket,
  ...tools,
};

/** A movement that goes into the book from the bench, with what is known. */
export const unknownCalibreForm = z.strictObject({
  code: code('Code', 'PL 9942'),
  makerId: recordKey.or(z.literal('').refine(() => false, 'Maker: choose whose movement it is.')),
  cellCode: optionalText({ words: 'Cell', max: 20, example: 'SR621SW' }),
  widthMm: size('Width', 23.3).nullable(),
  currentUA: number({ words: 'Current', min: 0, max: 5000, unit: 'µA', example: 1.1 }).nullable(),
});

/** A record to be written, resting on the revision its writer saw; null for a new one. */
export const recordWrite = z.strictObject({
  kind: oneOf('Kind', CATALOGUE_KINDS),
  id: z.string().min(1).max(80),
  body: z.unknown(),
  removed: z.boolean().default(false),
  basedOn: z.int().min(1).nullable(),
  technicianId: id,
});

/** One revision of a record, as its history tells it. */
export interface RecordRevision {
  readonly revision: number;
  readonly body: object;
  readonly removed: boolean;
  readonly technicianId: string | null;
  readonly recordedAt: string;
}

/** What an import did, or would do. With errors it does nothing. */
export interface ImportReport {
  readonly table: string;
  readonly dryRun: boolean;
  readonly lines: number;
  readonly added: number;
  readonly changed: number;
  readonly same: number;
  /** The records that would change, each with its fields. */
  readonly changes: readonly { readonly id: string; readonly fields: readonly string[] }[];
  readonly errors: readonly {
    readonly line: number;
    readonly column: string | null;
    readonly reason: string;
  }[];
  readonly applied: boolean;
}

/** What the server says while it reads a table: how far it is, and at last the report. */
export type ImportNews =
  { readonly progress: { readonly done: number; readonly of: number } } | { readonly report: ImportReport };
