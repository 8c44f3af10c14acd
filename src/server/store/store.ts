import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { join } from 'node:path';
import type { LiveNews } from '../../contract';
import type { JobContext } from '../../core/logbook';
import { DEFAULT_POLICY, type Shop } from '../../core/craft/policy';
import { localDay } from '../../core/craft/time';
import { type AttachmentStore, attachmentStore } from '../attachments/attachments';
import { deviceHub } from '../devices/hub';
import { type AcknowledgedStore, acknowledgedStore } from './acknowledged';
import { type CellsInWatchesStore, cellsInWatchesStore } from './cellsInWatches';
import { type CatalogueStore, catalogueStore } from './catalogue';
import { cellLivesStore } from './cellLives';
import { readShippedCells } from './shippedCells';
import { type Clock, runningClock } from './clock';
import { closeDatabase, guardOf, inTransaction, openDatabase } from './database';
import { DatabaseLost } from './guard';
import { type Health, healthOf } from './health';
import { type LogbookStore, logbookStore } from './logbook/logbook';
import { type LeaksSeenStore, leaksSeenStore } from './leaksSeen';
import { programId } from '../program';
import { type MovementsSeenStore, movementsSeenStore } from './movementsSeen';
import { type NextVisitsStore, nextVisitsStore } from './nextVisits';
import { idempotencyStore } from './idempotencyStore';
import { type ShopStore, shopStore } from './shop';
import { type StockStore, stockStore } from './stock/stock';

/** A shop nobody has described yet. */
const NEW_SHOP: Shop = {
  name: 'Watch counter',
  place: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
};

export interface StoreOptions {
  readonly dataDir: string;
  readonly clock?: Clock;
  readonly demo?: boolean;
  /** Where a tester that writes files is expected to write them; a folder of its own in the data folder where nothing is said. */
  readonly testerFolder?: string;
  /** What a new database is named; a database that has a shop keeps it. */
  readonly shop?: Shop;
  /** Which program will serve what is written, where another one writes it: its stored answers are not worked out twice. */
  readonly program?: string;
}

/** Everything a shop keeps, over one data folder. */
export interface Store {
  readonly clock: Clock;
  readonly demo: boolean;
  readonly catalogue: CatalogueStore;
  readonly shops: ShopStore;
  readonly stock: StockStore;
  readonly logbook: LogbookStore;
  readonly attachments: AttachmentStore;
  /** What was acknowledged, beside the database. */
  readonly acknowledged: AcknowledgedStore;
  readonly movements: MovementsSeenStore;
  readonly leaks: LeaksSeenStore;
  readonly cells: CellsInWatchesStore;
  readonly visits: NextVisitsStore;
  readonly devices: ReturnType<typeof deviceHub>;
  readonly health: Health;
  /** What a job is folded against now. */
  context(): JobContext;
  /** Does a long piece of writing in one transaction: all of it, or nothing. */
  inOne(write: () => void): void;
  /** Tells every subscriber that something was written. */
  publish(item: LiveNews): void;
  /** How much was told since this server started, as a text that is another after each telling and each start. */
  newsMark(): string;
  /** `onEnd` is called when no more news will come. Gives the way to end the subscription. */
  subscribe(listener: (item: LiveNews) => void, onEnd?: () => void): () => void;
  /** Throws `DatabaseLost` where the open database is not the one at its path. */
  checkDatabase(): void;
  /** Lets every subscriber go: the server stops. */
  hangUp(): void;
  close(): void;
}

/** What was written, told to every subscriber. */
function liveNews(): Pick<Store, 'publish' | 'newsMark' | 'subscribe' | 'hangUp'> {
  const news = new EventEmitter<{ news: [LiveNews]; end: [] }>();
  news.setMaxListeners(0);
  const run = randomUUID();
  let count = 0;
  return {
    publish(item) {
      count += 1;
      news.emit('news', item);
    },
    newsMark: () => `${run}-${count}`,
    subscribe(listener, onEnd = () => undefined) {
      news.on('news', listener);
      news.on('end', onEnd);
      return () => {
        news.off('news', listener);
        news.off('end', onEnd);
      };
    },
    hangUp: () => void news.emit('end'),
  };
}

