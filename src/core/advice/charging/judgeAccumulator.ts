import type { Book } from '../../craft/book';
import { hoursAt } from '../../craft/charging';
import { figure, type Judged } from '../../craft/judgement';
import { isAfter, type JobState, readingIn } from '../../logbook';

export type AccumulatorVerdict = Judged<'fine' | 'charge' | 'clean' | 'renew'> & {
  /** The verdict as one says it. */
  readonly answer: string;
};

/** Under this share of its nominal voltage an accumulator is empty, whatever else it is. Ours, from bench practice. */
const EMPTY_SHARE = 0.6;

/** Hours of light that surely fill it here: at the dimmest place that charges it; null where book or shop say nothing. */
function hoursToFull(
  { calibre }: Pick<JobState, 'calibre'>,
  { lightPlaces }: Pick<Book, 'lightPlaces'>,
): number | null {
  const hours = lightPlaces.flatMap(
    ({ lux }) => hoursAt(calibre?.lightTimes ?? [], 'fullH', lux).hours ?? [],
  );
  return hours.length === 0 ? null : Math.max(...hours);
}

/**
 * Is the accumulator tired, flat or fine, and what comes next: charge it, clean, or renew it? It is charged and watched before it
 * is condemned, since one from a drawer may be merely discharged; tired is what steps low again after a charge that should
 * have filled it, or after it had stepped normally. A new one is nearly empty. Null for a watch that charges nothing. Its
 * voltage is held against its own nominal one. Source: bench practice.
 */
export function judgeAccumulator(
  state: Pick<JobState, 'facts' | 'calibre' | 'wells'>,
  book: Pick<Book, 'lightPlaces'>,
): AccumulatorVerdict | null {
  const { facts, calibre } = state;
  const charge = calibre?.charge ?? null;
  if (charge === null) return null;
  const told = (
    verdict: AccumulatorVerdict['verdict'],
    answer: string,
    ...reasons: readonly string[]
  ): AccumulatorVerdict => ({ verdict, answer, reasons, working: [] });
  const { accumulator } = facts;
  const since = facts.charges.filter((each) => accumulator === null || isAfter(each, accumulator));
  const last = since.at(-1)?.payload ?? null;
  const whatWas = charge.oldPart === 'capacitor' ? 'accumulator or capacitor' : 'accumulator';
  const crust = state.wells.some(
    ({ found }) => found && found.payload.condition !== null && found.payload.condition !== 'clean',
  );
  const volts = readingIn(facts, 'restVoltageV')?.payload.value ?? null;
  const voltage =
    volts === null
      ? []
      : [
          `${figure(volts, 2)} V at rest, and it stands at ${figure(charge.nominalV, 2)} V charged${volts < charge.nominalV * EMPTY_SHARE ? ': empty, which says nothing of how good it is' : ''}.`,
        ];
  if (accumulator !== null && last === null)
    return told(
      'charge',
      'Charge it',
      'A new accumulator is nearly empty: it is seen running once it has had light or winding.',
      ...voltage,
    );
  if (crust && accumulator === null)
    return told(
      'clean',
      'Clean, then renew',
      `The ${whatWas} leaked: clean contacts and well, and measure before another goes in.`,
    );
  if (last === null)
    return told(
      'charge',
      'Charge it first',
      `Merely discharged or tired: a charge watched to its end tells, and a watch from a drawer is not condemned.`,
      ...voltage,
    );
  if (last.outcome === 'steps normally')
    return told(
      'fine',
      'Fine as it is',
      'It came back with the charge. Low-supply steps that return within days mean it is tired.',
      ...voltage,
    );
  const cameBack = since.some(({ payload }) => payload.outcome === 'steps normally');
  const charged = since.reduce((sum, { payload }) => sum + payload.hours, 0);
  const fullH = charge.by === 'light' ? hoursToFull(state, book) : null;
  if (cameBack)
    return told('renew', 'New accumulator', 'It stepped normally and signals low again: tired.', ...voltage);
  if (fullH !== null && charged < fullH)
    return told(
      'charge',
      'Charge on',
      `${figure(charged, 0)} h so far, and full takes ${figure(fullH, 0)} h in the dimmest light here: it may be merely discharged.`,
      ...voltage,
    );
  if (fullH === null)
    return told(
      'charge',
      'Charge on, and watch',
      `${figure(charged, 0)} h so far, and what fills it the book does not say: if that was enough, it is tired.`,
      ...voltage,
    );
  return last.outcome === 'low-supply steps'
    ? told(
        'renew',
        'New accumulator',
        `It signals low after ${figure(charged, 0)} h, enough to fill it: tired.`,
        ...voltage,
      )
    : told(
        'clean',
        'Clean, then renew',
        `It does not run after ${figure(charged, 0)} h: look at contacts, tabs and light cell first, then the ${whatWas}.`,
        ...voltage,
      );
}
