import {
  bestRings,
  fitGasket,
  type Groove,
  likeliestRings,
  sectionsLeft,
  wornRing,
} from '../src/core/craft/gaskets';

/**
 * Rings against rings that are made here: a body of rubber with its volume, drawn over a wall and pressed by a lid, and
 * measured with a caliper that errs. Nothing of the core makes them. Then the whole assortment judged for a key, against
 * sorting as many figures.
 */
let seed = 20_260_317;
/** Park and Miller's minimal generator, 0 to 1. */
const chance = (): number => {
  seed = (seed * 48_271) % 2_147_483_647;
  return seed / 2_147_483_647;
};
const between = (from: number, to: number): number => from + (to - from) * chance();
const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** The section of a ring after it was drawn out, by its volume as a whole: π² / 4 × section² × mean diameter. */
function drawn(inside: number, section: number, overInside: number): number {
  const volume = section ** 2 * (inside + section);
  let guess = section;
  for (let turn = 0; turn < 60; turn += 1) guess = Math.sqrt(volume / (overInside + guess));
  return guess;
}

/** The width of a ring pressed to a height: the same area, in a body with round ends, found by halving. */
function pressedWidth(section: number, height: number): number {
  const area = Math.PI * (section / 2) ** 2;
  let [least, most] = [height, 20];
  for (let turn = 0; turn < 80; turn += 1) {
    const width = (least + most) / 2;
    const covered = height * (width - height) + Math.PI * (height / 2) ** 2;
    if (covered < area) least = width;
    else most = width;
  }
  return (least + most) / 2;
}

const ROUNDS = 4000;
let worstSqueeze = 0;
let heldSections = 0;
let firstIsTrue = 0;
let setHeld = 0;
let setSaid = 0;
let kind = 0;
const STOCKED = Array.from({ length: 19 }, (_, at) => Number((0.3 + at * 0.05).toFixed(2)));
for (let round = 0; round < ROUNDS; round += 1) {
  const section = STOCKED[4 + Math.floor(chance() * 13)] ?? 0.7;
  const inside = between(16, 36);
  const stretch = between(0.01, 0.05);
  const wall = inside * (1 + stretch);
  const lying = drawn(inside, section, wall);
  const depth = lying * (1 - between(0.16, 0.29));
  const groove: Groove = {
    innerMm: wall,
    outerMm: wall + 2 * lying * between(1.15, 1.5),
    depthMm: depth,
    stepMm: 0,
    seat: 'inner wall',
    depthWithinMm: 0.03,
  };
  const fit = fitGasket(
    { profile: 'round', insideMm: inside, sectionMm: section, widthMm: null, sectionWithinMm: 0.03 },
    groove,
  );
  worstSqueeze = Math.max(worstSqueeze, Math.abs(fit.squeeze.percent - 100 * (1 - depth / lying)));
  // The same ring after years: part of its squeeze has stayed; the caliper errs on rubber.
  const kept = chance();
  const height = lying - (lying - depth) * kept;
  const measuredHeight = height + between(-0.02, 0.02);
  const measuredWidth = Math.max(measuredHeight, pressedWidth(lying, height) + between(-0.03, 0.03));
  const worn = wornRing({
    heightMm: measuredHeight,
    widthMm: measuredWidth,
    profile: 'round',
    groove,
    sectionOfTypeMm: null,
  });
  const left = sectionsLeft(STOCKED, worn);
  if (left.includes(section)) heldSections += 1;
  if (left[0] === section) firstIsTrue += 1;
  if (worn.set !== null) {
    setSaid += 1;
    if (kept >= worn.set.from && kept <= worn.set.to) setHeld += 1;
  }
  if (worn.verdict === 'springy' && kept > 0.4) kind += 1;
}
console.log(
  `Squeeze: at most ${worstSqueeze.toFixed(2)} percentage points from a ring by its whole volume, ${ROUNDS} rings.`,
);
console.log(
  `Worn rings: the true section is among those left for ${percent(heldSections / ROUNDS)}, first of them for ${percent(firstIsTrue / ROUNDS)}; its set within the range told for ${percent(setHeld / Math.max(1, setSaid))} of ${setSaid}; called springy over 40 % set: ${percent(kind / ROUNDS)}.`,
);

