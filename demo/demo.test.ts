import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { book } from '../src/testing/fixtures';
import { FORGET_ANSWERS, STORED_ANSWERS } from '../src/testing/storedAnswers';
import { openConnection } from '../src/server/store/database';
import { openStore, type Store } from '../src/server/store/store';
import { foldJob } from '../src/core/logbook';
import { BACK_KINDS } from '../src/core/craft/cases';
import { FUNCTION_KINDS, HOLD_KINDS } from '../src/core/craft/movements';
import { SERVICES } from '../src/core/craft/policy';
import { addMonths, localDay } from '../src/core/craft/time';
import { buildDemo, demoProgram } from './build';
import { readyDemo } from './ready';
import { makers } from './book';
import { DEMO_START_UTC } from './scenario';
import { NETTLE, SALTMARSH } from './steps';

describe('the invented book', () => {
  it('has calibres and case types enough, of several makers, all codes of their maker’s pattern', () => {
    expect(book.calibres.length).toBeGreaterThanOrEqual(24);
    expect(makers.length).toBeGreaterThanOrEqual(6);
    expect(book.caseTypes.length).toBeGreaterThanOrEqual(20);
    expect(new Set(book.caseTypes.map((type) => type.backKind))).toEqual(new Set(BACK_KINDS));
    expect(new Set(book.calibres.flatMap((calibre) => calibre.wells.map((well) => well.heldBy)))).toEqual(
      new Set(HOLD_KINDS),
    );
    expect(new Set(book.calibres.flatMap((calibre) => calibre.functions))).toEqual(new Set(FUNCTION_KINDS));
    expect(new Set(book.calibres.flatMap((calibre) => calibre.charge?.by ?? []))).toEqual(
      new Set(['light', 'rotor']),
    );
    expect(book.calibres.some((calibre) => calibre.wells.length === 2)).toBe(true);
    const templates = new Map(makers.map((maker) => [maker.id, maker.patterns]));
    const shape = (code: string): string => code.replace(/[A-Z]/g, 'l').replace(/\d/g, 'd');
    const wanted = (template: string): string => shape(template.replace(/l/g, 'A').replace(/d/g, '0'));
    for (const { makerId, code } of book.calibres) {
      const own = templates.get(makerId)?.filter((pattern) => pattern.meaning === 'movement') ?? [];
      expect(own.map((pattern) => wanted(pattern.template))).toContain(shape(code));
    }
    for (const { makerId, code } of book.caseTypes) {
      const own = templates.get(makerId)?.filter((pattern) => pattern.meaning === 'case') ?? [];
      expect(own.map((pattern) => wanted(pattern.template))).toContain(shape(code));
    }
  });

  it.each(book.calibres.map((calibre) => [calibre.code, calibre] as const))(
    '%s could be built: cells and coils inside, nothing on top of another',
    (_, calibre) => {
      const [widthMm, lengthMm] = [calibre.widthMm ?? 0, calibre.lengthMm ?? 0];
      const cells = calibre.wells.map((well) => {
        const wanted = calibre.charge ?? book.wanted(calibre, well);
        expect(wanted).not.toBeNull();
        return { x: well.xMm, y: well.yMm, radius: (wanted?.diameterMm ?? 0) / 2 };
      });
      for (const cell of cells) {
        if (calibre.shape === 'round')
          expect(Math.hypot(cell.x, cell.y) + cell.radius).toBeLessThanOrEqual(widthMm / 2);
        else {
          expect(Math.abs(cell.x) + cell.radius).toBeLessThanOrEqual(widthMm / 2);
          expect(Math.abs(cell.y) + cell.radius).toBeLessThanOrEqual(lengthMm / 2);
        }
        for (const coil of calibre.coils) {
          const along = (coil.degrees / 180) * Math.PI;
          // The coil's long axis from end to end, its half width added to the distance.
          for (let share = -0.5; share <= 0.5; share += 0.05) {
            const x = coil.xMm + Math.sin(along) * coil.lengthMm * share;
            const y = coil.yMm + Math.cos(along) * coil.lengthMm * share;
            expect(Math.hypot(cell.x - x, cell.y - y)).toBeGreaterThan(cell.radius + coil.widthMm / 2);
            for (const side of [-0.5, 0.5]) {
              const [edgeX, edgeY] = [
                x + Math.cos(along) * coil.widthMm * side,
                y - Math.sin(along) * coil.widthMm * side,
              ];
              if (calibre.shape === 'round') expect(Math.hypot(edgeX, edgeY)).toBeLessThan(widthMm / 2);
              else expect(Math.max(Math.abs(edgeX) / widthMm, Math.abs(edgeY) / lengthMm)).toBeLessThan(0.5);
            }
          }
        }
      }
      const [first, second] = cells;
      if (first && second)
        expect(Math.hypot(first.x - second.x, first.y - second.y)).toBeGreaterThan(
          first.radius + second.radius,
        );
      expect(calibre.limitUA).toBeGreaterThan(calibre.typicalUA ?? Infinity);
    },
  );
});

