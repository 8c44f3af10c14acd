import type { Book } from '../src/core/craft/book';
import { normalFrom, seededUniform } from '../src/core/craft/life';
import type { Payloads } from '../src/core/logbook';
import type { Calibre } from '../src/core/craft/movements';
import { proofsToMake, watchSeconds } from '../src/core/craft/setting';
import { type BackKind, backs, type CaseType } from '../src/core/craft/cases';
import type { DemoLot } from './scenario';
import {
  type DemoJob,
  dryTest,
  LAST_TEST,
  movementOf,
  NETTLE,
  openedAs,
  person,
  readingOf,
  SALTMARSH,
  type Step,
  technicians,
  watch,
} from './steps';
const SEED = 20_260_317;
/** Jobs closed in the four years before the demo's day. */
const CLOSED_JOBS = 330;
const DAYS = 1460;
const DAY_MINUTES = 24 * 60;
const DAYS_A_MONTH = 30.44;
/** What a cell of the cheaper supplier gives of what it should. */
const CHEAP_GIVES = 0.8;

/** Which calibre sits in which case: pairs of this shop's own world. */
const PAIRS: readonly (readonly [caseCode: string, calibreCode: string, share: number])[] = [
  ['C2140-3', 'OR 41.2', 10],
  ['C2140-3', 'OR 41.6', 8],
  ['C0915-2', 'OR 47.1', 5],
  ['C2210-1', 'OR 62.3', 7],
  ['C2210-1', 'OR 44.9', 3],
  ['C3312-4', 'OR 44.9', 3],
  ['402B-11', 'TK70B', 7],
  ['402B-11', 'TK71B', 7],
  ['418D-20', 'TK82D', 7],
  ['377A-05', 'TK35A', 4],
  ['455A-30', 'TK90C', 4],
  ['K61/08', 'PL 6108', 7],
  ['K61/08', 'PL 6180', 5],
  ['K33/02', 'PL 3302', 3],
  ['K77/15', 'PL 7705', 4],
  ['Q150A', 'QB 15-1', 7],
  ['Q150A', 'QB 15-7', 5],
  ['Q224B', 'QB 22-4', 4],
  ['Q312C', 'QB 31-2', 3],
  ['Q183A', 'QB 18-3', 4],
  ['VC210-04', 'V-210S', 4],
  ['VC214-11', 'V-214S', 3],
  ['VC330-02', 'V-330R', 3],
  ['VC118-07', 'V-118Q', 3],
  ['DK072', 'DM 07/2', 5],
  ['DK114', 'DM 11/4', 3],
  ['DK151', 'DM 15/1', 3],
];

const FIRST =
  'Aud Birk Carsta Dagny Einar Frode Gudrun Hauk Idunn Joran Kaya Leif Maud Njal Oda Per Quinn Roald Saga Terje Ulla Varg Wenche Yngve Asta Brage Dea Embla Finn Gro Hella Ivar'.split(
    ' ',
  );
const LAST =
  'Amberlock Birchwater Coldharrow Driftwood Elmsgate Fairwhistle Glasswick Hartlebeck Inkermoor Jollivane Kingsferry Larkmantle Mossbank Netherquay Oakensail Pebblecross Quaymark Rooksedge Saltfen Tidewell Underhythe Vinterfold Wickenrow Yarrowgate Ashlantern Brinewood Cobbleford Dunlinby Eddymere Foxlantern Gullside Heronsway'.split(
    ' ',
  );

