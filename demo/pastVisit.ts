import { normalFrom } from '../src/core/craft/life';
import type { Book } from '../src/core/craft/book';
import { type BackKind, backs, type CaseType } from '../src/core/craft/cases';
import type { Calibre } from '../src/core/craft/movements';
import { proofsToMake, watchSeconds } from '../src/core/craft/setting';
import type { Payloads } from '../src/core/logbook';
import type { Dice } from './dice';
import {
  type DemoJob,
  dryTest,
  LAST_TEST,
  movementOf,
  NETTLE,
  openedAs,
  readingOf,
  SALTMARSH,
  type Step,
  technicians,
} from './steps';

/** The demo's day, from which the years before are counted back. */
const DEMO_DAY_MS = Date.parse('2026-03-17');
export const DAY_MINUTES = 24 * 60;
const DAYS_A_MONTH = 30.44;
/** What a cell of the cheaper supplier gives of what it should. */
const CHEAP_GIVES = 0.8;

/** The day so long before the demo's day. */
export function dayOf(daysAgo: number): Date {
  return new Date(DEMO_DAY_MS - daysAgo * DAY_MINUTES * 60_000);
}

const monthOf = (daysAgo: number): string => dayOf(daysAgo).toISOString().slice(0, 7);

/** A watch of the years before, and what is known of it between two visits. */
export interface PastWatch {
  readonly key: string;
  readonly customer: DemoJob['customer'];
  readonly watch: Payloads['arrive.watch'];
  readonly caseType: CaseType;
  readonly calibre: Calibre;
  visits: number;
  /** Of the cell it has: when it stops, and when its owner comes; null: never, or for another reason. */
  stopsDaysAgo: number | null;
  comesDaysAgo: number | null;
  /** What the last hand fitted, and whose it was. */
  lastSupplier: string | null;
  lastLot: string;
}

/** What the visits of the years before share. */
export interface PastWorld {
  readonly book: Book;
  readonly dice: Dice;
  /** Takes a cell of this code from the lot that was open so many days ago. */
  readonly takeFromLot: (
    code: string,
    daysAgo: number,
  ) => { readonly supplier: string; readonly lotCode: string };
}

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));

type Service = Payloads['arrive.service']['service'];
const PRICE_MINOR = {
  'cell only': 1400,
  'cell and reseal': 2900,
  'reseal and test': 3400,
  'recharge or new accumulator': 4900,
  diagnose: 1800,
  refer: 0,
};

/** How long the cell just fitted goes on, days: by what it holds and what this movement draws. */
function lastsDays({ calibre, lastSupplier }: PastWatch, { book, dice }: PastWorld): number {
  const [well] = calibre.wells;
  const cell = well && book.cell(well.cellCode);
  const mAh = cell ? ((cell.capacityMinMAh ?? 0) + (cell.capacityMaxMAh ?? 0)) / 2 : 0;
  const base = well?.typicalUA ?? calibre.typicalUA;
  if (mAh === 0 || base === null) return dice.between(300, 900);
  const uses =
    calibre.wells.length > 1
      ? 0
      : calibre.functionDraws.reduce((sum, use) => sum + (use.drawUA * use.secondsPerDay) / 86_400, 0);
  const gives = 0.86 * (lastSupplier === NETTLE ? CHEAP_GIVES : 1) * Math.exp(0.1 * normalFrom(dice.uniform));
  return (DAYS_A_MONTH * gives * mAh) / (0.7305 * (base * 1.04 + uses) + (mAh * 0.02) / 12);
}

/** When the owner comes again: once it has stopped, some soon, some late, some never. */
function comesAgain(known: PastWatch, daysAgo: number, world: PastWorld): void {
  known.stopsDaysAgo = Math.round(daysAgo - lastsDays(known, world));
  known.comesDaysAgo = world.dice.chance(0.25)
    ? null
    : Math.round(known.stopsDaysAgo - 8 + 45 * Math.log(Math.max(0.02, world.dice.uniform())));
}

/** One visit of the years before, step by step. */
export class PastVisit {
  private readonly calibre: Calibre;
  private readonly caseType: CaseType;
  private readonly dice: Dice;
  private readonly rating: number;
  private readonly sealSeason: boolean;
  private readonly service: Service;
  private readonly technician: DemoJob['technician'];
  private readonly steps: Step[] = [];
  private minutes = 3;

