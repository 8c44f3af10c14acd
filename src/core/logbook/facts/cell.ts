import type { ChargeState } from '../../craft/charging';
import type { AboveCell } from '../../craft/movements';
import { figure } from '../../craft/judgement';
import { type Envelope, type FactKinds, wellOf } from '../envelope';

export const CELL_CONDITIONS = ['clean', 'bloom', 'crust', 'leaked into the movement'] as const;
export type CellCondition = (typeof CELL_CONDITIONS)[number];

/** Whether a cell was found with anything on it but itself; nobody looked: no. */
export function isLeaked<F extends Pick<CellPayloads['cell.found'], 'condition'>>(
  found: F,
): found is F & { readonly condition: Exclude<CellCondition, 'clean'> } {
  return found.condition !== null && found.condition !== 'clean';
}

export const ACCUMULATOR_WAYS = ['kit with tabs', 'old tab transferred'] as const;
export const CHARGE_OUTCOMES = ['steps normally', 'low-supply steps', 'does not run'] as const;

/** Where a fresh cell goes that was out of its blister and not fitted. */
export const OUT_GOES_TO = ['back in its lot', 'spent bin'] as const;
export const DROPPED = ['the old cell', 'a fresh cell'] as const;
export const DROPPED_ENDS = ['found', 'escalated'] as const;

export interface CellPayloads {
  'cell.found': {
    /** Null: there was no cell in the watch. */
    readonly marking: string | null;
    readonly condition: CellCondition | null;
  };
  'cell.fitted': {
    readonly cellCode: string;
    /** Null: not from this shop's stock. */
    readonly lotId: string | null;
    readonly supplier: string;
    readonly lotCode: string;
    readonly alkalineAgreed: boolean;
    /** The owner brought it: no lot of this shop, and its age is not known. */
    readonly ownersOwn: boolean;
  };
  /** The cell that was in the watch goes in again: a reseal, or a good cell. */
  'cell.put-back': { readonly reason: string };
  'cell.accumulator': {
    readonly kitCode: string;
    readonly lotId: string | null;
    readonly supplier: string;
    readonly lotCode: string;
    readonly way: (typeof ACCUMULATOR_WAYS)[number];
    /** Between a transferred tab and its accumulator, Ω; null: a kit with its own tabs, or not measured. */
    readonly tabContactOhm: number | null;
    /** Why it was renewed with no charge watched before; null where one was, or nobody said. */
    readonly unchargedBecause: string | null;
  };
  'cell.charged': {
    readonly by: 'light' | 'rotor' | 'charger';
    readonly hours: number;
    readonly outcome: (typeof CHARGE_OUTCOMES)[number];
  };
  /** Put under a light of this shop, as it was then. */
  'cell.lit': {
    readonly placeId: string;
    readonly placeName: string;
    /** From the lamp; null in daylight. */
    readonly distanceMm: number | null;
    readonly roomC: number;
    /** What its steps showed; null where the charge was read. */
    readonly shows: ChargeState | null;
    /** Charge read otherwise, percent of full; null: not known. */
    readonly percent: number | null;
  };
  /** Looked at under the light. */
  'cell.lit-seen': { readonly stepsNormally: boolean };
  'cell.old-settled': { readonly taped: boolean; readonly to: 'spent bin' | 'owner' };
  /** A well as the caliper has it: across, and from the lower contact to where the holder lies on the cell. */
  'cell.well-measured': { readonly diameterMm: number; readonly depthMm: number };
  /** That a movement the book does not know has two places for a cell, by what each feeds or where it lies. */
  'cell.places': { readonly first: string; readonly second: string };
  /** What lies above the cells of this very watch, the outermost first; the book may say otherwise. */
  'cell.above': { readonly above: readonly AboveCell[] };
  /** How the owner uses what draws on the cell. */
  'cell.usage': { readonly uses: readonly { readonly name: string; readonly secondsPerDay: number }[] };
  /** A fresh cell out of its blister: it is loose until it is fitted or settled. */
  'cell.out': {
    readonly cellCode: string;
    /** Null: not from this shop's stock. */
    readonly lotId: string | null;
    readonly lotCode: string;
  };
  'cell.out-settled': { readonly outEntryId: string; readonly to: (typeof OUT_GOES_TO)[number] };
  /** The job pauses until it is found or somebody above was told. */
  'cell.dropped': { readonly what: (typeof DROPPED)[number]; readonly where: string };
  'cell.dropped-settled': {
    readonly droppedEntryId: string;
    readonly outcome: (typeof DROPPED_ENDS)[number];
    readonly words: string;
  };
  /** Steps of the fitting guide done, singly or all as shown. */
  'cell.steps': { readonly steps: readonly string[]; readonly asShown: boolean };
}

