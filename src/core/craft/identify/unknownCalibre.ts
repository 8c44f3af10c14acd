import type { Book } from '../book';
import {
  bareCode,
  type Calibre,
  DIAL_PARTS,
  HOLD_KINDS,
  readEngraving,
  SIGNS,
  USUAL_KEEP_CLEAR_MM,
} from '../movements';
import { isRead, type Look, type Seen } from './looks';

/** What a technician says of a movement that goes into the book from the bench. */
export interface UnknownCalibreSaid {
  readonly code: string;
  readonly makerId: string;
  /** Empty: not known. */
  readonly cellCode: string;
  readonly widthMm: number | null;
  readonly currentUA: number | null;
}

export interface UnknownCalibreKnown {
  readonly code: string;
  readonly makerId: string;
  readonly cellCode: string;
  readonly widthMm: number | null;
  build(said: UnknownCalibreSaid): Calibre;
}

/**
 * The code, the size and all else that was seen of a movement, as the record of a calibre the shop knows in part. What was not
 * seen is taken from a `sister` where one is given, and said so in its cautions; never her cell or kit, nor what was measured of
 * her alone: what she draws, how she charges.
 */
export function unknownCalibre(
  evidence: readonly Seen[],
  book: Pick<Book, 'makers' | 'calibres' | 'caseTypes' | 'cellTable' | 'calibre'>,
  sister: Calibre | null = null,
): UnknownCalibreKnown {
  const text = (look: Look): string => {
    const value = evidence.find((each) => each.look === look)?.value;
    return typeof value === 'string' ? value : '';
  };
  const mm = (look: Look): number | null => {
    const value = evidence.find((each) => each.look === look && isRead(each))?.value;
    return typeof value === 'number' ? Math.round(value * 100) / 100 : null;
  };
  const marked = text('mark') || text('engraving');
  const reading = readEngraving(marked, book);
  const piece =
    reading.verdict === 'read' ? reading.pieces.find(({ meaning }) => meaning === 'movement') : undefined;
  const sign = SIGNS.find((each) => each === text('sign'));
  const signed = book.makers.filter((maker) => sign !== undefined && maker.sign === sign);
  const cell = cellOf(mm('cellDiameterMm'), mm('cellHeightMm'), book);
  const count = (look: Look): number | null => (/^\d+$/.test(text(look)) ? Number(text(look)) : null);
  const seen: AsSeen = { text, mm, count, held: HOLD_KINDS.find((kind) => kind === text('heldBy')) };
  return {
    code: (piece?.text ?? marked).trim(),
    makerId: sister?.makerId ?? piece?.makerId ?? (signed.length === 1 ? (signed[0]?.id ?? '') : ''),
    cellCode: cell,
    widthMm: mm('widthMm'),
    build: (said) => {
      const id = freeId(said, book);
      return sister ? fromSister(sister, said, id, seen) : asSeen(said, id, seen);
    },
  };
}

interface AsSeen {
  readonly text: (look: Look) => string;
  readonly mm: (look: Look) => number | null;
  readonly count: (look: Look) => number | null;
  readonly held: Calibre['wells'][number]['heldBy'] | undefined;
}

/** Seconds between two steps as they were seen; a sweep is a tenth of one, no hands none. */
function secondsOf(steps: string): number | null {
  return steps === 'sweeps' ? 0.1 : Number.parseInt(steps, 10) || null;
}

/** Where a cell lies that was seen towards an hour: half way out; in the middle where it was not seen. */
function placeAt(place: string, widthMm: number | null): { readonly xMm: number; readonly yMm: number } {
  if (place === '' || place === 'centre') return { xMm: 0, yMm: 0 };
  const reach = (widthMm ?? 20) / 4;
  const angle = (Number(place) / 12) * 2 * Math.PI;
  return {
    xMm: Math.round(Math.sin(angle) * reach * 10) / 10,
    yMm: Math.round(Math.cos(angle) * reach * 10) / 10,
  };
}

