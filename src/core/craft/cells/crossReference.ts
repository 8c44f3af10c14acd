import { figure, invalidFigures, invalidLengths, type WorkingLine } from '../judgement';
import { chemistries } from './chemistry';
import type { CellType, CellWanted, CrossReference } from './types';

/** Heights this close are the same height; diameters likewise (trade tolerance of the table). */
const SAME_HEIGHT_MM = 0.1;
const SAME_DIAMETER_MM = 0.1;

/** No cell of a watch has more, V. */
export const MOST_CELL_V = 4.5;

const RANK = { equal: 0, accepted: 1, nearly: 2, never: 3 } as const;
type Verdict = keyof typeof RANK;

/** What is noted of two cells as they are compared; the worst note is the verdict. */
interface Comparison {
  readonly note: (at: Verdict, reason: string) => void;
  readonly work: (line: WorkingLine) => void;
  readonly verdict: () => Verdict;
}

function comparePlaces(wanted: CellWanted, candidate: CellType, { note }: Comparison): void {
  const accumulator = candidate.chemistry === 'accumulator';
  // With a voltage or a size that cannot be nothing is compared, and it is not fitted on it.
  for (const reason of invalidSizes([
    [`The ${wanted.code} wanted`, wanted],
    [candidate.code, candidate],
  ]))
    note('nearly', reason);
  if (wanted.place === 'rechargeable' && !accumulator) {
    note('never', 'This place is for an accumulator. A primary cell under charge can burst.');
  }
  if (wanted.place === 'primary' && accumulator) {
    note(
      'never',
      'This place takes a primary cell. An accumulator has another voltage and runs down within months.',
    );
  }
  if (candidate.chemistry === 'mercury')
    note('never', 'Mercury cells are withdrawn and hazardous waste. Never refit one.');
  if (candidate.chemistry === 'zinc-air')
    note('never', 'Zinc-air cells need air and are not made for watches.');
}

function compareVoltages(wanted: CellWanted, candidate: CellType, { note, work }: Comparison): void {
  work({
    what: 'nominal voltage',
    rule: 'other voltage at equal size: never',
    figures: `wanted ${figure(wanted.nominalV)} V, this ${figure(candidate.nominalV)} V`,
    source: 'IEC 60086-3',
  });
  if (Math.abs(candidate.nominalV - wanted.nominalV) > 0.1) {
    note(
      'never',
      `${figure(candidate.nominalV)} V instead of ${figure(wanted.nominalV)} V. Never fit it, even if the size is equal.`,
    );
  }
}

function compareSizes(wanted: CellWanted, candidate: CellType, { note, work }: Comparison): void {
  if (candidate.diameterMm === null || candidate.heightMm === null) {
    note('nearly', `The size of ${candidate.code} is not known. Measure it first.`);
    return;
  }
  const { diameterMm, heightMm } = candidate;
  work({
    what: 'size',
    rule: `diameter within ${SAME_DIAMETER_MM} mm, height within ${SAME_HEIGHT_MM} mm`,
    figures: `wanted ${figure(wanted.diameterMm)} × ${figure(wanted.heightMm)} mm, this ${figure(diameterMm)} × ${figure(heightMm)} mm`,
    source: 'IEC 60086-3',
  });
  if (Math.abs(diameterMm - wanted.diameterMm) > SAME_DIAMETER_MM + 1e-9) {
    note(
      'never',
      `Diameter ${figure(diameterMm)} mm instead of ${figure(wanted.diameterMm)} mm. It does not fit the well.`,
    );
  }
  const heights = [wanted.heightMm, ...wanted.otherHeightsMm];
  const nearest = heights.reduce((a, b) => (Math.abs(b - heightMm) < Math.abs(a - heightMm) ? b : a));
  const over = heightMm - nearest;
  if (Math.abs(over) > SAME_HEIGHT_MM + 1e-9) {
    note(
      'never',
      over > 0
        ? `${figure(over)} mm too thick. It strains the contacts and the back.`
        : `${figure(-over)} mm too thin. It loses contact.`,
    );
  } else if (Math.abs(heightMm - wanted.heightMm) > SAME_HEIGHT_MM + 1e-9) {
    note('accepted', `The calibre is made for this height too (${figure(heightMm)} mm).`);
  }
}

function compareChemistries(
  wanted: CellWanted,
  candidate: CellType,
  alkalineAgreed: boolean,
  { note, verdict }: Comparison,
): void {
  if (wanted.chemistry === candidate.chemistry) return;
  if (wanted.chemistry === 'silver-oxide' && candidate.chemistry === 'alkaline') {
    note(
      alkalineAgreed ? 'accepted' : 'nearly',
      alkalineAgreed
        ? 'Alkaline instead of silver oxide, agreed by the owner. Its voltage falls steadily, its life is shorter, and it is more likely to leak.'
        : 'Alkaline instead of silver oxide: its voltage falls steadily, its life is shorter, and it is more likely to leak. Only with the owner’s agreement.',
    );
  } else if (wanted.chemistry === 'alkaline' && candidate.chemistry === 'silver-oxide') {
    note('accepted', 'Silver oxide instead of alkaline: steadier voltage, longer life.');
  } else if (verdict() === 'equal') {
    note(
      'never',
      `${chemistries[candidate.chemistry].words} instead of ${chemistries[wanted.chemistry].words}.`,
    );
  }
}

