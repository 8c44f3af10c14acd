import { type Book, type CatalogueKind, type RecordBodies, recordId } from '../../../core/craft/book';
import { BACK_KINDS, COATINGS, NOTHING_MEASURED, PANEL_HELD_BY } from '../../../core/craft/cases';
import { BLADE_FORMS, type ToolKind } from '../../../core/craft/tools';
import { figure } from '../../../core/craft/judgement';
import {
  CONTACT_KINDS,
  DIAL_PARTS,
  FUNCTION_KINDS,
  HOLD_KINDS,
  NOTHING_MORE,
  SIGNS,
} from '../../../core/craft/movements';
import { formatLignes, type Quantity } from '../../../core/craft/units';
interface Named {
  readonly name: string;
  readonly label: string;
}

/** One field of a record's form. */
export type FieldSpec = Named &
  (
    | { readonly as: 'text' | 'mono' | 'tick' | 'lines' | 'numbers' }
    | { readonly as: 'text or nothing' }
    | {
        readonly as: 'number';
        readonly quantity: Quantity;
        readonly optional?: boolean;
        readonly unit?: string;
      }
    | { readonly as: 'choice' | 'choice or nothing' | 'several'; readonly options: readonly string[] }
    /** One of a few figures. */
    | { readonly as: 'figure choice'; readonly options: readonly number[] }
    | { readonly as: 'money' }
    | { readonly as: 'maker' }
    | {
        readonly as: 'parts';
        readonly fields: readonly FieldSpec[];
        readonly blank: object;
        readonly one: string;
      }
    | { readonly as: 'part or nothing'; readonly fields: readonly FieldSpec[]; readonly blank: object }
  );

/** How one kind of record is listed, named and entered. */
export interface RecordView<K extends CatalogueKind> {
  readonly kind: K;
  /** Where it is kept: in the book, or on the tool board. */
  readonly base: '/book' | '/tools';
  /** Its part of the address. */
  readonly segment: string;
  readonly title: string;
  readonly one: string;
  readonly records: (book: Book) => readonly RecordBodies[K][];
  readonly name: (body: RecordBodies[K]) => string;
  readonly columns: readonly {
    readonly head: string;
    readonly of: (body: RecordBodies[K], book: Book) => string;
  }[];
  readonly fields: readonly FieldSpec[];
  readonly blank: object;
  /** The CSV tables its data stands in. */
  readonly tables: readonly string[];
}

const mm = (name: string, label: string, optional = false): FieldSpec => ({
  name,
  label,
  as: 'number',
  quantity: 'lengthMm',
  optional,
});
const text = (name: string, label: string): FieldSpec => ({ name, label, as: 'text' });
const mono = (name: string, label: string): FieldSpec => ({ name, label, as: 'mono' });
const figureOf = (name: string, label: string, unit: string, optional = false): FieldSpec => ({
  name,
  label,
  as: 'number',
  quantity: 'figureOnly',
  unit,
  optional,
});
const ID: FieldSpec = mono('id', 'Id: small letters, digits, dashes');

