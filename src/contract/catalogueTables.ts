import type { CatalogueKind } from '../core/craft/book';
import type { ToolKind } from '../core/craft/tools';

/** How a value stands in a CSV field. Lists are parted by `|`; an empty field is nothing. */
type ColumnKind = 'text' | 'number' | 'list' | 'numbers' | 'flag' | 'text or nothing';

export interface Column {
  /** The heading of the file. */
  readonly name: string;
  /** Where it stands in the record, e.g. `widthMm` or `charge.kitCode`. */
  readonly key: string;
  readonly kind: ColumnKind;
  /** The program learnt it later: a file written before need not have it, and what stands there stays. */
  readonly later: boolean;
  /** An empty field says nothing: what stands in the book stays. */
  readonly keeps: boolean;
}

export interface CatalogueTable {
  readonly name: string;
  readonly kind: CatalogueKind;
  /** The list of the record whose lines the file holds; null for the record itself. */
  readonly within: string | null;
  readonly columns: readonly Column[];
}

/** `widthMm` → `width_mm`, `charge.kitCode` → `charge_kit_code`. */
function heading(key: string): string {
  return key
    .replaceAll('.', '_')
    .replace(/([a-z0-9])([A-Z])/g, '$1_$2')
    .toLowerCase();
}

function columns(
  kinds: Readonly<Record<string, ColumnKind>>,
  { later = false, keeps = false } = {},
): Column[] {
  return Object.entries(kinds).map(([key, kind]) => ({ name: heading(key), key, kind, later, keeps }));
}

/** The heading under which a line of a nested table names its record. */
export const OWNER_COLUMN = 'of';

function tool(kind: ToolKind, name: string, kinds: Readonly<Record<string, ColumnKind>>): CatalogueTable {
  return {
    name,
    kind,
    within: null,
    columns: columns({ id: 'text', name: 'text', costMinor: 'number', ...kinds }),
  };
}

/** The files of the catalogue: one a table, nested data in files of its own. */
export const CATALOGUE_TABLES: readonly CatalogueTable[] = [
  {
    name: 'cells',
    kind: 'cell',
    within: null,
    columns: columns({
      chemistry: 'text',
      iec: 'text',
      diameterMm: 'number',
      heightMm: 'number',
      tradeLow: 'text',
      tradeHigh: 'text',
      numberLow: 'text',
      numberHigh: 'text',
      alkaline: 'text',
      card: 'text',
      capacityMinMAh: 'number',
      capacityMaxMAh: 'number',
    }),
  },
  {
    name: 'makers',
    kind: 'maker',
    within: null,
    columns: [
      ...columns({ id: 'text', name: 'text' }),
      ...columns({ sign: 'text or nothing' }, { later: true }),
    ],
  },
  {
    name: 'patterns',
    kind: 'maker',
    within: 'patterns',
    columns: columns({ meaning: 'text', template: 'text' }),
  },
  {
    name: 'calibres',
    kind: 'calibre',
    within: null,
    columns: [
      ...columns({
        id: 'text',
        makerId: 'text',
        code: 'text',
        formerCodes: 'list',
        shape: 'text',
        widthMm: 'number',
        lengthMm: 'number',
        heightMm: 'number',
        functions: 'list',
        stepIntervalS: 'number',
        lowSupplySignal: 'text or nothing',
        typicalUA: 'number',
        limitUA: 'number',
        coilMinKOhm: 'number',
        coilMaxKOhm: 'number',
        lowestV: 'number',
        resetContact: 'text or nothing',
        'charge.by': 'text or nothing',
        'charge.kitCode': 'text or nothing',
        'charge.oldPart': 'text or nothing',
        'charge.diameterMm': 'number',
        'charge.heightMm': 'number',
        'charge.nominalV': 'number',
        'charge.reserveDays': 'number',
        dateQuickSet: 'flag',
        crownPositions: 'list',
        cautions: 'list',
      }),
      ...columns(
        {
          family: 'text',
          jewels: 'number',
          printed: 'list',
          insulators: 'list',
        },
        { later: true },
      ),
      ...columns({ shopsOwn: 'flag', keepClearMm: 'number' }, { later: true, keeps: true }),
    ],
  },
  {
    name: 'wells',
    kind: 'calibre',
    within: 'wells',
    columns: columns({
      name: 'text',
      xMm: 'number',
      yMm: 'number',
      cellCode: 'text',
      otherHeightsMm: 'numbers',
      faceUp: 'text',
      heldBy: 'text',
      pushDegrees: 'number',
    }),
  },
  {
    name: 'coils',
    kind: 'calibre',
    within: 'coils',
    columns: columns({
      xMm: 'number',
      yMm: 'number',
      lengthMm: 'number',
      widthMm: 'number',
      degrees: 'number',
    }),
  },
  {
    name: 'dials',
    kind: 'calibre',
    within: 'dial',
    columns: columns({ shows: 'text', clock: 'number' }),
  },
  {
    name: 'contacts',
    kind: 'calibre',
    within: 'contacts',
    columns: columns({ kind: 'text', xMm: 'number', yMm: 'number' }),
  },
  {
    name: 'recipes',
    kind: 'calibre',
    within: 'recipes',
    columns: columns({ what: 'text', steps: 'list' }),
  },
  {
    name: 'revisions',
    kind: 'calibre',
    within: 'revisions',
    columns: columns({
      name: 'text',
      seenBy: 'text',
      cellCode: 'text or nothing',
      heightMm: 'number',
      jewels: 'number',
      heldBy: 'text or nothing',
    }),
  },
  {
    name: 'draws',
    kind: 'calibre',
    within: 'functionDraws',
    columns: columns({ name: 'text', drawUA: 'number', secondsPerDay: 'number' }),
  },
  {
    name: 'case-types',
    kind: 'caseType',
    within: null,
    columns: [
      ...columns({
        id: 'text',
        makerId: 'text',
        code: 'text',
        backKind: 'text',
        ratingBar: 'number',
        crownClock: 'number',
        lipClock: 'number',
        gasket: 'text or nothing',
      }),
      ...columns(
        {
          'back.diameterMm': 'number',
          'back.coating': 'text or nothing',
          'back.notchCount': 'number',
          'back.pitchMm': 'number',
          'back.notchWidthMm': 'number',
          'back.notchClocks': 'numbers',
          'back.flatCount': 'number',
          'back.acrossMm': 'number',
          'back.screwCount': 'number',
          'back.slotLengthMm': 'number',
          'back.slotWidthMm': 'number',
          'back.panelHeldBy': 'text or nothing',
        },
        { later: true },
      ),
    ],
  },
  {
    name: 'gaskets',
    kind: 'gasket',
    within: null,
    columns: columns({
      id: 'text',
      code: 'text',
      profile: 'text',
      insideMm: 'number',
      sectionMm: 'number',
      material: 'text',
      caseCodes: 'list',
    }),
  },
  tool('wrench', 'wrenches', {
    jaws: 'number',
    travelMinMm: 'number',
    travelMaxMm: 'number',
    rearMinMm: 'number',
    rearMaxMm: 'number',
    jawWidthsMm: 'numbers',
    pinDiametersMm: 'numbers',
  }),
  tool('openerDie', 'opener-dies', {
    form: 'text',
    flats: 'number',
    acrossMm: 'number',
    shank: 'text or nothing',
  }),
  tool('holder', 'holders', {
    holds: 'text',
    shank: 'text or nothing',
    fromMm: 'number',
    toMm: 'number',
  }),
  tool('pressDie', 'press-dies', {
    innerMm: 'number',
    outerMm: 'number',
    recessMm: 'number',
    material: 'text',
    shank: 'text',
  }),
  tool('driver', 'drivers', { bladeWidthMm: 'number', bladeThicknessMm: 'number' }),
  tool('blade', 'blades', { form: 'text', widthMm: 'number' }),
  tool('ball', 'friction-balls', { backFromMm: 'number', backToMm: 'number' }),
];

