import { figure } from '../judgement';
import { fitLeak, type LeakFit } from './fitLeak';
import { type Flow, flowOf, flowWords, verdictOf } from './flow';
import { AMBIENT_BAR, LIMIT_AT_BAR, LIMIT_UG_PER_MIN, massFlow } from './law';
import {
  AGAIN,
  carried,
  flowLine,
  gaveTooLittle,
  type JudgedAt,
  judgedAt,
  type LeakJudgement,
  type LeakSetting,
  type LeakVerdict,
  noVerdict,
  ofEachSize,
  OVER_NOISE,
  scientific,
} from './leakJudgement';
import { type DriftBound, prepare } from './leakModel';
import {
  condense,
  contradictionIn,
  type LeakRecord,
  LEAST_HELD_S,
  LEAST_POINTS,
  mainPhase,
  type Phase,
  phasesOf,
  pressedAt,
  recoveryAfter,
} from './record';
import { settlesOf } from './settles';

/** Deflection counts from the mean of at least this, s. */
const LEAST_BASELINE_S = 10;
/** More than this share left after venting: the sensor is stuck. */
const STUCK_SHARE = 0.5;
/** A case of which more than this share moves on past half the watch hides what it loses. */
const STILL_MOVES = 0.02;
/** So many points hold the leak of a record as well as all of it: the fit goes by their means. */
export const POINTS_FITTED = 750;

/** Mean and spread of part of a record's deflection. */
function level(
  record: LeakRecord,
  from: number,
  to: number,
): { readonly mean: number; readonly spread: number } {
  const part = record.deflectionUm.slice(from, to);
  const mean = part.reduce((sum, each) => sum + each, 0) / Math.max(1, part.length);
  const squares = part.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  return { mean, spread: Math.sqrt(squares / Math.max(1, part.length - 1)) };
}

/** The fit of a record with its baseline and a pressure that stood, and about how far the case gave; null without either. */
export function fitOf(
  record: LeakRecord,
  drift: DriftBound | null,
): { readonly fit: LeakFit; readonly main: Phase; readonly gaveUm: number } | null {
  const phases = phasesOf(record);
  const [main, rest] = [mainPhase(phases), phases.find(({ kind }) => kind === 'baseline')];
  if (main === null || rest === undefined) return null;
  const gaveUm = level(record, main.from, main.to).mean - level(record, rest.from, rest.to).mean;
  return gaveUm === 0 ? null : { fit: fitRecord(record, gaveUm, main, drift), main, gaveUm };
}

/** Fits a record whose case gave by `gaveUm`; one that tells sizes without a sign is turned, so that it gives inward. */
function fitRecord(record: LeakRecord, gaveUm: number, main: Phase, drift: DriftBound | null): LeakFit {
  const turned = Math.sign(gaveUm * main.overBar);
  const kept = condense(record, POINTS_FITTED);
  return fitLeak(
    prepare(
      turned < 0 ? { ...kept, deflectionUm: kept.deflectionUm.map((each) => -each) } : kept,
      Math.abs(gaveUm),
      drift === null ? null : { ...drift, umPerS: turned * drift.umPerS },
    ),
  );
}

/** How long nothing pressed before pressure began, s: from half a reading before the first. */
function restedS({ atS }: LeakRecord, { fromS, toS, from, to }: Phase): number {
  return (atS[to] ?? toS) - fromS + (toS - fromS) / (to - from - 1) / 2;
}

function refusedRecord(record: LeakRecord, phases: readonly Phase[]): string | null {
  const contradiction = contradictionIn(record);
  if (contradiction !== null) return contradiction;
  if (record.atS.length < LEAST_POINTS)
    return `it has ${record.atS.length} points, but at least ${LEAST_POINTS} are needed`;
  const held = phases.filter(({ kind }) => kind === 'pressure' || kind === 'vacuum');
  if (held.length === 0) return 'there was no pressure on the case';
  const baseline = phases.find(({ kind }) => kind === 'baseline');
  if (baseline === undefined || restedS(record, baseline) < LEAST_BASELINE_S)
    return `the record has no baseline of ${LEAST_BASELINE_S} s before the pressure`;
  return Math.max(...held.map(({ fromS, toS }) => toS - fromS)) < LEAST_HELD_S
    ? `the observation under pressure was shorter than ${LEAST_HELD_S} s`
    : null;
}

/** Where the air went in while the pressure still rose, what the case would have given cannot be told. */
const AT_ONCE_S = 5;
function wentAtOnce(constantPerBarS: number, overBar: number): boolean {
  return constantPerBarS * (2 * AMBIENT_BAR + overBar) * AT_ONCE_S > 1;
}

