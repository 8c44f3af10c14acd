import type { Book } from '../../craft/book';
import { hoursAt } from '../../craft/charging';
import { judgeCurrent } from '../../craft/health';
import { figure, type Judged } from '../../craft/judgement';
import { type Calibre, reserveWith } from '../../craft/movements';
import { daysBetween, localDay } from '../../craft/time';
import { fellBack, isAfter, type JobContext, type JobState, readingIn } from '../../logbook';
import { hasLeaked } from './renewal';
import { daysStood, EMPTY_SHARE } from './startShown';

export type AccumulatorVerdict = Judged<'fine' | 'charge' | 'clean' | 'renew'> & {
  /** The verdict as one says it. */
  readonly answer: string;
};

/** From this share of its nominal voltage on it holds a charge. Ours, from bench practice. */
const HOLDS_SHARE = 0.9;

/** Less than this is no charge, whatever gave it, where nothing tells how long one takes, hours. Ours. */
const LEAST_CHARGE_H = 1;

/**
 * Hours of light that fill it here: surely, at the dimmest place that charges it, and at the soonest, at the brightest. Null
 * where book or shop say nothing.
 */
function hoursToFull(
  { calibre }: Pick<JobState, 'calibre'>,
  { lightPlaces }: Pick<Book, 'lightPlaces'>,
): { readonly surely: number; readonly soonest: number } | null {
  const hours = lightPlaces.flatMap(
    ({ lux }) => hoursAt(calibre?.lightTimes ?? [], 'fullH', lux).hours ?? [],
  );
  return hours.length === 0 ? null : { surely: Math.max(...hours), soonest: Math.min(...hours) };
}

/** Whether a current is over the limit of its movement, as any reading of it is judged: by the instrument's step. */
function isOverLimit(drawsUA: number, { code, typicalUA }: Calibre, limitUA: number): boolean {
  const figures = { whose: 'this movement', of: code, typicalUA: typicalUA ?? limitUA, limitUA } as const;
  return judgeCurrent(drawsUA, figures).verdict === 'over the limit';
}

/** Hours as one says them, minutes where they are few. */
const hoursWords = (hours: number): string =>
  hours < 1 ? `${figure(Math.round(hours * 60), 0)} min` : `${figure(hours, 1)} h`;

type Charges = JobState['facts']['charges'];
type Context = Pick<JobContext, 'nowUtc' | 'shop'> & {
  readonly policy: Pick<JobContext['policy'], 'handBackChargePercent'>;
  readonly catalogue: Pick<Book, 'lightPlaces'>;
};
type State = Pick<JobState, 'facts' | 'calibre' | 'wells' | 'activeEntries'>;

function judged(
  verdict: AccumulatorVerdict['verdict'],
  answer: string,
  ...reasons: readonly string[]
): AccumulatorVerdict {
  return { verdict, answer, reasons, working: [] };
}

/** Everything seen of an accumulator since it was new here, or since it came. */
interface Seen {
  readonly charge: NonNullable<Calibre['charge']>;
  readonly since: Charges;
  readonly last: Charges[number]['payload'];
  /** Charges that count towards a full one: its own kind where there was any. */
  readonly counted: Charges;
  readonly chargedH: number;
  /** Hours of light to full; null where book or shop say nothing, or it does not charge in light. */
  readonly full: ReturnType<typeof hoursToFull>;
  /** How it failed again after it had stepped normally. */
  readonly again: ReturnType<typeof fellBack>;
  /** Its voltage at rest, where it was read after the last charge. */
  readonly restSince: ReturnType<typeof readingIn>;
  readonly whatWas: string;
  readonly dark: readonly string[];
  readonly voltage: readonly string[];
  readonly dayOf: (made: { readonly occurredAt: string }) => string;
}

const hoursOf = (charges: Charges): number => charges.reduce((sum, { payload }) => sum + payload.hours, 0);

/** Why it may be merely flat: it stood for longer than it runs, or in the dark. */
function inTheDark(
  state: State,
  context: Pick<JobContext, 'nowUtc' | 'shop'>,
  reserveDays: number,
): readonly string[] {
  const stood = daysStood(state, context);
  if (stood !== null && stood > reserveDays)
    return [
      `It has been stopped for ${figure(stood, 0)} days or more. On a full charge it runs ${figure(reserveDays, 0)} days, so any accumulator would be flat now.`,
    ];
  return (state.facts.wear?.payload.uses.includes('kept in a drawer') ?? false)
    ? ['It was kept in a drawer, in the dark: flat is likelier than tired.']
    : [];
}

