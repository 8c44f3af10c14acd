import { type Ailing, assess } from './assess';
import { chance } from './random';

/**
 * How often a named cause is real, on watches that are made from volts, ohms and friction instead of a table: a fault has its
 * severity, what is seen follows from it and hangs together, and a watch is brought because it fails, or because its owner wants it
 * looked at. Each shop meets faults in its own mix, and its book is off by a little.
 */
const drawing = chance(4411);
const { uniform, between, normal, drawn } = drawing;
const happens = (share: number): boolean => uniform() < share;
const about = (middle: number, spread: number): number => middle * Math.exp(spread * normal());

/** Among so many watches in use at a time, each with its spread from shop to shop. */
const MET = {
  'old oil and dirt': 0.05,
  mechanical: 0.05,
  'stop lever on': 0.012,
  'coil severed': 0.015,
  'turns of the coil shorted': 0.006,
  'short circuit': 0.008,
  'contact does not touch': 0.02,
  'electrolyte or damp on the circuit': 0.025,
  'reset contact not used': 0.03,
  'circuit faulty': 0.009,
} as const;
type Met = keyof typeof MET;
const SHOP_SPREAD = 0.45;
const WATCHES_A_SHOP = 200;
const OF_HANDS: readonly string[] = [
  'old oil and dirt',
  'mechanical',
  'stop lever on',
  'coil severed',
  'turns of the coil shorted',
];

let mix: Record<string, number> = {};
let brought = 0;

function nextShop(): void {
  mix = Object.fromEntries(Object.entries(MET).map(([fault, share]) => [fault, about(share, SHOP_SPREAD)]));
}

/** One watch in use, sound or not. */
function inUse() {
  const charges = happens(0.2);
  const hands = happens(0.86);
  const reset = !hands || happens(0.18);
  const has = new Set<string>(
    (Object.keys(MET) as Met[]).filter(
      (fault) =>
        happens(mix[fault] ?? 0) &&
        (hands || !OF_HANDS.includes(fault)) &&
        (reset || fault !== 'reset contact not used'),
    ),
  );
  const alkaline = !charges && happens(0.25);
  const oil = has.has('old oil and dirt') ? about(2, 0.25) : about(1, 0.08);
  const jams = has.has('mechanical') && happens(0.7);
  const drag = has.has('mechanical') && !jams ? about(1.5, 0.2) : 1;
  const coilRatio = has.has('coil severed')
    ? Number.POSITIVE_INFINITY
    : has.has('turns of the coil shorted')
      ? between(0.35, 0.8)
      : about(1, 0.03);
  const creepUA = has.has('electrolyte or damp on the circuit') ? about(5, 1) : 0;
  const shortUA = has.has('short circuit') ? about(2000, 1.5) : 0;
  const chip = has.has('circuit faulty')
    ? drawn([
        ['silent', 0.5],
        ['hungry', 0.3],
        ['garbled', 0.2],
      ] as const)
    : null;
  const open = has.has('contact does not touch') && happens(0.85);
  const stop = has.has('stop lever on');
  // What draws more empties its cell the sooner.
  const thirst = 1 + (creepUA + Math.min(shortUA, 50)) / 3 + (oil > 1.4 ? 0.3 : 0);
  const left = Math.min(
    1,
    Math.max(0, (1 - uniform() * 1.12 * Math.min(thirst, 2.2)) * (happens(0.02) ? 0.1 : 1)),
  );
  const keeps = charges && happens(0.22) ? about(0.12, 0.6) : 1;
  const filled = charges ? (happens(0.2) ? about(0.01, 0.8) : between(0.2, 1)) * keeps : left;
  if (keeps < 0.35) has.add('tired accumulator');
  else if (charges && filled < 0.125) has.add('merely discharged');
  if (!charges && left < 0.05) has.add('spent cell');
  return {
    charges,
    hands,
    reset,
    has,
    alkaline,
    friction: oil * drag,
    jams,
    coilRatio,
    creepUA,
    shortUA,
    chip,
    open,
    stop,
    filled,
    keeps,
    // It is caught for good, or comes and goes.
    touchesNow: happens(0.5),
    jamsNow: happens(0.75),
    signals: happens(0.6),
    restsAt: uniform(),
  };
}
type InUse = ReturnType<typeof inUse>;