/** The place of its one cell, as far as anybody saw it. */
function wellSeen(
  { cellCode, widthMm }: UnknownCalibreSaid,
  place: string,
  held: AsSeen['held'],
): Calibre['wells'][number] {
  return {
    name: 'main',
    ...placeAt(place, widthMm),
    cellCode,
    otherHeightsMm: [],
    faceUp: '+',
    heldBy: held ?? 'clip on one side',
    pushDegrees: 0,
    feeds: [],
    typicalUA: null,
    limitUA: null,
  };
}

/** What it shows, as far as anybody saw it. Without hands it shows by a display, whoever looked for one. */
function functionsSeen(text: AsSeen['text'], hands: boolean): Calibre['functions'] {
  const noHands = text('step') === 'no hands';
  const has = (look: Look): boolean => text(look) !== '' && text(look) !== 'none';
  return [
    ...(hands ? (['hands'] as const) : []),
    ...(!noHands && has('seconds') ? (['seconds hand'] as const) : []),
    ...(has('date') ? (['date'] as const) : []),
    ...(has('day') ? (['day'] as const) : []),
    ...(text('display') === 'yes' || noHands ? (['digital display'] as const) : []),
  ];
}

/** The record of a movement nobody has a sister of: what was seen, and nothing else. */
function asSeen(said: UnknownCalibreSaid, id: string, { text, mm, count, held }: AsSeen): Calibre {
  const shape = text('shape') === 'oblong' ? 'oblong' : 'round';
  const steps = text('step');
  const seconds = text('seconds');
  // Somebody saw that it has none: then it shows by a display, whoever looked for one.
  const noHands = steps === 'no hands';
  const hands =
    !noHands &&
    (text('display') !== 'yes' || (seconds !== '' && seconds !== 'none') || secondsOf(steps) !== null);
  return {
    id,
    makerId: said.makerId,
    code: said.code,
    formerCodes: [],
    family: '',
    shopsOwn: true,
    shape,
    widthMm: said.widthMm,
    lengthMm: shape === 'round' ? said.widthMm : mm('lengthMm'),
    heightMm: mm('heightMm'),
    jewels: count('jewels'),
    dial: DIAL_PARTS.flatMap((shows) => {
      const seen = shows === 'counter' || shows === 'display' ? '' : text(shows);
      if (seen === '' || seen === 'none') return [];
      return [{ shows, clock: seen === 'centre' ? null : Number(seen) }];
    }),
    printed: text('print') === '' ? [] : [text('print')],
    wells: said.cellCode === '' && held === undefined ? [] : [wellSeen(said, text('cellAt'), held)],
    aboveCell: [],
    coils: [],
    contacts: [],
    keepClearMm: USUAL_KEEP_CLEAR_MM,
    insulators: [],
    recipes: [],
    revisions: [],
    functions: functionsSeen(text, hands),
    stepIntervalS: steps === '' || !hands ? null : secondsOf(steps),
    lowSupplySignal: null,
    typicalUA: null,
    limitUA: null,
    coilMinKOhm: null,
    coilMaxKOhm: null,
    lowestV: null,
    functionDraws: [],
    resetContact: null,
    charge: null,
    dateQuickSet: false,
    dayQuickSet: false,
    changeOver: null,
    lightTimes: [],
    dayIs: null,
    goodToFactor: null,
    rotor: null,
    crownPositions: [],
    cautions:
      said.currentUA === null
        ? []
        : [`Added at the bench. The first one drew ${said.currentUA} µA (not verified).`],
  };
}

const SHOWN_AS = { seconds: 'seconds hand', date: 'date', day: 'day' } as const;

