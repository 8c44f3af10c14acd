import type { Book } from '../core/craft/book';
import {
  CALIPER_SD_MM,
  cellSizes,
  expectedMeasure,
  expectedPick,
  type Look,
  LOOK_NAMES,
  LOOKS,
  pickLikelihood,
  type Seen,
} from '../core/craft/identify';
import { normalFrom, seededUniform } from '../core/craft/life';
import {
  type Calibre,
  CHARACTER_MODEL,
  HOLD_KINDS,
  type Maker,
  SIGNS,
  USUAL_KEEP_CLEAR_MM,
  twinsOf,
  type Well,
} from '../core/craft/movements';

const ALPHABET = [...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
const CELLS = [
  'SR521SW', 'SR616SW', 'SR621SW', 'SR626SW', 'SR716SW', 'SR721SW', 'SR726SW', 'SR916SW', 'SR920SW', 'SR927SW', 'SR936SW', 'SR1120SW', 'SR1130SW', 'CR1216', 'CR1220', 'CR1616', 'CR1620', 'CR2016', 'CR2025', 'CR2032',
] as const; // prettier-ignore

type Uniform = () => number;
const pick = <T>(uniform: Uniform, from: readonly T[]): T => from[Math.floor(uniform() * from.length)] as T;
const between = (uniform: Uniform, from: number, to: number): number => from + uniform() * (to - from);
const tenth = (mm: number): number => Math.round(mm * 10) / 10;

/** Makers with a code pattern each that exist nowhere: `XA dddd`, `XB ddd-d` and the like. */
export function inventedMakers(count: number): Maker[] {
  const shapes = ['dddd', 'ddd-d', 'dd.dd', 'ddddl'];
  return Array.from({ length: count }, (_, index) => {
    const letters = `${ALPHABET[10 + (index % 26)]}${ALPHABET[10 + ((index * 7 + Math.floor(index / 26)) % 26)]}`;
    return {
      id: `maker-${index}`,
      name: `Maker ${letters}`,
      sign: SIGNS[index % SIGNS.length] ?? null,
      patterns: [{ meaning: 'movement', template: `${letters} ${shapes[index % shapes.length]}` }],
    };
  });
}

function codeOf(uniform: Uniform, template: string): string {
  return template.replace(/[dl]/g, (cls) =>
    cls === 'd' ? String(Math.floor(uniform() * 10)) : pick(uniform, ALPHABET.slice(10)),
  );
}

/** What no look tells of a calibre. */
const NOTHING_ELSE = {
  family: '',
  shopsOwn: false,
  printed: [],
  contacts: [],
  keepClearMm: USUAL_KEEP_CLEAR_MM,
  insulators: [],
  recipes: [],
  aboveCell: [],
  revisions: [],
  charge: null,
  lowSupplySignal: null,
  typicalUA: 1,
  limitUA: 1.6,
  lowestV: 1.2,
  functionDraws: [],
  resetContact: null,
  dateQuickSet: false,
  dayQuickSet: false,
  changeOver: null,
  lightTimes: [],
  dayIs: null,
  goodToFactor: null,
  rotor: null,
  crownPositions: [],
  cautions: [],
} as const;

/** Calibres that exist nowhere, each with its own code; what is built together goes together, as in life. */
export function inventedCalibres(count: number, makers: readonly Maker[], seed: number): Calibre[] {
  const uniform = seededUniform(seed);
  const codes = new Set<string>();
  return Array.from({ length: count }, (_, index) => {
    const maker = pick(uniform, makers);
    const template = maker.patterns[0]?.template ?? 'dddd';
    let code = codeOf(uniform, template);
    while (codes.has(code)) code = codeOf(uniform, template);
    codes.add(code);
    const round = uniform() < 0.75;
    const digital = uniform() < 0.12;
    const widthMm = tenth(between(uniform, 9, 32));
    const lengthMm = round ? widthMm : tenth(widthMm * between(uniform, 1.05, 1.4));
    const around = uniform() * 2 * Math.PI;
    const reach = round ? widthMm / 4 : widthMm / 6;
    const well: Well = {
      name: 'main',
      xMm: Math.sin(around) * reach,
      yMm: Math.cos(around) * reach,
      cellCode: pick(uniform, CELLS),
      otherHeightsMm: [],
      faceUp: '+',
      heldBy: pick(uniform, HOLD_KINDS),
      pushDegrees: Math.floor(uniform() * 360),
      feeds: [],
      typicalUA: null,
      limitUA: null,
    };
    const chronograph = !digital && uniform() < 0.1;
    const date = !digital && uniform() < 0.5;
    const seconds = !digital && uniform() < 0.8;
    return {
      ...NOTHING_ELSE,
      id: `calibre-${index}`,
      makerId: maker.id,
      code,
      formerCodes: [],
      shape: round ? 'round' : 'oblong',
      widthMm,
      lengthMm,
      heightMm: Math.round(between(uniform, 1.8, 5.6) * 20) / 20,
      jewels: pick(uniform, [0, 0, 1, 2, 3, 4, 5, 6, 7, 8]),
      dial: digital
        ? [{ shows: 'display', clock: null }]
        : [
            ...(seconds ? [{ shows: 'seconds' as const, clock: chronograph ? 6 : null }] : []),
            ...(date ? [{ shows: 'date' as const, clock: pick(uniform, [3, 3, 3, 4.5, 6]) }] : []),
            ...(chronograph ? [{ shows: 'counter' as const, clock: 9 }] : []),
          ],
      wells: [well],
      coils: Array.from({ length: digital ? 0 : chronograph ? 2 : 1 }, () => ({
        xMm: 0,
        yMm: 0,
        lengthMm: 8,
        widthMm: 2,
        degrees: 0,
      })),
      functions: digital ? ['digital display'] : ['hands'],
      stepIntervalS: digital ? null : seconds ? 1 : pick(uniform, [5, 10, 20, 60]),
      coilMinKOhm: digital ? null : 1.5,
      coilMaxKOhm: digital ? null : 2.2,
    };
  });
}

/** A code as worn engraving shows it, by the character model; `wornShare` of its places cannot be read at all. */
export function wornCode(code: string, uniform: Uniform, wornShare: number): string {
  const seen: string[] = [];
  const extra = (): void => {
    if (uniform() < CHARACTER_MODEL.extra) seen.push(pick(uniform, ALPHABET));
  };
  for (const character of code.toUpperCase().replace(/[^A-Z0-9]/g, '')) {
    extra();
    if (uniform() < CHARACTER_MODEL.missing) continue;
    if (uniform() < wornShare) {
      seen.push('?');
      continue;
    }
    const twins = twinsOf(character);
    const chance = uniform();
    if (chance < CHARACTER_MODEL.right) seen.push(character);
    else if (twins.length > 0 && chance < CHARACTER_MODEL.right + CHARACTER_MODEL.twin)
      seen.push(pick(uniform, twins));
    else
      seen.push(
        pick(
          uniform,
          ALPHABET.filter((each) => each !== character && !twins.includes(each)),
        ),
      );
  }
  extra();
  return seen.join('');
}

/** How often a technician has each look to hand when a movement lies open. */
const TO_HAND: Readonly<Partial<Record<Look, number>>> = {
  mark: 0.5,
  sign: 0.4,
  shape: 0.8,
  widthMm: 0.7,
  lengthMm: 0.5,
  heightMm: 0.4,
  seconds: 0.8,
  date: 0.8,
  counters: 0.4,
  coils: 0.6,
  cellAt: 0.8,
  heldBy: 0.8,
  cellDiameterMm: 0.6,
  cellHeightMm: 0.6,
  jewels: 0.3,
  step: 0.5,
};

function misreadPick(look: Look, values: readonly string[], truth: string, uniform: Uniform): string {
  const at = values.indexOf(truth);
  let left = uniform();
  for (const [seen, value] of values.entries()) {
    left -= pickLikelihood(look, values, at, seen);
    if (left <= 0) return value;
  }
  return truth;
}

/** What a technician sees of a movement, with the errors of caliper, eye and wear; each look only now and then; `richness` under 1 makes them fewer. */
export function observe(
  calibre: Calibre,
  book: Pick<Book, 'maker' | 'cell'>,
  uniform: Uniform,
  richness = 1,
): Seen[] {
  const cellSize = cellSizes(book);
  return LOOK_NAMES.flatMap((look): Seen[] => {
    if (uniform() >= richness * (TO_HAND[look] ?? 0)) return [];
    const spec = LOOKS[look];
    // Nobody measures a round movement twice.
    if (look === 'lengthMm' && calibre.shape === 'round') return [];
    if (look === 'mark' || look === 'engraving')
      return [{ look, value: wornCode(calibre.code, uniform, 0.08), withinMm: 0 }];
    if (spec.as === 'mm') {
      const mm = expectedMeasure(calibre, look, cellSize);
      if (mm === null) return [];
      const value =
        uniform() < spec.slip
          ? between(uniform, spec.min, spec.max)
          : mm + normalFrom(uniform) * CALIPER_SD_MM;
      return [{ look, value: Math.round(value * 100) / 100, withinMm: 0 }];
    }
    if (spec.as !== 'pick') return [];
    const [truth] = expectedPick(calibre, look, book.maker(calibre.makerId)?.sign ?? null) ?? [];
    return truth === undefined
      ? []
      : [{ look, value: misreadPick(look, spec.values, truth, uniform), withinMm: 0 }];
  });
}