/** Volts of what is in it, without a load, in parts of a fresh one’s. */
function rest({ charges, alkaline, filled, restsAt }: InUse): number {
  if (charges) return filled < 0.05 ? 0.45 + 8 * filled : 0.86 + 0.12 * filled;
  if (alkaline) return filled < 0.05 ? 0.55 + 5 * filled : 0.87 + 0.14 * filled;
  // Silver oxide falls all at once; a few recover without a load, and read well.
  return filled < 0.05 ? (restsAt < 0.12 ? 0.95 : 0.5 + 7 * filled) : 0.965 + 0.035 * filled;
}
const underLoad = (watch: InUse): number =>
  rest(watch) * (watch.filled < 0.05 ? 0.75 : 0.985 - 0.02 / (watch.filled + 0.1));

const isPowered = (watch: InUse): boolean =>
  (!watch.open || watch.touchesNow === false) && watch.shortUA < 300;
const needs = ({ friction, coilRatio }: InUse): number =>
  (0.58 * friction ** 0.55) / Math.min(1, coilRatio) ** 0.5;

function shows(watch: InUse): string {
  const powered = watch.open ? false : watch.shortUA < 300;
  if (!watch.hands) {
    if (!powered || underLoad(watch) < 0.6 || watch.chip === 'silent') return 'dead';
    return watch.has.has('reset contact not used') || watch.chip === 'garbled' ? 'scrambled' : 'runs';
  }
  if (watch.has.has('reset contact not used') && happens(0.5)) return 'dead';
  if (!powered || watch.stop || watch.chip !== null || watch.coilRatio === Number.POSITIVE_INFINITY)
    return 'dead';
  if (watch.jams && watch.jamsNow) return 'dead';
  if (underLoad(watch) < needs(watch)) return 'dead';
  return watch.signals && rest(watch) < 0.875 ? 'in twos or fours' : 'runs';
}

function current(watch: InUse): string {
  if (watch.open && happens(0.95)) return 'nothing';
  if (happens(0.02)) return 'nothing';
  const still = watch.stop || watch.coilRatio === Number.POSITIVE_INFINITY || watch.chip === 'silent';
  const pulses = watch.hands ? (still ? 0 : 0.7) : 0;
  const longer =
    watch.friction > 1.35 || watch.jams ? Math.min(2.6, watch.friction ** 0.9 * (watch.jams ? 1.7 : 1)) : 1;
  const base = watch.hands ? 0.3 : 1;
  const drawnUA =
    base * (watch.chip === 'hungry' ? between(3, 20) : 1) +
    (pulses * longer) / Math.min(1, watch.coilRatio === Number.POSITIVE_INFINITY ? 1 : watch.coilRatio) +
    watch.creepUA +
    watch.shortUA;
  // Typical by the book is 1 µA, its limit half as much again; both are off by a little.
  const typical = about(1, 0.1);
  const ratio = about(drawnUA, 0.04) / typical;
  if (ratio > 4.5) return 'far over the limit';
  if (ratio > 1.5) return 'over the limit';
  return ratio < 0.45 ? 'next to nothing' : 'as it should';
}

const sign = (there: boolean, found: number, falsely: number): string =>
  happens(there ? found : falsely) ? 'there' : 'absent';

