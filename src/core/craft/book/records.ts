import type { Gasket } from '../gaskets';
import type { CellRow } from '../cells';
import type { Calibre, Maker } from '../movements';
import { BACK_KINDS, type BackKind, type CaseType, contradictions } from '../cases';
import { judgeTool, TOOL_KINDS, type ToolBodies, type ToolKind } from '../tools';
import type { Book, Catalogue } from './book';
export interface RecordBodies extends ToolBodies {
  readonly cell: CellRow;
  readonly maker: Maker;
  readonly calibre: Calibre;
  readonly caseType: CaseType;
  readonly gasket: Gasket;
}
export type CatalogueKind = keyof RecordBodies;
export const CATALOGUE_KINDS = ['cell', 'maker', 'calibre', 'caseType', 'gasket', ...TOOL_KINDS] as const;

function isToolKind(kind: CatalogueKind): kind is ToolKind {
  return (TOOL_KINDS as readonly string[]).includes(kind);
}

/** The list of the book each kind of record stands in. */
export const CATALOGUE_LISTS = {
  cell: 'cells',
  maker: 'makers',
  calibre: 'calibres',
  caseType: 'caseTypes',
  gasket: 'gaskets',
  wrench: 'wrenches',
  openerDie: 'openerDies',
  holder: 'holders',
  pressDie: 'pressDies',
  driver: 'drivers',
  blade: 'blades',
  ball: 'balls',
} as const satisfies Record<CatalogueKind, keyof Catalogue>;

/** A stable id for a row of the cell table, which has no name of its own. */
export function cellRowId(row: CellRow): string {
  return `${row.chemistry}-${row.diameterMm}x${row.heightMm}`;
}

/** The id a record stands under. */
export function recordId<K extends CatalogueKind>(kind: K, body: RecordBodies[K]): string {
  return kind === 'cell' ? cellRowId(body as CellRow) : (body as { readonly id: string }).id;
}

/** What is wrong in a record as the rest of the book stands. */
export interface RecordProblem {
  readonly path: string;
  readonly reason: string;
}

/** Whether a place lies outside the outline; of a size nobody knows nothing does. */
function isOutside(
  { shape, widthMm, lengthMm }: Calibre,
  { xMm, yMm }: { readonly xMm: number; readonly yMm: number },
): boolean {
  if (widthMm === null || lengthMm === null) return false;
  return shape === 'round'
    ? Math.hypot(xMm, yMm) > widthMm / 2
    : Math.abs(xMm) > widthMm / 2 || Math.abs(yMm) > lengthMm / 2;
}

function judgeCalibre(calibre: Calibre, book: Book): RecordProblem[] {
  const problems: RecordProblem[] = [];
  const wrong = (path: string, reason: string): void => void problems.push({ path, reason });
  if (!book.maker(calibre.makerId)) wrong('makerId', `Maker “${calibre.makerId}” is not in the book.`);
  const names = calibre.wells.map((well) => well.name);
  if (new Set(names).size < names.length) wrong('wells', 'Two cell places have the same name.');
  calibre.wells.forEach((well, index) => {
    if (calibre.charge === null && !book.cell(well.cellCode))
      wrong(`wells.${index}.cellCode`, `Cell “${well.cellCode}” is not in the table.`);
    if (calibre.charge !== null && well.cellCode !== '')
      wrong(
        `wells.${index}.cellCode`,
        'A movement that charges its accumulator takes no primary cell: leave it empty.',
      );
    if (isOutside(calibre, well))
      wrong(`wells.${index}.xMm`, `The centre of “${well.name}” lies outside the movement.`);
  });
  calibre.contacts.forEach((contact, index) => {
    if (isOutside(calibre, contact))
      wrong(`contacts.${index}.xMm`, 'This contact lies outside the movement.');
  });
  calibre.revisions.forEach(({ name, cellCode }, index) => {
    if (cellCode !== null && calibre.charge === null && !book.cell(cellCode))
      wrong(`revisions.${index}.cellCode`, `Cell “${cellCode}” is not in the table.`);
    if (calibre.revisions.findIndex((each) => each.name === name) < index)
      wrong(`revisions.${index}.name`, 'Two revisions have the same name.');
  });
  if (calibre.revisions.length === 1)
    wrong('revisions', 'One revision tells nothing apart: enter the other beside it, or none.');
  if (!calibre.shopsOwn) {
    const wanted = {
      widthMm: 'its width',
      lengthMm: 'its length',
      heightMm: 'its height',
      typicalUA: 'what it typically draws',
      limitUA: 'its limit',
      lowestV: 'its lowest voltage',
    } as const;
    for (const [path, what] of Object.entries(wanted))
      if (calibre[path as keyof typeof wanted] === null)
        wrong(path, `Fill in ${what}, or leave it marked as the shop’s own until somebody knows.`);
  }
  if (calibre.limitUA !== null && calibre.typicalUA !== null && calibre.limitUA < calibre.typicalUA)
    wrong('limitUA', `The limit, ${calibre.limitUA} µA, is under what is typical, ${calibre.typicalUA} µA.`);
  if ((calibre.coilMinKOhm === null) !== (calibre.coilMaxKOhm === null))
    wrong('coilMaxKOhm', 'A coil has a range: both ends, or neither.');
  if (
    calibre.coilMinKOhm !== null &&
    calibre.coilMaxKOhm !== null &&
    calibre.coilMinKOhm > calibre.coilMaxKOhm
  )
    wrong('coilMaxKOhm', 'The coil’s range ends before it begins.');
  return problems;
}

/** What contradicts itself or the rest of the book in a record; empty where it may stand. */
export function judgeRecord<K extends CatalogueKind>(
  kind: K,
  body: RecordBodies[K],
  book: Book,
): RecordProblem[] {
  switch (kind) {
    case 'calibre':
      return judgeCalibre(body as Calibre, book);
    case 'caseType': {
      const type = body as CaseType;
      return [
        ...(book.maker(type.makerId)
          ? []
          : [{ path: 'makerId', reason: `Maker “${type.makerId}” is not in the book.` }]),
        ...(BACK_KINDS.some((each) => each === type.backKind)
          ? []
          : [{ path: 'backKind', reason: `Kind of back: one of ${BACK_KINDS.join('; ')}.` }]),
        ...(type.back === null
          ? []
          : contradictions({
              ...type.back,
              kind: type.backKind as BackKind,
              lipClock: type.lipClock,
            }).map(({ path, reason }) => ({
              path: path in (type.back ?? {}) ? `back.${path}` : path,
              reason,
            }))),
      ];
    }
    case 'cell': {
      const row = body as CellRow;
      return row.capacityMaxMAh < row.capacityMinMAh
        ? [{ path: 'capacityMaxMAh', reason: 'The capacity’s range ends before it begins.' }]
        : [];
    }
    case 'gasket': {
      const ring = body as Gasket;
      return ring.caseCodes
        .filter((code) => book.caseTypeOfReference(code) === null)
        .map((code) => ({ path: 'caseCodes', reason: `Case “${code}” is not in the book.` }));
    }
    default:
      return isToolKind(kind) ? [...judgeTool(kind, body as never)] : [];
  }
}

/** The fields in which two revisions of a record differ, each as written before and after. */
export function changedFields(
  before: object | null,
  after: object,
): readonly { readonly field: string; readonly before: string; readonly after: string }[] {
  const written = (value: unknown): string =>
    value === undefined || value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value);
  const [was, is] = [before ?? {}, after] as [Record<string, unknown>, Record<string, unknown>];
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .map((field) => ({ field, before: written(was[field]), after: written(is[field]) }))
    .filter((change) => change.before !== change.after);
}
