import { errorsOf } from '../charging';
import type { Gasket } from '../gaskets';
import type { CellRow } from '../cells';
import type { Calibre, Maker } from '../movements';
import { BACK_KINDS, type CaseType, contradictions } from '../cases';
import { TOOL_JUDGES, TOOL_KINDS, type ToolBodies } from '../tools';
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

type ByKind = { -readonly [K in CatalogueKind]: readonly RecordBodies[K][] };

/** The lists of a catalogue by the kind of their records; one that an older catalogue does not have is empty. */
function byKind(catalogue: Partial<Catalogue>): ByKind {
  return {
    cell: catalogue.cells ?? [],
    maker: catalogue.makers ?? [],
    calibre: catalogue.calibres ?? [],
    caseType: catalogue.caseTypes ?? [],
    gasket: catalogue.gaskets ?? [],
    wrench: catalogue.wrenches ?? [],
    openerDie: catalogue.openerDies ?? [],
    holder: catalogue.holders ?? [],
    pressDie: catalogue.pressDies ?? [],
    driver: catalogue.drivers ?? [],
    blade: catalogue.blades ?? [],
    ball: catalogue.balls ?? [],
    lightPlace: catalogue.lightPlaces ?? [],
  };
}

/** The records of one kind in a catalogue. */
export function recordsIn<K extends CatalogueKind>(
  kind: K,
  catalogue: Partial<Catalogue>,
): readonly RecordBodies[K][] {
  return byKind(catalogue)[kind];
}

/** The catalogue with these records of one kind, each in the place of what stands under its id. */
export function withRecords<K extends CatalogueKind>(
  kind: K,
  bodies: readonly RecordBodies[K][],
  catalogue: Catalogue,
): Catalogue {
  const lists = byKind(catalogue);
  const all = new Map([...recordsIn(kind, catalogue), ...bodies].map((body) => [recordId(body), body]));
  lists[kind] = [...all.values()] as ByKind[K];
  return catalogueOf(catalogue.revision, (each) => lists[each]);
}

/** The catalogue without one record. */
export function withoutRecord(kind: CatalogueKind, id: string, catalogue: Catalogue): Catalogue {
  return catalogueOf(catalogue.revision, (each) =>
    recordsIn(each, catalogue).filter((body) => each !== kind || recordId(body) !== id),
  );
}

/** A catalogue from the records of each kind. */
export function catalogueOf(
  revision: number,
  records: <K extends CatalogueKind>(kind: K) => readonly RecordBodies[K][],
): Catalogue {
  return {
    revision,
    cells: records('cell'),
    makers: records('maker'),
    calibres: records('calibre'),
    caseTypes: records('caseType'),
    gaskets: records('gasket'),
    wrenches: records('wrench'),
    openerDies: records('openerDie'),
    holders: records('holder'),
    pressDies: records('pressDie'),
    drivers: records('driver'),
    blades: records('blade'),
    balls: records('ball'),
    lightPlaces: records('lightPlace'),
  };
}

/** A stable id for a row of the cell table, which has no name of its own. */
export function cellRowId(row: CellRow): string {
  return `${row.chemistry}-${row.diameterMm}x${row.heightMm}`;
}

