import type { BackMeasures, CrossSize, ToothForm } from '../cases';
import { figure, type Judged, invalidFigures, invalidLengths, type WorkingLine } from '../judgement';
import type { Driver, Holder, OpenerDie } from '../tools';

export type DieFit = Judged<'fits' | 'no holder' | 'none fits' | 'cannot say'> & {
  readonly die: OpenerDie | null;
  readonly holder: Holder | null;
  /** The die of the neighbouring size, which is the usual mistake. */
  readonly mistake: OpenerDie | null;
};

/** A die is made to go over its back by so much, mm. */
const DIE_PLAY_MM = 0.15;
/** A die this close in size is easily taken for the right one, mm. */
const NEIGHBOUR_MM = 1.5;

type FlatBack = { readonly flatCount: number; readonly acrossMm: number; readonly toothForm: ToothForm };

/** How the dies of the same flats and teeth lie over a back, the closest first. */
function dieWorking(
  { flatCount, toothForm }: FlatBack,
  alike: readonly OpenerDie[],
  over: (die: OpenerDie) => number,
): WorkingLine {
  return {
    what: 'die over the back',
    rule: `same number of flats, teeth of the same form (${toothForm}); across the die − across the back between 0 and ${DIE_PLAY_MM} mm`,
    figures:
      alike.length === 0
        ? `no die of ${flatCount} flats with ${toothForm}`
        : alike
            .slice(0, 4)
            .map((each) => `${each.name} ${figure(each.acrossMm)} (${figure(over(each))})`)
            .join(', '),
    source: 'bench practice',
  };
}

/**
 * Which die or key of the shop goes over a back of so many flats and so much across, both in mm, with teeth of this
 * form: over it by at most 0.15 mm, the closest first, and a die only with a holder of the same shank. The neighbouring
 * size of the same pattern, and the same size with other teeth, are named, since they turn once and round the flats off.
 * Source: bench practice.
 */
export function fitOpenerDie(back: FlatBack, dies: readonly OpenerDie[], holders: readonly Holder[]): DieFit {
  const { flatCount, acrossMm, toothForm } = back;
  const wrong = [
    ...invalidFigures([{ path: 'flatCount', what: 'How many flats', value: flatCount, unit: '', from: 2 }]),
    ...invalidLengths([['acrossMm', 'The flats across', acrossMm]]),
  ];
  if (wrong.length > 0)
    return { verdict: 'cannot say', die: null, holder: null, mistake: null, ...namedAs(wrong) };
  const ofCount = dies.filter((die) => die.flats === flatCount);
  const alike = ofCount
    .filter((die) => die.toothForm === toothForm)
    .sort((a, b) => Math.abs(a.acrossMm - acrossMm) - Math.abs(b.acrossMm - acrossMm));
  const over = (die: OpenerDie): number => die.acrossMm - acrossMm;
  const fitting = alike.filter((die) => over(die) >= -1e-9 && over(die) <= DIE_PLAY_MM + 1e-9);
  const holderOf = (die: OpenerDie): Holder | null =>
    holders.find((holder) => holder.holds === 'dies' && holder.shank === die.shank) ?? null;
  const usable = fitting.find((die) => die.form === 'key' || holderOf(die) !== null);
  const die = usable ?? fitting[0] ?? null;
  const otherTeeth = ofCount.find(
    (each) => each.toothForm !== toothForm && Math.abs(over(each)) <= DIE_PLAY_MM + 1e-9,
  );
  const mistake =
    otherTeeth ??
    alike.find((each) => each !== die && !fitting.includes(each) && Math.abs(over(each)) <= NEIGHBOUR_MM) ??
    null;
  const working = [dieWorking(back, alike, over)];
  const warn = mistake
    ? [
        mistake.toothForm === toothForm
          ? `Not ${mistake.name}, ${figure(mistake.acrossMm)} mm: it looks the same but rounds off the flats.`
          : `Not ${mistake.name}: the same size with ${mistake.toothForm}, which slip and round off the flats.`,
      ]
    : [];
  if (!die) {
    const nearest = alike[0];
    return {
      verdict: 'none fits',
      die: null,
      holder: null,
      mistake,
      reasons: [
        ...warn,
        nearest
          ? `The nearest, ${nearest.name}, is ${figure(Math.abs(over(nearest)))} mm too ${over(nearest) < 0 ? 'small' : 'large'} across the flats. Do not use the nearest size.`
          : `No die of this shop has ${flatCount} flats with ${toothForm}.`,
      ],
      working,
    };
  }
  const holder = die.form === 'key' ? null : holderOf(die);
  if (die.form === 'die' && !holder) {
    return {
      verdict: 'no holder',
      die,
      holder: null,
      mistake,
      reasons: [`${die.name} fits, and no holder of this shop has its shank, ${die.shank ?? ''}.`, ...warn],
      working,
    };
  }
  return {
    verdict: 'fits',
    die,
    holder,
    mistake,
    reasons: [
      `${figure(die.acrossMm)} mm across ${die.flats} flats goes over ${figure(acrossMm)} mm${holder ? `; ${holder.name} has the same shank, ${holder.shank ?? ''}` : ''}.`,
      ...warn,
    ],
    working,
  };
}

export type DriverFit = Judged<'fits' | 'none fits' | 'cannot say'> & { readonly driver: Driver | null };

/** A blade fills this share of the slot's length, and of its width. */
const BLADE_LENGTH = { least: 0.8, most: 1 } as const;
const BLADE_WIDTH = { least: 0.7, most: 0.98 } as const;