interface Known {
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

/** The month a day so long before the demo's day lies in. */
function monthOf(daysAgo: number): string {
  return new Date(Date.parse('2026-03-17') - daysAgo * DAY_MINUTES * 60_000).toISOString().slice(0, 7);
}

/** The four years before the demo's day, job by job, and the lots their cells came from. The same at every build. */
export function history(book: Book): { readonly jobs: DemoJob[]; readonly lots: DemoLot[] } {
  const uniform = seededUniform(SEED);
  const chance = (share: number): boolean => uniform() < share;
  const pick = <T>(from: readonly T[]): T => {
    const chosen = from[Math.floor(uniform() * from.length)];
    if (chosen === undefined) throw new RangeError('Nothing to pick from.');
    return chosen;
  };
  const between = (low: number, high: number): number => low + uniform() * (high - low);
  const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));
  const shares = PAIRS.reduce((sum, [, , share]) => sum + share, 0);
  const pickPair = (): { readonly caseType: CaseType; readonly calibre: Calibre } => {
    let at = uniform() * shares;
    const [caseCode, calibreCode] = PAIRS.find(([, , share]) => (at -= share) < 0) ?? ['', ''];
    const caseType = book.caseTypeOfReference(caseCode);
    const calibre = book.calibres.find((each) => each.code === calibreCode);
    if (!caseType || !calibre) throw new RangeError(`${caseCode} or ${calibreCode} is not in the book.`);
    return { caseType, calibre };
  };
  const digits = (template: string): string =>
    template
      .replace(/d/g, () => String(Math.floor(uniform() * 10)))
      .replace(/l/g, () => String.fromCharCode(65 + Math.floor(uniform() * 26)));

  const used = new Map<string, { code: string; supplier: string; days: number; count: number }>();
  /** A lot lasts about half a year; every second is of the cheaper supplier. */
  const takeFromLot = (
    code: string,
    daysAgo: number,
  ): { readonly supplier: string; readonly lotCode: string } => {
    const half = Math.ceil(daysAgo / 180);
    const supplier = (half + code.length) % 2 === 0 ? NETTLE : SALTMARSH;
    const lotCode = `${supplier === NETTLE ? 'NH' : 'H'}-${code}-${half}`;
    const lot = used.get(lotCode) ?? { code, supplier, days: half * 180 + 15, count: 0 };
    lot.count += 1;
    used.set(lotCode, lot);
    return { supplier, lotCode };
  };

  const pool: Known[] = [];
  const jobs: DemoJob[] = [];
  for (let number = 0; number < CLOSED_JOBS; number += 1) {
    const daysAgo = Math.max(1, Math.round(DAYS - (number / CLOSED_JOBS) * (DAYS - 1) + between(-2, 2)));
    // Watches come again as their cells run out: the more, the longer the shop has been there.
    const due = pool.filter(({ comesDaysAgo }) => comesDaysAgo !== null && comesDaysAgo >= daysAgo);
    const again = due.length > 0 && chance(0.8) ? pick(due) : null;
    const known = again ?? newcomer(number);
    if (!again) pool.push(known);
    // The owner comes later than the watch is due where the shop is full.
    jobs.push(visit(known, Math.min(daysAgo, known.comesDaysAgo ?? daysAgo)));
    known.visits += 1;
  }

  function newcomer(number: number): Known {
    const { caseType, calibre } = pickPair();
    const maker = book.maker(caseType.makerId);
    const serial = maker?.patterns.find((pattern) => pattern.meaning === 'serial')?.template ?? 'dddddd';
    return {
      key: `closed-${number}`,
      customer: person(`${pick(FIRST)} ${pick(LAST)}`, `0555 ${String(1000 + number)}`),
      watch: watch(maker?.name ?? '', caseType.code, digits(serial), {
        ratingBar: caseType.ratingBar,
        crownClock: calibre.functions.includes('hands') ? caseType.crownClock : null,
      }),
      caseType,
      calibre,
      visits: 0,
      stopsDaysAgo: null,
      comesDaysAgo: null,
      lastSupplier: null,
      lastLot: '',
    };
  }

  /** How long the cell just fitted goes on, days: by what it holds and what this movement draws. */
  function lastsDays({ calibre, lastSupplier }: Known): number {
    const [well] = calibre.wells;
    const cell = well && book.cell(well.cellCode);
    const mAh = cell ? ((cell.capacityMinMAh ?? 0) + (cell.capacityMaxMAh ?? 0)) / 2 : 0;
    const base = well?.typicalUA ?? calibre.typicalUA;
    if (mAh === 0 || base === null) return between(300, 900);
    const uses =
      calibre.wells.length > 1
        ? 0
        : calibre.functionDraws.reduce((sum, use) => sum + (use.drawUA * use.secondsPerDay) / 86_400, 0);
    const gives = 0.86 * (lastSupplier === NETTLE ? CHEAP_GIVES : 1) * Math.exp(0.1 * normalFrom(uniform));
    return (DAYS_A_MONTH * gives * mAh) / (0.7305 * (base * 1.04 + uses) + (mAh * 0.02) / 12);
  }

  /** When the owner comes again: once it has stopped, some soon, some late, some never. */
  function comesAgain(known: Known, daysAgo: number): void {
    known.stopsDaysAgo = Math.round(daysAgo - lastsDays(known));
    known.comesDaysAgo = chance(0.25)
      ? null
      : Math.round(known.stopsDaysAgo - 8 + 45 * Math.log(Math.max(0.02, uniform())));
  }

  function visit(known: Known, daysAgo: number): DemoJob {
    const { calibre, caseType } = known;
    const { stopsDaysAgo } = known;
    const rating = caseType.ratingBar ?? 0;
    const technician = pick(technicians).key;
    const month = new Date(Date.parse('2026-03-17') - daysAgo * DAY_MINUTES * 60_000).getUTCMonth();
    // Before summer more watches are brought to be sealed.
    const sealSeason = month >= 4 && month <= 6;
    const service: Payloads['arrive.service']['service'] = calibre.charge
      ? 'recharge or new accumulator'
      : rating >= 20 && chance(0.5)
        ? 'refer'
        : chance(0.04)
          ? 'diagnose'
          : rating >= 3 && chance(sealSeason ? 0.3 : 0.1)
            ? 'reseal and test'
            : chance(0.2)
              ? 'cell and reseal'
              : 'cell only';
    const steps: Step[] = [];
    let minutes = 3;
    const step = <K extends Step['kind']>(kind: K, payload: Payloads[K], more: Partial<Step> = {}): void => {
      minutes += 1 + Math.floor(uniform() * 2);
      steps.push({ minutes, kind, payload, ...more } as Step);
    };
    const price = {
      'cell only': 1400,
      'cell and reseal': 2900,
      'reseal and test': 3400,
      'recharge or new accumulator': 4900,
      diagnose: 1800,
      refer: 0,
    }[service];
    const overnight = service === 'recharge or new accumulator' || service === 'reseal and test';
    const answer = complaint();
    if (answer.picked.includes('stopped') && stopsDaysAgo !== null && chance(0.6))
      step('arrive.stopped', { stoppedOn: monthOf(stopsDaysAgo) });
    known.stopsDaysAgo = null;
    known.comesDaysAgo = chance(0.5) ? Math.round(daysAgo - between(300, 900)) : null;
    if (service === 'refer')
      step('arrive.decision', {
        decision: 'referred',
        reason: pick(['certified diving watch', 'no suitable opener', 'under the maker’s warranty']),
        to: 'the maker’s service',
        told: '',
      });
    else if (service === 'diagnose') diagnose();
    else if (service === 'recharge or new accumulator') recharge();
    else inside();
    const done = minutes + (overnight ? DAY_MINUTES : 3);
    const arrived = daysAgo * DAY_MINUTES - Math.floor(between(0, 420));
    return {
      key: known.visits === 0 ? known.key : `${known.key}-${known.visits}`,
      ...(known.visits === 0 ? {} : { sameWatchAs: known.key }),
      customer: known.customer,
      technician,
      arrivedMinutesAgo: Math.max(DAY_MINUTES, arrived),
      promisedInMinutes:
        -Math.max(DAY_MINUTES, arrived) + (overnight ? DAY_MINUTES + 60 : 30 + Math.floor(between(0, 60))),
      watch: known.watch,
      complaint: answer,
      service: { service, priceMinor: price },
      steps,
      signedAfter: done,
      collectedAfter: done + Math.floor(between(5, 600)),
    };

    function complaint(): Payloads['arrive.complaint'] {
      if (calibre.charge) return { picked: ['does not hold its charge'], words: '' };
      if (service === 'reseal and test' && chance(0.4))
        return { picked: ['fog under the crystal'], words: '' };
      if (calibre.functions.includes('digital display')) return { picked: ['display fading'], words: '' };
      if (calibre.lowSupplySignal && chance(0.5))
        return { picked: ['hand steps in twos or fours'], words: '' };
      return { picked: ['stopped'], words: '' };
    }

    function open(): void {
      step('open.back', {
        ...openedAs(caseType),
        protection: 'film',
        went: chance(0.08) ? 'resisted' : 'freely',
      });
      if (chance(0.06))
        step('open.technique', {
          note: pick([
            'sits tight: fixed holder, weight before torque',
            'press at the lip, it clicks late',
            'old thread, two turns by hand first',
          ]),
        });
    }

    function identify(): void {
      step('identify.movement', movementOf(calibre.id, calibre.code));
    }

    function close(): void {
      const [how = 'thumbs'] = backs[caseType.backKind as BackKind].closes;
      const renew = rating >= 5 || service !== 'cell only' || chance(0.3);
      step('seal.gasket', {
        state: renew ? 'renewed' : 'reused',
        findings: renew && chance(0.3) ? ['flattened'] : [],
        ageYears: renew ? 2 + ((daysAgo * 7) % 8) : 2,
        meetsWater: sealSeason,
        greased: true,
        greasedBy: 'pad',
        profile: 'round',
        size: caseType.gasket ?? '',
        lotId: null,
        reason: renew ? (rating >= 5 ? `rated ${rating} bar` : 'its age was not known') : 'sound and young',
      });
      step('seal.closed', { how, seamEven: true, raisedClocks: [], seenFrom: null, interim: false });
    }

    function prove(): void {
      step('set.runs', { runs: true, watchedSeconds: Math.max(60, watchSeconds(calibre)) });
      proveCrown();
      step('set.time', { set: true });
      seeCrownDown();
      step('set.functions', {
        proved: Object.fromEntries(proofsToMake(calibre).map(({ what }) => [what, 'works'])),
        handedBackSo: '',
      });
    }

    function proveCrown(): void {
      if (calibre.functions.includes('hands'))
        step('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
      seeCrownDown();
    }

    function seeCrownDown(): void {
      // Seen in the same breath as what went before: it draws nothing from the made-up chance of the steps.
      if (known.caseType.crown === 'screwed down')
        steps.push({ minutes, kind: 'set.crown-down', payload: { down: true } });
    }

    /** What the movement draws: its own figure, a spread from watch to watch, and old oil by the year. */
    function current(): number {
      const own = Number(`0.${[...known.key].reduce((sum, letter) => sum + letter.charCodeAt(0), 0)}`) - 0.5;
      const ageing = calibre.code === 'OR 62.3' ? 0.3 : 0.05;
      const drift = 1 + ageing * known.visits;
      return rounded(
        (calibre.typicalUA ?? 1) * (1 + 0.12 * own) * drift * Math.exp(0.03 * normalFrom(uniform)),
        2,
      );
    }

    function leakedCell(well: string | undefined): 'clean' | 'bloom' | 'crust' {
      const cheap = known.lastSupplier === NETTLE;
      const strange = known.lastSupplier === null;
      if (!chance(cheap ? 0.4 : strange ? 0.07 : 0.03)) return 'clean';
      const condition = chance(0.6) ? 'bloom' : 'crust';
      if (well === undefined)
        step('check.leakage', {
          place: pick(['contact', 'well', 'cell']),
          severity: condition,
          xMm: calibre.wells[0]?.xMm ?? null,
          yMm: calibre.wells[0]?.yMm ?? null,
          treated: 'a trace of weak acid, alcohol, dried',
          decision: 'cleaned, observe',
          supplier: known.lastSupplier ?? '',
          lotCode: known.lastLot,
          currentBeforeUA: null,
          currentAfterUA: null,
        });
      return condition;
    }

    function inside(): void {
      open();
      identify();
      const two = calibre.wells.length > 1;
      const cellService = service !== 'reseal and test';
      if (cellService) {
        step(
          'check.reading',
          readingOf(
            'restVoltageV',
            rounded((calibre.lowestV ?? 0) > 2 ? between(2.1, 2.75) : between(0.8, 1.44), 2),
          ),
        );
        if (service === 'cell and reseal' || chance(0.55))
          step('check.reading', readingOf('currentUA', current()));
        for (const well of calibre.wells) {
          const at = two ? { well: well.name } : {};
          const cell = book.cell(well.cellCode);
          if (!cell) throw new RangeError(`${well.cellCode} is not in the table.`);
          const condition = leakedCell(two ? well.name : undefined);
          step(
            'cell.found',
            { marking: chance(0.7) ? cell.code : (cell.names.at(-1) ?? cell.code), condition },
            at,
          );
          const lot = takeFromLot(cell.code, daysAgo);
          step(
            'cell.fitted',
            { cellCode: cell.code, lotId: lot.lotCode, ...lot, alkalineAgreed: false, ownersOwn: false },
            at,
          );
          step('cell.old-settled', { taped: true, to: 'spent bin' }, at);
          known.lastSupplier = lot.supplier;
          known.lastLot = lot.lotCode;
        }
        comesAgain(known, daysAgo);
      } else step('arrive.wear', { uses: ['every day', 'swimming'], words: '' });
      close();
      if (!cellService) {
        step('seal.other', {
          crown: chance(0.3) ? 'renewed' : 'inspected',
          pushers: 'none there',
          crystal: 'not touched',
        });
        if (caseType.crown === null)
          step('arrive.crown', { crown: calibre.functions.includes('hands') ? 'pushed home' : 'no crown' });
        const bar = Math.min(rating, 5);
        const stiffnessUmPerBar = rounded(between(3, 6), 1);
        step('test.case', {
          freeVolumeCm3: null,
          withinPercent: null,
          diameterMm: rounded(between(30, 40), 1),
          thicknessMm: rounded(between(7, 11), 1),
        });
        const leaks = chance(0.3);
        if (leaks) {
          step(
            'test.made',
            dryTest(bar, 180, {}, { stiffnessUmPerBar, leakUgPerMin: rounded(between(250, 4000), 0) }),
          );
          const seat = pick(['crown', 'crown', 'back', 'crystal'] as const);
          step('test.finding', {
            seat,
            foundBy: [LAST_TEST],
            done: seat === 'crystal' ? 'crystal pressed anew' : 'seal renewed',
            note: '',
          });
        }
        step('test.made', dryTest(bar, 180, { retestOf: leaks ? [LAST_TEST] : [] }, { stiffnessUmPerBar }));
      }
      prove();
    }

    function recharge(): void {
      identify();
      const by = calibre.charge?.by ?? 'light';
      const tired = chance(0.45);
      step('cell.charged', {
        by,
        hours: Math.round(between(30, 70)),
        outcome: tired ? 'low-supply steps' : 'steps normally',
      });
      if (tired) {
        open();
        step('cell.accumulator', {
          kitCode: calibre.charge?.kitCode ?? '',
          lotId: null,
          supplier: SALTMARSH,
          lotCode: '',
          way: 'kit with tabs',
          tabContactOhm: null,
          unchargedBecause: null,
        });
        step('cell.charged', {
          by: calibre.charge?.by === 'rotor' ? 'rotor' : 'light',
          hours: 30,
          outcome: 'steps normally',
        });
        step('cell.old-settled', { taped: true, to: 'spent bin' });
        close();
      }
      prove();
    }

    function diagnose(): void {
      open();
      identify();
      step('check.reading', readingOf('currentUA', rounded(current() * between(1.5, 4), 2)));
      step('check.diagnosis', {
        cause: pick([
          'old oil and dirt',
          'electrolyte or damp on the circuit',
          'coil severed',
          'contact does not touch',
        ]),
        also: null,
        next: pick(['service of the movement', 'clean', 'new circuit']),
        words: '',
      });
      close();
      proveCrown();
    }
  }

  const lots = [...used].map(([lotCode, { code, supplier, days, count }]): DemoLot => {
    const delivered = new Date(Date.parse('2026-03-17') - days * DAY_MINUTES * 60_000);
    const best = new Date(delivered);
    best.setUTCFullYear(best.getUTCFullYear() + (code.startsWith('CR') ? 6 : 3));
    return {
      item: 'cell',
      code,
      supplier,
      lotCode,
      madeOn: null,
      bestBefore: best.toISOString().slice(0, 10),
      priceMinor: supplier === NETTLE ? 40 : 65,
      count,
    };
  });
  return { jobs, lots };
}
