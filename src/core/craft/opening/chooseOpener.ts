import { figure, type Judged } from '../judgement';
import type { Blade, BladeForm, FrictionBall, ShopTools } from '../tools';
import {
  backs,
  clockWords,
  contradictions,
  type MeasuredBack,
  panelLayers,
  type PanelHeldBy,
  pitchCircleMm,
  prySpot,
  type PrySpot,
  type PryQuestion,
  workedFrom,
} from '../cases';
import { chooseDriver, type DriverQuestion, fitOpenerDie, headsWanted } from './fitTools';
import { jawSetting, type JawSetting } from './jawSetting';
export interface SettingLine {
  readonly what: string;
  readonly value: string;
}

export type OpenerChoice = Judged<
  'opens with' | 'with care' | 'not yet known' | 'refer or buy' | 'impossible'
> & {
  /** The tool by name, or what kind of tool it takes. */
  readonly opener: string;
  /** The tools of this shop it takes, the opener first. */
  readonly toolIds: readonly string[];
  /** What is set, in the order the hands do it. */
  readonly settings: readonly SettingLine[];
  readonly jaws: JawSetting | null;
  readonly spot: PrySpot | null;
  /** A ball that spins the back off once the wrench has loosened it. */
  readonly spinOff: FrictionBall | null;
  /** Measures that would let it answer. */
  readonly wanted: readonly (keyof MeasuredBack)[];
  /** What would have to be bought, where nothing of the shop's opens it. */
  readonly toBuy: string | null;
};

/** Whether it is opened here, be it with care. */
export function opens({ verdict }: Pick<OpenerChoice, 'verdict'>): boolean {
  return verdict === 'opens with' || verdict === 'with care';
}

const NONE = {
  toolIds: [],
  settings: [],
  jaws: null,
  spot: null,
  spinOff: null,
  wanted: [],
  toBuy: null,
  reasons: [],
  working: [],
} as const;

interface Question extends Pick<PryQuestion, 'crownClock' | 'noCrown'> {
  readonly back: MeasuredBack;
  readonly tools: ShopTools;
}

/** What is asked about where a tool goes in at the rim of this back. */
export function pryQuestion({ back, crownClock, noCrown }: Omit<Question, 'tools'>): PryQuestion {
  const { kind, lipClock, pusherClocks, seenFrom } = back;
  return { from: workedFrom(kind), crownClock, noCrown, lipClock, pusherClocks, seenFrom };
}

/** What undoes each way of holding a panel, and what the hand minds. */
const PANEL_WAYS: Readonly<
  Record<
    PanelHeldBy,
    { readonly forms: readonly BladeForm[]; readonly setting: SettingLine; readonly reason: string }
  >
> = {
  catches: {
    forms: ['blunt pin'],
    setting: { what: 'Catches', value: 'release one after another, starting at the side with the nick' },
    reason: 'Use a blunt pin, and rest your hand on the bench so that it cannot slip.',
  },
  'sliding lock': {
    forms: [],
    setting: { what: 'Lock', value: 'slide it to open before you press on the panel' },
    reason:
      'Slide the lock with your thumbs. If it is stiff, rest your hand on the bench and push the lock with a blunt pin. Do not pry at the panel while it is locked: the edge of the panel breaks.',
  },
  adhesive: {
    forms: ['blunt blade'],
    setting: { what: 'Adhesive', value: 'warm it with your hand, then lift it from one corner' },
    reason: 'The adhesive has to hold again. Cover it so that no dust sticks to it, or renew it.',
  },
};

/**
 * What opens this back, from this shop's tools, and how it is set. `not yet known` names the measures still wanted;
 * `with care` opens, but tips; `refer or buy` says what is missing and by how much; `impossible` names measures that
 * contradict each other. Source: bench practice and the geometry of `jawSetting`.
 */
