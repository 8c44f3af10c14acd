import type { SupplierRecord } from '../../../core/craft/stock';
import type { Db } from '../database';
import type { LotTable } from './lots';

/** What this shop's own jobs and deliveries say of each supplier. */
export function supplierRecords(db: Db, lots: LotTable): () => SupplierRecord[] {
  const deliveriesOf = db.prepare<[], { supplier: string; deliveries: number; wrong: number; short: number }>(
    'SELECT supplier, count(*) AS deliveries, sum(wrong) AS wrong, sum(short) AS short FROM delivery GROUP BY supplier',
  );
  const countsOf = db.prepare<[], { supplier: string; fitted: number; leaked: number }>(
    'SELECT supplier, fitted, leaked FROM supplier_count',
  );
  return () => {
    const supplies = new Map<string, Set<string>>();
    for (const { supplier, item, code } of lots.inUse())
      if (item === 'cell') supplies.set(supplier, (supplies.get(supplier) ?? new Set()).add(code));
    const deliveries = new Map(deliveriesOf.all().map((each) => [each.supplier, each]));
    const counts = new Map(countsOf.all().map((each) => [each.supplier, each]));
    return [...new Set([...supplies.keys(), ...deliveries.keys(), ...counts.keys()])]
      .sort()
      .map((supplier): SupplierRecord => ({
        supplier,
        deliveries: deliveries.get(supplier)?.deliveries ?? 0,
        wrong: deliveries.get(supplier)?.wrong ?? 0,
        short: deliveries.get(supplier)?.short ?? 0,
        fitted: counts.get(supplier)?.fitted ?? 0,
        leaked: counts.get(supplier)?.leaked ?? 0,
        supplies: [...(supplies.get(supplier) ?? [])],
      }));
  };
}
