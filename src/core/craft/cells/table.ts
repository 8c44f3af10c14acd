import { chemistries } from './chemistry';
import type { CellRow, CellType, Chemistry, Drain } from './types';

/** Alkaline twins hold about this share of the silver cell's capacity; always marked as an estimate. */
const ALKALINE_SHARE = 0.6;

/** Digits before the last two of a size name, and the diameter they stand for (IEC 60086-3). */
const DIAMETER_CODES: Readonly<Record<string, number>> = {
  '4': 4.8,
  '5': 5.8,
  '6': 6.8,
  '7': 7.9,
  '9': 9.5,
  '10': 10.0,
  '11': 11.6,
  '12': 12.5,
  '16': 16.0,
  '20': 20.0,
  '23': 23.0,
  '24': 24.5,
  '30': 30.0,
};

export interface SizeFromName {
  readonly diameterMm: number;
  readonly heightMm: number;
}

/**
 * The size the digits of a name stand for: the last two are the height in tenths of a millimetre, truncated;
 * those before are the diameter code. Null where the digits are a code number (two digits) or no known diameter.
 */
export function sizeFromDigits(digits: string): SizeFromName | null {
  if (!/^\d{3,4}$/.test(digits)) return null;
  const diameterMm = DIAMETER_CODES[digits.slice(0, -2)];
  const heightMm = Number(digits.slice(-2)) / 10;
  return diameterMm === undefined || heightMm === 0 ? null : { diameterMm, heightMm };
}

/** Whether a nominal height and one read from a name are the same: names truncate to tenths. */
function heightAgrees(tableMm: number, namedMm: number): boolean {
  return Math.floor(tableMm * 10 + 1e-6) === Math.round(namedMm * 10);
}

/** The cell table made ready for looking up: every name of every type, and the rows by size. */
export interface CellTable {
  readonly types: readonly CellType[];
  /** Upper-case name → the one type it names. */
  readonly byName: ReadonlyMap<string, CellType>;
  readonly rows: readonly CellRow[];
}

function present(...names: (string | false)[]): string[] {
  return names.filter((name): name is string => name !== false && name !== '');
}

function typeOf(
  row: CellRow,
  chemistry: Chemistry,
  drain: Drain,
  names: string[],
  estimated = false,
): CellType {
  const share = estimated ? ALKALINE_SHARE : 1;
  const round = (mAh: number): number => Number((mAh * share).toFixed(2));
  return {
    code: names[0] ?? '',
    chemistry,
    drain,
    nominalV: chemistries[chemistry].nominalV,
    diameterMm: row.diameterMm,
    heightMm: row.heightMm,
    capacityMinMAh: round(row.capacityMinMAh),
    capacityMaxMAh: round(row.capacityMaxMAh),
    capacityEstimated: estimated,
    names,
    inTable: true,
  };
}

/** The size-only name a row goes by, such as SR726: the trade name without its drain suffix. */
function sizeNameOf(row: CellRow): string {
  return row.tradeLow.replace(/SW$/, '');
}

function typesOfRow(row: CellRow): CellType[] {
  if (row.chemistry === 'lithium') {
    return [typeOf(row, 'lithium', 'none', present(row.tradeLow, row.iec !== row.tradeLow && row.iec))];
  }
  const types: CellType[] = [];
  if (row.tradeLow) types.push(typeOf(row, 'silver-oxide', 'low', present(row.tradeLow, row.numberLow)));
  if (row.tradeHigh) types.push(typeOf(row, 'silver-oxide', 'high', present(row.tradeHigh, row.numberHigh)));
  const sizeName = sizeNameOf(row);
  const sizeNames = present(row.iec, sizeName !== row.iec && sizeName);
  if (sizeNames.length > 0) types.push(typeOf(row, 'silver-oxide', 'unstated', sizeNames));
  const alkalineNames = present(
    row.alkaline,
    row.iec !== '' && row.iec.replace(/^SR/, 'LR') !== row.alkaline && row.iec.replace(/^SR/, 'LR'),
    row.card,
    row.numberLow !== '' && `${row.numberLow}A`,
    row.numberHigh !== '' && `${row.numberHigh}A`,
  );
  if (alkalineNames.length > 0) types.push(typeOf(row, 'alkaline', 'high', alkalineNames, true));
  return types;
}