const calibres: RecordView<'calibre'> = {
  kind: 'calibre',
  base: '/book',
  segment: 'calibres',
  title: 'Calibres',
  one: 'calibre',
  records: (book) => book.calibres,
  name: (calibre) => calibre.code,
  columns: [
    { head: 'Maker', of: ({ makerId }, book) => book.maker(makerId)?.name ?? makerId },
    {
      head: 'Cell',
      of: ({ wells, charge }) =>
        charge?.kitCode ?? (wells.map((well) => well.cellCode).join(', ') || 'not entered'),
    },
    {
      head: 'Size',
      of: ({ widthMm }) =>
        widthMm === null ? 'not known' : `${figure(widthMm, 1)} mm, ${formatLignes(widthMm)}`,
    },
    { head: 'Functions', of: ({ functions }) => functions.join(', ') },
    { head: 'Standing', of: ({ shopsOwn }) => (shopsOwn ? 'shop’s own, to be completed' : 'book') },
  ],
  tables: ['calibres', 'wells', 'coils', 'dials', 'contacts', 'recipes', 'revisions', 'draws'],
  blank: {
    ...NOTHING_MORE,
    id: '',
    makerId: '',
    code: '',
    formerCodes: [],
    shape: 'round',
    widthMm: null,
    lengthMm: null,
    heightMm: null,
    wells: [],
    coils: [],
    functions: ['hands'],
    stepIntervalS: 1,
    lowSupplySignal: null,
    typicalUA: null,
    limitUA: null,
    coilMinKOhm: null,
    coilMaxKOhm: null,
    lowestV: 1.2,
    functionDraws: [],
    resetContact: null,
    charge: null,
    dateQuickSet: false,
    crownPositions: [],
    cautions: [],
  },
  fields: [
    ID,
    { name: 'makerId', label: 'Maker', as: 'maker' },
    mono('code', 'Calibre, as engraved'),
    { name: 'formerCodes', label: 'Former codes, one a line', as: 'lines' },
    text('family', 'Family, of calibres built alike'),
    { name: 'shopsOwn', label: 'Shop’s own, to be completed', as: 'tick' },
    { name: 'shape', label: 'Shape', as: 'choice', options: ['round', 'oblong'] },
    mm('widthMm', 'Width', true),
    mm('lengthMm', 'Length', true),
    mm('heightMm', 'Height', true),
    figureOf('jewels', 'Jewels', '', true),
    { name: 'printed', label: 'Words printed on it, one a line', as: 'lines' },
    {
      name: 'dial',
      label: 'What the dial shows, and where',
      one: 'thing on the dial',
      as: 'parts',
      blank: { shows: 'date', clock: 3 },
      fields: [
        { name: 'shows', label: 'Shows', as: 'choice', options: DIAL_PARTS },
        figureOf('clock', 'At, blank: at the centre', 'o’clock', true),
      ],
    },
    { name: 'functions', label: 'Functions', as: 'several', options: FUNCTION_KINDS },
    figureOf('stepIntervalS', 'Step interval', 's', true),
    { name: 'lowSupplySignal', label: 'Low-supply signal', as: 'text or nothing' },
    { name: 'typicalUA', label: 'Typical current', as: 'number', quantity: 'currentUA', optional: true },
    { name: 'limitUA', label: 'Current limit', as: 'number', quantity: 'currentUA', optional: true },
    { name: 'coilMinKOhm', label: 'Coil from', as: 'number', quantity: 'resistanceKOhm', optional: true },
    { name: 'coilMaxKOhm', label: 'Coil to', as: 'number', quantity: 'resistanceKOhm', optional: true },
    { name: 'lowestV', label: 'Runs down to', as: 'number', quantity: 'voltageV', optional: true },
    {
      name: 'wells',
      label: 'Places for cells',
      one: 'place',
      as: 'parts',
      blank: {
        name: 'main',
        xMm: 0,
        yMm: 0,
        cellCode: '',
        otherHeightsMm: [],
        faceUp: '+',
        heldBy: 'side lever',
        pushDegrees: 0,
      },
      fields: [
        text('name', 'Name'),
        mono('cellCode', 'Cell'),
        mm('xMm', 'Towards 3 o’clock'),
        mm('yMm', 'Towards 12 o’clock'),
        { name: 'otherHeightsMm', label: 'Other heights, mm', as: 'numbers' },
        { name: 'faceUp', label: 'Face up', as: 'choice', options: ['+', '−'] },
        { name: 'heldBy', label: 'Held by', as: 'choice', options: HOLD_KINDS },
        figureOf('pushDegrees', 'Push, from 12 o’clock', '°'),
      ],
    },
    {
      name: 'coils',
      label: 'Coils to keep clear of',
      one: 'coil',
      as: 'parts',
      blank: { xMm: 0, yMm: 0, lengthMm: 8, widthMm: 2, degrees: 0 },
      fields: [
        mm('xMm', 'Towards 3 o’clock'),
        mm('yMm', 'Towards 12 o’clock'),
        mm('lengthMm', 'Length'),
        mm('widthMm', 'Width'),
        figureOf('degrees', 'Direction', '°'),
      ],
    },
    mm('keepClearMm', 'No tool nearer to a coil than'),
    {
      name: 'contacts',
      label: 'Contacts',
      one: 'contact',
      as: 'parts',
      blank: { kind: 'plus', xMm: 0, yMm: 0 },
      fields: [
        { name: 'kind', label: 'Contact', as: 'choice', options: CONTACT_KINDS },
        mm('xMm', 'Towards 3 o’clock'),
        mm('yMm', 'Towards 12 o’clock'),
      ],
    },
    { name: 'insulators', label: 'Insulators, one a line', as: 'lines' },
    {
      name: 'recipes',
      label: 'Recipes',
      one: 'recipe',
      as: 'parts',
      blank: { what: '', steps: [] },
      fields: [text('what', 'What for'), { name: 'steps', label: 'Steps, one a line', as: 'lines' }],
    },
    {
      name: 'revisions',
      label: 'Revisions, where there are several',
      one: 'revision',
      as: 'parts',
      blank: { name: '', seenBy: '', cellCode: null, heightMm: null, jewels: null, heldBy: null },
      fields: [
        text('name', 'Name'),
        text('seenBy', 'Told apart by'),
        { name: 'cellCode', label: 'Its cell, blank if the same', as: 'text or nothing' },
        mm('heightMm', 'Its height, blank if the same', true),
        figureOf('jewels', 'Its jewels, blank if the same', '', true),
        {
          name: 'heldBy',
          label: 'Its cell held by, if otherwise',
          as: 'choice or nothing',
          options: HOLD_KINDS,
        },
      ],
    },
    {
      name: 'functionDraws',
      label: 'What further functions draw',
      one: 'function',
      as: 'parts',
      blank: { name: '', drawUA: 0, secondsPerDay: 0 },
      fields: [
        text('name', 'Function'),
        { name: 'drawUA', label: 'Draws', as: 'number', quantity: 'currentUA' },
        figureOf('secondsPerDay', 'Seconds a day', 's'),
      ],
    },
    {
      name: 'charge',
      label: 'Runs from an accumulator',
      as: 'part or nothing',
      blank: {
        by: 'light',
        kitCode: '',
        oldPart: 'accumulator',
        diameterMm: 9.5,
        heightMm: 2.1,
        nominalV: 1.5,
        reserveDays: 180,
      },
      fields: [
        { name: 'by', label: 'Charged by', as: 'choice', options: ['light', 'rotor'] },
        mono('kitCode', 'Kit'),
        { name: 'oldPart', label: 'Old part', as: 'choice', options: ['accumulator', 'capacitor'] },
        mm('diameterMm', 'Diameter'),
        mm('heightMm', 'Height'),
        { name: 'nominalV', label: 'Nominal voltage', as: 'number', quantity: 'voltageV' },
        figureOf('reserveDays', 'Runs when full', 'days'),
      ],
    },
    { name: 'resetContact', label: 'Reset contact', as: 'text or nothing' },
    { name: 'dateQuickSet', label: 'The date has a quick-set', as: 'tick' },
    { name: 'crownPositions', label: 'Crown positions, pushed home first, one a line', as: 'lines' },
    { name: 'cautions', label: 'Cautions for this calibre only, one a line', as: 'lines' },
  ],
};

