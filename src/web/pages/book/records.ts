import { blankOf, type AnyFields, fieldsOfKind, RECORDS, tablesOf } from '../../../contract';
import {
  type Book,
  type CatalogueKind,
  type RecordBodies,
  recordId,
  recordsIn,
} from '../../../core/craft/book';
import { figure } from '../../../core/craft/judgement';
import { litWhen, type ToolKind } from '../../../core/craft/tools';
import { formatLignes } from '../../../core/craft/units';

/** What is told of one kind of record, over what its description says already. */
interface Told<K extends CatalogueKind> {
  readonly kind: K;
  /** Its part of the address. */
  readonly segment: string;
  readonly title: string;
  readonly one: string;
  readonly name: (body: RecordBodies[K]) => string;
  readonly columns: readonly {
    readonly head: string;
    readonly of: (body: RecordBodies[K], book: Book) => string;
  }[];
}

/** One record in its list. */
export interface Listed {
  readonly id: string;
  readonly name: string;
  /** A text for each of the heads. */
  readonly says: readonly string[];
  readonly body: object;
}

/** How one kind of record is listed, named and entered. */
export interface RecordView {
  readonly kind: CatalogueKind;
  /** Where it is kept: in the book, or on the tool board. */
  readonly base: '/book' | '/tools';
  readonly segment: string;
  readonly title: string;
  readonly one: string;
  readonly heads: readonly string[];
  readonly fields: AnyFields;
  readonly blank: object;
  /** The CSV tables its data stands in. */
  readonly tables: readonly string[];
  readonly listed: (book: Book) => readonly Listed[];
  /** The id under which what was filled in would stand. Throws where it is no record of this kind. */
  readonly idOf: (filledIn: unknown) => string;
}

export interface ToolView extends RecordView {
  readonly listed: (book: Book) => readonly (Listed & { readonly costMinor: number })[];
}

function listedAs<K extends CatalogueKind>(
  { name, columns }: Told<K>,
  body: RecordBodies[K],
  book: Book,
): Listed {
  return { id: recordId(body), name: name(body), says: columns.map(({ of }) => of(body, book)), body };
}

function viewOf<K extends CatalogueKind>(described: Told<K>): RecordView {
  const { kind, segment, title, one, columns } = described;
  return {
    kind,
    base: '/book',
    segment,
    title,
    one,
    heads: columns.map(({ head }) => head),
    fields: fieldsOfKind(kind),
    blank: blankOf(fieldsOfKind(kind)),
    tables: tablesOf(kind).map(({ name }) => name),
    listed: (book) => recordsIn(kind, book).map((body) => listedAs(described, body, book)),
    idOf: (filledIn) => recordId(RECORDS[kind].schema.parse(filledIn)),
  };
}

function toolView<K extends ToolKind>(described: Omit<Told<K>, 'name'>): ToolView {
  const named: Told<K> = { ...described, name: ({ name }) => name };
  return {
    ...viewOf(named),
    base: '/tools',
    listed: (book) =>
      recordsIn(named.kind, book).map((body) => ({
        ...listedAs(named, body, book),
        costMinor: body.costMinor,
      })),
  };
}

const calibres = viewOf<'calibre'>({
  kind: 'calibre',
  segment: 'calibres',
  title: 'Calibres',
  one: 'calibre',
  name: (calibre) => calibre.code,
  columns: [
    { head: 'Maker', of: ({ makerId }, book) => book.maker(makerId)?.name ?? makerId },
    {
      head: 'Cell',
      of: ({ wells, charge }) =>
        charge?.kitCode ?? (wells.map((well) => well.cellCode || 'not known').join(', ') || 'not entered'),
    },
    {
      head: 'Size',
      of: ({ widthMm }) =>
        widthMm === null ? 'not known' : `${figure(widthMm, 1)} mm, ${formatLignes(widthMm)}`,
    },
    { head: 'Functions', of: ({ functions }) => functions.join(', ') },
    { head: 'Status', of: ({ shopsOwn }) => (shopsOwn ? 'shop’s own, to be completed' : 'book') },
  ],
});