type Heads = Pick<BackMeasures, 'screwHead' | 'crossSize' | 'slotLengthMm' | 'slotWidthMm'>;

/** What of the heads is still wanted to choose a driver; heads with a slot measured are slotted. */
export function headsWanted(heads: Heads): readonly (keyof Heads)[] {
  if (heads.screwHead === 'cross-head') return heads.crossSize === null ? ['crossSize'] : [];
  if (heads.slotLengthMm !== null && heads.slotWidthMm !== null) return [];
  return heads.screwHead === null && heads.slotLengthMm === null && heads.slotWidthMm === null
    ? ['screwHead']
    : ['slotLengthMm', 'slotWidthMm'];
}

/** What stands on the heads of a back, as far as a driver has to know it. */
export type DriverQuestion =
  { readonly crossSize: CrossSize } | { readonly lengthMm: number; readonly widthMm: number };

/**
 * Which screwdriver fits the heads. A slot, lengths in mm: the blade 80–100 % as wide as the slot is long, 70–98 % as
 * thick as it is wide; the widest of those that fit. A cross: its own size and no other, and a blade never. A narrow
 * or thin blade raises the slot's edges; a cross of the next size turns out of the head and rounds it. Source: bench
 * practice; cross sizes ISO 8764.
 */
export function chooseDriver(heads: DriverQuestion, drivers: readonly Driver[]): DriverFit {
  return 'crossSize' in heads ? chooseCross(heads.crossSize, drivers) : chooseBlade(heads, drivers);
}

/** What cannot be, as the reasons of an answer that has nothing to show. */
const namedAs = (
  wrong: readonly { readonly reason: string }[],
): { readonly reasons: readonly string[]; readonly working: readonly [] } => ({
  reasons: wrong.map(({ reason }) => reason),
  working: [],
});

function chooseCross(crossSize: CrossSize, drivers: readonly Driver[]): DriverFit {
  const crosses = drivers.filter(({ tip }) => tip === 'cross-head');
  const driver = crosses.find((each) => each.crossSize === crossSize) ?? null;
  return {
    verdict: driver ? 'fits' : 'none fits',
    driver,
    reasons: [
      driver
        ? `Its size ${crossSize} matches the heads.`
        : crosses.length === 0
          ? 'The shop has no cross-head screwdriver, and a flat blade damages a cross.'
          : `The heads are ${crossSize}; the shop has ${crosses.map((each) => `${each.name} (${each.crossSize ?? ''})`).join(', ')}. Do not use the next size.`,
    ],
    working: [
      {
        what: 'tip in the cross',
        rule: 'exactly the size of the heads',
        figures: `${crossSize}: ${crosses.map((each) => each.crossSize).join(', ') || 'none there'}`,
        source: 'ISO 8764 sizes',
      },
    ],
  };
}

function chooseBlade(
  slot: { readonly lengthMm: number; readonly widthMm: number },
  drivers: readonly Driver[],
): DriverFit {
  const wrong = invalidLengths([
    ['lengthMm', 'The slot, its length', slot.lengthMm],
    ['widthMm', 'The slot, its width', slot.widthMm],
  ]);
  if (wrong.length > 0) return { verdict: 'cannot say', driver: null, ...namedAs(wrong) };
  const shares = drivers
    .flatMap((driver) =>
      driver.tip === 'slotted' && driver.bladeWidthMm !== null && driver.bladeThicknessMm !== null
        ? [
            {
              driver,
              widthMm: driver.bladeWidthMm,
              thicknessMm: driver.bladeThicknessMm,
              length: driver.bladeWidthMm / slot.lengthMm,
              width: driver.bladeThicknessMm / slot.widthMm,
            },
          ]
        : [],
    )
    .sort((a, b) => b.length - a.length);
  const within = (share: number, { least, most }: { least: number; most: number }): boolean =>
    share >= least - 1e-9 && share <= most + 1e-9;
  const fit = shares.find((each) => within(each.length, BLADE_LENGTH) && within(each.width, BLADE_WIDTH));
  const nearest = [...shares].sort((a, b) => Math.abs(a.length - 0.9) - Math.abs(b.length - 0.9))[0];
  const whyNot = nearest
    ? within(nearest.length, BLADE_LENGTH)
      ? `${nearest.driver.name} is ${nearest.width > BLADE_WIDTH.most ? 'too thick for' : 'too thin in'} the slot: ${figure(nearest.thicknessMm)} mm in ${figure(slot.widthMm)} mm.`
      : `${nearest.driver.name} is ${nearest.length > BLADE_LENGTH.most ? 'wider than' : 'too narrow for'} the slot: ${figure(nearest.widthMm)} mm in ${figure(slot.lengthMm)} mm.`
    : 'No slotted screwdriver is listed in this shop.';
  return {
    verdict: fit ? 'fits' : 'none fits',
    driver: fit?.driver ?? null,
    reasons: [
      fit
        ? `Its blade of ${figure(fit.widthMm)} × ${figure(fit.thicknessMm)} mm fills the slot of ${figure(slot.lengthMm)} × ${figure(slot.widthMm)} mm.`
        : whyNot,
    ],
    working: [
      {
        what: 'blade in the slot',
        rule: 'blade width 80–100 % of the slot’s length, thickness 70–98 % of its width; the widest that fits',
        figures: shares
          .slice(0, 4)
          .map(
            (each) =>
              `${each.driver.name}: ${figure(each.length * 100, 0)} %, ${figure(each.width * 100, 0)} %`,
          )
          .join('; '),
        source: 'bench practice',
      },
    ],
  };
}
