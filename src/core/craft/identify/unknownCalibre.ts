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
import type { Look, Seen } from './looks';

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

/** The code, the size and all else that was seen of a movement, as the record of a calibre the shop knows in part. */
export function unknownCalibre(
  evidence: readonly Seen[],
  book: Pick<Book, 'makers' | 'calibres' | 'caseTypes' | 'cellTable' | 'calibre'>,
): UnknownCalibreKnown {
  const text = (look: Look): string => {
    const value = evidence.find((each) => each.look === look)?.value;
    return typeof value === 'string' ? value : '';
  };
  const mm = (look: Look): number | null => {
    const value = evidence.find((each) => each.look === look)?.value;
    return typeof value === 'number' ? Math.round(value * 100) / 100 : null;
  };
  const marked = text('mark') || text('engraving');
  const reading = readEngraving(marked, book);
  const piece =
    reading.verdict === 'read' ? reading.pieces.find(({ meaning }) => meaning === 'movement') : undefined;
  const sign = SIGNS.find((each) => each === text('sign'));
  const signed = book.makers.filter((maker) => sign !== undefined && maker.sign === sign);
  const cell = cellOf(mm('cellDiameterMm'), mm('cellHeightMm'), book);
  const held = HOLD_KINDS.find((kind) => kind === text('heldBy'));
  const place = text('cellAt');
  const count = (look: Look): number | null => (text(look) === '' ? null : Number(text(look)));
  return {
    code: (piece?.text ?? marked).trim(),
    makerId: piece?.makerId ?? (signed.length === 1 ? (signed[0]?.id ?? '') : ''),
    cellCode: cell,
    widthMm: mm('widthMm'),
    build: (said) => {
      const shape = text('shape') === 'oblong' ? 'oblong' : 'round';
      const steps = text('step');
      const hands = text('display') !== 'yes' || text('seconds') !== '';
      const reach = (said.widthMm ?? 20) / 4;
      const angle = (Number(place) / 12) * 2 * Math.PI;
      const at =
        place === '' || place === 'centre' ? { x: 0, y: 0 } : { x: Math.sin(angle), y: Math.cos(angle) };
      return {
        id: freeId(said, book),
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
        wells:
          said.cellCode === '' && held === undefined
            ? []
            : [
                {
                  name: 'main',
                  xMm: Math.round(at.x * reach * 10) / 10,
                  yMm: Math.round(at.y * reach * 10) / 10,
                  cellCode: said.cellCode,
                  otherHeightsMm: [],
                  faceUp: '+',
                  heldBy: held ?? 'clip on one side',
                  pushDegrees: 0,
                  feeds: [],
                  typicalUA: null,
                  limitUA: null,
                },
              ],
        aboveCell: [],
        coils: [],
        contacts: [],
        keepClearMm: USUAL_KEEP_CLEAR_MM,
        insulators: [],
        recipes: [],
        revisions: [],
        functions: [
          ...(hands ? (['hands'] as const) : []),
          ...(text('seconds') !== '' && text('seconds') !== 'none' ? (['seconds hand'] as const) : []),
          ...(text('date') !== '' && text('date') !== 'none' ? (['date'] as const) : []),
          ...(text('day') !== '' && text('day') !== 'none' ? (['day'] as const) : []),
          ...(text('display') === 'yes' ? (['digital display'] as const) : []),
        ],
        stepIntervalS:
          steps === '' || !hands ? null : steps === 'sweeps' ? 0.1 : Number.parseInt(steps, 10) || null,
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
            : [`Entered at the bench; the first one drew ${said.currentUA} µA, right or wrong.`],
      };
    },
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