const cases: RecordView<'caseType'> = {
  kind: 'caseType',
  base: '/book',
  segment: 'cases',
  title: 'Case types',
  one: 'case type',
  records: (book) => book.caseTypes,
  name: (type) => type.code,
  columns: [
    { head: 'Maker', of: ({ makerId }, book) => book.maker(makerId)?.name ?? makerId },
    { head: 'Back', of: ({ backKind }) => backKind },
    { head: 'Rated', of: ({ ratingBar }) => (ratingBar === null ? 'no' : `${ratingBar} bar`) },
    { head: 'Crown', of: ({ crownClock }) => `${crownClock}` },
    { head: 'Gasket', of: ({ gasket }) => gasket ?? 'not known' },
  ],
  tables: ['case-types'],
  blank: {
    id: '',
    makerId: '',
    code: '',
    backKind: 'snap-on',
    ratingBar: null,
    crownClock: 3,
    lipClock: null,
    gasket: null,
    back: null,
  },
  fields: [
    ID,
    { name: 'makerId', label: 'Maker', as: 'maker' },
    mono('code', 'Case code'),
    { name: 'backKind', label: 'Kind of back', as: 'choice', options: BACK_KINDS },
    { name: 'ratingBar', label: 'Rated when new', as: 'number', quantity: 'pressureBar', optional: true },
    figureOf('crownClock', 'Crown at', 'o’clock'),
    figureOf('lipClock', 'Lip or nick at, from behind', 'o’clock', true),
    { name: 'gasket', label: 'Gasket, inside × section in mm', as: 'text or nothing' },
    {
      name: 'back',
      label: 'Its back was measured',
      as: 'part or nothing',
      blank: { ...NOTHING_MEASURED },
      fields: [
        mm('diameterMm', 'Back diameter', true),
        { name: 'coating', label: 'Surface', as: 'choice or nothing', options: COATINGS },
        figureOf('notchCount', 'Notches or holes', '', true),
        mm('pitchMm', 'Pitch circle', true),
        mm('notchWidthMm', 'Width of a notch or hole', true),
        { name: 'notchClocks', label: 'Clock positions, if uneven', as: 'numbers' },
        figureOf('flatCount', 'Flats', '', true),
        mm('acrossMm', 'Across the flats', true),
        figureOf('screwCount', 'Screws', '', true),
        mm('slotLengthMm', 'Slot length', true),
        mm('slotWidthMm', 'Slot width', true),
        { name: 'panelHeldBy', label: 'Panel held by', as: 'choice or nothing', options: PANEL_HELD_BY },
      ],
    },
  ],
};