export function chooseOpener(question: Question): OpenerChoice {
  const { back, tools } = question;
  const general = backs[back.kind].opener;
  const problems = contradictions(back);
  if (problems.length > 0) {
    return {
      ...NONE,
      verdict: 'impossible',
      opener: 'Measure again',
      reasons: problems.map(({ reason }) => reason),
    };
  }
  const unknown = (wanted: readonly (keyof MeasuredBack)[], reason: string): OpenerChoice => ({
    ...NONE,
    verdict: 'not yet known',
    opener: general,
    wanted,
    reasons: [reason],
  });
  switch (back.kind) {
    case 'screwed, notched':
    case 'screwed, round holes':
      return byWrench(back, tools, unknown);
    case 'screwed, patterned': {
      const { flatCount, acrossMm, toothForm } = back;
      if (flatCount === null || acrossMm === null)
        return unknown(['flatCount', 'acrossMm'], 'Count the flats and measure across them.');
      if (toothForm === null)
        return unknown(
          ['toothForm'],
          'See what the teeth meet: flat facets, square or rounded teeth. A die of the same size with other teeth does not fit.',
        );
      const fit = fitOpenerDie({ flatCount, acrossMm, toothForm }, tools.openerDies, tools.holders);
      if (fit.verdict !== 'fits' || !fit.die)
        return {
          ...NONE,
          verdict: 'refer or buy',
          opener: 'No die of this shop',
          reasons: fit.reasons,
          working: fit.working,
          toBuy:
            fit.verdict === 'no holder'
              ? `a holder for the shank ${fit.die?.shank ?? ''}`
              : `a die of ${flatCount} flats, ${figure(acrossMm)} mm across, ${toothForm}`,
        };
      return {
        ...NONE,
        verdict: 'opens with',
        opener: fit.holder ? `${fit.die.name} in ${fit.holder.name}` : fit.die.name,
        toolIds: [fit.die.id, ...(fit.holder ? [fit.holder.id] : [])],
        settings: fit.holder
          ? [
              { what: 'Die', value: `${fit.die.name}, ${figure(fit.die.acrossMm)} mm` },
              { what: 'Holder', value: `${fit.holder.name}, shank ${fit.holder.shank ?? ''}` },
            ]
          : [{ what: 'Key', value: `${fit.die.name}, ${figure(fit.die.acrossMm)} mm` }],
        reasons: fit.reasons,
        working: fit.working,
      };
    }
    case 'plate on screws': {
      const { slotLengthMm, slotWidthMm, crossSize, screwHead } = back;
      const wanted = headsWanted(back);
      if (wanted.length > 0)
        return unknown(
          wanted,
          wanted[0] === 'screwHead'
            ? 'See the heads: slotted, or cross-head?'
            : wanted[0] === 'crossSize'
              ? 'Which size of cross fills the heads?'
              : 'Measure the slot of a screw, length and width.',
        );
      const heads: DriverQuestion =
        screwHead === 'cross-head' && crossSize !== null
          ? { crossSize }
          : { lengthMm: slotLengthMm ?? 0, widthMm: slotWidthMm ?? 0 };
      const fit = chooseDriver(heads, tools.drivers);
      const size =
        'crossSize' in heads
          ? `for cross-heads ${heads.crossSize}`
          : `for a slot of ${figure(heads.lengthMm)} × ${figure(heads.widthMm)} mm`;
      return fit.driver
        ? {
            ...NONE,
            verdict: 'opens with',
            opener: fit.driver.name,
            toolIds: [fit.driver.id],
            settings: [
              'crossSize' in heads
                ? { what: 'Tip', value: heads.crossSize }
                : {
                    what: 'Blade',
                    value: `${figure(fit.driver.bladeWidthMm ?? 0)} × ${figure(fit.driver.bladeThicknessMm ?? 0)} mm`,
                  },
            ],
            reasons: fit.reasons,
            working: fit.working,
          }
        : {
            ...NONE,
            verdict: 'refer or buy',
            opener: 'No screwdriver of this shop',
            reasons: fit.reasons,
            working: fit.working,
            toBuy: `a screwdriver ${size}`,
          };
    }
    case 'snap-on':
    case 'opens from the front': {
      const spot = prySpot(pryQuestion(question));
      const told = { spot, reasons: spot.reasons, working: spot.working };
      if (spot.clock === null)
        return {
          ...NONE,
          ...told,
          verdict: 'not yet known',
          opener: general,
          wanted: spot.verdict === 'not yet known' ? [] : ['lipClock'],
        };
      return byBlade(tools, ['case knife'], {
        ...told,
        settings: [{ what: 'Knife in at', value: clockWords(spot.clock, spot.from) }],
      });
    }
    case 'battery hatch': {
      const { slotLengthMm, slotWidthMm } = back;
      const opensBy = back.hatchOpens ?? (slotLengthMm === null ? null : 'turned');
      if (opensBy === null)
        return unknown(
          ['hatchOpens'],
          'See how the hatch opens: one with a slot is turned, one with a nick at its edge is pried.',
        );
      if (opensBy === 'pried')
        return byBlade(tools, ['blunt blade', 'case knife'], {
          settings: [
            { what: 'First', value: 'mark which way round it sits' },
            { what: 'Blade', value: 'in at the nick, twisted, never levered over the case' },
          ],
          reasons: ['A nick at its edge and no slot: turned, it would shear its tongue.'],
        });
      const fits = (blade: Blade): boolean => slotLengthMm === null || blade.widthMm <= slotLengthMm;
      return byBlade(
        { ...tools, blades: tools.blades.filter(fits) },
        ['hatch key', 'blunt blade'],
        {
          settings: [{ what: 'First', value: 'mark the angle it stands at' }],
          reasons: [
            slotLengthMm === null
              ? 'Measure the slot to be sure of the blade.'
              : `Slot ${figure(slotLengthMm)} mm${slotWidthMm === null ? '' : ` × ${figure(slotWidthMm)} mm`}: the widest blade that goes in.`,
          ],
        },
        slotLengthMm === null ? '' : ` of at most ${figure(slotLengthMm)} mm`,
      );
    }
    case 'latched panel':
      return panelLayers(back).length === 0
        ? unknown(
            ['panelHeldBy'],
            'See how the panel is held: catches, a sliding lock, adhesive, or several of them.',
          )
        : byLayers(panelLayers(back), tools);
  }
}

