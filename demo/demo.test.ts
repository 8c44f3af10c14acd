import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { book } from '../src/testing/fixtures';
import { openStore } from '../src/server/store';
import { foldJob } from '../src/core/logbook';
import { BACK_KINDS } from '../src/core/backs';
import { FUNCTION_KINDS, HOLD_KINDS } from '../src/core/movements';
import { STAGES } from '../src/core/policy';
import { buildDemo } from './build';
import { makers } from './book';
import { jobs, lots } from './scenario';

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
      const cells = calibre.wells.map((well) => {
        const wanted = calibre.charge ?? book.wanted(calibre, well);
        expect(wanted).not.toBeNull();
        return { x: well.xMm, y: well.yMm, radius: (wanted?.diameterMm ?? 0) / 2 };
      });
      for (const cell of cells) {
        if (calibre.shape === 'round')
          expect(Math.hypot(cell.x, cell.y) + cell.radius).toBeLessThanOrEqual(calibre.widthMm / 2);
        else {
          expect(Math.abs(cell.x) + cell.radius).toBeLessThanOrEqual(calibre.widthMm / 2);
          expect(Math.abs(cell.y) + cell.radius).toBeLessThanOrEqual(calibre.lengthMm / 2);
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
              if (calibre.shape === 'round')
                expect(Math.hypot(edgeX, edgeY)).toBeLessThan(calibre.widthMm / 2);
              else
                expect(
                  Math.max(Math.abs(edgeX) / calibre.widthMm, Math.abs(edgeY) / calibre.lengthMm),
                ).toBeLessThan(0.5);
            }
          }
        }
      }
      const [first, second] = cells;
      if (first && second)
        expect(Math.hypot(first.x - second.x, first.y - second.y)).toBeGreaterThan(
          first.radius + second.radius,
        );
      expect(calibre.limitUA).toBeGreaterThan(calibre.typicalUA);
    },
  );
});

describe('the demo', () => {
  it('stands at many stages, with a conflict, an overdue promise, a part on the tray, and the ledger in balance', () => {
    const dataDir = mkdtempSync(join(tmpdir(), 'wax-demo-'));
    buildDemo(dataDir);
    const store = openStore({ dataDir });
    const rack = store.logbook.rack();
    expect(rack.length).toBeGreaterThanOrEqual(8);
    expect(new Set(rack.map((job) => job.current)).size).toBeGreaterThanOrEqual(6);
    expect(rack.some((job) => job.conflict)).toBe(true);
    expect(rack.every((job) => job.current === null || STAGES.includes(job.current))).toBe(true);
    const fitted = jobs.flatMap((job) => job.steps.filter((step) => step.kind === 'cell.fitted')).length;
    const balance = store.stock.lots().reduce((sum, lot) => sum + lot.balance, 0);
    expect(balance).toBe(lots.reduce((sum, lot) => sum + lot.count, 0) - fitted);
    expect(store.stock.spentInBin()).toBe(
      jobs.flatMap((job) => job.steps.filter((step) => step.kind === 'cell.old-settled')).length,
    );
    const context = store.context();
    for (const job of rack) {
      const state = foldJob(store.logbook.job(job.id)?.entries ?? [], context);
      expect([job.ticket, state.current]).toEqual([job.ticket, job.current]);
    }
    store.close();
    rmSync(dataDir, { recursive: true, force: true });
  });

  it('is the same at every build', () => {
    const [one, two] = [1, 2].map(() => {
      const dataDir = mkdtempSync(join(tmpdir(), 'wax-demo-'));
      buildDemo(dataDir);
      const store = openStore({ dataDir });
      const all = store.logbook
        .rack()
        .map((job) =>
          store.logbook
            .job(job.id)
            ?.entries.map(({ kind, payload, occurredAt }) => ({ kind, payload, occurredAt })),
        );
      store.close();
      rmSync(dataDir, { recursive: true, force: true });
      return JSON.stringify(all).replace(/"restsOnSequence":\d+/g, '');
    });
    expect(one).toBe(two);
  });
});