const cells: RecordView<'cell'> = {
  kind: 'cell',
  base: '/book',
  segment: 'cells',
  title: 'Cells',
  one: 'cell size',
  records: (book) => book.cells,
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
  tables: ['cells'],
  blank: {
    chemistry: 'silver-oxide',
    iec: '',
    diameterMm: undefined,
    heightMm: undefined,
    tradeLow: '',
    tradeHigh: '',
    numberLow: '',
    numberHigh: '',
    alkaline: '',
    card: '',
    capacityMinMAh: undefined,
    capacityMaxMAh: undefined,
  },
  fields: [
    { name: 'chemistry', label: 'Chemistry', as: 'choice', options: ['silver-oxide', 'lithium'] },
    mono('iec', 'IEC name'),
    mm('diameterMm', 'Diameter'),
    mm('heightMm', 'Height'),
    mono('tradeLow', 'Trade name, low drain'),
    mono('tradeHigh', 'Trade name, high drain'),
    mono('numberLow', 'Number, low drain'),
    mono('numberHigh', 'Number, high drain'),
    mono('alkaline', 'Alkaline twin'),
    mono('card', 'Name on the card'),
    figureOf('capacityMinMAh', 'Least capacity', 'mAh'),
    figureOf('capacityMaxMAh', 'Most capacity', 'mAh'),
  ],
};

const makers: RecordView<'maker'> = {
  kind: 'maker',
  base: '/book',
  segment: 'makers',
  title: 'Makers',
  one: 'maker',
  records: (book) => book.makers,
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
  tables: ['makers', 'patterns'],
  blank: { id: '', name: '', sign: null, patterns: [] },
  fields: [
    ID,
    text('name', 'Name'),
    { name: 'sign', label: 'Sign struck into its movements', as: 'choice or nothing', options: SIGNS },
    {
      name: 'patterns',
      label: 'What the maker engraves: d a digit, l a letter',
      one: 'pattern',
      as: 'parts',
      blank: { meaning: 'movement', template: '' },
      fields: [
        { name: 'meaning', label: 'Meaning', as: 'choice', options: ['movement', 'case', 'serial'] },
        mono('template', 'Pattern'),
      ],
    },
  ],
};

