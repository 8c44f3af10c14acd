import { type CellLife, estimateLives, expectedLife } from '../src/core/craft/life';
import { cellMade, type Known, livesMonths } from './oneCell';
import { chance } from './random';

/**
 * What a shop's own history says of its cells, held against what is true: a supplier whose cells hold less than they should, or more.
 * Cells are fitted over years and carried on day by day; owners come once the watch has stopped, or never; some come by with
 * the watch running, some have it changed early; some know when it stopped. How often the factor's ends hold the truth, how far
 * its likeliest is off, and how often a lower bound is over it.
 */
const SHOPS = 100;
/** Cells of a kind they are drawn from. */
const POOL = 1500;
/** How many cells in how many years. */
const WATCHES = [
  [12, 6],
  [40, 3],
  [40, 8],
  [200, 5],
] as const;
const HOLDS = 0.95;
const OFF = 0.05;

const given = chance(1913);
const { uniform, between, one } = given;

interface Shop {
  readonly years: number;
  /** The share of owners who come once the watch has stopped. */
  readonly comesBack: number;
}

const later = (mean: number): number => -mean * Math.log(uniform());

/** Pool of cells: life of each, as the shop forecasts it and as it is. */
interface Pooled {
  readonly medianMonths: number;
  readonly spread: number;
  readonly liesMonths: number;
}

function pool(part: number, known: Known, count: number): Pooled[] {
  const cells: Pooled[] = [];
  while (cells.length < count) {
    const cell = cellMade(given, known, true);
    const life = expectedLife(cell.asked);
    if (life.verdict !== 'forecast' || life.p50Months >= 120) continue;
    cells.push({
      medianMonths: life.p50Months,
      spread: Math.log(life.p50Months / life.p10Months) / 1.2816,
      liesMonths: livesMonths({ ...cell, usable: cell.usable * part }, 1),
    });
  }
  return cells;
}

/** What the shop knows of one cell today. */
function seen({ medianMonths, spread, liesMonths }: Pooled, shop: Shop): CellLife {
  const out = between(0, shop.years * 12);
  let ran = 0;
  let again = false;
  // Comes by with something else now and then.
  for (let at = later(40); at < Math.min(out, liesMonths); at += later(40)) [ran, again] = [at, true];
  const none = {
    medianMonths,
    spread,
    ranMonths: ran,
    spentByMonths: null,
    broughtMonths: null,
    seenAgain: again,
  };
  // Some follow the card they were given, and have a running cell changed.
  const recall = medianMonths * between(0.7, 0.9);
  if (uniform() < 0.15 && recall < Math.min(out, liesMonths) && recall > ran)
    return { ...none, ranMonths: recall, outMonths: null, seenAgain: true };
  const delay = later(one([0.5, 1.5, 4]));
  if (liesMonths + delay >= out || uniform() >= shop.comesBack) return { ...none, outMonths: out };
  const found = { ...none, outMonths: null, seenAgain: true, broughtMonths: liesMonths + delay };
  // A month or a year of the calendar, which has nothing to do with the watch.
  const answer = (each: number): CellLife => {
    const shift = uniform() * each;
    const begins = Math.floor((liesMonths + shift) / each) * each - shift;
    return {
      ...found,
      ranMonths: Math.max(ran, begins),
      spentByMonths: Math.min(liesMonths + delay, begins + each),
    };
  };
  const knows = uniform();
  if (knows < 0.4) return answer(1);
  if (knows < 0.55) return answer(12);
  return { ...found, spentByMonths: liesMonths + delay };
}

const share = (count: number, of: number): string =>
  of === 0 ? '–' : `${((100 * count) / of).toFixed(1)} %`;
const middleOf = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] as number;

for (const part of [0.7, 0.85, 1, 1.15]) {
  const cells = pool(part, 'book', POOL);
  const truth = middleOf(cells.map(({ liesMonths, medianMonths }) => liesMonths / medianMonths));
  for (const [count, years] of WATCHES) {
    const said = Array.from({ length: SHOPS }, () => {
      const shop = { years, comesBack: between(0.3, 0.95) };
      return estimateLives(Array.from({ length: count }, () => seen(one(cells), shop)));
    });
    const of = (verdict: string) => said.filter((each) => each.verdict === verdict);
    const [factors, bounds] = [of('factor'), of('at least')];
    const holds = factors.filter(({ from, to }) => (from ?? 0) <= truth && truth <= (to ?? Infinity)).length;
    const under = bounds.filter(({ from }) => (from ?? 0) <= truth).length;
    const off = Math.exp(middleOf(factors.map(({ factor }) => Math.log((factor ?? 1) / truth)))) - 1;
    const apart = middleOf(factors.map(({ from, to }) => (to ?? Infinity) / (from ?? 0)));
    console.log(
      `Lives ${truth.toFixed(2)} of the forecast, ${count} cells in ${years} years: a factor in ${share(factors.length, SHOPS)}, its ends hold ${share(holds, factors.length)} (aim ${HOLDS * 100}), its middle off ${(100 * off).toFixed(1)} % (aim ${OFF * 100}), ends ${apart.toFixed(2)} × apart; a lower bound in ${share(bounds.length, SHOPS)}, right in ${share(under, bounds.length)}; too few ${share(of('too few').length, SHOPS)}, cannot say ${share(of('cannot say').length, SHOPS)}.`,
    );
    // Luck of so many shops is given twice.
    const luck = 2 * Math.sqrt((HOLDS * (1 - HOLDS)) / factors.length);
    if (holds / factors.length < HOLDS - luck || Math.abs(off) > OFF) process.exitCode = 1;
  }
}
