import type { BackKind, CrossSize, ToothForm } from '../cases';

export const TIP_FORMS = ['slotted', 'cross-head'] as const;
type TipForm = (typeof TIP_FORMS)[number];

export const BLADE_FORMS = [
  'case knife',
  'blunt blade',
  'hatch key',
  'blunt pin',
  'spring bar tool',
  'pin punch',
] as const;
export type BladeForm = (typeof BLADE_FORMS)[number];

interface Tool {
  readonly id: string;
  /** As it is written on the tool or its drawer. */
  readonly name: string;
  /** What it cost, in minor units of the shop's currency. */
  readonly costMinor: number;
}

/** A wrench for notched backs: two jaws across, or a rear jaw on the handle's axis and two mirrored front jaws. */
export interface Wrench extends Tool {
  readonly jaws: 2 | 3;
  /** Between the centres of the two jaws, or of the front pair. */
  readonly travelMinMm: number;
  readonly travelMaxMm: number;
  /** From the rear jaw to the line through the front pair; null with two jaws. */
  readonly rearMinMm: number | null;
  readonly rearMaxMm: number | null;
  readonly jawWidthsMm: readonly number[];
  readonly pinDiametersMm: readonly number[];
}

/** What opens a back of one pattern: a die for a holder, or a key with a handle of its own. */
export interface OpenerDie extends Tool {
  readonly form: 'die' | 'key';
  readonly flats: number;
  readonly acrossMm: number;
  readonly toothForm: ToothForm;
  /** What carries it; null for a key. */
  readonly shank: string | null;
}

export interface Holder extends Tool {
  readonly holds: 'dies' | 'the case' | 'the movement';
  /** Of a holder for dies. */
  readonly shank: string | null;
  /** What it takes between its jaws; null where that is not limited. */
  readonly fromMm: number | null;
  readonly toMm: number | null;
}

export interface PressDie extends Tool {
  /** Null for a flat die. */
  readonly innerMm: number | null;
  readonly outerMm: number;
  readonly recessMm: number;
  readonly material: 'plastic' | 'metal';
  readonly shank: string;
}

/** A screwdriver: a slotted one by its blade, a cross-head one by its size. */
export interface Driver extends Tool {
  readonly tip: TipForm;
  readonly bladeWidthMm: number | null;
  readonly bladeThicknessMm: number | null;
  readonly crossSize: CrossSize | null;
}

export interface Blade extends Tool {
  readonly form: BladeForm;
  readonly widthMm: number;
}

/** A soft ball that grips a back by friction. */
export interface FrictionBall extends Tool {
  readonly backFromMm: number;
  readonly backToMm: number;
}

/** When a light place gives light. */
export const LIT_WHEN = ['while the shop is open', 'day and night', 'from and to, every day'] as const;

/** A place where watches lie under light, as it was measured. */
export interface LightPlaceTool extends Tool {
  /** Lux where it was measured. */
  readonly lux: number;
  /** How far from the lamp that was; null: daylight, which no distance changes. */
  readonly measuredAtMm: number | null;
  /** How much warmer than the room a case was there after 20 minutes; null: not measured. */
  readonly caseRiseK: number | null;
  readonly lit: (typeof LIT_WHEN)[number];
  /** `HH:mm`, where it is lit from and to every day. */
  readonly litFrom: string | null;
  readonly litTo: string | null;
  /** And again from and to, where the light comes twice a day. */
  readonly litAgainFrom: string | null;
  readonly litAgainTo: string | null;
  /** So many watches lie in its light at once. */
  readonly watches: number;
}

/** When a place gives light, as one says it: `day and night`, `08:00 to 11:00 and 14:00 to 17:00`. */
export function litWhen({
  lit,
  litFrom,
  litTo,
  litAgainFrom,
  litAgainTo,
}: Pick<LightPlaceTool, 'lit' | 'litFrom' | 'litTo' | 'litAgainFrom' | 'litAgainTo'>): string {
  if (litFrom === null) return lit;
  const again = litAgainFrom === null ? '' : ` and ${litAgainFrom} to ${litAgainTo ?? ''}`;
  return `${litFrom} to ${litTo ?? ''}${again}`;
}

/** The records of the tools page, by kind. */
export interface ToolBodies {
  readonly wrench: Wrench;
  readonly openerDie: OpenerDie;
  readonly holder: Holder;
  readonly pressDie: PressDie;
  readonly driver: Driver;
  readonly blade: Blade;
  readonly ball: FrictionBall;
  readonly lightPlace: LightPlaceTool;
}
export type ToolKind = keyof ToolBodies;
export const TOOL_KINDS = [
  'wrench',
  'openerDie',
  'holder',
  'pressDie',
  'driver',
  'blade',
  'ball',
  'lightPlace',
] as const;

/** Everything on this shop's tool board. */
export interface ShopTools {
  readonly wrenches: readonly Wrench[];
  readonly openerDies: readonly OpenerDie[];
  readonly holders: readonly Holder[];
  readonly pressDies: readonly PressDie[];
  readonly drivers: readonly Driver[];
  readonly blades: readonly Blade[];
  readonly balls: readonly FrictionBall[];
  readonly lightPlaces: readonly LightPlaceTool[];
}