  constructor(
    private readonly known: PastWatch,
    private readonly daysAgo: number,
    private readonly world: PastWorld,
  ) {
    this.calibre = known.calibre;
    this.caseType = known.caseType;
    this.dice = world.dice;
    this.rating = known.caseType.ratingBar ?? 0;
    this.technician = this.dice.pick(technicians).key;
    const month = dayOf(daysAgo).getUTCMonth();
    // Before summer more watches are brought to be sealed.
    this.sealSeason = month >= 4 && month <= 6;
    this.service = this.chooseService();
  }

  private chooseService(): Service {
    const { calibre, rating, dice } = this;
    if (calibre.charge) return 'recharge or new accumulator';
    if (rating >= 20 && dice.chance(0.5)) return 'refer';
    if (dice.chance(0.04)) return 'diagnose';
    if (rating >= 3 && dice.chance(this.sealSeason ? 0.3 : 0.1)) return 'reseal and test';
    return dice.chance(0.2) ? 'cell and reseal' : 'cell only';
  }

  private step<K extends Step['kind']>(kind: K, payload: Payloads[K], more: Partial<Step> = {}): void {
    this.minutes += 1 + Math.floor(this.dice.uniform() * 2);
    this.steps.push({ minutes: this.minutes, kind, payload, ...more } as Step);
  }

  /** The visit as a job of the demo; the watch is left as it goes home. */
  job(): DemoJob {
    const { known, dice, service, daysAgo } = this;
    const overnight = service === 'recharge or new accumulator' || service === 'reseal and test';
    const { stopsDaysAgo } = known;
    const complaint = this.complaint();
    if (complaint.picked.includes('stopped') && stopsDaysAgo !== null && dice.chance(0.6))
      this.step('arrive.stopped', { stoppedOn: monthOf(stopsDaysAgo) });
    known.stopsDaysAgo = null;
    known.comesDaysAgo = dice.chance(0.5) ? Math.round(daysAgo - dice.between(300, 900)) : null;
    this.work();
    const done = this.minutes + (overnight ? DAY_MINUTES : 3);
    const arrived = daysAgo * DAY_MINUTES - Math.floor(dice.between(0, 420));
    return {
      key: known.visits === 0 ? known.key : `${known.key}-${known.visits}`,
      ...(known.visits === 0 ? {} : { sameWatchAs: known.key }),
      customer: known.customer,
      technician: this.technician,
      arrivedMinutesAgo: Math.max(DAY_MINUTES, arrived),
      promisedInMinutes:
        -Math.max(DAY_MINUTES, arrived) +
        (overnight ? DAY_MINUTES + 60 : 30 + Math.floor(dice.between(0, 60))),
      watch: known.watch,
      complaint,
      service: { service, priceMinor: PRICE_MINOR[service] },
      steps: this.steps,
      signedAfter: done,
      collectedAfter: done + Math.floor(dice.between(5, 600)),
    };
  }

  private work(): void {
    if (this.service === 'refer') this.refer();
    else if (this.service === 'diagnose') this.diagnose();
    else if (this.service === 'recharge or new accumulator') this.recharge();
    else this.inside();
  }

  private refer(): void {
    this.step('arrive.decision', {
      decision: 'referred',
      reason: this.dice.pick(['certified diving watch', 'no suitable opener', 'under the maker’s warranty']),
      to: 'the maker’s service',
      told: '',
    });
  }

  private complaint(): Payloads['arrive.complaint'] {
    if (this.calibre.charge) return { picked: ['does not hold its charge'], words: '' };
    if (this.service === 'reseal and test' && this.dice.chance(0.4))
      return { picked: ['fog under the crystal'], words: '' };
    if (this.calibre.functions.includes('digital display')) return { picked: ['display fading'], words: '' };
    if (this.calibre.lowSupplySignal && this.dice.chance(0.5))
      return { picked: ['hand steps in twos or fours'], words: '' };
    return { picked: ['stopped'], words: '' };
  }