/** A panel held by several things: the tool of each, in their order; none of them may be missing. */
function byLayers(layers: readonly PanelHeldBy[], tools: ShopTools): OpenerChoice {
  const each = layers.map((layer) => {
    const { forms, setting, reason } = PANEL_WAYS[layer];
    return { setting, reason, made: forms.length === 0 ? null : byBlade(tools, forms, {}) };
  });
  const lacking = each.find(({ made }) => made !== null && !opens(made))?.made;
  const reasons = each.map(({ reason }) => reason);
  if (lacking) return { ...lacking, reasons: [...lacking.reasons, ...reasons] };
  return {
    ...NONE,
    verdict: 'opens with',
    opener: each.map(({ made }) => made?.opener ?? 'thumbs').join(', then '),
    toolIds: each.flatMap(({ made }) => made?.toolIds ?? []),
    settings: each.map(({ setting }) => setting),
    reasons,
  };
}

function byWrench(
  back: MeasuredBack,
  tools: ShopTools,
  unknown: (wanted: readonly (keyof MeasuredBack)[], reason: string) => OpenerChoice,
): OpenerChoice {
  const { notchCount: count, notchWidthMm: widthMm, notchClocks: clocks } = back;
  const pitchMm = pitchCircleMm(back);
  const holes = back.kind === 'screwed, round holes';
  if (count === null || pitchMm === null || widthMm === null) {
    const odd = count !== null && count % 2 === 1 && clocks.length === 0;
    return unknown(
      [
        ...(count === null ? (['notchCount'] as const) : []),
        ...(pitchMm === null ? [odd ? ('chordMm' as const) : ('pitchMm' as const)] : []),
        ...(widthMm === null ? (['notchWidthMm'] as const) : []),
      ],
      `Wanted: how many ${holes ? 'holes' : 'notches'}, ${odd ? 'from one to the farthest' : 'the circle they stand on'}, and ${holes ? 'the hole' : 'one notch'}.`,
    );
  }
  const jaws = jawSetting({
    count,
    pitchMm,
    widthMm,
    clocks,
    of: holes ? 'holes' : 'notches',
    wrenches: tools.wrenches,
  });
  const ball = ballFor(back, tools.balls);
  const { found } = jaws;
  const settings: SettingLine[] = found
    ? found.choice.rearDistanceMm === null
      ? [
          {
            what: holes ? 'Pins' : 'Jaws',
            value: `${figure(found.jawMm)} mm, ${figure(found.choice.separationMm)} mm apart`,
          },
        ]
      : [
          { what: holes ? 'Pins' : 'Jaws', value: `${figure(found.jawMm)} mm` },
          { what: 'Front pair, first', value: `${figure(found.choice.separationMm)} mm` },
          { what: 'Rear jaw, from the front line', value: `${figure(found.choice.rearDistanceMm)} mm` },
        ]
    : [];
  if (jaws.verdict === 'set' && found) {
    return {
      ...NONE,
      verdict: 'opens with',
      opener: found.wrench.name,
      toolIds: [found.wrench.id],
      settings,
      jaws,
      spinOff: ball,
      reasons: [...jaws.reasons, ...(ball ? [`Loosened, it spins off with ${ball.name}.`] : [])],
      working: jaws.working,
    };
  }
  if (ball && found) {
    return {
      ...NONE,
      verdict: 'with care',
      opener: `${found.wrench.name}, then ${ball.name}`,
      toolIds: [found.wrench.id, ball.id],
      settings: [...settings, { what: 'Ball', value: 'once it is loose: pressed on, spun off' }],
      jaws,
      spinOff: ball,
      reasons: [
        `The notches let a wrench run ${figure(found.choice.offCentreMm)} mm past the centre: it tips. Try ${ball.name} alone first; where that slips, the wrench loosens it with the weight over the jaws, and the ball spins it off.`,
      ],
      working: jaws.working,
    };
  }
  if (ball) {
    return {
      ...NONE,
      verdict: 'with care',
      opener: ball.name,
      toolIds: [ball.id],
      settings: [{ what: 'Ball', value: 'pressed on, turned with the flat of the hand' }],
      jaws,
      reasons: [
        'No wrench reaches and bites. The ball grips a back that is not tight; where it slips, do not go on: refer it.',
      ],
      working: jaws.working,
      toBuy: jaws.wanted,
    };
  }
  return found
    ? {
        ...NONE,
        verdict: 'with care',
        opener: found.wrench.name,
        toolIds: [found.wrench.id],
        settings,
        jaws,
        reasons: jaws.reasons,
        working: jaws.working,
        toBuy: 'a friction ball, or a wrench with three jaws',
      }
    : {
        ...NONE,
        verdict: 'refer or buy',
        opener: 'No wrench of this shop',
        jaws,
        reasons: jaws.reasons,
        working: jaws.working,
        toBuy: jaws.wanted,
      };
}