/** The board of a shop that has entered none. */
export const NO_TOOLS: ShopTools = {
  wrenches: [],
  openerDies: [],
  holders: [],
  pressDies: [],
  drivers: [],
  blades: [],
  balls: [],
  lightPlaces: [],
};

/** Which tools a new back of a kind is opened with: what was paid for such tools says what the next one costs. */
export function toolsFor(kind: BackKind, tools: ShopTools): readonly { readonly costMinor: number }[] {
  switch (kind) {
    case 'screwed, notched':
    case 'screwed, round holes':
      return tools.wrenches;
    case 'screwed, patterned':
      return tools.openerDies;
    case 'plate on screws':
      return tools.drivers;
    default:
      return tools.blades;
  }
}

interface ToolProblem {
  readonly path: string;
  readonly reason: string;
}
const problem = (wrong: boolean, path: string, reason: string): readonly ToolProblem[] =>
  wrong ? [{ path, reason }] : [];

function judgeWrench(wrench: Wrench): readonly ToolProblem[] {
  const { jaws, travelMinMm, travelMaxMm, rearMinMm, rearMaxMm, jawWidthsMm, pinDiametersMm } = wrench;
  const widest = Math.max(0, ...jawWidthsMm, ...pinDiametersMm);
  return [
    ...problem(
      travelMinMm >= travelMaxMm,
      'travelMaxMm',
      `The jaws open from ${travelMinMm} mm to ${travelMaxMm} mm: the maximum is below the minimum.`,
    ),
    ...problem(
      (jaws === 3) !== (rearMinMm !== null && rearMaxMm !== null),
      'rearMaxMm',
      jaws === 3
        ? 'A wrench with three jaws has a travel of its rear jaw, from and to.'
        : 'A wrench with two jaws has no rear jaw. Leave its travel blank.',
    ),
    ...problem(
      rearMinMm !== null && rearMaxMm !== null && rearMinMm >= rearMaxMm,
      'rearMaxMm',
      'The rear jaw’s travel has its maximum below its minimum.',
    ),
    ...problem(
      jawWidthsMm.length + pinDiametersMm.length === 0,
      'jawWidthsMm',
      'A wrench needs at least one jaw or pin. Enter a width.',
    ),
    ...problem(
      widest >= travelMaxMm,
      'jawWidthsMm',
      `A jaw of ${widest} mm is over the travel of ${travelMaxMm} mm between jaw centres.`,
    ),
  ];
}

/** What contradicts itself in a tool of each kind; each says which measure is at odds with which. */
export const TOOL_JUDGES: {
  readonly [K in ToolKind]: (body: ToolBodies[K]) => readonly ToolProblem[];
} = {
  wrench: judgeWrench,
  openerDie: ({ form, shank }) =>
    problem(
      (form === 'die') !== (shank !== null),
      'shank',
      form === 'die' ? 'A die needs a shank. Enter it.' : 'A key has its own handle. Leave the shank blank.',
    ),
  holder: ({ holds, shank, fromMm, toMm }) => [
    ...problem(
      (holds === 'dies') !== (shank !== null),
      'shank',
      holds === 'dies' ? 'A holder for dies needs a shank. Enter it.' : 'Only a holder for dies has one.',
    ),
    ...problem(
      fromMm !== null && toMm !== null && fromMm >= toMm,
      'toMm',
      'The maximum of the range is below the minimum.',
    ),
  ],
  pressDie: ({ innerMm, outerMm, recessMm }) => [
    ...problem(
      innerMm !== null && innerMm >= outerMm,
      'innerMm',
      `Inside ${innerMm} mm is not less than outside ${outerMm} mm.`,
    ),
    ...problem(innerMm === null && recessMm > 0, 'recessMm', 'A flat die has no recess: 0.'),
  ],
  driver: ({ tip, bladeWidthMm, bladeThicknessMm, crossSize }) => [
    ...problem(
      tip === 'slotted' && (bladeWidthMm === null || bladeThicknessMm === null),
      'bladeWidthMm',
      'A slotted screwdriver needs the width and thickness of its blade.',
    ),
    ...problem(
      (tip === 'cross-head') !== (crossSize !== null),
      'crossSize',
      tip === 'cross-head'
        ? 'A cross-head screwdriver needs a size. Enter it.'
        : 'Only a cross-head one has a cross size.',
    ),
  ],
  blade: () => [],
  ball: ({ backFromMm, backToMm }) =>
    problem(backFromMm >= backToMm, 'backToMm', 'The largest back is smaller than the smallest.'),
  lightPlace: ({ lit, litFrom, litTo, litAgainFrom, litAgainTo }) => [
    ...problem(
      (lit === 'from and to, every day') !== (litFrom !== null && litTo !== null),
      'litFrom',
      lit === 'from and to, every day'
        ? 'Enter from when to when it is lit.'
        : 'Hours are only used with “from and to, every day”. Leave them blank.',
    ),
    ...problem(
      (litAgainFrom === null) !== (litAgainTo === null) || (litAgainFrom !== null && litFrom === null),
      'litAgainFrom',
      litFrom === null
        ? 'Enter the first hours of light before the second.'
        : 'Enter both when it is lit again and until when, or neither.',
    ),
    ...problem(
      litAgainFrom !== null && litTo !== null && litAgainFrom < litTo,
      'litAgainFrom',
      'The second light begins before the first ends: enter them as one.',
    ),
  ],
};
