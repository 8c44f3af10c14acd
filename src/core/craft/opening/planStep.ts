import type { MeasuredBack } from '../cases';
import type { FunctionKind } from '../movements';
import { type Part, type Served, serves } from '../parts';
import type { Schools } from '../policy';
import type { ShopTools } from '../tools';
import type { OpenerChoice } from './openerChoice';

export interface PlanPart {
  readonly part: Part;
  readonly count: number;
  readonly position: string;
  readonly serves: readonly Served[];
}

export interface PlanStep {
  /** Stable as long as the facts are: a tick names it. */
  readonly id: string;
  readonly what: string;
  readonly how: string;
  /** The one hazard of this step, with its reason. */
  readonly caution: string | null;
  /** What comes off here and goes on the tray. */
  readonly off: readonly PlanPart[];
}

export interface PlanQuestion {
  readonly back: MeasuredBack;
  readonly opener: OpenerChoice;
  readonly tools: ShopTools;
  readonly schools: Pick<Schools, 'protection' | 'parts'>;
  /** The owner keeps the film the watch was sold with. */
  readonly keepsFilm: boolean;
  /** Of the movement, as far as it is known. */
  readonly functions: readonly FunctionKind[];
  /** The larger measure of the movement; null where it is not known. */
  readonly movementMm: number | null;
  /** Seals counted: a cover inside wants its own. */
  readonly innerCovers: number;
  /** How it was opened last, and what was noted then. */
  readonly lastTime: {
    readonly openedWith: string;
    readonly setting: string;
    readonly notes: readonly string[];
  } | null;
}

export function part(name: Part, position: string, count = 1): PlanPart {
  return { part: name, count, position, serves: serves(name) };
}

export function step(
  id: string,
  what: string,
  how: string,
  caution: string | null = null,
  off: readonly PlanPart[] = [],
): PlanStep {
  return { id, what, how, caution, off };
}