const gaskets: RecordView<'gasket'> = {
  kind: 'gasket',
  base: '/book',
  segment: 'gaskets',
  title: 'Gaskets',
  one: 'gasket',
  records: (book) => book.gaskets,
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
  tables: ['gaskets'],
  blank: {
    id: '',
    code: '',
    profile: 'round',
    insideMm: undefined,
    sectionMm: undefined,
    material: 'nitrile',
    caseCodes: [],
  },
  fields: [
    ID,
    mono('code', 'Size, as on the bag'),
    {
      name: 'profile',
      label: 'Profile',
      as: 'choice',
      options: ['round', 'flat', 'L-shaped', 'shaped to the case'],
    },
    mm('insideMm', 'Inside diameter'),
    mm('sectionMm', 'Section'),
    text('material', 'Material'),
    { name: 'caseCodes', label: 'Cases it seals, one a line', as: 'lines' },
  ],
};

/** What a tool's list, form and table share. */
function toolView<K extends ToolKind>(
  own: Pick<
    RecordView<K>,
    'kind' | 'segment' | 'title' | 'one' | 'records' | 'columns' | 'fields' | 'tables'
  > & {
    readonly blank: object;
  },
): RecordView<K> {
  return {
    ...own,
    base: '/tools',
    name: (tool) => tool.name,
    blank: { id: '', name: '', costMinor: undefined, ...own.blank },
    fields: [
      ID,
      text('name', 'Name, as on the tool'),
      { name: 'costMinor', label: 'It cost', as: 'money' },
      ...own.fields,
    ],
  };
}

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
  records: (book) => book.wrenches,
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
  tables: ['wrenches'],
  blank: {
    jaws: 3,
    travelMinMm: undefined,
    travelMaxMm: undefined,
    rearMinMm: null,
    rearMaxMm: null,
    jawWidthsMm: [],
    pinDiametersMm: [],
  },
  fields: [
    { name: 'jaws', label: 'Jaws', as: 'figure choice', options: [2, 3] },
    mm('travelMinMm', 'Jaws open from'),
    mm('travelMaxMm', 'Jaws open to'),
    mm('rearMinMm', 'Rear jaw from', true),
    mm('rearMaxMm', 'Rear jaw to', true),
    { name: 'jawWidthsMm', label: 'Jaw widths, mm', as: 'numbers' },
    { name: 'pinDiametersMm', label: 'Pin diameters, mm', as: 'numbers' },
  ],
});

const openerDies = toolView<'openerDie'>({
  kind: 'openerDie',
  segment: 'dies',
  title: 'Opener dies and keys',
  one: 'die or key',
  records: (book) => book.openerDies,
  columns: [
    { head: 'Form', of: ({ form }) => form },
    { head: 'Flats', of: ({ flats }) => `${flats}` },
    { head: 'Across', of: ({ acrossMm }) => `${figure(acrossMm)} mm` },
    { head: 'Shank', of: ({ shank }) => shank ?? 'none' },
  ],
  tables: ['opener-dies'],
  blank: { form: 'die', flats: undefined, acrossMm: undefined, shank: null },
  fields: [
    { name: 'form', label: 'Form', as: 'choice', options: ['die', 'key'] },
    figureOf('flats', 'Flats', ''),
    mm('acrossMm', 'Across the flats'),
    { name: 'shank', label: 'Shank', as: 'text or nothing' },
  ],
});

const holders = toolView<'holder'>({
  kind: 'holder',
  segment: 'holders',
  title: 'Holders',
  one: 'holder',
  records: (book) => book.holders,
  columns: [
    { head: 'Holds', of: ({ holds }) => holds },
    { head: 'Shank', of: ({ shank }) => shank ?? 'none' },
    { head: 'Takes', of: ({ fromMm, toMm }) => span(fromMm, toMm) },
  ],
  tables: ['holders'],
  blank: { holds: 'dies', shank: null, fromMm: null, toMm: null },
  fields: [
    { name: 'holds', label: 'Holds', as: 'choice', options: ['dies', 'the case', 'the movement'] },
    { name: 'shank', label: 'Shank', as: 'text or nothing' },
    mm('fromMm', 'Takes from', true),
    mm('toMm', 'Takes to', true),
  ],
});

