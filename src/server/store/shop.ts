import { completePolicy, type Policy, type Shop } from '../../core/craft/policy';
import type { PolicyRevision, PolicyWrite, Technician } from '../../contract';
import type { Clock } from './clock';
import { type Db, inTransaction } from './database';

/** The shop, its policy and the people who work there. */
export interface ShopStore {
  shop(): Shop;
  hasShop(): boolean;
  setShop(shop: Shop): void;
  policy(): Policy;
  setPolicy(policy: Omit<Policy, 'revision'>, technicianId?: string | null): void;
  /** The newest revisions, with who wrote them. */
  policyRevisions(): PolicyRevision[];
  /** Writes shop and policy together, if the policy is still the one its writer saw. */
  decide(given: PolicyWrite): 'decided' | 'moved on';
  technicians(): Technician[];
  technician(id: string): Technician | undefined;
  /** Adds a technician; the same id with the same name again changes nothing. */
  addTechnician(person: Technician): 'added' | 'same' | 'taken';
}

export function shopStore(db: Db, clock: Clock): ShopStore {
  const readShop = db.prepare<[], Shop>('SELECT name, place, zone FROM shop');
  const writeShop = db.prepare<[string, string, string]>(
    'INSERT INTO shop (only, name, place, zone) VALUES (1, ?, ?, ?) ON CONFLICT (only) DO UPDATE SET name = excluded.name, place = excluded.place, zone = excluded.zone',
  );
  const readPolicy = db.prepare<[], { revision: number; body: string }>(
    'SELECT revision, body FROM policy_revision ORDER BY revision DESC LIMIT 1',
  );
  const writePolicy = db.prepare<[string, string, string | null]>(
    'INSERT INTO policy_revision (body, recorded_at, technician_id) VALUES (?, ?, ?)',
  );
  const policyRevisions = db.prepare<[], PolicyRevision>(
    `SELECT revision, technician_id AS technicianId, recorded_at AS recordedAt
     FROM policy_revision ORDER BY revision DESC LIMIT 50`,
  );
  const technicians = db.prepare<[], Technician>('SELECT id, name, initials FROM technician ORDER BY name');
  const technician = db.prepare<[string], Technician>(
    'SELECT id, name, initials FROM technician WHERE id = ?',
  );
  const addTechnician = db.prepare<[string, string, string, string]>(
    'INSERT INTO technician (id, name, initials, created_at) VALUES (?, ?, ?, ?)',
  );
  const newestPolicy = db.prepare<[], number | null>('SELECT max(revision) FROM policy_revision').pluck();
  let kept: Policy | null = null;

  return {
    shop() {
      const open = readShop.get();
      if (!open) throw new Error('The shop has no name yet: the database was not started.');
      return open;
    },
    hasShop: () => readShop.get() !== undefined,
    setShop: inTransaction(db, ({ name, place, zone }: Shop): void => {
      writeShop.run(name, place, zone);
    }),
    policy() {
      // Never older than the database, whoever wrote there.
      if (kept !== null && kept.revision === newestPolicy.get()) return kept;
      const row = readPolicy.get();
      if (!row) throw new Error('The shop has no policy yet: the database was not started.');
      kept = { ...completePolicy(JSON.parse(row.body) as Partial<Policy>), revision: row.revision };
      return kept;
    },
    setPolicy: inTransaction(
      db,
      (policy: Omit<Policy, 'revision'>, technicianId: string | null = null): void => {
        writePolicy.run(JSON.stringify(policy), clock.nowUtc(), technicianId);
      },
    ),
    policyRevisions: () => policyRevisions.all(),
    decide: inTransaction(db, (given: PolicyWrite): 'decided' | 'moved on' => {
      if (readPolicy.get()?.revision !== given.basedOn) return 'moved on';
      writeShop.run(given.shop.name, given.shop.place, given.shop.zone);
      writePolicy.run(JSON.stringify(given.policy), clock.nowUtc(), given.technicianId);
      return 'decided';
    }),
    technicians: () => technicians.all(),
    technician: (id) => technician.get(id),
    addTechnician: inTransaction(db, (person: Technician): 'added' | 'same' | 'taken' => {
      const known = technician.get(person.id);
      if (known) return known.name === person.name && known.initials === person.initials ? 'same' : 'taken';
      addTechnician.run(person.id, person.name, person.initials, clock.nowUtc());
      return 'added';
    }),
  };
}
