import { type MeasuredBack, pitchCircleMm } from '../cases';
import { figure } from '../judgement';
import type { FrictionBall } from '../tools';
import { jawSetting, type JawSetting } from './jawSetting';
import { NONE, type OpenerChoice, type Question, type SettingLine, unknown } from './openerChoice';

/** How the jaws or pins of a wrench are set. */
function jawSettings(
  { choice, jawMm }: NonNullable<JawSetting['found']>,
  what: 'Pins' | 'Jaws',
): readonly SettingLine[] {
  return choice.rearDistanceMm === null
    ? [{ what, value: `${figure(jawMm)} mm, ${figure(choice.separationMm)} mm apart` }]
    : [
        { what, value: `${figure(jawMm)} mm` },
        { what: 'Front pair, first', value: `${figure(choice.separationMm)} mm` },
        { what: 'Rear jaw, from the front line', value: `${figure(choice.rearDistanceMm)} mm` },
      ];
}

/** Where no wrench bites as it should: a ball, a wrench that tips, or none of this shop. */
function withCare(
  jaws: JawSetting,
  settings: readonly SettingLine[],
  ball: FrictionBall | null,
): OpenerChoice {
  const { found } = jaws;
  if (ball && found) {
    return {
      ...NONE,
      verdict: 'with care',
      opener: `${found.wrench.name}, then ${ball.name}`,
      toolIds: [found.wrench.id, ball.id],
      settings: [...settings, { what: 'Ball', value: 'once loose: press it on and spin off' }],
      jaws,
      spinOff: ball,
      reasons: [
        `With these notches a wrench runs ${figure(found.choice.offCentreMm)} mm past the centre and tips. First try ${ball.name} alone. If it slips, loosen with the wrench and your weight over the jaws, then spin off with the ball.`,
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
      settings: [{ what: 'Ball', value: 'press it on and turn with the flat of the hand' }],
      jaws,
      reasons: [
        'No wrench fits. The ball grips a back that is not tight. If it slips, stop and refer the watch.',
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

/** A wrench in notches or holes, a friction ball beside it where one grips. */
export function byWrench({ back, tools }: Question): OpenerChoice {
  const { notchCount: count, notchWidthMm: widthMm, notchClocks: clocks } = back;
  const pitchMm = pitchCircleMm(back);
  const holes = back.kind === 'screwed, round holes';
  if (count === null || pitchMm === null || widthMm === null) {
    const odd = count !== null && count % 2 === 1 && clocks.length === 0;
    return unknown(
      back,
      [
        ...(count === null ? (['notchCount'] as const) : []),
        ...(pitchMm === null ? [odd ? ('chordMm' as const) : ('pitchMm' as const)] : []),
        ...(widthMm === null ? (['notchWidthMm'] as const) : []),
      ],
      `Measure first: the number of ${holes ? 'holes' : 'notches'}, ${odd ? 'from one to the farthest' : 'the circle they stand on'}, and ${holes ? 'the hole' : 'one notch'}.`,
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
  const settings = found ? jawSettings(found, holes ? 'Pins' : 'Jaws') : [];
  if (jaws.verdict === 'set' && found) {
    return {
      ...NONE,
      verdict: 'opens with',
      opener: found.wrench.name,
      toolIds: [found.wrench.id],
      settings,
      jaws,
      spinOff: ball,
      reasons: [...jaws.reasons, ...(ball ? [`Once loose, spin it off with ${ball.name}.`] : [])],
      working: jaws.working,
    };
  }
  return withCare(jaws, settings, ball);
}

/** A ball grips a smooth back of a measured size within its range; where the size is not known it grips nothing. */
function ballFor(
  { diameterMm, coating }: Pick<MeasuredBack, 'diameterMm' | 'coating'>,
  balls: readonly FrictionBall[],
): FrictionBall | null {
  if (diameterMm === null || coating === 'plastic') return null;
  return balls.find((ball) => diameterMm >= ball.backFromMm && diameterMm <= ball.backToMm) ?? null;
}
