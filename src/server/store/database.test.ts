import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobSummary } from '../../contract';
import { migrate, openConnection, openDatabase, readMigrations } from './database';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wax-db-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const all = readMigrations();

/** A job with one entry, by the tables of the first migration. */
const ONE_ENTRY = `
  INSERT INTO technician VALUES ('t', 'Tess', 'T', '2026-01-01');
  INSERT INTO customer (id, name, phone, email, created_at) VALUES ('c', 'Anders', '', '', '2026-01-01');
  INSERT INTO watch VALUES ('w', '2026-01-01');
  INSERT INTO visit VALUES ('v', 'c', '2026-01-01');
  INSERT INTO job (id, number, ticket, visit_id, watch_id, created_at) VALUES ('j', 1, 'T0001-8', 'v', 'w', '2026-01-01');
  INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes)
    VALUES ('e', 'j', 'set.time', 1, '{"set":true}', '2026-01-01', '2026-01-01', 't', 'b', '[]');
`;

describe('migrations', () => {
  it('find in an older logbook when watches are due again, and whose cells are still to be followed', () => {
    const db = openConnection(join(folder, 'due.db'));
    migrate(db, all.slice(0, 22));
    db.exec(ONE_ENTRY);
    const summary = db.prepare('INSERT INTO job_summary VALUES (?, 1, NULL, ?, ?)');
    summary.run('j', '', '{"id":"j","signedBy":"T","collected":true}');
    const insert = db.prepare(
      `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes)
       VALUES (?, 'j', ?, 1, ?, '2026-01-02T08:00:00.000Z', '2026-01-02', 't', 'b', '[]')`,
    );
    insert.run('fitted', 'cell.fitted', '{"cellCode":"SR621SW"}');
    insert.run('signed', 'handback.signed', '{"statement":{"nextVisitOn":"2027-01-01"}}');
    insert.run('again', 'handback.signed', '{"statement":{"nextVisitOn":"2028-01-01"}}');
    migrate(db);
    expect(db.prepare('SELECT job_id, due_on, reminded FROM next_visit').all()).toEqual([
      { job_id: 'j', due_on: '2028-01-01', reminded: 0 },
    ]);
    expect(db.prepare('SELECT job_id, basis FROM job_summary').all()).toEqual([{ job_id: 'j', basis: '' }]);
    db.close();
  });

  it('are numbered from one without a gap', () => {
    expect(all.map((migration) => migration.number)).toEqual(all.map((_, index) => index + 1));
  });

  it('bring an empty database up to date, once', () => {
    const db = openDatabase(folder);
    expect(db.prepare('SELECT count(*) FROM migration').pluck().get()).toBe(all.length);
    expect(migrate(db)).toEqual([]);
    db.close();
    const again = openDatabase(folder);
    expect(migrate(again)).toEqual([]);
    again.close();
  });

  it('keep what a filled older database holds', () => {
    const db = openConnection(join(folder, 'old.db'));
    migrate(db, all.slice(0, 1));
    db.exec(ONE_ENTRY);
    expect(migrate(db)).toEqual(all.slice(1).map((migration) => migration.name));
    expect(db.prepare('SELECT id, payload FROM entry').get()).toEqual({ id: 'e', payload: '{"set":true}' });
    expect(db.pragma('foreign_key_check')).toEqual([]);
    db.close();
  });

  it('gather from an older logbook which movements were seen, and what was read on them', () => {
    const db = openConnection(join(folder, 'seen.db'));
    migrate(db, all.slice(0, 13));
    db.exec(ONE_ENTRY);
    const insert = db.prepare(
      `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes, withdraws)
       VALUES (?, 'j', ?, 1, ?, '2026-01-02', '2026-01-02', 't', 'b', '[]', ?)`,
    );
    insert.run('w', 'arrive.watch', '{"reference":"C2140-3"}', null);
    insert.run('m1', 'identify.movement', '{"calibreId":"orrelin-41-2","code":"OR 41.2"}', null);
    insert.run('m2', 'identify.movement', '{"calibreId":"orrelin-41-6","code":"OR 41.6"}', null);
    insert.run('r', 'check.reading', '{"measure":"currentUA","value":1.25}', null);
    expect(migrate(db)).toContain(all[13]?.name);
    expect(
      db.prepare('SELECT calibre_id, case_code, current_ua, leaked, cause FROM movement_seen').all(),
    ).toEqual([{ calibre_id: 'orrelin-41-6', case_code: 'C2140-3', current_ua: 1.25, leaked: 0, cause: '' }]);
    db.close();
  });

  it('gather from an older logbook which watches leaked, as far as was seen', () => {
    const db = openConnection(join(folder, 'leaks.db'));
    migrate(db, all.slice(0, 20));
    db.exec(ONE_ENTRY);
    const insert = db.prepare(
      `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes, withdraws)
       VALUES (?, 'j', ?, 4, ?, '2026-01-02', '2026-01-02', 't', 'b', '[]', ?)`,
    );
    insert.run('w', 'arrive.watch', '{"reference":"C2140-3"}', null);
    insert.run('g', 'seal.gasket', '{"state":"renewed","ageYears":6}', null);
    insert.run('dry', 'test.made', '{"method":"dry air","outcome":"no leak seen"}', null);
    insert.run('undone', 'test.made', '{"method":"wet","outcome":"leak seen"}', null);
    insert.run('gone', 'logbook.withdrawn', '{"reason":"no"}', 'undone');
    insert.run('wet', 'test.made', '{"method":"wet","outcome":"no leak seen"}', null);
    migrate(db);
    const seen = db
      .prepare('SELECT case_code, leaked, ring_renewed, ring_age_years, seats FROM leak_seen')
      .all();
    expect(seen).toEqual([
      { case_code: 'C2140-3', leaked: 0, ring_renewed: 1, ring_age_years: 6, seats: '[]' },
    ]);
    db.close();
  });

  it.each([
    ['stands', [], 1],
    ['was ended', [['set.run-ended', '{"shows":"17:42","stillRuns":true}', null]], 0],
    ['was withdrawn', [['logbook.withdrawn', '{"reason":"no"}', 'run']], 0],
    ['was before the closing', [['seal.closed', '{"how":"thumbs"}', null]], 0],
    ['was before it was opened again', [['open.back', '{"kind":"snap-on"}', null]], 0],
    ['began anew', [['set.run-began', '{"shows":"10:00"}', null]], 1],
  ] as const)('find in an older logbook the proving run that runs: one that %s', (_, later, runs) => {
    const db = openConnection(join(folder, 'runs.db'));
    migrate(db, all.slice(0, 21));
    db.exec(ONE_ENTRY);
    db.prepare("INSERT INTO job_summary VALUES ('j', 1, NULL, '', '{\"id\":\"j\"}')").run();
    const insert = db.prepare(
      `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, supersedes, withdraws)
       VALUES (?, 'j', ?, 1, ?, '2026-01-02T08:00:00.000Z', '2026-01-02', 't', 'b', '[]', ?)`,
    );
    insert.run('run', 'set.run-began', '{"shows":"09:42"}', null);
    later.forEach(([kind, payload, withdraws], index) =>
      insert.run(`later ${index}`, kind, payload, withdraws),
    );
    migrate(db);
    const summary = JSON.parse(
      db.prepare('SELECT summary FROM job_summary').pluck().get() as string,
    ) as JobSummary;
    expect(summary.running).toHaveLength(runs);
    if (later.length === 0)
      expect(summary.running).toEqual([
        {
          entryId: 'run',
          toSee: 'how it keeps time',
          sinceUtc: '2026-01-02T08:00:00.000Z',
          shows: '09:42',
          watchForS: 60,
        },
      ]);
    db.close();
  });

  it('lay a movement ring above the cell, where an older book had it hold one', () => {
    const db = openConnection(join(folder, 'ring.db'));
    migrate(db, all.slice(0, 15));
    const insert = db.prepare(
      "INSERT INTO catalogue_record (kind, record_id, body, recorded_at) VALUES ('calibre', ?, ?, '2026-01-02')",
    );
    insert.run('ringed', '{"wells":[{"heldBy":"ring round the movement"}],"revisions":[]}');
    insert.run('other', '{"wells":[{"heldBy":"side lever"}],"revisions":[]}');
    migrate(db);
    const bodies = db
      .prepare('SELECT body FROM catalogue_record ORDER BY revision')
      .pluck()
      .all() as string[];
    expect(bodies.map((body) => JSON.parse(body) as unknown)).toEqual([
      { wells: [{ heldBy: 'lying free in its well' }], revisions: [], aboveCell: ['movement ring'] },
      { wells: [{ heldBy: 'side lever' }], revisions: [] },
    ]);
    db.close();
  });

  it('keep what each stand-in of an older bench was set to', () => {
    const db = openConnection(join(folder, 'devices.db'));
    migrate(db, all.slice(0, 26));
    db.prepare(
      "INSERT INTO device (id, connected, settings) VALUES ('caliper', 1, '{\"valueMm\":28.2}')",
    ).run();
    migrate(db);
    expect(db.prepare('SELECT id, connected, driver FROM device').all()).toEqual([
      { id: 'caliper', connected: 1, driver: null },
    ]);
    expect(db.prepare('SELECT driver_id, settings FROM driver_settings').all()).toEqual([
      { driver_id: 'caliper-stand-in', settings: '{"valueMm":28.2}' },
    ]);
    db.close();
  });

  it('leave nothing of one that fails', () => {
    const db = openConnection(join(folder, 'x.db'));
    const bad = { number: 1, name: '001_bad.sql', sql: 'CREATE TABLE one (a); CREATE TABLE one (a);' };
    expect(() => migrate(db, [bad])).toThrow();
    expect(db.prepare("SELECT count(*) FROM sqlite_master WHERE name = 'one'").pluck().get()).toBe(0);
    db.close();
  });

  it('refuse a database written by a newer program', () => {
    const db = openConnection(join(folder, 'new.db'));
    migrate(db);
    db.prepare('INSERT INTO migration VALUES (999, ?)').run('999_future.sql');
    expect(() => migrate(db)).toThrow(/newer program/);
    db.close();
  });
});