const cases = viewOf<'caseType'>({
  kind: 'caseType',
  segment: 'cases',
  title: 'Case types',
  one: 'case type',
  name: (type) => type.code,
  columns: [
    { head: 'Maker', of: ({ makerId }, book) => book.maker(makerId)?.name ?? makerId },
    { head: 'Back', of: ({ backKind }) => backKind },
    { head: 'Rated', of: ({ ratingBar }) => (ratingBar === null ? 'no' : `${ratingBar} bar`) },
    {
      head: 'Crown, from the dial',
      of: ({ crownClock, crown }) => `${crownClock}${crown === null ? '' : `, ${crown}`}`,
    },
    { head: 'Gasket', of: ({ gasket }) => gasket ?? 'not known' },
  ],
});

const cells = viewOf<'cell'>({
  kind: 'cell',
  segment: 'cells',
  title: 'Cells',
  one: 'cell size',
  name: (row) => row.tradeLow || row.tradeHigh || row.iec,
  columns: [
    { head: 'Chemistry', of: ({ chemistry }) => chemistry },
    {
      head: 'Size',
      of: ({ diameterMm, heightMm }) => `${figure(diameterMm, 1)} × ${figure(heightMm, 2)} mm`,
    },
    { head: 'High drain', of: ({ tradeHigh }) => tradeHigh },
    {
      head: 'Numbers',
      of: ({ numberLow, numberHigh }) => [numberLow, numberHigh].filter(Boolean).join(', '),
    },
    { head: 'Alkaline', of: ({ alkaline, card }) => [alkaline, card].filter(Boolean).join(', ') },
    {
      head: 'Capacity',
      of: ({ capacityMinMAh, capacityMaxMAh }) =>
        `${figure(capacityMinMAh)} to ${figure(capacityMaxMAh)} mAh`,
    },
  ],
});

const makers = viewOf<'maker'>({
  kind: 'maker',
  segment: 'makers',
  title: 'Makers',
  one: 'maker',
  name: (maker) => maker.name,
  columns: [
    {
      head: 'Engraves',
      of: ({ patterns }) => patterns.map(({ meaning, template }) => `${meaning} ${template}`).join(' · '),
    },
    {
      head: 'Calibres',
      of: ({ id }, book) => `${book.calibres.filter((calibre) => calibre.makerId === id).length}`,
    },
  ],
});

const gaskets = viewOf<'gasket'>({
  kind: 'gasket',
  segment: 'gaskets',
  title: 'Gaskets',
  one: 'gasket',
  name: (ring) => ring.code,
  columns: [
    { head: 'Profile', of: ({ profile }) => profile },
    {
      head: 'Inside × section',
      of: ({ insideMm, sectionMm }) => `${figure(insideMm, 2)} × ${figure(sectionMm, 2)} mm`,
    },
    { head: 'Material', of: ({ material }) => material },
    { head: 'Seals', of: ({ caseCodes }) => caseCodes.join(', ') },
  ],
});

const span = (from: number | null, to: number | null): string =>
  from === null && to === null
    ? 'any'
    : `${from === null ? '0' : figure(from)} to ${to === null ? 'any' : figure(to)} mm`;
const sizes = (widths: readonly number[]): string =>
  widths.length === 0 ? 'none' : `${widths.map((each) => figure(each)).join(', ')} mm`;

const wrenches = toolView<'wrench'>({
  kind: 'wrench',
  segment: 'wrenches',
  title: 'Wrenches',
  one: 'wrench',
  columns: [
    { head: 'Jaws', of: ({ jaws }) => `${jaws}` },
    { head: 'Opens', of: ({ travelMinMm, travelMaxMm }) => span(travelMinMm, travelMaxMm) },
    {
      head: 'Rear jaw',
      of: ({ rearMinMm, rearMaxMm }) => (rearMaxMm === null ? 'none' : span(rearMinMm, rearMaxMm)),
    },
    { head: 'Jaw widths', of: ({ jawWidthsMm }) => sizes(jawWidthsMm) },
    { head: 'Pins', of: ({ pinDiametersMm }) => sizes(pinDiametersMm) },
  ],
});

