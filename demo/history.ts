import type { Book } from '../src/core/craft/book';
import type { CaseType } from '../src/core/craft/cases';
import type { Calibre } from '../src/core/craft/movements';
import { type Dice, seededDice } from './dice';
import { dayOf, PastVisit, type PastWatch, type PastWorld } from './pastVisit';
import type { DemoLot } from './scenario';
import { type DemoJob, NETTLE, person, SALTMARSH, watch } from './steps';

const SEED = 20_260_317;
/** Jobs closed in the four years before the demo's day. */
const CLOSED_JOBS = 330;
const DAYS = 1460;

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

/** Cells taken from a lot. */
interface LotUsed {
  readonly code: string;
  readonly supplier: string;
  readonly days: number;
  count: number;
}

/** The lots that the cells of the years before came from. */
class LotsUsed {
  private readonly used = new Map<string, LotUsed>();

  /** A lot lasts about half a year; every second is of the cheaper supplier. */
  readonly take: PastWorld['takeFromLot'] = (code, daysAgo) => {
    const half = Math.ceil(daysAgo / 180);
    const supplier = (half + code.length) % 2 === 0 ? NETTLE : SALTMARSH;
    const lotCode = `${supplier === NETTLE ? 'NH' : 'H'}-${code}-${half}`;
    const lot = this.used.get(lotCode) ?? { code, supplier, days: half * 180 + 15, count: 0 };
    lot.count += 1;
    this.used.set(lotCode, lot);
    return { supplier, lotCode };
  };

  lots(): DemoLot[] {
    return [...this.used].map(([lotCode, { code, supplier, days, count }]): DemoLot => {
      const delivered = dayOf(days);
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
  }
}

/** A watch that comes for the first time. */
function newcomer(number: number, { book, dice }: PastWorld): PastWatch {
  const { caseType, calibre } = pickPair(book, dice);
  const maker = book.maker(caseType.makerId);
  const serial = maker?.patterns.find((pattern) => pattern.meaning === 'serial')?.template ?? 'dddddd';
  return {
    key: `closed-${number}`,
    customer: person(`${dice.pick(FIRST)} ${dice.pick(LAST)}`, `0555 ${String(1000 + number)}`),
    watch: watch(maker?.name ?? '', caseType.code, fillTemplate(serial, dice), {
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

function pickPair(book: Book, dice: Dice): { readonly caseType: CaseType; readonly calibre: Calibre } {
  const shares = PAIRS.reduce((sum, [, , share]) => sum + share, 0);
  let at = dice.uniform() * shares;
  const [caseCode, calibreCode] = PAIRS.find(([, , share]) => (at -= share) < 0) ?? ['', ''];
  const caseType = book.caseTypeOfReference(caseCode);
  const calibre = book.calibres.find((each) => each.code === calibreCode);
  if (!caseType || !calibre) throw new RangeError(`${caseCode} or ${calibreCode} is not in the book.`);
  return { caseType, calibre };
}

/** A serial number of a maker's pattern: `d` a digit, `l` a letter. */
function fillTemplate(template: string, { uniform }: Dice): string {
  return template
    .replace(/d/g, () => String(Math.floor(uniform() * 10)))
    .replace(/l/g, () => String.fromCharCode(65 + Math.floor(uniform() * 26)));
}

/** The four years before the demo's day, job by job, and the lots their cells came from. The same at every build. */
export function history(book: Book): { readonly jobs: DemoJob[]; readonly lots: DemoLot[] } {
  const dice = seededDice(SEED);
  const lots = new LotsUsed();
  const world: PastWorld = { book, dice, takeFromLot: lots.take };
  const pool: PastWatch[] = [];
  const jobs: DemoJob[] = [];
  for (let number = 0; number < CLOSED_JOBS; number += 1) {
    const daysAgo = Math.max(1, Math.round(DAYS - (number / CLOSED_JOBS) * (DAYS - 1) + dice.between(-2, 2)));
    // Watches come again as their cells run out: the longer the shop has been there, the more of them.
    const due = pool.filter(({ comesDaysAgo }) => comesDaysAgo !== null && comesDaysAgo >= daysAgo);
    const again = due.length > 0 && dice.chance(0.8) ? dice.pick(due) : null;
    const known = again ?? newcomer(number, world);
    if (!again) pool.push(known);
    // The owner comes later than the watch is due where the shop is full.
    jobs.push(new PastVisit(known, Math.min(daysAgo, known.comesDaysAgo ?? daysAgo), world).job());
    known.visits += 1;
  }
  return { jobs, lots: lots.lots() };
}