describe('the database itself', () => {
  it('writes ahead, syncs fully and holds foreign keys', () => {
    const db = openDatabase(folder);
    expect(db.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(db.pragma('synchronous', { simple: true })).toBe(2);
    expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
    db.close();
  });

  it('lets nobody change or delete a fact, nor take a lot below zero', () => {
    const db = openDatabase(folder);
    db.exec(ONE_ENTRY);
    db.exec(`
      INSERT INTO stock_lot (id, code, supplier, lot_code, price_minor) VALUES ('l', 'SR621SW', 's', '1', 60);
      INSERT INTO stock_ledger (lot_id, delta, reason, technician_id, recorded_at) VALUES ('l', 1, 'goods in', 't', '2026-01-01');
    `);
    expect(() => db.exec("UPDATE entry SET payload = '{}'")).toThrow(/never changed/);
    expect(() => db.exec('DELETE FROM entry')).toThrow(/never deleted/);
    expect(() => db.exec('UPDATE stock_ledger SET delta = 5')).toThrow(/never changed/);
    const take = db.prepare(
      "INSERT INTO stock_ledger (lot_id, delta, reason, technician_id, recorded_at) VALUES ('l', -1, 'fitted', 't', '2026-01-01')",
    );
    take.run();
    expect(() => take.run()).toThrow(/CHECK/);
    expect(db.prepare('SELECT balance FROM stock_lot').pluck().get()).toBe(0);
    db.close();
  });
});