/** What devices ask of a job. */
function ofJobs(logbook: LogbookStore): Pick<Parameters<typeof deviceHub>[3], 'ticketOf' | 'reach'> {
  return {
    ticketOf: (jobId) => logbook.job(jobId)?.job.ticket ?? null,
    reach: (jobId) => {
      const owner = logbook.job(jobId)?.customer;
      if (owner?.phone) return 'phone';
      return owner?.email ? 'e-mail' : null;
    },
  };
}

/** Looks whether the open database is still the one at its path; what was acknowledged is kept where it is not. */
function checkOf(db: ReturnType<typeof openDatabase>, acknowledged: AcknowledgedStore): () => void {
  return () => {
    try {
      guardOf(db)?.check();
    } catch (error) {
      if (error instanceof DatabaseLost && error.presence === 'replaced') acknowledged.setAside();
      throw error;
    }
  };
}

/** A server that ends in order leaves nothing to take in again. */
function endAcknowledged(checkDatabase: () => void, acknowledged: AcknowledgedStore): void {
  try {
    checkDatabase();
    acknowledged.end();
  } catch {
    // What was acknowledged stays beside the database, for whoever starts the next server.
  }
}

/** Opens the data folder: database up to date, cell table and policy in place. */
export function openStore({
  dataDir,
  clock = runningClock(),
  demo = false,
  testerFolder = join(dataDir, 'from-tester'),
  shop = NEW_SHOP,
  program = programId(),
}: StoreOptions): Store {
  const db = openDatabase(dataDir);
  const catalogue = catalogueStore(db, clock);
  const shops = shopStore(db, clock);
  const typeOf = (code: string): string => catalogue.book().cell(code)?.code ?? code;
  const dayNow = (): string => localDay(clock.nowUtc(), shops.shop().zone);
  const lives = cellLivesStore(db, { dayNow, typeOf });
  const stock = stockStore(db, clock, () => catalogue.book(), lives.ofCells);
  const cells = cellsInWatchesStore(db);
  const begin = inTransaction(db, () => {
    shops.setShop(shop);
    shops.setPolicy(DEFAULT_POLICY);
    catalogue.write('cell', readShippedCells());
  });
  if (!shops.hasShop()) begin();
  const context = (): JobContext => ({
    catalogue: catalogue.book(),
    policy: shops.policy(),
    shop: shops.shop(),
    nowUtc: clock.nowUtc(),
  });
  const attachments = attachmentStore(db, clock, dataDir);
  const movements = movementsSeenStore(db);
  const leaks = leaksSeenStore(db);
  const visits = nextVisitsStore(db);
  const logbook = logbookStore({
    db,
    clock,
    stock,
    files: attachments,
    once: idempotencyStore(db, clock),
    movements,
    cells,
    leaks,
    lives,
    visits,
    contextNow: context,
    program,
  });
  const devices = deviceHub(db, clock, attachments, {
    testerFolder,
    nowUtc: () => clock.nowUtc(),
    table: () => catalogue.book().cellTable,
    zone: () => shops.shop().zone,
    ...ofJobs(logbook),
  });
  const acknowledged = acknowledgedStore(db, dataDir, () => clock.nowUtc());
  const checkDatabase = checkOf(db, acknowledged);
  return {
    clock,
    demo,
    catalogue,
    shops,
    stock,
    logbook,
    attachments,
    acknowledged,
    movements,
    cells,
    leaks,
    visits,
    devices,
    health: healthOf(db, clock, attachments, checkDatabase),
    context,
    inOne: (write) => inTransaction(db, write)(),
    ...liveNews(),
    checkDatabase,
    close() {
      endAcknowledged(checkDatabase, acknowledged);
      closeDatabase(db);
    },
  };
}

export { runningClock, type Clock } from './clock';