function compareDrains(wanted: CellWanted, candidate: CellType, { note, work }: Comparison): void {
  if (wanted.drain === 'none' || candidate.drain === 'none') return;
  work({
    what: 'drain',
    rule: 'high drain in a low-drain place: accepted; low drain in a high-drain place: no',
    figures: `wanted ${wanted.drain}, this ${candidate.drain}`,
    source: 'trade practice',
  });
  if (wanted.drain === 'low' && candidate.drain === 'high' && candidate.chemistry === 'silver-oxide') {
    note(
      'accepted',
      'This is a high-drain cell, and the movement needs a low-drain cell. It works, but has a shorter shelf life.',
    );
  }
  if (wanted.drain === 'low' && candidate.drain === 'unstated') {
    note(
      'accepted',
      'This name does not say whether the cell is for low or high drain. The movement needs a low-drain cell, and both kinds work.',
    );
  }
  if (wanted.drain === 'high' && candidate.drain === 'low') {
    note(
      'nearly',
      'This is a low-drain cell, but the movement needs a high-drain cell. Its voltage drops under light, alarm or chronograph.',
    );
  }
  if (wanted.drain === 'high' && candidate.drain === 'unstated') {
    note(
      'nearly',
      'This name does not say whether the cell is for low or high drain. The movement needs a high-drain cell: use a cell whose name ends in W.',
    );
  }
}

/**
 * May this cell stand in for the one the movement wants? *equal*: the same cell under another name;
 * *accepted*: allowed, with a note; *nearly*: looks right but no; *never*: would harm or cannot work.
 * `alkalineAgreed` is the customer's own word that an alkaline may replace silver oxide.
 * Source: IEC 60086-3 for size and voltage, trade practice for drain.
 */
export function crossReference(
  wanted: CellWanted,
  candidate: CellType,
  options: { readonly alkalineAgreed: boolean } = { alkalineAgreed: false },
): CrossReference {
  let verdict: Verdict = 'equal';
  const notes: { readonly at: Verdict; readonly reason: string }[] = [];
  const working: WorkingLine[] = [];
  const note = (at: Verdict, reason: string): void => {
    if (RANK[at] > RANK[verdict]) verdict = at;
    notes.push({ at, reason });
  };
  const comparison: Comparison = { note, work: (line) => void working.push(line), verdict: () => verdict };
  comparePlaces(wanted, candidate, comparison);
  compareVoltages(wanted, candidate, comparison);
  compareSizes(wanted, candidate, comparison);
  compareChemistries(wanted, candidate, options.alkalineAgreed, comparison);
  compareDrains(wanted, candidate, comparison);
  if (candidate.code.startsWith('BR') && wanted.chemistry === 'lithium') {
    note(
      wanted.drain === 'high' ? 'nearly' : 'accepted',
      'BR is a lithium cell of the same voltage, weaker under light or alarm than CR.',
    );
  }
  // What speaks for a cell is no reason why it is refused.
  const reasons = notes.flatMap(({ at, reason }) =>
    mayBeFitted(verdict) || !mayBeFitted(at) ? [reason] : [],
  );
  if (reasons.length === 0) {
    reasons.push(
      candidate.code === wanted.code
        ? `${candidate.code} is the cell this movement takes.`
        : `${candidate.code} is ${wanted.code} under another name.`,
    );
  }
  return { verdict, reasons, working };
}

/** Cells that cannot be, each by its name: of a voltage no cell has, or larger than any watch. A size not known is none of them. */
export function invalidSizes(
  cells: readonly (readonly [name: string, cell: Pick<CellType, 'nominalV' | 'diameterMm' | 'heightMm'>])[],
): readonly string[] {
  return cells
    .flatMap(([name, { nominalV, diameterMm, heightMm }]) => [
      ...invalidFigures([
        { path: name, what: `${name}: its voltage`, value: nominalV, unit: 'V', over: 0, to: MOST_CELL_V },
      ]),
      ...invalidLengths([
        [name, `${name}: its diameter`, diameterMm],
        [name, `${name}: its height`, heightMm],
      ]),
    ])
    .map(({ reason }) => reason);
}

/** Whether a cross-reference verdict lets the cell be fitted. */
export function mayBeFitted(verdict: CrossReference['verdict']): boolean {
  return verdict === 'equal' || verdict === 'accepted';
}

/**
 * The drain a place asks for: as the silver oxide cell named for it has it, for its maker chose it; else by what draws on
 * it. Every alkaline cell can give a high drain: that its name stands there says nothing of what the place needs.
 */
function drainWanted({ chemistry, drain }: CellType, needed: CellWanted['drain']): CellWanted['drain'] {
  if (chemistry === 'silver-oxide' && (drain === 'low' || drain === 'high')) return drain;
  return chemistry === 'lithium' && needed === 'low' ? 'none' : needed;
}

/** What a movement wants when its book names a cell: size, voltage and drain from the table. Null if the name is no primary cell of known size. */
export function wantedFromType(
  cell: CellType,
  needs: { readonly drain: 'low' | 'high' | 'none'; readonly otherHeightsMm?: readonly number[] },
): CellWanted | null {
  if (cell.diameterMm === null || cell.heightMm === null) return null;
  const sizes = [cell.nominalV, cell.diameterMm, cell.heightMm];
  if (!sizes.every((each) => each > 0 && each < Infinity)) return null;
  return {
    code: cell.code,
    chemistry: cell.chemistry,
    drain: drainWanted(cell, needs.drain),
    nominalV: cell.nominalV,
    diameterMm: cell.diameterMm,
    heightMm: cell.heightMm,
    otherHeightsMm: (needs.otherHeightsMm ?? []).filter(Number.isFinite),
    place: cell.chemistry === 'accumulator' ? 'rechargeable' : 'primary',
  };
}