/** Deflections without their sign show the same way on both sides. */
function sameSignBothSides(record: LeakRecord, held: readonly Phase[], restUm: number): boolean {
  const of = (kind: Phase['kind']): number => {
    const phase = held.find((each) => each.kind === kind);
    return phase === undefined ? 0 : level(record, phase.from, phase.to).mean - restUm;
  };
  return of('pressure') * of('vacuum') > 0;
}

/** What the first look at a record shows, before anything is fitted. */
interface FirstLook {
  readonly main: Phase;
  readonly baseline: Phase;
  readonly held: readonly Phase[];
  readonly after: Phase | undefined;
  readonly restUm: number;
  readonly noiseUm: number;
  readonly gaveUm: number;
}

function firstLook(record: LeakRecord, phases: readonly Phase[], testerNoiseUm: number): FirstLook {
  const baseline = phases.find(({ kind }) => kind === 'baseline') as Phase;
  const main = mainPhase(phases) as Phase;
  const atRest = level(record, baseline.from, baseline.to);
  const pressed = level(record, main.from, main.to);
  // The first seconds show most: a leak only takes away from it.
  const early = level(record, main.from, Math.min(main.to, main.from + 5));
  return {
    main,
    baseline,
    held: phases.filter(({ kind }) => kind === 'pressure' || kind === 'vacuum'),
    after: phases.find(({ kind, fromS }) => kind === 'recovery' && fromS > main.fromS),
    restUm: atRest.mean,
    noiseUm: Math.max(atRest.spread, testerNoiseUm),
    gaveUm: [early.mean, pressed.mean]
      .map((mean) => mean - atRest.mean)
      .reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most)),
  };
}

/** Nothing gave, and after venting it stood the other way. */
function isFlooded(record: LeakRecord, look: FirstLook, testerNoiseUm: number): boolean {
  const { after, baseline, gaveUm, main, noiseUm, restUm } = look;
  if (after === undefined || Math.abs(gaveUm) >= OVER_NOISE * noiseUm) return false;
  const rising = level(record, after.from, Math.min(after.to, after.from + 10));
  const overshoot = (restUm - rising.mean) * Math.sign(main.overBar);
  const error = Math.sqrt(1 / Math.min(10, after.to - after.from) + 1 / (baseline.to - baseline.from));
  return overshoot > OVER_NOISE * noiseUm * error && overshoot > testerNoiseUm;
}

/** What can be said without a fit: it flooded, gave too little, or the sensor is stuck or without a sign. Null where a decay may be seen. */
function judgeFirstLook(
  record: LeakRecord,
  look: FirstLook,
  setting: LeakSetting,
  judged: JudgedAt,
): LeakJudgement | null {
  const { main, held, after, restUm, noiseUm, gaveUm } = look;
  if (isFlooded(record, look, setting.testerNoiseUm))
    return judged(
      'leaks',
      [
        'The case leaks badly. It did not move under pressure because air went in at once. After venting, that air pushed the case the other way.',
      ],
      { noiseUm, flooded: true },
    );
  const little = gaveTooLittle(gaveUm, main.overBar, noiseUm, setting.usualUmPerBar);
  if (little !== null) return judged('no verdict', little.reasons, little.more);
  const inHeld = record.deflectionUm.slice(main.from, main.to);
  if (inHeld.every((each) => each === inHeld[0]))
    return judged(
      'no verdict',
      [
        'The reading did not change under pressure. The sensor is stuck or too coarse. A flat line is never tight.',
      ],
      { noiseUm, settles: [AGAIN] },
    );
  if (after !== undefined) {
    const left = level(record, Math.max(after.from, after.to - 10), after.to).mean - restUm;
    if (left * Math.sign(gaveUm) > STUCK_SHARE * Math.abs(gaveUm))
      return judged(
        'no verdict',
        [
          `After venting ${figure((100 * left) / gaveUm, 0)} % of the deflection stayed: the sensor is stuck.`,
        ],
        { noiseUm, settles: [AGAIN] },
      );
  }
  return isTwoSided(held) && sameSignBothSides(record, held, restUm)
    ? judged(
        'no verdict',
        [
          'Vacuum and pressure moved the case in the same direction. The file probably lists deflections without their signs.',
        ],
        {
          noiseUm,
          settles: [
            {
              what: 'again',
              words: 'Save the file with signed deflections, or test with pressure or vacuum only.',
            },
          ],
        },
      )
    : null;
}

const isTwoSided = (held: readonly Phase[]): boolean => new Set(held.map(({ kind }) => kind)).size === 2;