/** It steps normally after its charge: whether that was enough to tell, and to hand it back with. */
function steppingNormally(
  { since, charge, chargedH, full, restSince, voltage }: Seen,
  handBack: number,
): AccumulatorVerdict {
  const share = full === null ? null : chargedH / full.soonest;
  if (share === null ? hoursOf(since) < LEAST_CHARGE_H : share < handBack)
    return judged(
      'charge',
      'Charge on',
      share === null
        ? `It steps normally after ${hoursWords(hoursOf(since))} of charge. That does not show how long it will run.`
        : `It steps normally, but is at most ${figure(Math.max(1, share * 100), 0)} % full after ${hoursWords(chargedH)} of charge: a full charge takes ${figure(full?.soonest ?? 0, 0)} h in the brightest light of this shop. Hand it back from ${figure(handBack * 100, 0)} %.`,
      ...voltage,
    );
  return restSince && restSince.payload.value < charge.nominalV * EMPTY_SHARE
    ? judged(
        'charge',
        'Charge on, and watch',
        `It came back, but ${figure(restSince.payload.value, 2)} V after the charge, of ${figure(charge.nominalV, 2)} V, is nearly empty: if it does not rise, it is tired.`,
      )
    : judged(
        'fine',
        'Fine as it is',
        'It came back with the charge. Low-supply steps that return within days mean it is tired.',
        ...voltage,
      );
}

/** What fails although the accumulator does not: a movement that draws too much, contacts, coil, or what charges it. */
function notTheAccumulator(
  { facts, calibre }: State,
  { charge, again, restSince, whatWas, voltage, dayOf }: Seen,
): AccumulatorVerdict | null {
  const draws = readingIn(facts, 'currentUA')?.payload.value ?? null;
  if (calibre?.limitUA && draws !== null && isOverLimit(draws, calibre, calibre.limitUA))
    return judged(
      'clean',
      'The movement first',
      `It draws ${figure(draws, 2)} µA, and ${figure(calibre.limitUA, 2)} is the limit. This current empties a good ${whatWas}, too.`,
      ...voltage,
    );
  const after = voltsSince(restSince, again, dayOf);
  if (after !== null && after >= charge.nominalV * HOLDS_SHARE)
    return judged(
      'clean',
      'Not the accumulator',
      `${figure(after, 2)} V after the charge, of ${figure(charge.nominalV, 2)} V: it holds its charge. Check contacts, coil and train.`,
    );
  return again?.shows === 'does not charge'
    ? judged(
        'clean',
        'Clean, then renew',
        `It does not charge. Check contacts, tabs and ${charge.by === 'light' ? 'solar cell' : 'generating rotor'} first, then the ${whatWas}.`,
        ...voltage,
      )
    : null;
}

/** The voltage after the charge; what was read before it failed again says nothing of how it holds now, unless on the same day. */
function voltsSince(restSince: Seen['restSince'], again: Seen['again'], dayOf: Seen['dayOf']): number | null {
  return restSince &&
    (again === null || isAfter(restSince, again.entry) || dayOf(restSince) === dayOf(again.entry))
    ? restSince.payload.value
    : null;
}

/** It had stepped normally and failed again: run down, or tired. */
function failedAgain(
  { facts }: State,
  { charge, since, last, counted, full, again, restSince, voltage, dayOf }: Seen,
  cameBack: Charges[number],
): AccumulatorVerdict {
  const failed = again?.entry ?? since.at(-1) ?? cameBack;
  const days = daysBetween(dayOf(cameBack), dayOf(failed));
  if (full !== null) {
    // By the dimmest light, so that it is said to run rather shorter than longer.
    const hours = hoursOf(counted.filter((each) => since.indexOf(each) <= since.indexOf(cameBack)));
    const ranDays =
      Math.min(1, hours / full.surely) * reserveWith(charge, facts.accumulator?.payload.kitCode ?? null);
    if (days > ranDays)
      return judged(
        'charge',
        'Charge on',
        `${figure(hours, 0)} h of light keep it for ${figure(ranDays, 0)} days, and ${figure(days, 0)} days have passed. It may have run down.`,
        ...voltage,
      );
  }
  const stands = (again?.shows ?? last.outcome) === 'does not run';
  if (stands && voltsSince(restSince, again, dayOf) === null)
    return judged(
      'clean',
      'Measure it first',
      `It stepped normally and has stopped again. Below ${figure(charge.nominalV * HOLDS_SHARE, 2)} V at rest it is tired. Above that, check contacts, coil and train.`,
    );
  return judged(
    'renew',
    'New accumulator',
    `It stepped normally and ${stands ? 'has stopped' : 'signals low'} again: it is tired.`,
    ...voltage,
  );
}

