import { editDistance } from '../find';
import { figure, type WorkingLine } from '../judgement';
import { rechargeableWord } from './charged';
import { chemistries } from './chemistry';
import { noughts } from './names';
import { type CellTable, typeFromParts } from './table';
import type { CellReading, CellType, NameOnLabel } from './types';

/** Letters that begin the names of rechargeable cells. They are never read as a primary cell. */
const RECHARGEABLE_PREFIXES = ['ML', 'MT', 'VL', 'LIR', 'CTL', 'TC'];

/** Words printed on cells and cards that name nothing. */
const NOISE =
  /^(SILVER|OXIDE|ALKALINE|LITHIUM|BATTERY|BATTERIES|CELL|BUTTON|WATCH|MERCURY|FREE|0%|0%?HG|HG|MADE|IN|BY|EXP|\+|-|#|NO|TYPE|SIZE)$/;
/** A voltage as it is printed: `1,55V`, `3 V`, `1.5 volts`. Where no V stands behind it a decimal is one alone. */
const PRINTED_VOLTAGE = /(?<![\w.,])(?:(\d(?:[.,]\d{1,2})?)\s*V(?:OLTS?)?|(\d[.,]\d{1,2}))(?![\w.,])/g;
/** A word that can be no part of a name: a maker, a country. Two letters may be those of a name written apart. */
const NO_NAME = /^[A-Z]{3,}$/;

interface NameRead extends NameOnLabel {
  readonly note?: string;
}

/** A place on a label that nobody can read. */
const ILLEGIBLE = '?';
/** A name of this many places or fewer legible ones says nothing. */
const LEGIBLE_AT_LEAST = 2;

function readName(raw: string, table: CellTable): NameRead | null {
  const text = noughts(raw);
  if (text.includes(ILLEGIBLE)) return halfLegible(text, table);
  const known = table.byName.get(text);
  if (known) return { sure: 'table', text, cells: [known] };
  const rechargeable = RECHARGEABLE_PREFIXES.find((prefix) => new RegExp(`^${prefix}\\d{3,4}`).test(text));
  if (rechargeable) return { sure: 'rechargeable', text, cells: [], note: rechargeable };
  const maker = /^([A-Z])(\d{3}A?)$/.exec(text);
  const behind = maker?.[2] === undefined ? undefined : table.byName.get(maker[2]);
  if (maker && behind) {
    return {
      sure: 'table',
      text,
      cells: [behind],
      note: `The letter ${maker[1]} before ${maker[2]} is read as a maker’s sign.`,
    };
  }
  // Two digits are a code number, no measure: a name that is not in the table is asked about, never computed.
  if (/^[A-Z]{1,4}\d{2}(?:SW|W|)$/.test(text)) return { sure: 'not read', text, cells: [] };
  const parts = /^(SR|LR|CR|BR|MR|PR)(\d{3,4})(SW|W|)$/.exec(text);
  if (parts) {
    const [, prefix = '', digits = '', suffix = ''] = parts;
    const cell = typeFromParts(prefix, digits, suffix, table);
    return cell
      ? { sure: cell.inTable ? 'table' : 'size from the name', text, cells: [cell] }
      : { sure: 'not read', text, cells: [] };
  }
  return /^(?:[A-Z]{1,4}\d{2,5}[A-Z]{0,3}|\d{3,4}A?)$/.test(text)
    ? { sure: 'not read', text, cells: [] }
    : null;
}

/** A name with places nobody can read: every cell of the table it may name, and never just one of them. */
function halfLegible(text: string, table: CellTable): NameRead | null {
  const legible = text.replaceAll(ILLEGIBLE, '');
  if (legible.length < LEGIBLE_AT_LEAST || !/^[A-Z0-9?]+$/.test(text)) return null;
  const pattern = new RegExp(`^${text.replaceAll(ILLEGIBLE, '[A-Z0-9]')}$`);
  const cells = new Set([...table.byName].filter(([name]) => pattern.test(name)).map(([, type]) => type));
  return {
    sure: 'half legible',
    text,
    cells: [...cells],
    // Where a letter cannot be read it may be that of a rechargeable cell.
    ...(/[?]/.test(/^[A-Z?]*/.exec(text)?.[0] ?? '') ? { note: MAY_BE_RECHARGEABLE } : {}),
  };
}

const MAY_BE_RECHARGEABLE = 'Without its letters it may also be a rechargeable cell.';

/** What one stretch of a label says: its names, and words beside them that can be no part of any. */
interface StretchRead {
  readonly names: readonly NameRead[];
  readonly beside: readonly string[];
}

/**
 * Names in one stretch of a label, joining parts written apart (`SR 726 SW`): the fewest names that use all parts. A word of
 * letters alone stands beside them, where it is not followed by a bare number: it may be the prefix of that.
 */
function namesInSegment(segment: string, table: CellTable): StretchRead | null {
  const parts = segment.split(/[\s\-.·_]+/).filter((part) => part !== '' && !NOISE.test(part));
  const best: (StretchRead | null)[] = [{ names: [], beside: [] }];
  const unknowns = ({ names }: StretchRead): number =>
    names.filter(({ cells, sure }) => cells.length === 0 && sure !== 'rechargeable').length;
  const worth = (read: StretchRead): number =>
    unknowns(read) * 10_000 + read.beside.length * 100 + read.names.length;
  for (let end = 1; end <= parts.length; end += 1) {
    let chosen: StretchRead | null = null;
    const offer = (candidate: StretchRead): void => {
      if (chosen === null || worth(candidate) < worth(chosen)) chosen = candidate;
    };
    for (let start = end - 1; start >= 0; start -= 1) {
      const before = best[start];
      const name = before ? readName(parts.slice(start, end).join(''), table) : null;
      if (before && name) offer({ ...before, names: [...before.names, name] });
    }
    const last = parts[end - 1] ?? '';
    const before = best[end - 1];
    if (before && NO_NAME.test(last) && !/^\d/.test(parts[end] ?? ''))
      offer({ ...before, beside: [...before.beside, last] });
    best[end] = chosen;
  }
  const read = best[parts.length] ?? null;
  // Words alone name nothing.
  return read && read.names.length === 0 && read.beside.length > 0 ? null : read;
}

function sameSize(a: CellType, b: CellType): boolean {
  return a.diameterMm === b.diameterMm && a.heightMm === b.heightMm;
}

/** Several names of one size and chemistry on one label: the one type they name together. */
function merge(first: CellType, cells: readonly CellType[]): CellType {
  const drains = new Set(cells.map((cell) => cell.drain).filter((drain) => drain !== 'unstated'));
  const stated = cells.find((cell) => cell.drain !== 'unstated') ?? first;
  if (drains.has('low') && drains.has('high')) {
    return { ...stated, drain: 'both', names: [...new Set(cells.flatMap((cell) => cell.names))] };
  }
  return stated;
}

function sizeWords(cell: CellType): string {
  return cell.diameterMm === null || cell.heightMm === null
    ? 'size not known'
    : `${figure(cell.diameterMm)} × ${figure(cell.heightMm)} mm`;
}

/**
 * What cell a marking names. Takes any writing of any name in the table (spaces, dashes, lower case, letter O
 * for nought, several names on one label, a one-letter maker's sign), works out sizes of names the table does
 * not hold, and never reads a rechargeable or unknown prefix as a primary cell. Names that disagree in
 * chemistry or size come back as alternatives. Source: IEC 60086-3 for sizes, trade usage for the names.
 */
export function readCellMarking(marking: string, table: CellTable): CellReading {
  const readings = readingsByTable.get(table) ?? new Map<string, CellReading>();
  const known = readings.get(marking);
  if (known) return known;
  if (readings.size >= MOST_TOLD) readings.clear();
  const reading = readNow(marking, table);
  readings.set(marking, reading);
  readingsByTable.set(table, readings);
  return reading;
}

/** A job asks what the same few texts name at every turn: what a table said of one it says again. */
const readingsByTable = new WeakMap<CellTable, Map<string, CellReading>>();
const MOST_TOLD = 2000;

/** The cell a label names, by the names that stand on the label alone; null where it names none surely. */
export function asMarked(reading: CellReading, { byName }: CellTable): CellType | null {
  if (reading.verdict !== 'read') return null;
  const names = reading.names.flatMap(({ text, sure }) =>
    sure === 'table' || sure === 'size from the name'
      ? // Without the letter that is read as a maker’s sign.
        [!byName.has(text) && byName.has(text.slice(1)) ? text.slice(1) : text]
      : [],
  );
  return { ...reading.cell, names };
}

/** What stands on a label, before anything is concluded from it. */
interface Label {
  readonly marking: string;
  readonly cleaned: string;
  /** Voltages that are printed, as numbers. */
  readonly voltages: readonly number[];
  readonly names: readonly NameRead[];
  /** Pieces that name nothing. */
  readonly unread: readonly string[];
  /** Words that name nothing, on a label that names something: a maker, a country. */
  readonly beside: readonly string[];
}

function labelOf(marking: string, cleaned: string, table: CellTable): Label {
  const voltages: number[] = [];
  const withoutVoltage = cleaned.replace(PRINTED_VOLTAGE, (_, withV?: string, alone?: string) => {
    voltages.push(Number((withV ?? alone ?? '').replace(',', '.')));
    return ' ';
  });
  const found = withoutVoltage
    .split(/[/()[\]{},;|=+]+/)
    .map((segment) => segment.trim())
    .filter((segment, _, all) => segment !== '' || all.length === 1)
    .map((segment) => ({ segment, read: namesInSegment(segment, table) }));
  return {
    marking,
    cleaned,
    voltages,
    names: found.flatMap(({ read }) => read?.names ?? []),
    unread: found.flatMap(({ segment, read }) => (read ? [] : [segment])),
    beside: found.flatMap(({ read }) => read?.beside ?? []),
  };
}

/** What every reading of a label tells of it. */
type OfLabel = Pick<CellReading, 'working' | 'names' | 'mayBeRechargeable'>;

function ofLabel({ names, unread }: Label): OfLabel {
  const all = [
    ...names.map(({ text, sure, cells }): NameOnLabel => ({ text, sure, cells })),
    ...unread.map((text): NameOnLabel => ({ text, sure: 'not read', cells: [] })),
  ];
  return {
    working: names.flatMap(({ text, sure, cells }): readonly WorkingLine[] => {
      const [cell] = cells;
      return cell && cells.length === 1 && sure !== 'half legible'
        ? [
            {
              what: `“${text}”`,
              rule: sure === 'table' ? 'name in the cell table' : 'size worked out from the name',
              figures: `${chemistries[cell.chemistry].words}, ${sizeWords(cell)}`,
              source: 'IEC 60086-3 and trade usage',
            },
          ]
        : [];
    }),
    names: all,
    mayBeRechargeable:
      names.some(({ sure, note }) => sure === 'half legible' && note === MAY_BE_RECHARGEABLE) ||
      names.some(({ sure, text }) => sure === 'not read' && /^[A-Z]+\d/.test(text)),
  };
}

/** A label that says it is rechargeable, by a word or by the beginning of a name; null: it does not. */
function rechargeableBy({ cleaned, names }: Label, label: OfLabel): CellReading | null {
  const word = rechargeableWord(cleaned);
  const named = names.find((name) => name.sure === 'rechargeable');
  if (word === null && named === undefined) return null;
  return {
    verdict: 'rechargeable',
    prefix: word === null ? (named?.note ?? '') : '',
    reasons: [
      `${word === null ? `${named?.text ?? ''} starts like the name of a rechargeable cell (${named?.note ?? ''})` : `It says “${word.toLowerCase()}”`}. Never replace it with a primary cell. Look for the kit of this movement.`,
    ],
    ...label,
  };
}

/** A label on which no name could be read. */
function unreadLabel(
  unknown: readonly string[],
  marking: string,
  table: CellTable,
  label: OfLabel,
): CellReading {
  const near = nearest(unknown, table);
  const slip = near.length === 0 ? '' : ` Nearest in the table: ${near.map(({ code }) => code).join(', ')}.`;
  return unknown.some((text) => /^[A-Z]+\d/.test(text))
    ? {
        verdict: 'asks',
        near,
        reasons: [
          `“${unknown.join(' ')}” has a prefix or size that is not in the table. It may be rechargeable: measure its diameter, height and voltage before choosing anything.${slip}`,
        ],
        ...label,
      }
    : {
        verdict: 'not read',
        near,
        reasons: [
          `“${marking.trim()}” is not a cell name in the table. A name looks like SR621SW, 364, CR2016 or AG1.${slip}`,
        ],
        ...label,
      };
}

/** Why what stands on a label cannot all be of one cell, with the cells it may be; null where it can. */
function disagreementIn(
  cells: readonly CellType[],
  cell: CellType,
  half: readonly NameRead[],
  printedV: number | undefined,
): { readonly alternatives: readonly CellType[]; readonly reason: string } | null {
  if (!cells.every((each) => sameSize(each, cell)))
    return {
      alternatives: cells,
      reason: 'The names on the label disagree in size. Measure the cell and choose which one it is.',
    };
  if (!cells.every((each) => each.chemistry === cell.chemistry))
    return {
      alternatives: cells,
      reason:
        'The names on the label have different chemistries, and a caliper cannot separate them. Look for the chemistry on the cell itself: SR is silver oxide, LR alkaline, CR lithium. Then choose which one it is.',
    };
  // A name half read stands beside one that was read: it must be able to name the same cell.
  const against = half.find(
    (name) => !name.cells.some((each) => sameSize(each, cell) && each.chemistry === cell.chemistry),
  );
  if (against)
    return {
      alternatives: [cell, ...against.cells],
      reason: `${cell.code} was read, but “${against.text}” on the same label cannot name it. Measure the cell and choose which one it is.`,
    };
  return printedV !== undefined && Math.abs(printedV - cell.nominalV) > 0.2
    ? {
        alternatives: [cell],
        reason: `The label prints ${printedV} V, but ${cell.code} has ${cell.nominalV} V. One of the two is misread.`,
      }
    : null;
}

function readNow(marking: string, table: CellTable): CellReading {
  const cleaned = marking.toUpperCase().replace(/[–—−]/g, '-').trim();
  if (cleaned === '')
    return {
      verdict: 'not read',
      reasons: ['Nothing was entered.'],
      working: [],
      names: [],
      mayBeRechargeable: false,
      near: [],
    };
  const read = labelOf(marking, cleaned, table);
  const label = ofLabel(read);
  const rechargeable = rechargeableBy(read, label);
  if (rechargeable !== null) return rechargeable;
  const legible = read.names.filter(({ sure }) => sure === 'table' || sure === 'size from the name');
  const half = read.names.filter(({ sure }) => sure === 'half legible');
  const unknown = label.names.filter(({ sure }) => sure === 'not read').map(({ text }) => text);
  const cells = legible.flatMap((name) => name.cells);
  const [first] = cells;
  if (first === undefined)
    return half.length > 0 ? alternativesOf(half, label) : unreadLabel(unknown, marking, table, label);
  const cell = merge(first, cells);
  const disagreement = disagreementIn(cells, cell, half, read.voltages.at(-1));
  if (disagreement !== null)
    return {
      verdict: 'ambiguous',
      alternatives: disagreement.alternatives,
      reasons: [disagreement.reason],
      ...label,
    };
  return readAs(cell, legible, [...unknown, ...read.beside], table, label);
}

/** The one cell a label names, and what it may be a slip for. */
function readAs(
  cell: CellType,
  legible: readonly NameRead[],
  notRead: readonly string[],
  table: CellTable,
  label: OfLabel,
): CellReading {
  const sure = legible.some((name) => name.sure === 'table') ? 'table' : 'size from the name';
  const near =
    sure === 'table'
      ? []
      : nearest(
          legible.map(({ text }) => text),
          table,
        );
  return {
    verdict: 'read',
    cell,
    sure,
    near,
    reasons: [
      `${chemistries[cell.chemistry].words}, ${sizeWords(cell)}, ${figure(cell.nominalV)} V${drainWords(cell)}.`,
      ...legible.flatMap((name) => (name.note ? [name.note] : [])),
      ...(near.length > 0
        ? [
            `${cell.code} is not in the table and may be a misreading of ${near.map(({ code }) => code).join(' or ')}: measure it.`,
          ]
        : []),
      ...(notRead.length > 0 ? [`Not read on the same label: ${notRead.join(', ')}.`] : []),
    ],
    ...label,
  };
}

/** What half-legible names leave: always alternatives, however few, since what cannot be read may be anything. */
function alternativesOf(
  half: readonly NameRead[],
  label: Pick<CellReading, 'working' | 'names' | 'mayBeRechargeable'>,
): CellReading {
  const [first, ...more] = half;
  const alternatives = (first?.cells ?? []).filter((cell) =>
    more.every(({ cells }) =>
      cells.some((each) => sameSize(each, cell) && each.chemistry === cell.chemistry),
    ),
  );
  const note = half.find((name) => name.note !== undefined)?.note;
  if (alternatives.length === 0)
    return {
      verdict: 'asks',
      near: [],
      reasons: [
        `“${half.map(({ text }) => text).join(' ')}” is partly legible and fits no cell in the table.${note ? ` ${note}` : ''} Measure its diameter, height and voltage.`,
      ],
      ...label,
    };
  return {
    verdict: 'ambiguous',
    alternatives,
    reasons: [
      alternatives.length === 1
        ? `Partly legible. In the table only ${alternatives[0]?.code} fits. Measure its height to be sure.`
        : `Partly legible: ${alternatives.map(({ code }) => code).join(', ')} fit. Measure diameter and height, and choose which one it is.`,
      ...(note === undefined ? [] : [note]),
    ],
    ...label,
  };
}

const MOST_NEAR = 4;

/** Cells of the table one slip away from a name that is not in it: a character wrong, missing, doubled or swapped. */
function nearest(texts: readonly string[], table: CellTable): CellType[] {
  const near = new Set<CellType>();
  for (const text of texts)
    for (const [name, type] of table.byName)
      if (name.length >= LEGIBLE_AT_LEAST && name !== text && editDistance(text, name, 1) === 1)
        near.add(type);
  return [...near].slice(0, MOST_NEAR);
}

function drainWords(cell: CellType): string {
  const words: Readonly<Record<CellType['drain'], string>> = {
    low: ', low drain',
    high: ', high drain',
    both: ', sold for low and high drain',
    unstated: ', drain not stated',
    none: '',
  };
  return words[cell.drain];
}
