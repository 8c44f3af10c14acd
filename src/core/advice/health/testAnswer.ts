import {
  type Measure,
  type NextTest,
  type Shows,
  SIGNS_OF_FAULT,
  type SignOfFault,
  type TestOutcome,
} from '../../craft/health';
import { type CheckPayloads, type JobState, NOT_LOOKED, openness } from '../../logbook';
import { OBSERVED_BY } from './observed';

const MEASURES = Object.keys(OBSERVED_BY) as Measure[];

/** The reading that a next test is; null where it is a look. */
export function measureOfTest({ observable }: NextTest): Measure | null {
  return MEASURES.find((measure) => OBSERVED_BY[measure] === observable) ?? null;
}

/** The fact that says a test came out so, and the entry it stands in place of. */
export type TestRecord = {
  readonly supersedes: readonly string[];
} & (
  | { readonly kind: 'check.looked'; readonly payload: CheckPayloads['check.looked'] }
  | { readonly kind: 'check.pulses'; readonly payload: CheckPayloads['check.pulses'] }
);

export interface TestAnswer {
  readonly shows: string;
  readonly speaksFor: string;
  readonly record: TestRecord;
}

const SHOWN_AS: Readonly<Record<string, Shows>> = {
  runs: 'runs as it should',
  dead: 'stands still',
  'in twos or fours': 'steps in twos or fours',
  scrambled: 'display scrambled',
};

const isSign = (observable: string): observable is SignOfFault =>
  SIGNS_OF_FAULT.some((sign) => sign === observable);

type Looked = Partial<CheckPayloads['check.looked']>;

/** Whether a test is the look with the loupe: it shows every sign at once, and is recorded whole. */
export const isLoupeTest = ({ observable }: NextTest): boolean => isSign(observable);

/** What was seen with the loupe, beside what was looked at before; none of the signs is an answer, too. */
export function loupeRecord({ facts }: Pick<JobState, 'facts'>, signs: readonly SignOfFault[]): TestRecord {
  return asLooked(facts.looked, { signs });
}

function asLooked(looked: JobState['facts']['looked'], seen: Looked): TestRecord {
  return {
    kind: 'check.looked',
    payload: { ...(looked?.payload ?? NOT_LOOKED), ...seen },
    supersedes: looked ? [looked.id] : [],
  };
}

function lookedAs(
  { observable, outcome }: TestOutcome,
  { watchS }: NextTest,
  calibre: JobState['calibre'],
): Looked | null {
  switch (observable) {
    case 'crown':
      return { crown: outcome === 'home' ? 'home' : 'pulled' };
    case 'shows': {
      // A display has nothing that would stand still.
      if (outcome === 'dead' && calibre !== null && !calibre.functions.includes('hands'))
        return { shows: 'display blank', watchedSeconds: null };
      const shows = SHOWN_AS[outcome];
      return shows === undefined ? null : { shows, watchedSeconds: outcome === 'dead' ? watchS : null };
    }
    case 'atFitting':
      return { atFitting: outcome === 'voltage holds' ? 'voltage holds' : 'voltage collapses' };
    case 'reset':
      return { resetUsed: outcome === 'used' };
    default:
      return null;
  }
}

/**
 * The answers to a next test that one look gives, each with the fact it records. What is measured is not answered so, nor
 * what the loupe shows: a figure is read then, or every sign is said, and this is empty.
 */
export function testAnswers(
  { facts, calibre }: Pick<JobState, 'facts' | 'calibre'>,
  test: NextTest,
): readonly TestAnswer[] {
  return test.outcomes.flatMap((outcome): TestAnswer[] => {
    const { shows, speaksFor } = outcome;
    if (outcome.observable === 'pulses')
      return [
        {
          shows,
          speaksFor,
          record: {
            kind: 'check.pulses',
            payload: {
              there: outcome.outcome === 'there',
              through: openness(facts) === 'open' ? 'the open watch' : 'the closed watch',
              everyS: null,
            },
            supersedes: facts.pulses ? [facts.pulses.id] : [],
          },
        },
      ];
    const seen = lookedAs(outcome, test, calibre);
    if (seen === null) return [];
    const said = seen.watchedSeconds ? `${shows} in ${seen.watchedSeconds} s` : shows;
    return [{ shows: said, speaksFor, record: asLooked(facts.looked, seen) }];
  });
}