function lookAt(watch: InUse, observable: string, seen: (of: string) => string): string {
  const { has } = watch;
  const wet = watch.creepUA > 0;
  const corroded = has.has('contact does not touch');
  switch (observable) {
    case 'shows':
      return shows(watch);
    case 'crown':
      return watch.stop
        ? sign(true, 0.93, 0) === 'there'
          ? 'pulled'
          : 'home'
        : happens(0.025)
          ? 'pulled'
          : 'home';
    case 'pulses': {
      const magnetic =
        watch.hands &&
        isPowered(watch) &&
        !watch.stop &&
        watch.chip === null &&
        Number.isFinite(watch.coilRatio) &&
        underLoad(watch) > 0.55;
      return happens(magnetic ? 0.93 : 0.05) ? 'there' : 'none';
    }
    case 'atFitting':
      return watch.shortUA > 1000
        ? happens(0.95)
          ? 'voltage collapses'
          : 'voltage holds'
        : happens(0.015)
          ? 'voltage collapses'
          : 'voltage holds';
    case 'rest': {
      const read = rest(watch) + 0.008 * normal();
      return read < (watch.charges ? 0.87 : watch.alkaline ? 0.85 : 0.93)
        ? 'spent'
        : read < (watch.charges ? 0.92 : 0.985)
          ? 'falling'
          : 'fresh';
    }
    case 'load':
      return underLoad(watch) + 0.012 * normal() < 0.88 ? 'sags' : 'holds';
    case 'current':
      return current(watch);
    case 'stopped':
      return about((watch.chip === 'hungry' ? 3 : 0.3) + watch.creepUA + watch.shortUA, 0.1) > 0.55
        ? 'over'
        : 'as it should';
    case 'coil': {
      if (watch.coilRatio === Number.POSITIVE_INFINITY) return happens(0.94) ? 'open' : 'suspect';
      const read = about(watch.coilRatio, 0.03);
      if (happens(0.008)) return 'open';
      return read < 0.75 ? 'shorted' : Math.abs(read - 1) > 0.1 ? 'suspect' : 'good';
    }
    case 'lowest':
      return needs(watch) + 0.03 * normal() > 0.72 ? 'late' : 'good';
    case 'rate': {
      const slips =
        underLoad(watch) < needs(watch) * 1.15 || (watch.jams && happens(0.6)) || watch.friction > 2.3;
      return happens(slips ? 0.75 : 0.06) ? 'off' : 'good';
    }
    case 'reset':
      return has.has('reset contact not used')
        ? happens(0.92)
          ? 'not used'
          : 'used'
        : happens(0.82)
          ? 'used'
          : 'not used';
    case 'crust or bloom':
      return sign(wet, 0.6, corroded ? 0.2 : 0.04);
    case 'damp or rust':
      return sign(wet, 0.3, corroded ? 0.12 : 0.03);
    case 'fluff at the rotor':
      return sign(has.has('mechanical'), 0.35, has.has('old oil and dirt') ? 0.15 : 0.05);
    case 'loose screw':
      return sign(has.has('mechanical'), 0.12, 0.03);
    case 'insulator missing':
      return sign(watch.shortUA > 0, 0.42, 0.02);
    case 'contact bent':
      return sign(corroded || watch.shortUA > 0, 0.38, 0.03);
    case 'contact oxidised':
      return sign(corroded, 0.5, wet ? 0.3 : 0.06);
    case 'cell inverted':
      return sign(watch.shortUA > 0, 0.12, 0.004);
    case 'arm touching the rotor':
      return sign(has.has('mechanical'), 0.2, 0.012);
    case 'after a charge': {
      const stands = shows({ ...watch, filled: Math.min(1, watch.keeps) }) === 'dead';
      if (stands) return 'does not run';
      if (watch.keeps < 0.35)
        return watch.keeps < 0.04 ? 'does not run' : happens(0.7) ? 'low-supply steps' : 'steps normally';
      return happens(0.95) ? 'steps normally' : 'low-supply steps';
    }
    case 'display fades':
      return sign(!watch.hands && watch.filled < 0.08, 0.6, 0.02);
    case 'light or alarm fails first':
      return sign(watch.filled < 0.05, 0.15, 0.02);
    case 'does not hold its charge':
      return sign(watch.keeps < 0.35, 0.55, watch.charges && watch.filled < 0.05 ? 0.15 : 0.03);
    case 'loses time':
      return sign(seen('rate') === 'off', 0.4, 0.04);
    case 'fog under the crystal':
      return sign(wet, 0.22, 0.02);
    default:
      throw new Error(`nobody knows how ${observable} comes out`);
  }
}

/** A watch that was brought: it fails, or its owner wants it looked at. */
function made(): Ailing {
  if (brought % WATCHES_A_SHOP === 0) nextShop();
  brought += 1;
  for (;;) {
    const watch = inUse();
    const known = new Map<string, string>();
    const look = (observable: string): string => {
      const was = known.get(observable);
      if (was !== undefined) return was;
      const came = lookAt(watch, observable, look);
      known.set(observable, came);
      return came;
    };
    const fails = look('shows') !== 'runs' || look('rate') === 'off';
    if (!fails && !happens(0.06)) continue;
    return {
      faults: [...watch.has],
      look,
      question: {
        observed: new Map(),
        freshCell: false,
        changedLately: false,
        charges: watch.charges,
        lowSupplySignal: happens(0.6) ? 'it steps in twos' : null,
        hasReset: happens(0.6) ? watch.reset : null,
        hasHands: watch.hands,
        stepIntervalS: 1,
        watchedSeconds: 60,
        originalMatters: false,
        priceOf: () => 1000,
      },
    };
  }
}

if (!assess('of volts, ohms and friction', 3000, drawing, made)) process.exitCode = 1;
