import type { Book } from '../book';
import { asRevision, bareCode, type Calibre, type FunctionKind, type Symbols, symbolsOf } from '../movements';
import { type Look, LOOK_NAMES, LOOKS } from './looks';

/** One movement the book knows: a calibre, or one revision of it. */
export interface Hypothesis {
  readonly calibreId: string;
  readonly revision: string | null;
  readonly code: string;
  readonly makerId: string;
}

/** Values of one look over all hypotheses, told apart by number; −1 where the book does not say. */
export interface PickColumn {
  readonly as: 'pick';
  readonly values: readonly string[];
  readonly indexOf: ReadonlyMap<string, number>;
  readonly at: Int32Array;
  /** Of movements with several cells: further values that would do. */
  readonly also: ReadonlyMap<number, readonly number[]>;
  /** How often each value would be seen on a movement of which nothing is known. */
  readonly marginal: Float64Array;
}
/** Measures of one look over all hypotheses, mm; NaN where the book does not say. */
export interface MeasureColumn {
  readonly as: 'mm';
  readonly at: Float64Array;
  /** The density of a movement of which nothing is known, by tenths of a millimetre from nought, per mm. */
  readonly marginal: Float64Array;
}
export type Column = PickColumn | MeasureColumn;

export interface Hypotheses {
  readonly all: readonly Hypothesis[];
  /** The codes each may be marked with, the present one first. */
  readonly codes: readonly (readonly Symbols[])[];
  /** Words printed on it: its cell's names and what the book says. */
  readonly prints: readonly (readonly Symbols[])[];
  readonly maker: Int32Array;
  readonly makerIds: readonly string[];
  /** How many movements of the book each maker has. */
  readonly makerShare: Float64Array;
  readonly columns: Readonly<Partial<Record<Look, Column>>>;
  /** How many revisions of its calibre stand beside each. */
  readonly siblings: Int32Array;
  /** Which calibre each is of, counted from nought. */
  readonly calibre: Int32Array;
  readonly calibreCodes: readonly string[];
}

const BIN_MM = 0.1;
/** A size nobody has in the book yet is this likely, beside those that are. */
const ELSEWHERE = 0.15;
/** A size near one of the book is as likely within this, mm. */
const SPREAD_MM = 0.6;

function clockOf(xMm: number, yMm: number): string {
  if (Math.hypot(xMm, yMm) < 1) return 'centre';
  const clock = Math.round(((Math.atan2(xMm, yMm) / (2 * Math.PI)) * 12 + 12) % 12);
  return String(clock === 0 ? 12 : clock);
}

/** What of the dial is on it by its functions. */
const NEEDS: Readonly<Record<'seconds' | 'date' | 'day' | 'counter', FunctionKind>> = {
  seconds: 'seconds hand',
  date: 'date',
  day: 'day',
  counter: 'chronograph',
};

/**
 * Whether the book says that a calibre has none of this: its functions are told and this is not among them. A record a shop
 * entered from what it saw says only what was seen, and a field left empty says nothing.
 */
function hasNone({ functions, shopsOwn }: Calibre, shows: keyof typeof NEEDS): boolean {
  return !shopsOwn && functions.length > 0 && !functions.includes(NEEDS[shows]);
}

function placeOf(calibre: Calibre, shows: 'seconds' | 'date' | 'day'): string | null {
  const part = calibre.dial.find((each) => each.shows === shows);
  if (part) return part.clock === null ? 'centre' : String(part.clock);
  if (hasNone(calibre, shows)) return 'none';
  // A book that says nothing of the dial does not say where on it something is.
  return calibre.dial.length === 0 ? null : 'none';
}

function countersOf(calibre: Calibre): string | null {
  if (calibre.dial.length > 0) return String(calibre.dial.filter(({ shows }) => shows === 'counter').length);
  return hasNone(calibre, 'counter') ? '0' : null;
}

const hasHands = ({ functions }: Calibre): boolean => functions.includes('hands');

