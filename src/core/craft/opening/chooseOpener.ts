import { figure, type Judged } from '../judgement';
import type { Blade, BladeForm, FrictionBall, ShopTools } from '../tools';
import { backs, contradictions, type MeasuredBack, pitchCircleMm, prySpot, type PrySpot } from '../cases';
import { chooseDriver, fitOpenerDie } from './fitTools';
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
  wanted: [],
  toBuy: null,
  reasons: [],
  working: [],
} as const;

interface Question {
  readonly back: MeasuredBack;
  readonly tools: ShopTools;
  /** As seen from the dial. */
  readonly crownClock: number | null;
}

/**
 * What opens this back, from this shop's tools, and how it is set. `not yet known` names the measures still wanted;
 * `with care` opens, but tips; `refer or buy` says what is missing and by how much; `impossible` names measures that
 * contradict each other. Source: bench practice and the geometry of `jawSetting`.
 */
export function chooseOpener({ back, tools, crownClock }: Question): OpenerChoice {
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
      const { flatCount, acrossMm } = back;
      if (flatCount === null || acrossMm === null)
        return unknown(['flatCount', 'acrossMm'], 'Count the flats and measure across them.');
      const fit = fitOpenerDie({ flatCount, acrossMm }, tools.openerDies, tools.holders);
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
              : `a die of ${flatCount} flats, ${figure(acrossMm)} mm across`,
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
      const { slotLengthMm, slotWidthMm } = back;
      if (slotLengthMm === null || slotWidthMm === null)
        return unknown(['slotLengthMm', 'slotWidthMm'], 'Measure the slot of a screw, length and width.');
      const fit = chooseDriver({ lengthMm: slotLengthMm, widthMm: slotWidthMm }, tools.drivers);
      return fit.driver
        ? {
            ...NONE,
            verdict: 'opens with',
            opener: fit.driver.name,
            toolIds: [fit.driver.id],
            settings: [
              {
                what: 'Blade',
                value: `${figure(fit.driver.bladeWidthMm)} × ${figure(fit.driver.bladeThicknessMm)} mm`,
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
            toBuy: `a screwdriver for a slot of ${figure(slotLengthMm)} × ${figure(slotWidthMm)} mm`,
          };
    }
    case 'snap-on':
    case 'opens from the front': {
      const spot = prySpot({ crownClock, lipClock: back.lipClock });
      return byBlade(tools, ['case knife'], {
        spot,
        settings:
          spot.clock === null ? [] : [{ what: 'Knife in at', value: `${figure(spot.clock, 1)} o’clock` }],
        reasons: spot.reasons,
        working: spot.working,
      });
    }
    case 'battery hatch': {
      const { slotLengthMm, slotWidthMm } = back;
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
      if (back.panelHeldBy === null)
        return unknown(['panelHeldBy'], 'See how the panel is held: catches, a sliding lock, or adhesive.');
      return back.panelHeldBy === 'sliding lock'
        ? {
            ...NONE,
            verdict: 'opens with',
            opener: 'thumbs',
            settings: [{ what: 'Lock', value: 'slid home to open, before the panel is pressed' }],
            reasons: ['A sliding lock wants no tool: a pin under a locked panel breaks its edge.'],
          }
        : byBlade(tools, back.panelHeldBy === 'catches' ? ['blunt pin'] : ['blunt blade'], {
            settings: [
              back.panelHeldBy === 'catches'
                ? { what: 'Catches', value: 'one after another, from the side with the nick' }
                : { what: 'Adhesive', value: 'warmed by hand, lifted from one corner' },
            ],
            reasons: [
              back.panelHeldBy === 'catches'
                ? 'Blunt, and braced against the bench.'
                : 'The adhesive is a part: cover it, so that it holds again, or renew it.',
            ],
          });
  }
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
  const ball = ballFor(back.diameterMm ?? pitchMm, tools.balls);
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
      reasons: jaws.reasons,
      working: jaws.working,
    };
  }
  if (ball) {
    return {
      ...NONE,
      verdict: 'opens with',
      opener: ball.name,
      toolIds: [ball.id],
      settings: [{ what: 'Ball', value: 'pressed on, turned with the flat of the hand' }],
      jaws,
      reasons: [
        found
          ? `The notches would let a wrench run ${figure(found.choice.offCentreMm)} mm past the centre: it tips. The ball grips all round.`
          : 'No wrench reaches and bites; the ball grips a back that is not tight.',
      ],
      working: jaws.working,
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

function ballFor(diameterMm: number, balls: readonly FrictionBall[]): FrictionBall | null {
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