describe('the demo', () => {
  let folder: string;
  let store: Store;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'wax-demo-'));
    await readyDemo(folder);
    store = openStore({ dataDir: folder, program: demoProgram() });
  });
  afterAll(() => {
    store.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('has fourteen open jobs or more at many stages, some stuck for a reason', () => {
    const open = store.logbook.rack().filter((job) => job.signedBy === null);
    expect(open.length).toBeGreaterThanOrEqual(14);
    expect(new Set(open.map((job) => job.current)).size).toBeGreaterThanOrEqual(7);
    expect(open.some((job) => job.conflict)).toBe(true);
    expect(open.some((job) => job.partsExpectedOn !== null)).toBe(true);
    expect(open.some((job) => job.looseCells.length > 0)).toBe(true);
    expect(open.some((job) => job.waitsFor.startsWith('a leak'))).toBe(true);
    expect(open.some((job) => job.promisedAt !== null && job.promisedAt < DEMO_START_UTC)).toBe(true);
    const context = store.context();
    for (const job of store.logbook.rack()) {
      const state = foldJob(store.logbook.job(job.id)?.entries ?? [], context);
      expect([job.ticket, state.current]).toEqual([job.ticket, job.current]);
    }
  });

  it('looks back on four years and three hundred closed jobs, of every service', () => {
    const closed = store.logbook.all().filter((job) => job.collected);
    expect(closed.length).toBeGreaterThanOrEqual(300);
    const months = new Set(closed.map((job) => job.receivedAt.slice(0, 7)));
    expect(months.size).toBeGreaterThanOrEqual(44);
    expect(new Set(closed.map((job) => job.service))).toEqual(new Set(SERVICES));
    expect(new Set(closed.map((job) => job.movement).filter(Boolean)).size).toBeGreaterThanOrEqual(24);
  });

  it('tells what one would expect of such a shop: cheap cells leak more, and one calibre draws more with age', () => {
    const context = store.context();
    const share = { leaked: new Map<string, number>(), seen: new Map<string, number>() };
    const currents = new Map<string, number[]>();
    for (const watchId of new Set(
      store.logbook.all().map((job) => store.logbook.job(job.id)?.job.watchId ?? ''),
    )) {
      const visits = (store.logbook.watch(watchId)?.visits ?? [])
        .map((visit) => foldJob(visit.entries, context))
        .reverse();
      visits.forEach((state, index) => {
        const before = visits[index - 1]?.facts.cellsFitted.get('main')?.payload.supplier;
        const found = state.facts.cellsFound.get('main')?.payload;
        if (before && found) {
          share.seen.set(before, (share.seen.get(before) ?? 0) + 1);
          if (found.condition !== 'clean') share.leaked.set(before, (share.leaked.get(before) ?? 0) + 1);
        }
        const current = state.facts.readings.get('currentUA')?.payload.value;
        if (current !== undefined && state.calibre?.id === 'orrelin-62-3')
          currents.set(watchId, [...(currents.get(watchId) ?? []), current]);
      });
    }
    const rate = (supplier: string): number =>
      (share.leaked.get(supplier) ?? 0) / Math.max(1, share.seen.get(supplier) ?? 0);
    expect(share.seen.get(NETTLE)).toBeGreaterThan(5);
    expect(rate(NETTLE)).toBeGreaterThan(2 * rate(SALTMARSH));
    const twice = [...currents.values()].filter((values) => values.length > 1);
    expect(twice.length).toBeGreaterThan(0);
    for (const values of twice) expect(values.at(-1)).toBeGreaterThan(values[0] ?? 0);
  });

  it('reminds of every watch that is due within a month or missed it lately, and was not brought again', () => {
    const context = store.context();
    const today = localDay(DEMO_START_UTC, context.shop.zone);
    const ofTicket = (ticket: string): number => Number(ticket.slice(1, -2));
    const jobs = store.logbook.all().map(({ id }) => {
      const resource = store.logbook.job(id);
      if (!resource) throw new Error('a job wanted');
      return { job: resource.job, state: foldJob(resource.entries, context) };
    });
    const wanted = jobs.flatMap(({ job, state }) => {
      const { signature, facts } = state;
      const dueOn = signature.state === 'signed' ? signature.entry.payload.statement.nextVisitOn : null;
      const again = jobs.some(
        (other) =>
          other.job.watchId === job.watchId &&
          ofTicket(other.job.ticket) > ofTicket(job.ticket) &&
          // A visit that left the cell and its day as they were is none.
          (other.state.facts.collected === null ||
            other.state.facts.cellsFitted.size > 0 ||
            (other.state.signature.state === 'signed' &&
              other.state.signature.entry.payload.statement.nextVisitOn !== null)),
      );
      const soon = dueOn !== null && dueOn <= addMonths(today, 1) && dueOn >= addMonths(today, -6);
      return soon && !again && facts.collected !== null ? job.ticket : [];
    });
    expect(wanted.length).toBeGreaterThan(3);
    expect(
      store.visits
        .toRemind(today)
        .map(({ ticket }) => ticket)
        .sort(),
    ).toEqual(wanted.sort());
  });

  it('keeps its ledger: what came in is what is left and what was fitted', () => {
    const ledger = store.stock.ledger();
    const moved = ledger.reduce((sum, line) => sum + line.delta, 0);
    expect(store.stock.lots().reduce((sum, lot) => sum + lot.balance, 0)).toBe(moved);
    expect(ledger.filter((line) => line.reason === 'fitted').length).toBeGreaterThan(250);
    expect(store.stock.lots().every((lot) => lot.balance >= 0 && !lot.toBeCounted)).toBe(true);
    expect(store.stock.spentInBin()).toBeGreaterThan(0);
  });

  it('has every answer kept beside its jobs the same when all are worked out anew', async () => {
    store.close();
    const db = openConnection(join(folder, 'wax-lantern.db'));
    const kept = (): object =>
      Object.fromEntries(
        STORED_ANSWERS.map(({ table }) => {
          const rows = db.prepare<[], object>(`SELECT * FROM ${table}`).all();
          return [table, rows.map((row) => JSON.stringify(row)).sort()] as const;
        }),
      );
    const before = kept();
    db.exec(FORGET_ANSWERS);
    db.close();
    store = openStore({ dataDir: folder, program: demoProgram() });
    await store.logbook.fresh.all();
    const again = openConnection(join(folder, 'wax-lantern.db'));
    for (const { table } of STORED_ANSWERS) {
      const rows = again.prepare<[], object>(`SELECT * FROM ${table}`).all();
      expect([table, rows.map((row) => JSON.stringify(row)).sort()]).toEqual([
        table,
        (before as Record<string, string[]>)[table],
      ]);
    }
    again.close();
  });

  it('is the same at every build', async () => {
    const again = mkdtempSync(join(tmpdir(), 'wax-demo-'));
    await buildDemo(again);
    const other = openStore({ dataDir: again });
    const answer = (from: Store): string =>
      JSON.stringify(
        from.logbook
          .all()
          .map(({ id }) =>
            from.logbook
              .job(id)
              ?.entries.map(({ kind, payload, occurredAt }) => ({ kind, payload, occurredAt })),
          ),
      );
    expect(answer(other)).toBe(answer(store));
    other.close();
    rmSync(again, { recursive: true, force: true });
  });
});