function stepOf(calibre: Calibre): string | null {
  const { stepIntervalS, functions } = calibre;
  // Of hands the book may not say how often they step; without hands nothing does.
  if (stepIntervalS === null) return functions.length === 0 || hasHands(calibre) ? null : 'no hands';
  if (stepIntervalS < 0.9) return 'sweeps';
  return `${Math.round(stepIntervalS)} s`;
}

const listed = (value: string | null): readonly string[] | null => (value === null ? null : [value]);

/** What a look at this calibre would show, by the book; null where the book does not say. */
export function expectedPick(
  calibre: Calibre,
  look: Look,
  makerSign: string | null,
): readonly string[] | null {
  const dial = (shows: 'seconds' | 'date' | 'day'): readonly string[] | null => {
    const place = placeOf(calibre, shows);
    return place === null ? null : [place];
  };
  switch (look) {
    case 'sign':
      return makerSign === null ? null : [makerSign];
    case 'shape':
      return [calibre.shape];
    case 'seconds':
    case 'date':
    case 'day':
      return dial(look);
    case 'counters':
      return listed(countersOf(calibre));
    case 'display':
      return calibre.functions.length === 0
        ? null
        : [calibre.functions.includes('digital display') ? 'yes' : 'no'];
    case 'coils':
      // Hands are driven by a coil: where none is drawn, nobody drew it.
      return calibre.coils.length === 0 && (calibre.shopsOwn || hasHands(calibre))
        ? null
        : [String(calibre.coils.length)];
    case 'cellAt':
      return calibre.wells.length === 0
        ? null
        : [...new Set(calibre.wells.map((well) => clockOf(well.xMm, well.yMm)))];
    case 'heldBy':
      return calibre.wells.length === 0 ? null : [...new Set(calibre.wells.map((well) => well.heldBy))];
    case 'jewels':
      return calibre.jewels === null ? null : [String(calibre.jewels)];
    case 'step':
      return listed(stepOf(calibre));
    default:
      return null;
  }
}

/** What a caliper would show on this calibre, mm; null where the book does not say. */
export function expectedMeasure(
  calibre: Calibre,
  look: Look,
  cellSize: (code: string) => Size | null,
): number | null {
  const cell = (): Size | null => calibre.charge ?? cellSize(calibre.wells[0]?.cellCode ?? '');
  switch (look) {
    case 'widthMm':
      return calibre.widthMm;
    case 'lengthMm':
      return calibre.lengthMm;
    case 'heightMm':
      return calibre.heightMm;
    case 'cellDiameterMm':
      return cell()?.diameterMm ?? null;
    case 'cellHeightMm':
      return cell()?.heightMm ?? null;
    default:
      return null;
  }
}

function pickColumn(known: readonly string[], seen: readonly (readonly string[] | null)[]): PickColumn {
  const values = [...known];
  const indexOf = new Map(values.map((value, index) => [value, index]));
  for (const each of seen)
    for (const value of each ?? []) {
      if (indexOf.has(value)) continue;
      indexOf.set(value, values.length);
      values.push(value);
    }
  const at = new Int32Array(seen.length).fill(-1);
  const also = new Map<number, number[]>();
  const marginal = new Float64Array(values.length).fill(0.5);
  let total = values.length / 2;
  seen.forEach((each, index) => {
    if (each === null) return;
    const [first = -1, ...rest] = each.map((value) => indexOf.get(value) ?? -1);
    at[index] = first;
    if (rest.length > 0) also.set(index, rest);
    for (const value of [first, ...rest]) marginal[value] = (marginal[value] ?? 0) + 1 / each.length;
    total += 1;
  });
  return { as: 'pick', values, indexOf, at, also, marginal: marginal.map((count) => count / total) };
}

