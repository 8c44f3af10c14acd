import { median } from 'simple-statistics';
import type { Calibre } from '../movements';

/** Whose figures a reading is held against. */
export type Whose = 'this movement' | 'its family' | 'general';

/** The figures a movement's readings are held against, each with whose they are. */
export interface MovementFigures {
  readonly current: {
    readonly whose: Whose;
    readonly of: string;
    readonly typicalUA: number;
    readonly limitUA: number;
  };
  /** Null: a movement without a coil. */
  readonly coil: {
    readonly whose: Whose;
    readonly of: string;
    readonly minKOhm: number;
    readonly maxKOhm: number;
  } | null;
  readonly lowest: { readonly whose: Whose; readonly of: string; readonly volts: number };
}

/**
 * What most quartz movements with hands keep to, where neither the movement nor its family is in the book. Ours, from
 * bench practice; wide on purpose.
 */
const GENERAL = { typicalUA: 1.2, limitUA: 3, coilMinKOhm: 0.9, coilMaxKOhm: 3.6, lowestV: 1.35 } as const;
const GENERALLY = 'general figures of the trade';

/**
 * The figures for a movement: its own where the book has them, else those of its family (calibres of one maker built
 * alike: median of what is typical, the widest of what is allowed), else general ones. Source: figures of the trade.
 */
export function figuresFor(
  calibre: Calibre | null,
  book: { readonly calibres: readonly Calibre[] },
): MovementFigures {
  const own = calibre?.code ?? '';
  const kin =
    calibre === null || calibre.family === ''
      ? []
      : book.calibres.filter(
          ({ id, makerId, family }) =>
            id !== calibre.id && makerId === calibre.makerId && family === calibre.family,
        );
  const family = `family ${calibre?.family ?? ''}`;
  const known = <K extends keyof Calibre>(key: K): NonNullable<Calibre[K]>[] =>
    kin.flatMap((each) => (each[key] === null ? [] : [each[key] as NonNullable<Calibre[K]>]));
  const [typical, limits, lowest] = [known('typicalUA'), known('limitUA'), known('lowestV')];
  const [coilMin, coilMax] = [known('coilMinKOhm'), known('coilMaxKOhm')];
  const current: MovementFigures['current'] =
    calibre !== null && calibre.typicalUA !== null && calibre.limitUA !== null
      ? { whose: 'this movement', of: own, typicalUA: calibre.typicalUA, limitUA: calibre.limitUA }
      : typical.length > 0 && limits.length > 0
        ? { whose: 'its family', of: family, typicalUA: median(typical), limitUA: Math.max(...limits) }
        : { whose: 'general', of: GENERALLY, typicalUA: GENERAL.typicalUA, limitUA: GENERAL.limitUA };
  const without =
    calibre !== null && calibre.coils.length === 0 && calibre.stepIntervalS === null && !calibre.shopsOwn;
  const coil: MovementFigures['coil'] = without
    ? null
    : calibre !== null && calibre.coilMinKOhm !== null && calibre.coilMaxKOhm !== null
      ? { whose: 'this movement', of: own, minKOhm: calibre.coilMinKOhm, maxKOhm: calibre.coilMaxKOhm }
      : coilMin.length > 0 && coilMax.length > 0
        ? { whose: 'its family', of: family, minKOhm: Math.min(...coilMin), maxKOhm: Math.max(...coilMax) }
        : {
            whose: 'general',
            of: GENERALLY,
            minKOhm: GENERAL.coilMinKOhm,
            maxKOhm: GENERAL.coilMaxKOhm,
          };
  return {
    current,
    coil,
    lowest:
      calibre !== null && calibre.lowestV !== null
        ? { whose: 'this movement', of: own, volts: calibre.lowestV }
        : lowest.length > 0
          ? { whose: 'its family', of: family, volts: Math.max(...lowest) }
          : { whose: 'general', of: GENERALLY, volts: GENERAL.lowestV },
  };
}
