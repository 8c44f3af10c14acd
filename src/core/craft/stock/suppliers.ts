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
  return ((record?.leaked ?? 0) + BEFORE.leaked) / ((record?.fitted ?? 0) + BEFORE.fitted);
}

/** A supplier's record in words. */
export function recordWords({ deliveries, wrong, short, fitted, leaked }: SupplierRecord): string {
  return [
    ...(deliveries > 0 ? [`${deliveries} ${deliveries === 1 ? 'delivery' : 'deliveries'}`] : []),
    ...(wrong > 0 ? [`${wrong} wrong`] : []),
    ...(short > 0 ? [`${short} short`] : []),
    `${leaked} of ${fitted} fitted leaked`,
  ].join(', ');
}

/** The supplier whose cells leaked least; null where none is known. */
export function bestSupplier(records: readonly SupplierRecord[]): string | null {
  return [...records].sort((a, b) => leakShare(a) - leakShare(b))[0]?.supplier ?? null;
}