const SEPARATOR = '|';

/** A value as it stands in the file. */
export function writeField(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map(String).join(` ${SEPARATOR} `);
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** A field of the file as a value of the record. What is no number stays NaN, for the schema to name. */
export function readField(kind: ColumnKind, field: string): unknown {
  const text = field.trim();
  const figure = (each: string): number => (each === '' ? Number.NaN : Number(each.replace(',', '.')));
  const list = (): string[] => (text === '' ? [] : text.split(SEPARATOR).map((each) => each.trim()));
  switch (kind) {
    case 'number':
      return text === '' ? null : figure(text);
    case 'list':
      return list();
    case 'numbers':
      return list().map(figure);
    case 'flag':
      return text === 'yes' ? true : text === 'no' ? false : text;
    case 'text or nothing':
      return text === '' ? null : text;
    case 'text':
      return text;
  }
}

/** The value at a key of a record, `charge.kitCode` included. */
export function valueAt(record: unknown, key: string): unknown {
  return key
    .split('.')
    .reduce<unknown>((value, step) => (value as Record<string, unknown> | null | undefined)?.[step], record);
}

/**
 * A record from the fields of its line; a part of which every field is empty is nothing. A field that is undefined is
 * one the file has no column for: the record does not speak of it.
 */
export function recordOf(
  table: CatalogueTable,
  fields: readonly (string | undefined)[],
): Record<string, unknown> {
  const record: Record<string, unknown> = {};
  table.columns.forEach(({ key, kind, keeps }, index) => {
    const field = fields[index];
    if (field === undefined || (keeps && field.trim() === '')) return;
    const value = readField(kind, field);
    const [part, inner] = key.split('.') as [string, string | undefined];
    if (inner === undefined) record[part] = value;
    else record[part] = { ...(record[part] as object | undefined), [inner]: value };
  });
  for (const [part, value] of Object.entries(record)) {
    if (value !== null && typeof value === 'object' && !Array.isArray(value)) {
      if (Object.values(value).every((each) => each === null || (Array.isArray(each) && each.length === 0)))
        record[part] = null;
    }
  }
  return record;
}