const openerDies = toolView<'openerDie'>({
  kind: 'openerDie',
  segment: 'dies',
  title: 'Opener dies and keys',
  one: 'die or key',
  columns: [
    { head: 'Form', of: ({ form }) => form },
    { head: 'Flats', of: ({ flats }) => `${flats}` },
    { head: 'Across', of: ({ acrossMm }) => `${figure(acrossMm)} mm` },
    { head: 'Teeth', of: ({ toothForm }) => toothForm },
    { head: 'Shank', of: ({ shank }) => shank ?? 'none' },
  ],
});

const holders = toolView<'holder'>({
  kind: 'holder',
  segment: 'holders',
  title: 'Holders',
  one: 'holder',
  columns: [
    { head: 'Holds', of: ({ holds }) => holds },
    { head: 'Shank', of: ({ shank }) => shank ?? 'none' },
    { head: 'Takes', of: ({ fromMm, toMm }) => span(fromMm, toMm) },
  ],
});

const pressDies = toolView<'pressDie'>({
  kind: 'pressDie',
  segment: 'press-dies',
  title: 'Press dies',
  one: 'press die',
  columns: [
    { head: 'Inside', of: ({ innerMm }) => (innerMm === null ? 'flat' : `${figure(innerMm)} mm`) },
    { head: 'Outside', of: ({ outerMm }) => `${figure(outerMm)} mm` },
    { head: 'Recess', of: ({ recessMm }) => `${figure(recessMm)} mm` },
    { head: 'Of', of: ({ material }) => material },
    { head: 'Shank', of: ({ shank }) => shank },
  ],
});

const drivers = toolView<'driver'>({
  kind: 'driver',
  segment: 'drivers',
  title: 'Screwdrivers',
  one: 'screwdriver',
  columns: [
    {
      head: 'Tip',
      of: ({ bladeWidthMm, bladeThicknessMm, crossSize }) =>
        crossSize ?? `${figure(bladeWidthMm ?? 0)} × ${figure(bladeThicknessMm ?? 0)} mm`,
    },
  ],
});

const blades = toolView<'blade'>({
  kind: 'blade',
  segment: 'blades',
  title: 'Knives, blades and pins',
  one: 'knife, blade or pin',
  columns: [
    { head: 'Form', of: ({ form }) => form },
    { head: 'Width', of: ({ widthMm }) => `${figure(widthMm)} mm` },
  ],
});

const balls = toolView<'ball'>({
  kind: 'ball',
  segment: 'balls',
  title: 'Friction balls',
  one: 'friction ball',
  columns: [{ head: 'Grips backs', of: ({ backFromMm, backToMm }) => span(backFromMm, backToMm) }],
});

const lightPlaces = toolView<'lightPlace'>({
  kind: 'lightPlace',
  segment: 'light-places',
  title: 'Light places',
  one: 'light place',
  columns: [
    { head: 'Light', of: ({ lux }) => `${figure(lux, 0)} lx` },
    {
      head: 'Measured at',
      of: ({ measuredAtMm }) => (measuredAtMm === null ? 'daylight' : `${measuredAtMm} mm`),
    },
    {
      head: 'Warms a case by',
      of: ({ caseRiseK }) => (caseRiseK === null ? 'not measured' : `${figure(caseRiseK, 0)} K`),
    },
    {
      head: 'Lit',
      of: (place) => litWhen(place),
    },
  ],
});

export const BOOK_VIEWS: readonly RecordView[] = [calibres, cases, cells, makers, gaskets];
export const TOOL_VIEWS: readonly ToolView[] = [
  wrenches,
  openerDies,
  holders,
  pressDies,
  drivers,
  blades,
  balls,
  lightPlaces,
];