  private open(): void {
    this.step('open.back', {
      ...openedAs(this.caseType),
      protection: 'film',
      went: this.dice.chance(0.08) ? 'resisted' : 'freely',
    });
    if (this.dice.chance(0.06))
      this.step('open.technique', {
        note: this.dice.pick([
          'sits tight: fixed holder, weight before torque',
          'press at the lip, it clicks late',
          'old thread, two turns by hand first',
        ]),
      });
  }

  private identify(): void {
    this.step('identify.movement', movementOf(this.calibre.id, this.calibre.code));
  }

  private close(): void {
    const [how = 'thumbs'] = backs[this.caseType.backKind as BackKind].closes;
    const renew = this.rating >= 5 || this.service !== 'cell only' || this.dice.chance(0.3);
    this.step('seal.gasket', {
      state: renew ? 'renewed' : 'reused',
      findings: renew && this.dice.chance(0.3) ? ['flattened'] : [],
      ageYears: renew ? 2 + ((this.daysAgo * 7) % 8) : 2,
      meetsWater: this.sealSeason,
      greased: true,
      greasedBy: 'pad',
      profile: 'round',
      size: this.caseType.gasket ?? '',
      lotId: null,
      reason: renew
        ? this.rating >= 5
          ? `rated ${this.rating} bar`
          : 'its age was not known'
        : 'sound and young',
    });
    this.step('seal.closed', { how, seamEven: true, raisedClocks: [], seenFrom: null, interim: false });
  }

  private prove(): void {
    this.step('set.runs', { runs: true, watchedSeconds: Math.max(60, watchSeconds(this.calibre)) });
    this.proveCrown();
    this.step('set.time', { set: true });
    this.seeCrownDown();
    this.step('set.functions', {
      proved: Object.fromEntries(proofsToMake(this.calibre).map(({ what }) => [what, 'works'])),
      handedBackSo: '',
    });
  }

