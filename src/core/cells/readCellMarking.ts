import { figure, type WorkingLine } from '../judgement';
import { chemistries } from './chemistry';
import { type CellTable, typeFromParts } from './table';
import type { CellReading, CellType } from './types';

/** Letters that begin the names of rechargeable cells. They are never read as a primary cell. */
const RECHARGEABLE_PREFIXES = ['ML', 'MT', 'VL', 'LIR', 'CTL', 'TC'];

/** Words printed on cells and cards that name nothing. */
const NOISE =
  /^(SILVER|OXIDE|ALKALINE|LITHIUM|BATTERY|BATTERIES|CELL|BUTTON|WATCH|MERCURY|FREE|0%?HG|HG|MADE|IN|EXP|\+|-|#|NO|TYPE|SIZE)$/;
const PRINTED_VOLTAGE = /^(\d(?:[.,]\d{1,2})?)V$/;

interface NameRead {
  readonly kind: 'cell' | 'rechargeable' | 'unknown';
  readonly text: string;
  readonly cell?: CellType;
  readonly note?: string;
}

/** Puts a nought where a name has a letter O among its digits: `CR2O32`, `37O`, `AGO`. */
function noughts(token: string): string {
  return token.replace(/(?<=^[A-Z]{2,3}|\d)O|(?<=^)O(?=\d)/g, '0').replace(/(?<=\d)O/g, '0');
}

function readName(raw: string, table: CellTable): NameRead | null {
  const text = noughts(raw);
  const known = table.byName.get(text);
  if (known) return { kind: 'cell', text, cell: known };
  const rechargeable = RECHARGEABLE_PREFIXES.find((prefix) => new RegExp(`^${prefix}\\d{3,4}`).test(text));
  if (rechargeable) return { kind: 'rechargeable', text, note: rechargeable };
  const maker = /^([A-Z])(\d{3}A?)$/.exec(text);
  const behind = maker?.[2] === undefined ? undefined : table.byName.get(maker[2]);
  if (maker && behind) {
    return {
      kind: 'cell',
      text,
      cell: behind,
      note: `The letter ${maker[1]} before ${maker[2]} is taken as a maker’s sign.`,
    };
  }
  const parts = /^(SR|LR|CR|BR|MR|PR)(\d{2,4})(SW|W|)$/.exec(text);
  if (parts) {
    const [, prefix = '', digits = '', suffix = ''] = parts;
    const cell = typeFromParts(prefix, digits, suffix, table);
    return cell ? { kind: 'cell', text, cell } : { kind: 'unknown', text };
  }
  return /^(?:[A-Z]{1,4}\d{2,5}[A-Z]{0,3}|\d{3,4}A?)$/.test(text) ? { kind: 'unknown', text } : null;
}

/** Names in one stretch of a label, joining parts written apart (`SR 726 SW`): the fewest names that use all parts. */
function namesInSegment(segment: string, table: CellTable): NameRead[] | null {
  const parts = segment.split(/[\s\-.·_]+/).filter((part) => part !== '' && !NOISE.test(part));
  const best: (NameRead[] | null)[] = [[]];
  const unknowns = (names: NameRead[]): number => names.filter((name) => name.kind === 'unknown').length;
  for (let end = 1; end <= parts.length; end += 1) {
    let chosen: NameRead[] | null = null;
    for (let start = end - 1; start >= 0; start -= 1) {
      const before = best[start];
      const name = before ? readName(parts.slice(start, end).join(''), table) : null;
      if (!before || !name) continue;
      const candidate = [...before, name];
      const better =
        chosen === null ||
        unknowns(candidate) < unknowns(chosen) ||
        (unknowns(candidate) === unknowns(chosen) && candidate.length < chosen.length);
      if (better) chosen = candidate;
    }
    best[end] = chosen;
  }
  return best[parts.length] ?? null;
}

function sameSize(a: CellType, b: CellType): boolean {
  return a.diameterMm === b.diameterMm && a.heightMm === b.heightMm;
}

/** Several names of one size and chemistry on one label: the one type they name together. */
function merge(cells: readonly CellType[]): CellType {
  const drains = new Set(cells.map((cell) => cell.drain).filter((drain) => drain !== 'unstated'));
  const stated = cells.find((cell) => cell.drain !== 'unstated') ?? (cells[0] as CellType);
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
  const working: WorkingLine[] = [];
  const cleaned = marking.toUpperCase().replace(/[–—−]/g, '-').trim();
  if (cleaned === '') return { verdict: 'not read', reasons: ['Nothing was entered.'], working };
  const segments = cleaned.split(/[/()[\]{},;|=+]+/).map((segment) => segment.trim());
  let printedV: number | null = null;
  const names: NameRead[] = [];
  const unread: string[] = [];
  for (const segment of segments) {
    const words = segment.split(/\s+/).filter((word) => {
      const voltage = PRINTED_VOLTAGE.exec(word);
      if (voltage?.[1]) printedV = Number(voltage[1].replace(',', '.'));
      return !voltage;
    });
    const found = namesInSegment(words.join(' '), table);
    if (found) names.push(...found);
    else unread.push(segment);
  }
  for (const name of names) {
    if (name.cell) {
      working.push({
        what: `“${name.text}”`,
        rule: name.cell.inTable ? 'name in the cell table' : 'size worked out from the name',
        figures: `${chemistries[name.cell.chemistry].words}, ${sizeWords(name.cell)}`,
        source: 'IEC 60086-3 and trade usage',
      });
    }
  }
  const rechargeable = names.find((name) => name.kind === 'rechargeable');
  if (rechargeable) {
    return {
      verdict: 'rechargeable',
      prefix: rechargeable.note ?? '',
      reasons: [
        `${rechargeable.text} begins like a rechargeable cell (${rechargeable.note}). It is never exchanged for a primary cell: look for the movement’s own kit.`,
      ],
      working,
    };
  }
  const cells = names.flatMap((name) => (name.cell ? [name.cell] : []));
  const unknown = [...names.filter((name) => name.kind === 'unknown').map((name) => name.text), ...unread];
  if (cells.length === 0) {
    return unknown.some((text) => /^[A-Z]+\d/.test(text))
      ? {
          verdict: 'asks',
          reasons: [
            `“${unknown.join(' ')}” has a prefix or size that is not in the table. It may be rechargeable: measure its diameter, height and voltage before choosing anything.`,
          ],
          working,
        }
      : {
          verdict: 'not read',
          reasons: [
            `“${marking.trim()}” names no cell known here. A name looks like SR621SW, 364, CR2016 or AG1.`,
          ],
          working,
        };
  }
  const first = cells[0] as CellType;
  if (!cells.every((cell) => sameSize(cell, first) && cell.chemistry === first.chemistry)) {
    const disagree = cells.every((cell) => sameSize(cell, first)) ? 'chemistry' : 'size';
    return {
      verdict: 'ambiguous',
      alternatives: cells,
      reasons: [`The names on the label disagree in ${disagree}. Measure the cell and say which it is.`],
      working,
    };
  }
  const cell = merge(cells);
  const reasons = [
    `${chemistries[cell.chemistry].words}, ${sizeWords(cell)}, ${figure(cell.nominalV)} V${drainWords(cell)}.`,
    ...names.flatMap((name) => (name.note ? [name.note] : [])),
    ...(unknown.length > 0 ? [`Not read on the same label: ${unknown.join(', ')}.`] : []),
  ];
  if (printedV !== null && Math.abs(printedV - cell.nominalV) > 0.2) {
    return {
      verdict: 'ambiguous',
      alternatives: [cell],
      reasons: [
        `The label prints ${printedV} V, but ${cell.code} has ${cell.nominalV} V. One of the two is misread.`,
      ],
      working,
    };
  }
  return { verdict: 'read', cell, sure: cell.inTable ? 'table' : 'size from the name', reasons, working };
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
