import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../src/server/store/store';
import { openConnection } from '../src/server/store/database';
import { idOf } from '../src/testing/fixtures';

/** What the stock page asks for, on a ledger of 200,000 lines against one of 2,000, in the same run. */
const SIZES = [2000, 200_000] as const;
const LINES_A_LOT = 20;
const IN_USE = 60;
const ROUNDS = 2000;

function shop(lines: number) {
  const folder = mkdtempSync(join(tmpdir(), 'wax-stock-'));
  const clock = { nowUtc: () => '2026-03-17T12:00:00.000Z' };
  const store = openStore({ dataDir: folder, clock });
  const technicianId = idOf('technician');
  store.shops.addTechnician({ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
  const db = openConnection(join(folder, 'wax-lantern.db'));
  const lot = db.prepare(
    `INSERT INTO stock_lot (id, item, code, supplier, lot_code, best_before, price_minor) VALUES (?, 'cell', 'SR621SW', ?, ?, '2028-09-30', 60)`,
  );
  const line = db.prepare(
    `INSERT INTO stock_ledger (lot_id, delta, reason, technician_id, recorded_at) VALUES (?, ?, 'x', ?, '2026-03-01T00:00:00.000Z')`,
  );
  const lots = lines / LINES_A_LOT;
  db.transaction(() => {
    for (let each = 0; each < lots; each += 1) {
      const id = idOf(`lot ${each}`);
      lot.run(id, each % 2 === 0 ? 'Saltmarsh Wholesale' : 'Nettle & Quay Supplies', `L-${each}`);
      // All but the newest are used up, as in a shop of some years.
      line.run(id, LINES_A_LOT - 1 + (each >= lots - IN_USE ? 5 : 0), technicianId);
      for (let taken = 1; taken < LINES_A_LOT; taken += 1) line.run(id, -1, technicianId);
    }
  })();
  db.close();
  return { folder, store, times: [] as number[] };
}

const shops = SIZES.map(shop);
// Half a millisecond each: only many, in turns, tell them apart from what else the machine does.
for (let round = 0; round < ROUNDS; round += 1)
  for (const { store, times } of shops) {
    const began = performance.now();
    JSON.stringify(store.stock.resource());
    times.push(performance.now() - began);
  }
const [small = 0, large = 0] = shops.map(({ folder, store, times }) => {
  store.close();
  rmSync(folder, { recursive: true });
  return times.sort((a, b) => a - b)[ROUNDS / 2];
});
const ratio = large / small;
console.log(
  `Stock page: ${SIZES[1]} ledger lines ${large.toFixed(2)} ms, ${SIZES[0]} lines ${small.toFixed(2)} ms: ${ratio.toFixed(2)} × (aim at most 1.5).`,
);
if (ratio > 1.5) process.exitCode = 1;