/** What was fitted, as the judgement carries it. */
function fittedAs(fit: LeakFit, setting: LeakSetting, overBar: number) {
  const of = { volumeCm3: setting.volume.cm3, temperatureC: setting.temperatureC };
  const flow = flowOf(fit, setting.volume, massFlow(1, of, LIMIT_AT_BAR));
  return {
    flow,
    flowAtTest: flowOf(fit, setting.volume, Math.abs(massFlow(1, of, overBar))),
    stiffnessUmPerBar: wentAtOnce(fit.best, overBar) ? null : fit.stiffnessUmPerBar,
    noiseUm: fit.noiseUm,
    working: [
      {
        what: 'Leak constant',
        rule: 'one constant, one drift, one stiffness, creep and correlated noise, fitted to baseline, pressure and recovery together',
        figures: `k = ${scientific(fit.best)}, ${scientific(fit.from)} to ${Number.isFinite(fit.to) ? scientific(fit.to) : 'any'} 1/(bar·s); drift ${figure(fit.driftUmPerS * 60, 3)} µm/min; gives ${figure(fit.stiffnessUmPerBar)} µm a bar, ${figure(100 * fit.creepShare, 1)} % of it delayed; noise ${figure(fit.noiseUm, 3)} µm, each reading ${figure(100 * fit.correlation, 0)} % of the last`,
        source: 'separable least squares',
      },
      flowLine(fit, setting, flow),
    ],
  };
}

/** Whether a case is tight by the record of a tester: what can be said at once, then what a fit of the whole shows. */
export function judgeRecord(record: LeakRecord, setting: LeakSetting): LeakJudgement {
  const phases = record.atS.length < 2 ? [] : phasesOf(record);
  const atBar = mainPhase(phases)?.overBar ?? pressedAt(record);
  const refused = refusedRecord(record, phases);
  if (refused !== null) return noVerdict([`No result: ${refused}.`], atBar);
  const judged = judgedAt(atBar);
  const look = firstLook(record, phases, setting.testerNoiseUm);
  const atOnce = judgeFirstLook(record, look, setting, judged);
  if (atOnce !== null) return atOnce;

  const { main, held, gaveUm } = look;
  const fit = fitRecord(record, gaveUm, main, setting.drift);
  const more = fittedAs(fit, setting, main.overBar);
  if (setting.volume.how === 'guessed') return judged(...ofEachSize(fit, setting, main.overBar, more));
  const recovered = recoveryAfter(main, phases) !== null;
  if (!recovered && !isTwoSided(held) && setting.drift === null)
    return judged(
      'not yet known',
      ['Drift and decay cannot be separated without recovery, a second side, or a blank run.'],
      {
        ...more,
        settles: [
          {
            what: 'recovery',
            words: 'Vent the tester and keep recording for as long as you did under pressure.',
          },
          { what: 'two-sided', words: 'Or run a vacuum test and a pressure test one after the other.' },
        ],
      },
    );
  const heldS = main.toS - main.fromS;
  const gives = fit.givesAfter(heldS / 2);
  const verdict = verdictOf(more.flow);
  if (verdict === 'tight' && gives > STILL_MOVES)
    return judged(
      'not yet known',
      [
        `${figure(100 * gives, 1)} % of the case deflection comes after half the watching time. This hides a loss.`,
      ],
      {
        ...more,
        settles: [
          {
            what: 'longer',
            words: `Watch ${figure(2 * heldS, 0)} s under pressure and as long after venting, so that it settles.`,
          },
        ],
      },
    );
  const noiseShare = fit.noiseUm / Math.abs(gaveUm);
  return judged(verdict, flowReasons(verdict, fit, more.flow, main.overBar), {
    ...more,
    settles:
      verdict === 'not yet known'
        ? settlesOf({ fit, setting, overBar: main.overBar, heldS, noiseShare, recovered })
        : [],
  });
}

function flowReasons(verdict: LeakVerdict, fit: LeakFit, flow: Flow, overBar: number): readonly string[] {
  return [
    verdict === 'not yet known'
      ? `At 2 bar ${flowWords(flow)} pass. The limit of ${LIMIT_UG_PER_MIN} lies in this range.`
      : `At 2 bar ${flowWords(flow)} pass, ${verdict === 'tight' ? 'under' : 'over'} the limit of ${LIMIT_UG_PER_MIN}.`,
    ...carried(overBar, flow),
    ...(Math.abs(fit.bendUm) > OVER_NOISE * fit.noiseUm
      ? [
          'The drift is not steady. Leave the watch next to the tester until both have the same temperature, then repeat the test.',
        ]
      : []),
  ];
}
