import { figure } from '../judgement';
/** What this shop knows of a supplier from its own deliveries and leaks. */
export interface SupplierRecord {
  readonly supplier: string;
  readonly deliveries: number;
  /** Deliveries with another cell than was ordered, and with fewer. */
  readonly wrong: number;
  readonly short: number;
  readonly fitted: number;
  readonly leaked: number;
  /** Codes of what it has delivered. */
  readonly supplies: readonly string[];
}

/** Before anything is known: one in fifty, as much as fifty cells would say. */
const BEFORE = { leaked: 1, fitted: 50 } as const;

/** The share of a supplier's cells that leaked, smoothed so that one leak among two cells condemns nobody. */
export function leakShare(record: Pick<SupplierRecord, 'fitted' | 'leaked'> | null): number {
  return leaksSmoothed(record).mean;
}

/** The same with how sure it is, as one standard deviation: the mean of a beta distribution, and its spread. */
function leaksSmoothed(record: Pick<SupplierRecord, 'fitted' | 'leaked'> | null): {
  readonly mean: number;
  readonly sd: number;
} {
  const { fitted, leaked } = record ?? { fitted: 0, leaked: 0 };
  // What cannot be is not known.
  if (!(leaked >= 0 && fitted >= 0 && fitted < Infinity && leaked < Infinity)) return leaksSmoothed(null);
  // A cell that was fitted elsewhere and came here leaking is counted among those that were fitted.
  const among = Math.max(fitted, leaked) + BEFORE.fitted;
  const mean = (leaked + BEFORE.leaked) / among;
  return { mean, sd: Math.sqrt((mean * (1 - mean)) / (among + 1)) };
}

/** So many standard deviations apart, and one supplier leaks more than another: 95 of 100, to one side. */
const LEAKS_MORE = 1.645;

/** Whether the cells of one leaked more than those of another, by more than chance makes of equals. */
export function leaksMore(
  one: Pick<SupplierRecord, 'fitted' | 'leaked'> | null,
  other: Pick<SupplierRecord, 'fitted' | 'leaked'> | null,
): boolean {
  const [a, b] = [leaksSmoothed(one), leaksSmoothed(other)];
  return a.mean - b.mean > LEAKS_MORE * Math.hypot(a.sd, b.sd);
}

/** A supplier's record in words. */
export function recordWords({ deliveries, wrong, short, fitted, leaked }: SupplierRecord): string {
  return [
    ...(deliveries > 0 ? [`${figure(deliveries, 0)} ${deliveries === 1 ? 'delivery' : 'deliveries'}`] : []),
    ...(wrong > 0 ? [`${figure(wrong, 0)} wrong`] : []),
    ...(short > 0 ? [`${figure(short, 0)} short`] : []),
    `${figure(leaked, 0)} of ${figure(fitted, 0)} fitted leaked`,
  ].join(', ');
}

/** The supplier whose cells leaked least; null where none is known. */
export function bestSupplier(records: readonly SupplierRecord[]): string | null {
  return [...records].sort((a, b) => leakShare(a) - leakShare(b))[0]?.supplier ?? null;
}