/** The id a record stands under. */
export function recordId(body: RecordBodies[CatalogueKind]): string {
  return 'id' in body ? body.id : cellRowId(body);
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
  if (calibre.lightTimes.length > 0 && calibre.charge?.by !== 'light')
    wrong(
      'lightTimes',
      'Charging times by light are entered, but the movement is not charged by light. Both cannot be true. Correct the wrong one.',
    );
  if (calibre.rotor !== null && calibre.charge?.by !== 'rotor')
    wrong(
      'rotor',
      'A rotor gain is entered, but the movement is not charged by a rotor. Both cannot be true. Correct the wrong one.',
    );
  const { charge } = calibre;
  if (charge && (charge.upgradeKitCode === null) !== (charge.upgradeReserveDays === null))
    wrong('charge', 'A modern accumulator needs both its kit and its running time.');
  if (charge && charge.upgradeKitCode !== null && charge.oldPart !== 'capacitor')
    wrong('charge', 'A modern accumulator can only replace an old capacitor.');
  for (const reason of errorsOf(calibre.lightTimes)) wrong('lightTimes', reason);
  const names = calibre.wells.map((well) => well.name);
  if (new Set(names).size < names.length) wrong('wells', 'Two cell places have the same name.');
  calibre.wells.forEach((well, index) => {
    if (calibre.charge === null && well.cellCode === '' && !calibre.shopsOwn)
      wrong(
        `wells.${index}.cellCode`,
        'Enter its cell, or leave it marked as the shop’s own until it is known.',
      );
    if (calibre.charge === null && well.cellCode !== '' && !book.cell(well.cellCode))
      wrong(`wells.${index}.cellCode`, `Cell “${well.cellCode}” is not in the table.`);
    if (calibre.charge !== null && well.cellCode !== '')
      wrong(
        `wells.${index}.cellCode`,
        'A movement that charges an accumulator takes no primary cell. Leave this blank.',
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
    wrong('revisions', 'One revision alone is not useful. Enter a second one, or none.');
  if (!calibre.shopsOwn) {
    const wanted = {
      widthMm: 'its width',
      lengthMm: 'its length',
      heightMm: 'its height',
      typicalUA: 'its typical current',
      limitUA: 'its current limit',
      lowestV: 'its lowest voltage',
    } as const;
    for (const [path, what] of Object.entries(wanted))
      if (calibre[path as keyof typeof wanted] === null)
        wrong(path, `Enter ${what}, or leave it marked as the shop’s own until it is known.`);
  }
  if (calibre.limitUA !== null && calibre.typicalUA !== null && calibre.limitUA < calibre.typicalUA)
    wrong('limitUA', `The limit, ${calibre.limitUA} µA, is under what is typical, ${calibre.typicalUA} µA.`);
  if ((calibre.coilMinKOhm === null) !== (calibre.coilMaxKOhm === null))
    wrong('coilMaxKOhm', 'Enter both ends of the coil range, or neither.');
  if (
    calibre.coilMinKOhm !== null &&
    calibre.coilMaxKOhm !== null &&
    calibre.coilMinKOhm > calibre.coilMaxKOhm
  )
    wrong('coilMaxKOhm', 'The coil’s range has its end before its start.');
  return problems;
}

function judgeCaseType(type: CaseType, book: Book): RecordProblem[] {
  const { makerId, backKind, back, lipClock } = type;
  const kind = BACK_KINDS.find((each) => each === backKind);
  return [
    ...(book.maker(makerId) ? [] : [{ path: 'makerId', reason: `Maker “${makerId}” is not in the book.` }]),
    ...(kind === undefined
      ? [{ path: 'backKind', reason: `Kind of back: one of ${BACK_KINDS.join('; ')}.` }]
      : []),
    ...(back === null || kind === undefined
      ? []
      : contradictions({ ...back, kind, lipClock }).map(({ path, reason }) => ({
          path: path in back ? `back.${path}` : path,
          reason,
        }))),
  ];
}

type Judges = {
  readonly [K in CatalogueKind]: (body: RecordBodies[K], book: Book) => readonly RecordProblem[];
};
const JUDGES: Judges = {
  calibre: judgeCalibre,
  caseType: judgeCaseType,
  maker: () => [],
  cell: (row) =>
    row.capacityMaxMAh < row.capacityMinMAh
      ? [{ path: 'capacityMaxMAh', reason: 'The capacity’s range has its end before its start.' }]
      : [],
  gasket: (ring, book) => [
    ...(ring.widthMm !== null && ring.profile !== 'flat'
      ? [
          {
            path: 'widthMm',
            reason: `A ${ring.profile} ring has a section and no separate width. Leave the width blank.`,
          },
        ]
      : []),
    ...ring.caseCodes
      .filter((code) => book.caseTypeOfReference(code) === null)
      .map((code) => ({ path: 'caseCodes', reason: `Case “${code}” is not in the book.` })),
  ],
  ...TOOL_JUDGES,
};

/** What contradicts itself or the rest of the book in a record; empty where it may stand. */
export function judgeRecord<K extends CatalogueKind>(
  kind: K,
  body: RecordBodies[K],
  book: Book,
): readonly RecordProblem[] {
  return JUDGES[kind](body, book);
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