function measureColumn(min: number, max: number, measures: readonly (number | null)[]): MeasureColumn {
  const at = Float64Array.from(measures, (mm) => mm ?? Number.NaN);
  const bins = Math.ceil(max / BIN_MM) + 1;
  const counts = new Float64Array(bins);
  let known = 0;
  for (const mm of at) {
    if (Number.isNaN(mm)) continue;
    known += 1;
    const bin = Math.min(bins - 1, Math.round(mm / BIN_MM));
    counts[bin] = (counts[bin] ?? 0) + 1;
  }
  const reach = Math.round(SPREAD_MM / BIN_MM);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, index) => reach + 1 - Math.abs(index - reach));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const share = known === 0 ? 0 : 1 - ELSEWHERE;
  const marginal = Float64Array.from({ length: bins }, (_, bin) => {
    const near = weights.reduce((sum, weight, index) => sum + weight * (counts[bin + index - reach] ?? 0), 0);
    return (share * near) / (whole * BIN_MM * Math.max(1, known)) + (1 - share) / (max - min);
  });
  return { as: 'mm', at, marginal };
}

/** The density of a measure on a movement of which nothing is known, per mm. */
export function marginalDensity(column: MeasureColumn, mm: number): number {
  return column.marginal[Math.max(0, Math.min(column.marginal.length - 1, Math.round(mm / BIN_MM)))] ?? 0;
}

interface Size {
  readonly diameterMm: number;
  readonly heightMm: number;
}

/** The size a cell's code stands for by the book, read once each; null where it names none for certain. */
export function cellSizes(book: Pick<Book, 'cell'>): (code: string) => Size | null {
  const sizes = new Map<string, Size | null>();
  return (code) => {
    const known = sizes.get(code);
    if (known !== undefined) return known;
    const cell = code === '' ? null : book.cell(code);
    const size =
      cell === null || cell.diameterMm === null || cell.heightMm === null
        ? null
        : { diameterMm: cell.diameterMm, heightMm: cell.heightMm };
    sizes.set(code, size);
    return size;
  };
}

/** Every movement of the book, one revision each, with what each look would show on it. Built once a book. */
export function hypothesesOf(book: Pick<Book, 'calibres' | 'makers' | 'maker' | 'cell'>): Hypotheses {
  const built = book.calibres.flatMap((calibre, at) =>
    calibre.revisions.length === 0
      ? [{ at, calibre, revision: null as string | null }]
      : calibre.revisions.map(({ name }) => ({
          at,
          calibre: asRevision(calibre, name),
          revision: name,
        })),
  );
  const makerIds = book.makers.map(({ id }) => id);
  const makerIndex = new Map(makerIds.map((id, index) => [id, index]));
  const maker = Int32Array.from(built, ({ calibre }) => makerIndex.get(calibre.makerId) ?? -1);
  const makerShare = new Float64Array(makerIds.length);
  for (const index of maker) if (index >= 0) makerShare[index] = (makerShare[index] ?? 0) + 1;
  const cellSize = cellSizes(book);
  const columns: Partial<Record<Look, Column>> = {};
  for (const look of LOOK_NAMES) {
    const spec = LOOKS[look];
    if (look === 'revision' || look === 'caseCode' || spec.as === 'text') continue;
    columns[look] =
      spec.as === 'mm'
        ? measureColumn(
            spec.min,
            spec.max,
            built.map(({ calibre }) => expectedMeasure(calibre, look, cellSize)),
          )
        : pickColumn(
            spec.values,
            built.map(({ calibre }) =>
              expectedPick(calibre, look, book.maker(calibre.makerId)?.sign ?? null),
            ),
          );
  }
  return {
    all: built.map(({ calibre, revision }) => ({
      calibreId: calibre.id,
      revision,
      code: calibre.code,
      makerId: calibre.makerId,
    })),
    codes: built.map(({ calibre }) => [calibre.code, ...calibre.formerCodes].map(symbolsOf)),
    prints: built.map(({ calibre }) =>
      [
        ...new Set(
          [
            ...calibre.wells.map(({ cellCode }) => cellCode),
            calibre.charge?.kitCode ?? '',
            ...calibre.printed,
          ].map(bareCode),
        ),
      ]
        .filter((print) => print !== '')
        .map(symbolsOf),
    ),
    maker,
    makerIds,
    makerShare,
    columns,
    siblings: Int32Array.from(built, ({ calibre }) => Math.max(1, calibre.revisions.length)),
    calibre: Int32Array.from(built, ({ at }) => at),
    calibreCodes: book.calibres.map(({ code }) => code),
  };
}