  private proveCrown(): void {
    if (this.calibre.functions.includes('hands'))
      this.step('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
    this.seeCrownDown();
  }

  private seeCrownDown(): void {
    // At the same minute as the step before, so that it draws no random number.
    if (this.known.caseType.crown === 'screwed down')
      this.steps.push({ minutes: this.minutes, kind: 'set.crown-down', payload: { down: true } });
  }

  /** What the movement draws: its own figure, a spread from watch to watch, and old oil by the year. */
  private current(): number {
    const own =
      Number(`0.${[...this.known.key].reduce((sum, letter) => sum + letter.charCodeAt(0), 0)}`) - 0.5;
    const ageing = this.calibre.code === 'OR 62.3' ? 0.3 : 0.05;
    const drift = 1 + ageing * this.known.visits;
    return rounded(
      (this.calibre.typicalUA ?? 1) *
        (1 + 0.12 * own) *
        drift *
        Math.exp(0.03 * normalFrom(this.dice.uniform)),
      2,
    );
  }

  private leakedCell(well: string | undefined): 'clean' | 'bloom' | 'crust' {
    const cheap = this.known.lastSupplier === NETTLE;
    const strange = this.known.lastSupplier === null;
    if (!this.dice.chance(cheap ? 0.4 : strange ? 0.07 : 0.03)) return 'clean';
    const condition = this.dice.chance(0.6) ? 'bloom' : 'crust';
    if (well === undefined)
      this.step('check.leakage', {
        place: this.dice.pick(['contact', 'well', 'cell']),
        severity: condition,
        xMm: this.calibre.wells[0]?.xMm ?? null,
        yMm: this.calibre.wells[0]?.yMm ?? null,
        treated: 'a trace of weak acid, alcohol, dried',
        decision: 'cleaned, observe',
        supplier: this.known.lastSupplier ?? '',
        lotCode: this.known.lastLot,
        currentBeforeUA: null,
        currentAfterUA: null,
      });
    return condition;
  }

  private inside(): void {
    this.open();
    this.identify();
    const cellService = this.service !== 'reseal and test';
    if (cellService) this.renewCells();
    else this.step('arrive.wear', { uses: ['every day', 'swimming'], words: '' });
    this.close();
    if (!cellService) this.sealAndTest();
    this.prove();
  }

  private renewCells(): void {
    const two = this.calibre.wells.length > 1;
    this.step(
      'check.reading',
      readingOf(
        'restVoltageV',
        rounded(
          (this.calibre.lowestV ?? 0) > 2 ? this.dice.between(2.1, 2.75) : this.dice.between(0.8, 1.44),
          2,
        ),
      ),
    );
    if (this.service === 'cell and reseal' || this.dice.chance(0.55))
      this.step('check.reading', readingOf('currentUA', this.current()));
    for (const well of this.calibre.wells) {
      const at = two ? { well: well.name } : {};
      const cell = this.world.book.cell(well.cellCode);
      if (!cell) throw new RangeError(`${well.cellCode} is not in the table.`);
      const condition = this.leakedCell(two ? well.name : undefined);
      this.step(
        'cell.found',
        { marking: this.dice.chance(0.7) ? cell.code : (cell.names.at(-1) ?? cell.code), condition },
        at,
      );
      const lot = this.world.takeFromLot(cell.code, this.daysAgo);
      this.step(
        'cell.fitted',
        { cellCode: cell.code, lotId: lot.lotCode, ...lot, alkalineAgreed: false, ownersOwn: false },
        at,
      );
      this.step('cell.old-settled', { taped: true, to: 'spent bin' }, at);
      this.known.lastSupplier = lot.supplier;
      this.known.lastLot = lot.lotCode;
    }
    comesAgain(this.known, this.daysAgo, this.world);
  }

  private sealAndTest(): void {
    this.step('seal.other', {
      crown: this.dice.chance(0.3) ? 'renewed' : 'inspected',
      pushers: 'none there',
      crystal: 'not touched',
    });
    if (this.caseType.crown === null)
      this.step('arrive.crown', {
        crown: this.calibre.functions.includes('hands') ? 'pushed home' : 'no crown',
      });
    const bar = Math.min(this.rating, 5);
    const stiffnessUmPerBar = rounded(this.dice.between(3, 6), 1);
    this.step('test.case', {
      freeVolumeCm3: null,
      withinPercent: null,
      diameterMm: rounded(this.dice.between(30, 40), 1),
      thicknessMm: rounded(this.dice.between(7, 11), 1),
    });
    const leaks = this.dice.chance(0.3);
    if (leaks) {
      this.step(
        'test.made',
        dryTest(bar, 180, {}, { stiffnessUmPerBar, leakUgPerMin: rounded(this.dice.between(250, 4000), 0) }),
      );
      const seat = this.dice.pick(['crown', 'crown', 'back', 'crystal'] as const);
      this.step('test.finding', {
        seat,
        foundBy: [LAST_TEST],
        done: seat === 'crystal' ? 'crystal pressed anew' : 'seal renewed',
        note: '',
      });
    }
    this.step('test.made', dryTest(bar, 180, { retestOf: leaks ? [LAST_TEST] : [] }, { stiffnessUmPerBar }));
  }

  private recharge(): void {
    this.identify();
    const by = this.calibre.charge?.by ?? 'light';
    const tired = this.dice.chance(0.45);
    this.step('cell.charged', {
      by,
      hours: Math.round(this.dice.between(30, 70)),
      outcome: tired ? 'low-supply steps' : 'steps normally',
    });
    if (tired) {
      this.open();
      this.step('cell.accumulator', {
        kitCode: this.calibre.charge?.kitCode ?? '',
        lotId: null,
        supplier: SALTMARSH,
        lotCode: '',
        way: 'kit with tabs',
        tabContactOhm: null,
        unchargedBecause: null,
      });
      this.step('cell.charged', {
        by: this.calibre.charge?.by === 'rotor' ? 'rotor' : 'light',
        hours: 30,
        outcome: 'steps normally',
      });
      this.step('cell.old-settled', { taped: true, to: 'spent bin' });
      this.close();
    }
    this.prove();
  }

  private diagnose(): void {
    this.open();
    this.identify();
    this.step(
      'check.reading',
      readingOf('currentUA', rounded(this.current() * this.dice.between(1.5, 4), 2)),
    );
    this.step('check.diagnosis', {
      cause: this.dice.pick([
        'old oil and dirt',
        'electrolyte or damp on the circuit',
        'coil severed',
        'contact does not touch',
      ]),
      also: null,
      next: this.dice.pick(['service of the movement', 'clean', 'new circuit']),
      words: '',
    });
    this.close();
    this.proveCrown();
  }
}
