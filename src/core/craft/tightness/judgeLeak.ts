import { memoizeByValue } from '../judgement';
import { fitOf, judgeRecord, POINTS_FITTED } from './judgeRecord';
import { judgeTwoFigures } from './judgeTwoFigures';
import { type LeakEvidence, type LeakJudgement, type LeakSetting, noVerdict } from './leakJudgement';
import { condense, type LeakRecord } from './record';

/**
 * Whether a case is tight, by what its deflection showed: the flow of air at 2 bar with the ends 95 of 100 lie within, free
 * volume included, held against the limit. *Tight*: the upper end is under it. *Leaks*: the lower end is over it, or nothing
 * held. *Not yet known*: the ends stand across it, or drift cannot be told from decay; `settles` says what would help. *No
 * verdict*: the record shows no deflection that could decay. Deflection µm, pressure bar over the air outside, times s.
 * Never throws. Source: ISO 22810; viscous flow; bench practice.
 */
export function judgeLeak(evidence: LeakEvidence, setting: LeakSetting): LeakJudgement {
  return judged.ask([evidence, setting]);
}

/** Takes over what was worked out elsewhere, beside the page: the same evidence in the same setting shows the same. */
export function keepJudgement(evidence: LeakEvidence, setting: LeakSetting, judgement: LeakJudgement): void {
  judged.keep([evidence, setting], judgement);
}

/** A job is folded again and again, and a fit takes its time. */
const judged = memoizeByValue(
  ([evidence, setting]: readonly [LeakEvidence, LeakSetting]): LeakJudgement =>
    settingRefused(setting)
      ? noVerdict(['No result. The volume, temperature or noise is not a possible value.'], 0)
      : 'record' in evidence
        ? judgeRecord(evidence.record, setting)
        : judgeTwoFigures(evidence, setting),
  60,
);

const COLDEST_C = -50;
const HOTTEST_C = 100;

/** Figures nothing can be worked out with: no volume, a factor under one, a temperature no bench has. */
function settingRefused({ volume, temperatureC, drift, testerNoiseUm, usualUmPerBar }: LeakSetting): boolean {
  return !(
    volume.cm3 > 0 &&
    Number.isFinite(volume.cm3) &&
    volume.factor >= 1 &&
    Number.isFinite(volume.factor) &&
    temperatureC > COLDEST_C &&
    temperatureC < HOTTEST_C &&
    testerNoiseUm >= 0 &&
    Number.isFinite(testerNoiseUm) &&
    (usualUmPerBar === null || Number.isFinite(usualUmPerBar)) &&
    (drift === null ||
      (Number.isFinite(drift.umPerS) && drift.errorUmPerS > 0 && Number.isFinite(drift.errorUmPerS)))
  );
}

/** What is left over of a record at each point once the fit is taken off, µm, beside the fit itself; null where nothing was fitted. */
export function residualsOf(
  record: LeakRecord,
  setting: LeakSetting,
): {
  /** The points that were fitted. */
  readonly record: LeakRecord;
  readonly fitUm: readonly number[];
  readonly leftUm: readonly number[];
} | null {
  const judgement = judgeLeak({ record }, setting);
  const kept = condense(record, POINTS_FITTED);
  const fitted = judgement.flow === null ? null : fitOf(record, setting.drift);
  if (fitted === null) return null;
  const { fit, gaveUm, main } = fitted;
  const turned = Math.sign(gaveUm * main.overBar);
  const fitUm = [...fit.modelUm()].map((each) => turned * each);
  return { record: kept, fitUm, leftUm: kept.deflectionUm.map((each, i) => each - (fitUm[i] ?? 0)) };
}
