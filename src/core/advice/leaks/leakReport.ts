import { median } from 'simple-statistics';
import { apart, type Share, shareOf } from '../../craft/tightness';
import type { JobState, LeakSeat } from '../../logbook';
import { judgeTests } from './judgeTests';

/** What one job showed of the tightness of its watch. */
export interface LeakCaseSeen {
  readonly caseCode: string;
  readonly backKind: string;
  /** When it was tested first, UTC. */
  readonly testedAt: string;
  readonly leaked: boolean;
  /** A retest after a repair showed it tight. */
  readonly mended: boolean;
  readonly seats: readonly LeakSeat[];
  readonly ringRenewed: boolean;
  /** Of the ring as it was found; null where nobody knows. */
  readonly ringAgeYears: number | null;
  /** Of the first test that measured it, µm a bar; null where none did. */
  readonly stiffnessUmPerBar: number | null;
}

/** What a job tells of leaks; null where no test of it was conclusive. */
export function leakCaseOf(state: JobState): LeakCaseSeen | null {
  const { facts, caseType } = state;
  if (facts.tests.length === 0) return null;
  const tests = judgeTests(state);
  const conclusive = tests.filter(({ shows }) => shows.verdict === 'leaks' || shows.verdict === 'tight');
  const [first] = conclusive;
  if (first === undefined) return null;
  const leaks = conclusive.filter(({ shows }) => shows.verdict === 'leaks');
  return {
    caseCode: caseType?.code ?? facts.watch?.payload.reference ?? '',
    backKind: facts.back?.payload.kind ?? caseType?.backKind ?? '',
    testedAt: first.test.occurredAt,
    leaked: leaks.length > 0,
    mended: leaks.length > 0 && leaks.every(({ takenBack }) => takenBack !== null),
    seats: [...new Set(facts.leakFindings.map(({ payload }) => payload.seat))],
    ringRenewed: facts.gasket?.payload.state === 'renewed',
    ringAgeYears: facts.gasket?.payload.ageYears ?? null,
    stiffnessUmPerBar: tests.find(({ leak }) => leak?.flow)?.leak?.stiffnessUmPerBar ?? null,
  };
}

/** How the watches of one case type, tested in one year, stood. */
export interface LeakGroup {
  readonly caseCode: string;
  readonly year: string;
  readonly leaked: Share;
  readonly mended: Share;
  /** Where they leaked, the most frequent first. */
  readonly seats: readonly { readonly seat: LeakSeat; readonly jobs: number }[];
  /** Age of the ring in those that leaked, years; null where nobody knows of any. */
  readonly medianRingAgeYears: number | null;
  readonly ringRenewed: Share;
  readonly ringKept: Share;
  /** What the renewal of the ring did, in words. */
  readonly renewal: string;
}

const percentWords = ({ from, to }: Share): string =>
  `${Math.round(from * 100)} to ${Math.round(to * 100)} %`;

function renewalWords(renewed: Share, kept: Share): string {
  if (renewed.among === 0 || kept.among === 0) return 'Nothing to compare with.';
  const both = `with a new ring ${renewed.of} of ${renewed.among} leaked (${percentWords(renewed)}), with the old one ${kept.of} of ${kept.among} (${percentWords(kept)})`;
  return apart(renewed, kept) ? `It matters: ${both}.` : `Too few to tell: ${both}.`;
}

function groupOf(caseCode: string, year: string, jobs: readonly LeakCaseSeen[]): LeakGroup {
  const leaked = jobs.filter((job) => job.leaked);
  const share = (some: readonly LeakCaseSeen[]): Share =>
    shareOf(some.filter((job) => job.leaked).length, some.length);
  const seats = new Map<LeakSeat, number>();
  for (const seat of leaked.flatMap((job) => job.seats)) seats.set(seat, (seats.get(seat) ?? 0) + 1);
  const ages = leaked.flatMap(({ ringAgeYears }) => (ringAgeYears === null ? [] : [ringAgeYears]));
  const ringRenewed = share(jobs.filter((job) => job.ringRenewed));
  const ringKept = share(jobs.filter((job) => !job.ringRenewed));
  return {
    caseCode,
    year,
    leaked: share(jobs),
    mended: shareOf(leaked.filter((job) => job.mended).length, leaked.length),
    seats: [...seats].map(([seat, count]) => ({ seat, jobs: count })).sort((a, b) => b.jobs - a.jobs),
    medianRingAgeYears: ages.length === 0 ? null : median(ages),
    ringRenewed,
    ringKept,
    renewal: renewalWords(ringRenewed, ringKept),
  };
}

/** The year that stands for all of them. */
export const ALL_YEARS = 'all';

/**
 * What leaks, by case type and year, the most tested first: each type over all years, then year by year. Shares carry the
 * interval 95 of 100 lie within, so that a few watches say only little. Source: Wilson (1927).
 */
export function leakReport(jobs: readonly LeakCaseSeen[]): readonly LeakGroup[] {
  const types = new Map<string, LeakCaseSeen[]>();
  for (const job of jobs) types.set(job.caseCode, [...(types.get(job.caseCode) ?? []), job]);
  return [...types]
    .sort(([codeA, a], [codeB, b]) => b.length - a.length || codeA.localeCompare(codeB))
    .flatMap(([caseCode, of]) => {
      const years = [...new Set(of.map(({ testedAt }) => testedAt.slice(0, 4)))].sort().reverse();
      return [
        groupOf(caseCode, ALL_YEARS, of),
        ...years.map((year) =>
          groupOf(
            caseCode,
            year,
            of.filter(({ testedAt }) => testedAt.startsWith(year)),
          ),
        ),
      ];
    });
}

/** What a case type usually gives, µm a bar, and how many watches that rests on; null where none was measured. */
export interface UsualOfCase {
  readonly stiffnessUmPerBar: number;
  readonly watches: number;
}

/** The usual stiffness of a case type from what was measured on its watches; null without any. */
export function usualOfCase(stiffnesses: readonly number[]): UsualOfCase | null {
  return stiffnesses.length === 0
    ? null
    : { stiffnessUmPerBar: median(stiffnesses.map(Math.abs)), watches: stiffnesses.length };
}