/** A ball grips a smooth back of a measured size within its range; where the size is not known it grips nothing. */
function ballFor(
  { diameterMm, coating }: Pick<MeasuredBack, 'diameterMm' | 'coating'>,
  balls: readonly FrictionBall[],
): FrictionBall | null {
  if (diameterMm === null || coating === 'plastic') return null;
  return balls.find((ball) => diameterMm >= ball.backFromMm && diameterMm <= ball.backToMm) ?? null;
}

function byBlade(
  tools: ShopTools,
  forms: readonly BladeForm[],
  more: Partial<OpenerChoice>,
  size = '',
): OpenerChoice {
  const blade = forms
    .map((form) =>
      tools.blades
        .filter((each) => each.form === form)
        .sort((a, b) => b.widthMm - a.widthMm)
        .at(0),
    )
    .find((each) => each !== undefined);
  return blade
    ? { ...NONE, ...more, verdict: 'opens with', opener: blade.name, toolIds: [blade.id] }
    : {
        ...NONE,
        ...more,
        verdict: 'refer or buy',
        opener: `No ${forms.join(' or ')} of this shop`,
        reasons: [`None stands on the tools page${size && `,${size}`}.`, ...(more.reasons ?? [])],
        toBuy: `a ${forms[0] ?? ''}${size}`,
      };
}
