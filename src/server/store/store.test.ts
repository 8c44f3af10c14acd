import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { calibres } from '../../../demo/book';
import { DEFAULT_POLICY } from '../../core/craft/policy';
import { foldJob, freshLoose } from '../../core/logbook';
import { delivery, entryOf, newJob, NOW, technicianId } from '../../testing/counter';
import { idOf } from '../../testing/fixtures';
import { openConnection } from './database';
import { openStore, type Store } from './store';

let folder: string;
let store: Store;
const open = (): Store => openStore({ dataDir: folder, clock: { nowUtc: () => NOW } });
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wax-store-'));
  store = open();
  store.shops.addTechnician({ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
});
afterEach(() => {
  store.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('a new shop', () => {
  it('starts with the whole cell table, the default policy and an empty book', () => {
    const book = store.catalogue.book();
    expect(book.cells).toHaveLength(49);
    expect(book.calibres).toEqual([]);
    expect(store.shops.policy()).toEqual(DEFAULT_POLICY);
    expect(store.stock.lots()).toEqual([]);
  });

  it('keeps what it is when it is opened again', () => {
    store.shops.setShop({ name: 'Harbour Clocks', place: 'Quay 2', zone: 'Europe/Lisbon' });
    store.close();
    store = open();
    expect(store.shops.shop().name).toBe('Harbour Clocks');
    expect(store.catalogue.book().cells).toHaveLength(49);
    expect(store.shops.technicians()).toHaveLength(1);
  });
});

describe('the book', () => {
  const [calibre] = calibres;
  if (!calibre) throw new Error('no calibre');

  it('counts the newest revision of a record and keeps the older', () => {
    store.catalogue.write('calibre', [calibre]);
    const before = store.catalogue.book();
    store.catalogue.write('calibre', [{ ...calibre, limitUA: 9 }]);
    const after = store.catalogue.book();
    expect(after.revision).toBeGreaterThan(before.revision);
    expect(after.calibres).toHaveLength(1);
    expect([before.calibre(calibre.id)?.limitUA, after.calibre(calibre.id)?.limitUA]).toEqual([1.4, 9]);
    const db = openConnection(join(folder, 'wax-lantern.db'));
    expect(db.prepare("SELECT count(*) FROM catalogue_record WHERE kind = 'calibre'").pluck().get()).toBe(2);
    db.close();
  });

  it('reads what an older program wrote: a calibre without its charge, a policy without its schools', () => {
    const { charge: _, ...older } = calibre;
    const db = openConnection(join(folder, 'wax-lantern.db'));
    db.prepare(
      "INSERT INTO catalogue_record (kind, record_id, body, recorded_at) VALUES ('calibre', ?, ?, '2026-01-01')",
    ).run(calibre.id, JSON.stringify(older));
    const { schools: __, extras: ___, hours: ____, ...policy } = DEFAULT_POLICY;
    db.prepare("INSERT INTO policy_revision (body, recorded_at) VALUES (?, '2026-01-01')").run(
      JSON.stringify({
        ...policy,
        services: { 'cell only': { requires: ['arrive.watch'], priceMinor: 900 } },
        gasketRule: 'renew at every opening',
      }),
    );
    db.close();
    const again = openStore({ dataDir: folder });
    expect(again.catalogue.book().calibre(calibre.id)).toEqual({ ...calibre, charge: null });
    const read = again.shops.policy();
    expect(read.schools).toEqual({ ...DEFAULT_POLICY.schools, gasket: 'renew at every opening' });
    expect(read.services['cell only'].priceMinor).toBe(900);
    expect(read.services.refer).toEqual(DEFAULT_POLICY.services.refer);
    expect(read.hours.Sunday).toBeNull();
    again.close();
  });

  it('is built once for each revision', () => {
    expect(store.catalogue.book()).toBe(store.catalogue.book());
  });

  it('counts a new policy and keeps the revision number', () => {
    store.shops.setPolicy({
      ...DEFAULT_POLICY,
      schools: { ...DEFAULT_POLICY.schools, gasket: 'renew at every opening' },
    });
    expect(store.shops.policy()).toMatchObject({
      revision: 2,
      schools: { gasket: 'renew at every opening' },
    });
  });
});

describe('the ledger', () => {
  const lots = ['one', 'two', 'three'];
  const COUNT = 3;

  /**
   * What a bench can do to one well over a day: take a cell out, settle it, fit from a lot, correct the last fitting,
   * withdraw any entry.
   */
  const act = fc.oneof(
    fc.record({ what: fc.constant('fit' as const), lot: fc.nat(2) }),
    fc.record({ what: fc.constant('correct' as const), lot: fc.nat(2) }),
    fc.record({ what: fc.constant('withdraw' as const), target: fc.nat(30) }),
    fc.record({ what: fc.constant('bin' as const) }),
    fc.record({ what: fc.constant('out' as const), lot: fc.nat(2) }),
    fc.record({ what: fc.constant('settle' as const), back: fc.boolean() }),
  );

  it('conserves cells: what came in is on the shelf, fitted, loose or binned, unless a lot is to be counted; and is never below zero', () => {
    let run = 0;
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
        run += 1;
        const lotIds = lots.map((name) => idOf(`lot ${run} ${name}`));
        lotIds.forEach((id, index) =>
          store.stock.receive({
            ...delivery,
            id,
            code: 'SR621SW',
            lotCode: `${run}-${index}`,
            count: COUNT,
          }),
        );
        const job = newJob(`walk ${run}`);
        expect(store.logbook.takeIn(job).outcome).toBe('taken in');
        const spentBefore = store.stock.spentInBin();
        const made: string[] = [];
        acts.forEach((each, index) => {
          const entries = store.logbook.job(job.id)?.entries ?? [];
          const name = `walk ${run} ${index}`;
          const lotIndex = 'lot' in each ? each.lot : 0;
          const fitting = {
            cellCode: 'SR621SW',
            lotId: lotIds[lotIndex] ?? null,
            supplier: '',
            lotCode: `${run}-${lotIndex}`,
            alkalineAgreed: false,
            ownersOwn: false,
          };
          const last = entries.findLast((entry) => entry.kind === 'cell.fitted');
          if (each.what === 'fit') store.logbook.append(job.id, entryOf(name, 'cell.fitted', fitting));
          else if (each.what === 'correct' && last)
            store.logbook.append(job.id, entryOf(name, 'cell.fitted', fitting, { supersedes: [last.id] }));
          else if (each.what === 'out')
            store.logbook.append(
              job.id,
              entryOf(name, 'cell.out', {
                cellCode: fitting.cellCode,
                lotId: fitting.lotId,
                lotCode: fitting.lotCode,
              }),
            );
          else if (each.what === 'settle') {
            const [loose] = freshLoose(foldJob(entries, store.context()).facts);
            if (loose)
              store.logbook.append(
                job.id,
                entryOf(name, 'cell.out-settled', {
                  outEntryId: loose.out.id,
                  to: each.back ? 'back in its lot' : 'spent bin',
                }),
              );
          } else if (each.what === 'bin')
            store.logbook.append(job.id, entryOf(name, 'cell.old-settled', { taped: true, to: 'spent bin' }));
          else if (each.what === 'withdraw') {
            const target = entries[6 + (each.target % Math.max(1, entries.length - 6))];
            if (target)
              store.logbook.append(
                job.id,
                entryOf(name, 'logbook.withdrawn', { reason: 'walk' }, { withdraws: target.id }),
              );
          }
          made.push(name);
        });
        const state = foldJob(store.logbook.job(job.id)?.entries ?? [], store.context());
        for (const lot of store.stock.lots().filter(({ id }) => lotIds.includes(id))) {
          const active = state.activeEntries.filter(
            (entry) => entry.kind === 'cell.fitted' && entry.payload.lotId === lot.id,
          ).length;
          expect(lot.balance).toBeGreaterThanOrEqual(0);
          const loose = freshLoose(state.facts).filter(({ out }) => out.payload.lotId === lot.id).length;
          const binnedFresh = [...state.facts.cellsOut.values()].filter(
            ({ out, settled }) => out.payload.lotId === lot.id && settled?.payload.to === 'spent bin',
          ).length;
          if (!lot.toBeCounted) expect(lot.balance).toBe(COUNT - active - loose - binnedFresh);
        }
        const binned =
          state.activeEntries.filter((entry) => entry.kind === 'cell.old-settled').length +
          [...state.facts.cellsOut.values()].filter(({ settled }) => settled?.payload.to === 'spent bin')
            .length;
        expect(store.stock.spentInBin() - spentBefore).toBe(binned);
      }),
      { numRuns: 40 },
    );
  });
});

describe('older payloads on disk', () => {
  it('are a line of their own where no upcaster leads up, instead of being read wrongly', () => {
    const job = newJob('old');
    store.logbook.takeIn(job);
    const db = openConnection(join(folder, 'wax-lantern.db'));
    db.prepare(
      `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes)
       VALUES (?, ?, 'set.time', 99, '{"set":true}', ?, ?, ?, 'bench 1', '[]')`,
    ).run(idOf('future'), job.id, NOW, NOW, technicianId);
    db.close();
    const read = store.logbook.job(job.id);
    expect(read?.unreadable).toMatchObject([
      { id: idOf('future'), reason: expect.stringContaining('newer than this program') as string },
    ]);
    expect(read?.entries.map(({ id }) => id)).not.toContain(idOf('future'));
  });
});