/** It never stepped normally: charged too little to tell, or tired. */
function neverCameBack({ last, chargedH, full, whatWas, dark, voltage }: Seen): AccumulatorVerdict {
  if (full === null)
    return judged(
      'charge',
      'Charge on, and watch',
      `${figure(chargedH, 0)} h so far. The book does not say how long a full charge takes. If this was enough, it is tired.`,
      ...voltage,
    );
  if (chargedH < full.surely)
    return judged(
      'charge',
      'Charge on',
      `${figure(chargedH, 0)} h so far, and full takes ${figure(full.surely, 0)} h in the dimmest light of this shop. It may only be discharged.`,
      ...dark,
      ...voltage,
    );
  return last.outcome === 'low-supply steps'
    ? judged(
        'renew',
        'New accumulator',
        `It signals low after ${figure(chargedH, 0)} h, enough for a full charge. It is tired.`,
        ...voltage,
      )
    : judged(
        'clean',
        'Clean, then renew',
        `It does not run after ${figure(chargedH, 0)} h. First check contacts, tabs and solar cell, then the ${whatWas}.`,
        ...voltage,
      );
}

/**
 * Is the accumulator tired, flat or fine, and what comes next: charge it, clean, or renew it? It is charged and watched before it
 * is condemned, since one from a drawer may be merely discharged; tired is what steps low again after a charge that should
 * have filled it, or after it had stepped normally, sooner than it could run down. What was seen after a charge counts, not its
 * outcome alone. What holds its voltage after a charge, or feeds a movement that draws too
 * much, is not what fails. A new one is nearly empty, and none is fine before it holds what one is handed back with. Null for a watch that charges nothing. Its voltage is held against its
 * own nominal one. Source: bench practice.
 */
export function judgeAccumulator(
  state: State,
  { catalogue: book, ...context }: Context,
): AccumulatorVerdict | null {
  const { facts, calibre } = state;
  const charge = calibre?.charge ?? null;
  if (charge === null) return null;
  const { accumulator } = facts;
  const since = facts.charges.filter((each) => accumulator === null || isAfter(each, accumulator));
  const latest = since.at(-1) ?? null;
  const whatWas = charge.oldPart === 'capacitor' ? 'accumulator or capacitor' : 'accumulator';
  const rest = readingIn(facts, 'restVoltageV') ?? null;
  const dark = inTheDark(state, context, charge.reserveDays);
  const voltage =
    rest === null
      ? []
      : [
          `${figure(rest.payload.value, 2)} V at rest. Charged, it has ${figure(charge.nominalV, 2)} V${rest.payload.value < charge.nominalV * EMPTY_SHARE ? ': empty, which does not show whether it is good' : ''}.`,
        ];
  if (accumulator !== null && latest === null)
    return judged(
      'charge',
      'Charge it',
      'A new accumulator is nearly empty. Give it light or winding, then check that it runs.',
      ...voltage,
    );
  if (hasLeaked(state) && accumulator === null)
    return judged(
      'clean',
      'Clean, then renew',
      `The ${whatWas} leaked. Clean contacts and well, and measure before you fit another.`,
    );
  if (latest === null)
    return judged(
      'charge',
      'Charge it first',
      'It is either discharged or tired. A full charge shows which. A watch kept in a drawer is often only discharged.',
      ...dark,
      ...voltage,
    );
  // Hours of another kind are no hours of its own: what a charger gives in them the book does not say.
  const own = since.filter(({ payload }) => payload.by === charge.by);
  const counted = own.length > 0 ? own : since;
  const seen: Seen = {
    charge,
    since,
    last: latest.payload,
    counted,
    chargedH: hoursOf(counted),
    full: charge.by === 'light' && own.length > 0 ? hoursToFull(state, book) : null,
    again: fellBack(state.activeEntries),
    restSince: rest !== null && isAfter(rest, latest) ? rest : undefined,
    whatWas,
    dark,
    voltage,
    dayOf: ({ occurredAt }) => localDay(occurredAt, context.shop.zone),
  };
  if (seen.last.outcome === 'steps normally' && seen.again === null)
    return steppingNormally(seen, context.policy.handBackChargePercent / 100);
  const cameBack = since.findLast(({ payload }) => payload.outcome === 'steps normally');
  return (
    notTheAccumulator(state, seen) ?? (cameBack ? failedAgain(state, seen, cameBack) : neverCameBack(seen))
  );
}
