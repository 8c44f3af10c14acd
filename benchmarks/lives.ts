import { expectedLife } from '../src/core/craft/life';
import { cellMade, livesMonths } from './oneCell';
import { chance } from './random';

/**
 * How many cells are dead before the visit they are called back for, on lives carried on day by day with spreads of their own:
 * what is usable, wrist and drawer, age, and a drain that rises as oil ages. Then with a drain that is 5 % higher than thought.
 */
const CELLS = 4000;
const DEAD = { from: 0.04, to: 0.1 } as const;
const WITHIN = { from: 0.78, to: 0.82 } as const;

const given = chance(4711);

const share = (part: number, of: number): string => `${((100 * part) / of).toFixed(1)} %`;
for (const known of ['measured', 'book', 'family'] as const)
  for (const dated of [true, false]) {
    const cells = Array.from({ length: CELLS / 2 }, () => cellMade(given, known, dated));
    const answer = (more: number) => {
      let [dead, within, of] = [0, 0, 0];
      for (const cell of cells) {
        const life = expectedLife(cell.asked);
        if (life.verdict !== 'forecast' || life.p90Months >= 120) continue;
        const months = livesMonths(cell, more);
        of += 1;
        if (months < life.nextVisitMonths) dead += 1;
        if (months >= life.p10Months && months <= life.p90Months) within += 1;
      }
      return { dead, within, of };
    };
    const [plain, higher] = [answer(1), answer(1.05)];
    console.log(
      `Drain ${known}, ${dated ? 'dated' : 'of no known age'}, ${plain.of} cells: dead before the next visit ${share(plain.dead, plain.of)} (aim ${DEAD.from * 100} to ${DEAD.to * 100} %), P10 to P90 holds ${share(plain.within, plain.of)} (aim ${WITHIN.from * 100} to ${WITHIN.to * 100} %); with a drain 5 % higher than thought ${share(higher.dead, higher.of)} and ${share(higher.within, higher.of)}.`,
    );
    const [dead, within] = [plain.dead / plain.of, plain.within / plain.of];
    if (dead < DEAD.from || dead > DEAD.to || within < WITHIN.from || within > WITHIN.to)
      process.exitCode = 1;
  }