/** A sister's record, with what was seen of this one in place of hers, and without what was measured of her alone. */
function fromSister(
  sister: Calibre,
  said: UnknownCalibreSaid,
  id: string,
  { text, mm, count, held }: AsSeen,
): Calibre {
  const places = (['seconds', 'date', 'day'] as const).filter((shows) => text(shows) !== '');
  const shape = text('shape') === '' ? sister.shape : text('shape') === 'oblong' ? 'oblong' : 'round';
  return {
    ...sister,
    id,
    makerId: said.makerId,
    code: said.code,
    formerCodes: [],
    revisions: [],
    shopsOwn: true,
    widthMm: said.widthMm,
    shape,
    lengthMm:
      shape === 'round'
        ? said.widthMm
        : (mm('lengthMm') ?? (sister.shape === 'oblong' ? sister.lengthMm : null)),
    heightMm: mm('heightMm') ?? sister.heightMm,
    jewels: count('jewels') ?? sister.jewels,
    dial: [
      ...sister.dial.filter(({ shows }) => !places.some((each) => each === shows)),
      ...places.flatMap((shows) =>
        text(shows) === 'none'
          ? []
          : [{ shows, clock: text(shows) === 'centre' ? null : Number(text(shows)) }],
      ),
    ],
    functions: [
      ...sister.functions.filter((each) => !places.some((shows) => SHOWN_AS[shows] === each)),
      ...places.flatMap((shows) => (text(shows) === 'none' ? [] : [SHOWN_AS[shows]])),
    ],
    stepIntervalS: text('step') === '' ? sister.stepIntervalS : secondsOf(text('step')),
    wells: sister.wells.map((well, at) => ({
      ...well,
      ...(at === 0 && text('cellAt') !== '' ? placeAt(text('cellAt'), said.widthMm) : {}),
      // Sisters are told apart by their cell as often as by anything: hers is named, and not taken over.
      ...(sister.charge === null ? { cellCode: at === 0 ? said.cellCode : '', otherHeightsMm: [] } : {}),
      ...(at === 0 && held !== undefined ? { heldBy: held } : {}),
      typicalUA: null,
      limitUA: null,
    })),
    // What it draws, measures and takes to charge nobody has seen of this one: its family's figures stand in, or it is asked.
    typicalUA: null,
    limitUA: null,
    coilMinKOhm: null,
    coilMaxKOhm: null,
    lowestV: null,
    lightTimes: [],
    dayIs: null,
    goodToFactor: null,
    rotor: null,
    // Whether it charges goes with the build; its kit does not: a kit is for one calibre and no other.
    charge: sister.charge && {
      ...sister.charge,
      kitCode: 'not known',
      upgradeKitCode: null,
      upgradeReserveDays: null,
    },
    cautions: [
      ...sister.cautions,
      `Added at the bench from the related ${sister.code}. Check every field before you rely on it.`,
      ...(said.currentUA === null ? [] : [`The first one drew ${said.currentUA} µA (not verified).`]),
    ],
  };
}

const SAME_MM = 0.1;

function cellOf(
  diameterMm: number | null,
  heightMm: number | null,
  { cellTable }: Pick<Book, 'cellTable'>,
): string {
  if (diameterMm === null || heightMm === null) return '';
  const fits = cellTable.types.filter(
    (cell) =>
      cell.diameterMm !== null &&
      cell.heightMm !== null &&
      Math.abs(cell.diameterMm - diameterMm) <= SAME_MM &&
      Math.abs(cell.heightMm - heightMm) <= SAME_MM,
  );
  const silver = fits.find(({ chemistry }) => chemistry === 'silver-oxide') ?? fits[0];
  return silver?.code ?? '';
}

/** A record's id from its maker and code, told apart by a number where it is taken. */
function freeId({ code, makerId }: UnknownCalibreSaid, book: Pick<Book, 'calibre'>): string {
  const slug = `${makerId}-${bareCode(code).replaceAll('?', 'x').toLowerCase()}`.slice(0, 52);
  let id = slug;
  for (let count = 2; book.calibre(id) !== null; count += 1) id = `${slug}-${count}`;
  return id;
}