type Fact<K extends keyof CellPayloads> = Envelope<K, CellPayloads[K]>;

/** A fresh cell out of its blister, and where it went. */
export interface CellOut {
  readonly out: Fact<'cell.out'>;
  readonly settled: Fact<'cell.out-settled'> | null;
}

/** A cell that was dropped, and how that ended. */
export interface CellDropped {
  readonly dropped: Fact<'cell.dropped'>;
  readonly settled: Fact<'cell.dropped-settled'> | null;
}

/** A watch under a light: since when, and what was seen of its steps there. */
export interface UnderLight {
  readonly put: Fact<'cell.lit'>;
  readonly seen: readonly Fact<'cell.lit-seen'>[];
}

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface CellFacts {
  cellsFound: Map<string, Fact<'cell.found'>>;
  cellsFitted: Map<string, Fact<'cell.fitted'>>;
  /** Every fitting that stands, in their order: two at one place took two cells until somebody settles which it was. */
  fittings: (Fact<'cell.fitted'> | Fact<'cell.accumulator'>)[];
  putBack: Map<string, Fact<'cell.put-back'>>;
  accumulator: Fact<'cell.accumulator'> | null;
  charges: Fact<'cell.charged'>[];
  /** Null: it lies under none, or its charge was judged since. */
  underLight: UnderLight | null;
  oldSettled: Map<string, Fact<'cell.old-settled'>>;
  wellsMeasured: Map<string, Fact<'cell.well-measured'>>;
  places: Fact<'cell.places'> | null;
  above: Fact<'cell.above'> | null;
  usage: Fact<'cell.usage'> | null;
  /** Fresh cells out of their blister, by the entry that says so. */
  cellsOut: Map<string, CellOut>;
  dropped: Map<string, CellDropped>;
  /** Steps of the fitting guide by well and step. */
  fittingDone: Map<string, Fact<'cell.steps'>>;
}

export const noCellFacts = (): CellFacts => ({
  cellsFound: new Map(),
  cellsFitted: new Map(),
  fittings: [],
  putBack: new Map(),
  accumulator: null,
  charges: [],
  underLight: null,
  oldSettled: new Map(),
  wellsMeasured: new Map(),
  places: null,
  above: null,
  usage: null,
  cellsOut: new Map(),
  dropped: new Map(),
  fittingDone: new Map(),
});