const pressDies = toolView<'pressDie'>({
  kind: 'pressDie',
  segment: 'press-dies',
  title: 'Press dies',
  one: 'press die',
  records: (book) => book.pressDies,
  columns: [
    { head: 'Inside', of: ({ innerMm }) => (innerMm === null ? 'flat' : `${figure(innerMm)} mm`) },
    { head: 'Outside', of: ({ outerMm }) => `${figure(outerMm)} mm` },
    { head: 'Recess', of: ({ recessMm }) => `${figure(recessMm)} mm` },
    { head: 'Of', of: ({ material }) => material },
    { head: 'Shank', of: ({ shank }) => shank },
  ],
  tables: ['press-dies'],
  blank: { innerMm: null, outerMm: undefined, recessMm: 0, material: 'plastic', shank: '' },
  fields: [
    mm('innerMm', 'Inner diameter, blank if flat', true),
    mm('outerMm', 'Outer diameter'),
    mm('recessMm', 'Recess'),
    { name: 'material', label: 'Material', as: 'choice', options: ['plastic', 'metal'] },
    text('shank', 'Shank'),
  ],
});

const drivers = toolView<'driver'>({
  kind: 'driver',
  segment: 'drivers',
  title: 'Screwdrivers',
  one: 'screwdriver',
  records: (book) => book.drivers,
  columns: [
    {
      head: 'Blade',
      of: ({ bladeWidthMm, bladeThicknessMm }) => `${figure(bladeWidthMm)} × ${figure(bladeThicknessMm)} mm`,
    },
  ],
  tables: ['drivers'],
  blank: { bladeWidthMm: undefined, bladeThicknessMm: undefined },
  fields: [mm('bladeWidthMm', 'Blade width'), mm('bladeThicknessMm', 'Blade thickness')],
});

const blades = toolView<'blade'>({
  kind: 'blade',
  segment: 'blades',
  title: 'Knives, blades and pins',
  one: 'knife, blade or pin',
  records: (book) => book.blades,
  columns: [
    { head: 'Form', of: ({ form }) => form },
    { head: 'Width', of: ({ widthMm }) => `${figure(widthMm)} mm` },
  ],
  tables: ['blades'],
  blank: { form: 'case knife', widthMm: undefined },
  fields: [{ name: 'form', label: 'Form', as: 'choice', options: BLADE_FORMS }, mm('widthMm', 'Width')],
});

const balls = toolView<'ball'>({
  kind: 'ball',
  segment: 'balls',
  title: 'Friction balls',
  one: 'friction ball',
  records: (book) => book.balls,
  columns: [{ head: 'Grips backs', of: ({ backFromMm, backToMm }) => span(backFromMm, backToMm) }],
  tables: ['friction-balls'],
  blank: { backFromMm: undefined, backToMm: undefined },
  fields: [mm('backFromMm', 'Grips backs from'), mm('backToMm', 'Grips backs to')],
});

/** A view whose kind is not known where it is used: its own functions take its own records. */
export type AnyRecordView = Omit<RecordView<CatalogueKind>, 'records' | 'name' | 'columns'> & {
  readonly records: (book: Book) => readonly object[];
  readonly name: (body: never) => string;
  readonly columns: readonly { readonly head: string; readonly of: (body: never, book: Book) => string }[];
};

export const BOOK_VIEWS: readonly AnyRecordView[] = [calibres, cases, cells, makers, gaskets];
export const TOOL_VIEWS: readonly AnyRecordView[] = [
  wrenches,
  openerDies,
  holders,
  pressDies,
  drivers,
  blades,
  balls,
];

/** A record of the book with the id it stands under. */
export function recordsOf(view: AnyRecordView, book: Book): { readonly id: string; readonly body: object }[] {
  return view.records(book).map((body) => ({ id: recordId(view.kind, body as never), body }));
}
