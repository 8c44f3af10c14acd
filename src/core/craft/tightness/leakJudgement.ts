import { figure, type Judged, type WorkingLine } from '../judgement';
import type { LeakFit } from './fitLeak';
import { type Flow, flowOf, flowWords, verdictOf } from './flow';
import { type FreeVolume, GUESS_FACTOR, LIMIT_AT_BAR, LIMIT_UG_PER_MIN, massFlow } from './law';
import type { DriftBound } from './leakModel';
import type { LeakRecord } from './record';
import { OTHER_WAY, type SettlesBy } from './settles';

export type LeakVerdict = 'tight' | 'leaks' | 'not yet known' | 'no verdict';

export interface LeakJudgement extends Judged<LeakVerdict> {
  /** At 2 bar above outside air, where the limit is told. */
  readonly flow: Flow | null;
  /** At the pressure of the test. */
  readonly flowAtTest: Flow | null;
  readonly atBar: number;
  readonly stiffnessUmPerBar: number | null;
  readonly noiseUm: number | null;
  /** Nothing held it, or air went in at once. */
  readonly flooded: boolean;
  readonly settles: readonly SettlesBy[];
}

/** What is judged: a record of a tester, or its two figures. */
export type LeakEvidence = { readonly record: LeakRecord } | (TwoFigures & { readonly overBar: number });

export interface LeakSetting {
  readonly volume: FreeVolume;
  readonly temperatureC: number;
  readonly drift: DriftBound | null;
  /** What this case gave for each bar before, or its type does; null where nobody knows. */
  readonly usualUmPerBar: number | null;
  /** Of the tester, by its book, one reading. */
  readonly testerNoiseUm: number;
}

/** Two figures a time apart, as a tester shows them with nothing pressing, or at the ends of a test. */
export interface TwoFigures {
  readonly startUm: number;
  readonly endUm: number;
  readonly seconds: number;
}

/** No tester reads finer, µm. */
export const LEAST_NOISE_UM = 0.002;
/** A deflection is one from so many times the noise on. */
export const OVER_NOISE = 3;
/** Less than this share of what the case showed before: very stiff, or flooded at once. */
const OF_USUAL = 0.25;
/** From this pressure on the law may understate, and from vacuum overstate, the flow at 2 bar. Source: flow in a short, narrow way. */
const HIGH_BAR = 6;
const UNDERSTATED = 2;
const OVERSTATED = 3;

export const LAW_SOURCE = 'viscous flow of air; ISO 22810';

/** What the law may get wrong where it is carried from another pressure to 2 bar. */
export function carried(atBar: number, flow: Flow): readonly string[] {
  if (atBar < 0)
    return [
      `Carried over from vacuum: the flow at 2 bar may be overstated ${OVERSTATED} times${flow.from > LIMIT_UG_PER_MIN && flow.from / OVERSTATED <= LIMIT_UG_PER_MIN ? '; then it would not be over the limit' : ''}.`,
    ];
  return atBar >= HIGH_BAR
    ? [
        `Carried over from ${figure(atBar)} bar: the flow at 2 bar may be understated ${UNDERSTATED} times${flow.to < LIMIT_UG_PER_MIN && flow.to * UNDERSTATED >= LIMIT_UG_PER_MIN ? '; then it could be over the limit' : ''}.`,
      ]
    : [];
}

const nothing = {
  flow: null,
  flowAtTest: null,
  stiffnessUmPerBar: null,
  noiseUm: null,
  flooded: false,
} as const;

export const AGAIN = {
  what: 'again',
  words: 'Repeat the test. Record at least 10 s before the pressure begins.',
} as const;

/** A judgement of a test at a pressure, of which only what is given is known. */
export type JudgedAt = (
  verdict: LeakVerdict,
  reasons: readonly string[],
  more?: Partial<LeakJudgement>,
) => LeakJudgement;

export const judgedAt =
  (atBar: number): JudgedAt =>
  (verdict, reasons, more = {}) => ({
    ...nothing,
    settles: [],
    working: [],
    atBar,
    ...more,
    verdict,
    reasons,
  });

/** Nothing can be worked out, and what to do is to run it again. */
export function noVerdict(reasons: readonly string[], atBar: number): LeakJudgement {
  return judgedAt(atBar)('no verdict', reasons, { settles: [AGAIN] });
}