export const cellKinds: FactKinds<CellPayloads, CellFacts> = {
  'cell.found': {
    words: ({ marking, condition }) =>
      marking === null ? 'no cell found' : `cell found: ${marking}${condition ? `, ${condition}` : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.cellsFound.set(wellOf(entry), entry),
  },
  'cell.fitted': {
    words: ({ cellCode, lotCode, ownersOwn }) =>
      `fitted: ${cellCode}${lotCode ? `, lot ${lotCode}` : ''}${ownersOwn ? ', the owner’s own' : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.cellsFitted.set(wellOf(entry), entry);
      facts.fittings.push(entry);
      facts.putBack.delete(wellOf(entry));
    },
  },
  'cell.put-back': {
    words: ({ reason }) => `the same cell put back: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.putBack.set(wellOf(entry), entry),
  },
  'cell.accumulator': {
    words: ({ kitCode, lotCode, way, tabContactOhm, unchargedBecause }) =>
      `accumulator: ${kitCode}${lotCode && `, lot ${lotCode}`}, ${way}${tabContactOhm === null ? '' : `, contact ${figure(tabContactOhm)} Ω`}${unchargedBecause === null ? '' : `; no charge before it: ${unchargedBecause}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.accumulator = entry;
      facts.fittings.push(entry);
    },
  },
  'cell.charged': {
    words: ({ by, hours, outcome }) => `charged by ${by} for ${figure(hours, 1)} h: ${outcome}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.charges.push(entry);
      facts.underLight = null;
    },
  },
  'cell.lit': {
    words: ({ placeName, distanceMm, roomC, shows, percent }) =>
      `under ${placeName}${distanceMm === null ? '' : ` at ${distanceMm} mm`}, room ${figure(roomC, 1)} °C, ${shows ?? `charged to ${figure(percent ?? 0, 0)} %`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.underLight = { put: entry, seen: [] }),
  },
  'cell.lit-seen': {
    words: ({ stepsNormally }) =>
      stepsNormally ? 'steps normally under its light' : 'does not step normally yet',
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      if (facts.underLight)
        facts.underLight = { ...facts.underLight, seen: [...facts.underLight.seen, entry] };
    },
  },
  'cell.old-settled': {
    words: ({ taped, to }) => `old cell ${taped ? 'taped, ' : ''}to the ${to}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.oldSettled.set(wellOf(entry), entry),
  },
  'cell.well-measured': {
    words: ({ diameterMm, depthMm }) => `well ${figure(diameterMm)} mm across, ${figure(depthMm)} mm deep`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.wellsMeasured.set(wellOf(entry), entry),
  },
  'cell.places': {
    words: ({ first, second }) => `two cell places: ${first} and ${second}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.places = entry),
  },
  'cell.above': {
    words: ({ above }) =>
      above.length === 0 ? 'nothing above the cell' : `above the cell: ${above.join(', then ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.above = entry),
  },
  'cell.usage': {
    words: ({ uses }) =>
      `used daily: ${uses.map(({ name, secondsPerDay }) => `${name} ${figure(secondsPerDay, 0)} s`).join(', ') || 'nothing beside the hands'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.usage = entry),
  },
  'cell.out': {
    words: ({ cellCode, lotCode }) => `out of its blister: ${cellCode}${lotCode && `, lot ${lotCode}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.cellsOut.set(entry.id, { out: entry, settled: null }),
  },
  'cell.out-settled': {
    words: ({ to }) => `fresh cell not fitted: ${to}`,
    afterSigning: 'keeps',
    fold: (facts, entry, standsFor) => {
      const out = facts.cellsOut.get(standsFor(entry.payload.outEntryId));
      if (out) facts.cellsOut.set(out.out.id, { ...out, settled: entry });
    },
  },
  'cell.dropped': {
    words: ({ what, where }) => `dropped: ${what}${where && `, ${where}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.dropped.set(entry.id, { dropped: entry, settled: null }),
  },
  'cell.dropped-settled': {
    words: ({ outcome, words }) => `dropped cell ${outcome}${words && `: ${words}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry, standsFor) => {
      const drop = facts.dropped.get(standsFor(entry.payload.droppedEntryId));
      if (drop) facts.dropped.set(drop.dropped.id, { ...drop, settled: entry });
    },
  },
  'cell.steps': {
    words: ({ steps, asShown }) =>
      `fitting: ${steps.length === 1 ? 'step' : `${steps.length} steps`} done${asShown ? ' as shown' : ''}: ${steps.join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => {
      for (const step of entry.payload.steps) facts.fittingDone.set(`${wellOf(entry)}:${step}`, entry);
    },
  },
};