/**
 * Builds the look-up table from the standard rows: silver low and high drain, the size name that leaves the
 * drain open, and the alkaline twin under every name it is sold by. The first row to claim a name keeps it.
 */
export function buildCellTable(rows: readonly CellRow[]): CellTable {
  const types = rows.flatMap(typesOfRow);
  const byName = new Map<string, CellType>();
  for (const type of types) {
    for (const name of type.names) if (!byName.has(name)) byName.set(name, type);
  }
  for (const [chemistry, name] of NOT_FOR_WATCHES) {
    const row = rows.find(({ iec }) => iec === `SR${name.slice(2)}`);
    if (row && !byName.has(name)) byName.set(name, notForWatches(row, chemistry, name));
  }
  return { types, byName, rows };
}

/**
 * Names of cells that are withdrawn, or never were made for watches, and may lie in one all the same: known so that they are told
 * for what they are, and not among the types that are offered. Source: size numbers of IEC 60086.
 */
const NOT_FOR_WATCHES: readonly (readonly [Chemistry, string])[] = [
  ...['MR41', 'MR42', 'MR43', 'MR44', 'MR48'].map((name) => ['mercury', name] as const),
  ...['PR41', 'PR44', 'PR48'].map((name) => ['zinc-air', name] as const),
];

function notForWatches(row: CellRow, chemistry: Chemistry, name: string): CellType {
  return {
    ...typeOf(row, chemistry, 'none', [name]),
    capacityMinMAh: null,
    capacityMaxMAh: null,
  };
}

const CHEMISTRY_OF_PREFIX: Readonly<Record<string, Chemistry>> = {
  SR: 'silver-oxide',
  LR: 'alkaline',
  CR: 'lithium',
  BR: 'lithium',
  MR: 'mercury',
  PR: 'zinc-air',
};

const DRAIN_OF_SUFFIX: Readonly<Record<string, Drain>> = { SW: 'low', W: 'high', '': 'unstated' };

/** A name as the size and chemistry it spells, where the table does not hold it under that name. */
export function typeFromParts(
  prefix: string,
  digits: string,
  suffix: string,
  table: CellTable,
): CellType | null {
  const chemistry = CHEMISTRY_OF_PREFIX[prefix];
  if (!chemistry) return null;
  if ((suffix === 'SW' || suffix === 'W') && chemistry !== 'silver-oxide') return null;
  const drain: Drain = chemistry === 'silver-oxide' ? (DRAIN_OF_SUFFIX[suffix] ?? 'unstated') : 'none';
  const name = `${prefix}${digits}${suffix}`;
  const family = chemistry === 'lithium' ? 'lithium' : 'silver-oxide';
  const size = sizeFromDigits(digits);
  const row = size
    ? table.rows.find(
        (each) =>
          each.chemistry === family &&
          each.diameterMm === size.diameterMm &&
          heightAgrees(each.heightMm, size.heightMm),
      )
    : table.rows.find((each) => each.iec === `SR${digits}`);
  if (
    row &&
    prefix !== 'BR' &&
    (chemistry === 'silver-oxide' || chemistry === 'lithium' || chemistry === 'alkaline')
  ) {
    const known = table.types.find(
      (each) =>
        each.chemistry === chemistry &&
        each.diameterMm === row.diameterMm &&
        each.heightMm === row.heightMm &&
        (each.drain === drain || chemistry !== 'silver-oxide'),
    );
    if (known) return { ...known, names: [name, ...known.names] };
  }
  const measures = row ?? size;
  if (!measures) return null;
  return {
    code: name,
    chemistry,
    drain,
    nominalV: chemistries[chemistry].nominalV,
    diameterMm: measures.diameterMm,
    heightMm: measures.heightMm,
    capacityMinMAh: null,
    capacityMaxMAh: null,
    capacityEstimated: false,
    names: [name],
    inTable: false,
  };
}