/** A case that gave too little for a decay to be seen, or far less than it gave before; null where it gave enough. */
export function gaveTooLittle(
  gaveUm: number,
  overBar: number,
  noiseUm: number,
  usualUmPerBar: number | null,
): { readonly reasons: readonly string[]; readonly more: Partial<LeakJudgement> } | null {
  if (Math.abs(gaveUm) < OVER_NOISE * noiseUm || gaveUm === 0)
    return {
      reasons: [
        `The case gave ${figure(Math.abs(gaveUm))} µm, under ${OVER_NOISE} times the noise of ${figure(noiseUm)} µm: the case is very stiff, or it flooded at once. No deflection is not a pass.`,
      ],
      more: { settles: [OTHER_WAY], noiseUm },
    };
  const stiffness = Math.abs(gaveUm / overBar);
  return usualUmPerBar !== null && stiffness < OF_USUAL * Math.abs(usualUmPerBar)
    ? {
        reasons: [
          `It gave ${figure(stiffness)} µm a bar, but this case gave ${figure(Math.abs(usualUmPerBar))} before. Most of the air may have entered at once.`,
        ],
        more: { settles: [OTHER_WAY], noiseUm, stiffnessUmPerBar: stiffness },
      }
    : null;
}

export const scientific = (value: number): string => {
  if (value === 0) return '0';
  const power = Math.floor(Math.log10(value));
  return `${figure(value / 10 ** power, 2)}·10^${figure(power)}`;
};

/** The working of a flow at 2 bar. */
export function flowLine(
  fit: Pick<LeakFit, 'best'>,
  { volume, temperatureC }: LeakSetting,
  flow: Flow,
): WorkingLine {
  return {
    what: 'Flow of air at 2 bar',
    rule: 'V·10⁵·k·(3² − 1²)/(R·T), and the ends of k and V taken together',
    figures: `V = ${figure(volume.cm3)} cm³ ${volume.how}, within ${figure(volume.factor, 2)} times; ${figure(temperatureC, 1)} °C; k = ${scientific(fit.best)}: ${figure(flow.likeliest, 1)}, ${flowWords(flow)}; limit ${LIMIT_UG_PER_MIN}`,
    source: LAW_SOURCE,
  };
}

/** Cases whose volume nobody knows, from a small one to one for diving, cm³. Source: bench practice. */
const SIZES: readonly (readonly [cm3: number, words: string])[] = [
  [0.5, 'a small case'],
  [1.5, 'a usual case'],
  [3, 'a large case'],
  [8, 'a very large case'],
];

/**
 * What each size of case would mean, where neither its volume nor its size is known, and what to measure: no verdict, but for a
 * leak that is one in the smallest case, too. The flow reaches from the smallest to the largest.
 */
export function ofEachSize(
  fit: Pick<LeakFit, 'best' | 'from' | 'to' | 'away' | 'within'>,
  { temperatureC }: LeakSetting,
  atBar: number,
  more: Pick<LeakJudgement, 'stiffnessUmPerBar' | 'noiseUm'>,
): [verdict: LeakVerdict, reasons: readonly string[], more: Partial<LeakJudgement>] {
  const flowIn = (cm3: number, overBar: number): Flow =>
    flowOf(
      fit,
      { cm3, factor: GUESS_FACTOR, how: 'from the case’s size' },
      Math.abs(massFlow(1, { volumeCm3: cm3, temperatureC }, overBar)),
    );
  const anyFlow = (overBar: number): Flow => {
    const flows = SIZES.map(([cm3]) => flowIn(cm3, overBar));
    return {
      likeliest: flows[1]?.likeliest ?? NaN,
      from: Math.min(...flows.map(({ from }) => from)),
      to: Math.max(...flows.map(({ to }) => to)),
    };
  };
  const flow = anyFlow(LIMIT_AT_BAR);
  return [
    verdictOf(flow) === 'leaks' ? 'leaks' : 'no verdict',
    [
      'Neither the free volume nor the size of the case is known. The larger the volume, the larger the leak.',
      ...SIZES.map(([cm3, words]) => {
        const ofSize = flowIn(cm3, LIMIT_AT_BAR);
        return `In ${words} of about ${figure(cm3)} cm³, ${flowWords(ofSize)} would pass at 2 bar: ${verdictOf(ofSize)}.`;
      }),
    ],
    {
      stiffnessUmPerBar: more.stiffnessUmPerBar,
      noiseUm: more.noiseUm,
      flow,
      flowAtTest: anyFlow(atBar),
      settles: [
        {
          what: 'volume',
          words:
            'Measure the diameter and thickness of the case, or its free volume, and record them. You do not have to repeat the test.',
        },
      ],
    },
  ];
}