/** A drawer as shops have it: every section in every half millimetre of inside. */
const DRAWER = [0.5, 0.6, 0.7, 0.8, 0.9, 1].flatMap((sectionMm) =>
  Array.from({ length: 45 }, (_, at) => ({
    size: {
      profile: 'round' as const,
      insideMm: 14 + at / 2,
      sectionMm,
      widthMm: null,
      sectionWithinMm: 0.03,
    },
  })),
);
/** Two standard deviations of a caliper on rubber: of the sum of three even chances. */
const erring = (within: number): number => (within * (chance() + chance() + chance() - 1.5)) / 0.75;
const found = { 'inside and section': 0, 'outside and section': 0, 'inside and outside': 0 };
let firstRight = 0;
for (let round = 0; round < ROUNDS; round += 1) {
  const ring = DRAWER[Math.floor(chance() * DRAWER.length)];
  if (!ring) throw new Error('no ring');
  const { insideMm, sectionMm } = ring.size;
  // Of its stretch in the groove it keeps up to a half for good.
  const lying = insideMm * (1 + between(0.01, 0.05) * between(0, 0.5));
  const thinned = drawn(insideMm, sectionMm, lying);
  const height = thinned * (1 - 0.3 * between(0, 1));
  const width = pressedWidth(thinned, height);
  const seen = {
    insideMm: lying + erring(0.1),
    outsideMm: lying + 2 * width + erring(0.1),
    heightMm: height + erring(0.05),
    widthMm: 0,
  };
  seen.widthMm = Math.max(seen.heightMm, width + erring(0.05));
  const none = { insideMm: null, outsideMm: null, heightMm: null, widthMm: null, profile: 'round' as const };
  const section = { heightMm: seen.heightMm, widthMm: seen.widthMm };
  const asked: Record<keyof typeof found, Parameters<typeof likeliestRings>[0]> = {
    'inside and section': { ...none, ...section, insideMm: seen.insideMm },
    'outside and section': { ...none, ...section, outsideMm: seen.outsideMm },
    'inside and outside': { ...none, insideMm: seen.insideMm, outsideMm: seen.outsideMm },
  };
  for (const [how, measures] of Object.entries(asked)) {
    const { rings } = likeliestRings(measures, DRAWER);
    if (rings.some((each) => each.ring === ring)) found[how as keyof typeof found] += 1;
    if (how === 'inside and section' && rings[0]?.ring === ring) firstRight += 1;
  }
}
console.log(
  `Whole rings from the caliper alone, ${DRAWER.length} in the drawer: the true one among three by ${Object.entries(
    found,
  )
    .map(([how, count]) => `${how} ${percent(count / ROUNDS)}`)
    .join(', ')}; first by inside and section ${percent(firstRight / ROUNDS)}.`,
);

const RINGS = 5000;
const assortment = Array.from({ length: RINGS }, () => ({
  size: {
    profile: 'round' as const,
    insideMm: between(8, 42),
    sectionMm: between(0.3, 1.6),
    widthMm: null,
    sectionWithinMm: 0.03,
  },
}));
const KEYS = 300;
const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const ours: number[] = [];
const yardstick: number[] = [];
for (let key = 0; key < KEYS; key += 1) {
  const groove: Groove = {
    innerMm: between(12, 38),
    outerMm: 0,
    depthMm: between(0.4, 1),
    stepMm: 0,
    seat: key % 2 === 0 ? 'inner wall' : 'outer wall',
    depthWithinMm: 0.03,
  };
  const typed = { ...groove, outerMm: groove.innerMm + between(1.4, 3) };
  let began = performance.now();
  bestRings(assortment, typed, 4);
  ours.push(performance.now() - began);
  const figures = assortment.map(({ size }) => ({ figure: size.insideMm * typed.innerMm }));
  began = performance.now();
  [...figures].sort((a, b) => a.figure - b.figure);
  yardstick.push(performance.now() - began);
}
console.log(
  `An assortment of ${RINGS} judged for a key: ${middle(ours).toFixed(2)} ms, ${(middle(ours) / middle(yardstick)).toFixed(2)} × sorting as many figures (aim at most 3).`,
);
if (middle(ours) > 3 * middle(yardstick) || worstSqueeze > 1 || heldSections < 0.98 * ROUNDS)
  process.exitCode = 1;
