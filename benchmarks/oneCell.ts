import type { LifeInput } from '../src/core/craft/life';
import type { Chance } from './random';

const KINDS = {
  'silver-oxide': { loses: 0.02, shelf: 3, gives: [0.8, 0.97], mAh: [16, 30] },
  alkaline: { loses: 0.04, shelf: 3, gives: [0.6, 0.9], mAh: [40, 60] },
  lithium: { loses: 0.01, shelf: 8, gives: [0.85, 0.97], mAh: [30, 90] },
} as const;
type Kind = keyof typeof KINDS;
/** How far a drain is from what is thought: a factor that 95 of 100 lie within. */
const DRAIN = { measured: 1.1, book: 1.25, family: 1.5 } as const;
export type Known = keyof typeof DRAIN;

/** A cell as it is, and what is known of it. */
export interface Cell {
  readonly asked: LifeInput;
  readonly kind: Kind;
  readonly capacityMAh: number;
  readonly usable: number;
  readonly drainUA: number;
  readonly rises: number;
  readonly lightUA: number;
  readonly losesAYear: number;
  readonly years: number;
  readonly wristC: number;
  readonly drawerC: number;
  readonly wornShare: number;
}

export function cellMade({ uniform, between, normal, one }: Chance, known: Known, dated: boolean): Cell {
  const kind = one<Kind>(['silver-oxide', 'silver-oxide', 'silver-oxide', 'alkaline', 'lithium']);
  const { loses, shelf, gives, mAh } = KINDS[kind];
  const nominal = between(mAh[0], mAh[1]);
  const [low, high] = [nominal * 0.93, nominal * 1.05];
  const years = between(0, Math.min(2, shelf));
  const baseUA = (nominal / between(18, 40)) * 1.2;
  const seconds = uniform() < 0.3 ? between(2, 10) : 0;
  const kept = one<LifeInput['kept']>(['worn', 'in a drawer', 'not known']);
  return {
    kind,
    asked: {
      chemistry: kind,
      capacityMinMAh: low,
      capacityMaxMAh: high,
      baseUA,
      drainKnownBy: known,
      functions: seconds === 0 ? [] : [{ name: 'light', drawUA: 3000, secondsPerDay: seconds }],
      yearsSinceMade: dated ? years : null,
      ageKnownBy: 'its date',
      kept,
      seed: 1 + Math.floor(uniform() * 1e6),
    },
    capacityMAh: between(low, high),
    usable: between(gives[0], gives[1]),
    drainUA: baseUA * Math.exp((Math.log(DRAIN[known]) / 1.96) * normal()),
    rises: between(0, 0.15),
    lightUA: ((3000 * seconds) / 86_400) * Math.exp((Math.log(2) / 1.96) * normal()),
    losesAYear: loses * Math.exp((Math.log(1.5) / 1.96) * normal()),
    years: dated ? Math.max(0, years + between(-0.1, 0.1)) : between(0, shelf),
    wristC: between(23, 33),
    drawerC: between(18, 26),
    wornShare: kept === 'worn' ? 1 : kept === 'in a drawer' ? 0 : uniform(),
  };
}

/** Months until it no longer runs, day by day; with a drain so many times what it is. */
export function livesMonths(cell: Cell, more: number): number {
  const { capacityMAh, usable, drainUA, rises, lightUA, losesAYear, years, wristC, drawerC, wornShare } =
    cell;
  let left = usable * capacityMAh * (1 - Math.min(1, losesAYear * years));
  const warm = wornShare * 2 ** ((wristC - 20) / 10) + (1 - wornShare) * 2 ** ((drawerC - 20) / 10);
  // How long it would last without its drain rising: over that it rises.
  const expected = left / (((drainUA + lightUA) * 24) / 1000 + (capacityMAh * losesAYear * warm) / 365.25);
  let day = 0;
  while (left > 0 && day < 366 * 40) {
    const ages = 1 + rises * Math.min(1, day / expected);
    left -= ((drainUA * more * ages + lightUA) * 24) / 1000 + (capacityMAh * losesAYear * warm) / 365.25;
    day += 1;
  }
  return day / 30.4375;
}
