/**
 * Leak tests as a tester would record them, made here from the law of viscous flow by small steps. Nothing of the core takes
 * part: neither its constants nor its creep.
 */
let seed = 71_003_507;
/** Park and Miller's minimal generator, 0 to 1. */
export const chance = (): number => {
  seed = (seed * 48_271) % 2_147_483_647;
  return seed / 2_147_483_647;
};
export const restart = (from: number): void => {
  seed = from;
};
export const between = (from: number, to: number): number => from + (to - from) * chance();
export const logBetween = (from: number, to: number): number =>
  Math.exp(between(Math.log(from), Math.log(to)));
export const normal = (): number => Math.sqrt(-2 * Math.log(chance())) * Math.cos(2 * Math.PI * chance());

export const SETTLINGS = ['at once', 'in seconds', 'in minutes'] as const;
export type Settling = (typeof SETTLINGS)[number];

export interface Asked {
  readonly watchS: number;
  readonly settling: Settling;
  readonly recovery: boolean;
  readonly drift: 'straight' | 'bending';
  readonly correlated: boolean;
  readonly overBar?: number;
  readonly ofLimit?: number;
  readonly noiseShare?: number;
  readonly volumeCm3?: number;
}

export interface MadeTest {
  readonly watchS: number;
  readonly volumeCm3: number;
  /** What is told of the volume, and the factor 95 of 100 lie within. */
  readonly toldCm3: number;
  readonly toldFactor: number;
  readonly ugPerMin: number;
  readonly overBar: number;
  readonly noiseShare: number;
  readonly driftUmPerS: number;
  readonly record: { readonly atS: number[]; readonly overBar: number[]; readonly deflectionUm: number[] };
}

const R_AIR = 287.05;
const ALLOWED_KG_PER_S = 50e-9 / 60;
const WARM_K = 296.15;
const TWICE_95 = 1.96;
const H = 0.05;

/** Shares of the deflection that come later, each with its time, s. */
function settles(settling: Settling): (readonly [number, number])[] {
  const quick = (): readonly [number, number] => [logBetween(1, 15), logBetween(0.005, 0.05)];
  if (settling === 'at once') return [];
  if (settling === 'in seconds') return chance() < 0.5 ? [quick()] : [quick(), quick()];
  return [[logBetween(20, 150), logBetween(0.003, 0.03)], quick()];
}

export function makeTest(asked: Asked): MadeTest {
  const volume = asked.volumeCm3 ?? between(0.6, 3);
  const toldFactor = chance() < 0.5 ? 1.1 : 1.5;
  const toldCm3 = volume * Math.exp((normal() * Math.log(toldFactor)) / TWICE_95);
  const ofLimit = asked.ofLimit ?? logBetween(0.05, 20);
  const leak = (ofLimit * ALLOWED_KG_PER_S) / ((volume * 1e-6 * 1e5 * (9 - 1)) / (R_AIR * WARM_K));
  const over = asked.overBar ?? 2;
  const gives = between(4, 40);
  const noiseShare = asked.noiseShare ?? logBetween(0.002, 0.02);
  const goesOn = asked.correlated ? between(0.2, 0.7) : 0;
  const driftUmPerS = (normal() * 0.004 * gives) / 60;
  const [bend, bendS] = asked.drift === 'bending' ? [normal() * 0.015 * gives, between(150, 900)] : [0, 300];
  const ramp = between(1.5, 4);
  const press = 15;
  const vent = press + ramp + 12 + asked.watchS;
  const end = asked.recovery ? vent + 2 + 12 + asked.watchS : vent - 0.5;
  const pressure = (at: number): number =>
    over * Math.max(0, Math.min(1, (at - press) / ramp) - Math.min(1, Math.max(0, (at - vent) / 2)));
  const late = settles(asked.settling);
  const state = late.map(() => 0);
  const atOnce = 1 - late.reduce((sum, [, share]) => sum + share, 0);
  const record: MadeTest['record'] = { atS: [], overBar: [], deflectionUm: [] };
  let inside = 1;
  let noise = normal();
  for (let step = 0; step * H <= end; step += 1) {
    const at = step * H;
    const outside = 1 + pressure(at);
    if (step % 20 === 0) {
      noise = goesOn * noise + Math.sqrt(1 - goesOn ** 2) * normal();
      const pressed = late.reduce(
        (sum, [, share], i) => sum + share * (state[i] ?? 0),
        atOnce * (outside - inside),
      );
      record.atS.push(Math.round(at));
      record.overBar.push(Math.round(1000 * (outside - 1)) / 1000);
      record.deflectionUm.push(
        (gives / over) * pressed +
          driftUmPerS * at +
          bend * (1 - Math.exp(-at / bendS)) +
          noiseShare * gives * noise,
      );
    }
    const middle = 1 + pressure(at + H / 2);
    const slope = (out: number, pressedIn: number): number => leak * (out ** 2 - pressedIn ** 2);
    const first = slope(outside, inside);
    const second = slope(middle, inside + (H / 2) * first);
    const third = slope(middle, inside + (H / 2) * second);
    const fourth = slope(1 + pressure(at + H), inside + H * third);
    const before = inside;
    inside += (H / 6) * (first + 2 * second + 2 * third + fourth);
    const load = middle - (before + inside) / 2;
    late.forEach(([seconds], i) => {
      state[i] = (state[i] ?? 0) + (load - (state[i] ?? 0)) * (1 - Math.exp(-H / seconds));
    });
  }
  return {
    watchS: asked.watchS,
    volumeCm3: volume,
    toldCm3,
    toldFactor,
    ugPerMin: 50 * ofLimit,
    overBar: over,
    noiseShare: noiseShare * gives,
    driftUmPerS,
    record,
  };
}
