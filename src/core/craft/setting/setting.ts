import type { Judged, WorkingLine } from '../judgement';
import type { Calibre } from '../movements';
import { dayInWords, nextDateCorrection, noMoments } from '../time';
import { type ChangeOver, clockOf, forbiddenHours, withinNight } from './night';
import { fewestMidnights, type SettingPlan } from './planSetting';
import { onDisplayAlone } from './proofs';

/** What of a movement and its case decides how it is set. */
export type SetMovement = Pick<Calibre, 'functions' | 'dial' | 'recipes' | 'cautions'> & {
  /** Null: not known. */
  readonly dateQuickSet: boolean | null;
  readonly changeOver: ChangeOver | null;
  readonly hasCrown: boolean;
};

/**
 * Whether the date of a movement is on a wheel that the hands drive, so that midnight has to be found: a display without
 * hands has none, and beside a display only where the dial has a window for it.
 */
export function hasDateWheel({ functions, dial }: Pick<SetMovement, 'functions' | 'dial'>): boolean {
  const shows = (part: (typeof dial)[number]['shows']): boolean => dial.some((each) => each.shows === part);
  return (
    functions.includes('date') &&
    !onDisplayAlone(functions) &&
    (!functions.includes('digital display') || !shows('display') || shows('date'))
  );
}

export type SettingAdvice = Judged<'set so' | 'language out of reach' | 'look again' | 'not yet known'> & {
  readonly steps: readonly string[];
};

/** Overrun by so much when the minute hand is taken past its mark and back. */
const LASH_MINUTES = 5;

const ZEROING = /chrono|counter|zero/i;
/** Recipes of the book that belong to the change of a cell alone. */
const OF_THE_CELL = ['cell out', 'cell in', 'cell out and in'];

/** The recipes of a calibre that stand where it is set and proved: all but those that only move the cell. */
export function recipesAtSetting(recipes: Calibre['recipes']): Calibre['recipes'] {
  return recipes.filter(({ what }) => !OF_THE_CELL.includes(what.trim().toLowerCase()));
}

const PROVED_HERE =
  /chrono|counter|alarm|buzzer|reset|segment|display|steps|date|day|crown|hands|light|pusher|button|bezel|bracelet|signal|dead/i;

/** The cautions of a calibre: those that name what is set and proved first, the others after. */
export function cautionsAtSetting(cautions: readonly string[]): {
  readonly here: readonly string[];
  readonly others: readonly string[];
} {
  return {
    here: cautions.filter((caution) => PROVED_HERE.test(caution)),
    others: cautions.filter((caution) => !PROVED_HERE.test(caution)),
  };
}

/** How the crown goes home: the play taken up by bringing the minute hand back, but never where date wheels are in hand. */
function crownHome(movement: SetMovement, wantedMinutes: number | null): string {
  const night = forbiddenHours(movement.changeOver);
  const stop = movement.functions.includes('seconds hand') ? 'Stop it at zero seconds, ' : '';
  if (hasDateWheel(movement) && wantedMinutes !== null && withinNight(wantedMinutes, night, LASH_MINUTES))
    return `${stop}${stop === '' ? 'C' : 'c'}ome up to the mark turning forwards and no farther. Do not turn back between ${clockOf(night.from)} and ${clockOf(night.to)}, because the date wheels are engaged. Push the crown home on the signal.`;
  return `${stop}${stop === '' ? 'B' : 'b'}ring the minute hand back onto its mark to take up the play. Push the crown home on the signal.`;
}

function dateSteps(movement: SetMovement): readonly string[] {
  const { from, to } = forbiddenHours(movement.changeOver);
  const { dateQuickSet } = movement;
  return [
    'Turn the hands forwards until the date jumps: that is midnight. Only then set the hour.',
    dateQuickSet === false
      ? 'No quick-set. The date moves only at midnight.'
      : `${dateQuickSet === null ? 'Whether its date sets quickly is not known. If it does, q' : 'Q'}uick-set the date only with the hands outside ${clockOf(from)}–${clockOf(to)}. Between those hours the engaged date teeth can break.`,
  ];
}

const HOMES_SECONDS = /second/i;

/** A seconds hand beside a display: both count the same second, or it is sent home first. */
function secondsBeside({ functions, recipes, cautions }: SetMovement): readonly string[] {
  if (!functions.includes('seconds hand') || onDisplayAlone(functions)) return [];
  const recipe = recipes.find(({ what }) => HOMES_SECONDS.test(what) && ZEROING.test(what));
  const caution = cautions.find((each) => HOMES_SECONDS.test(each) && ZEROING.test(each));
  const home =
    recipe !== undefined
      ? `${recipe.what}: ${recipe.steps.map((step) => step.replace(/\.$/, '')).join('; ')}`
      : (caution ??
        'the book has no instructions for this calibre, so look them up, and do not force any hand');
  return [
    `Compare the seconds hand with the seconds on the display for half a minute. If the crown sets it, stop it at 12 and release it when the display passes zero. If the module drives it, first return it to 12: ${home.replace(/\.$/, '')}.`,
  ];
}

function displaySteps(movement: SetMovement, wheel: boolean): readonly string[] {
  const { functions, hasCrown } = movement;
  const alone = onDisplayAlone(functions);
  const calendar = wheel
    ? ''
    : ['date', 'day']
        .filter((each) => (functions as readonly string[]).includes(each))
        .map((each) => `, ${each}`)
        .join('');
  const withWhat = alone && hasCrown ? 'its crown and buttons' : 'its buttons';
  return [
    `Set hour, minute${calendar} of the display with ${withWhat}. Set the seconds last: to zero on the time signal.`,
    ...(alone
      ? []
      : [
          'Compare hands and display. Both must show the same minute, and the display must show the right half of the day (a.m. or p.m.). If they differ, turn the hands forwards to the display. Do not set the display back to the hands.',
        ]),
    ...secondsBeside(movement),
  ];
}

/** When a display that holds no year shows the wrong day next: it takes every February for 28 days. */
function displayCorrection(day: string): string {
  const year = Number(day.slice(0, 4));
  const isLeap = (each: number): boolean => (each % 4 === 0 && each % 100 !== 0) || each % 400 === 0;
  const [wrong] = noMoments([['The day', day]]);
  if (wrong !== undefined) return `The next date correction cannot be worked out. ${wrong}`;
  const next = [...Array.from({ length: 9 }, (_, ahead) => year + ahead)].find(
    (each) => isLeap(each) && `${each}-02-29` > day,
  );
  const ends = 'Some displays do not store the year and give every February 28 days';
  return next === undefined
    ? `${ends}. If this is one of them, set the date by hand on 29 February of a leap year.`
    : `${ends}. If this is one of them, set the date by hand on ${dayInWords(`${next}-02-29`)}.`;
}

function zeroing({ recipes, cautions }: SetMovement): string {
  const recipe = recipes.find(({ what }) => ZEROING.test(what));
  // Some books hold it as a caution.
  const caution = cautions.find((each) => ZEROING.test(each));
  const said = recipe
    ? `${recipe.what}: ${recipe.steps.map((step) => step.replace(/\.$/, '')).join('; ')}.`
    : caution;
  return said === undefined
    ? 'Return the chronograph hands to zero with the reset pusher. If they do not stop at zero, look up the instructions for this calibre: the book has none. Do not force any hand.'
    : `Chronograph: ${said} Then start, stop, reset.`;
}

/** When its date next needs a hand, and what that takes. */
function correction(
  movement: SetMovement,
  day: string,
): { readonly reason: string; readonly working: WorkingLine } {
  const [wrong] = noMoments([['The day', day]]);
  if (wrong !== undefined)
    return {
      reason: `The next date correction cannot be worked out. ${wrong}`,
      working: { what: 'next date correction', rule: 'counted from a day of the calendar', figures: wrong },
    };
  const { day: on, extraDays } = nextDateCorrection(day);
  const midnights = fewestMidnights(movement.functions.includes('day') ? 0 : null, extraDays);
  const takes =
    movement.dateQuickSet === false
      ? `${extraDays}: ${midnights === 1 ? 'one midnight' : `${midnights} midnights`} without a quick-set`
      : String(extraDays);
  return {
    reason: `Correct the date by hand next on ${dayInWords(on)}, by ${takes}.`,
    working: {
      what: 'next date correction',
      rule: 'the 1st after a month of fewer than 31 days; by midnights alone the day has to come round, too',
      figures: `from ${dayInWords(day)} → ${dayInWords(on)}, by ${takes}`,
      source: 'calendar',
    },
  };
}

/**
 * How to set this watch, step by step: by the way worked out from what it shows where there is one, the hands with the crown,
 * a display with its buttons and agreeing with them, chronograph hands by the calibre's recipe; and when its date next needs
 * a hand. `day` is the shop's calendar day, `wantedMinutes` the time it is set to, minutes of the day. Source: bench
 * practice; the calendar for the date wheel of 31 places.
 */
export function settingAdvice(
  movement: SetMovement | null,
  day: string,
  {
    plan = null,
    wantedMinutes = null,
  }: { readonly plan?: SettingPlan | null; readonly wantedMinutes?: number | null } = {},
): SettingAdvice {
  if (!movement) {
    return {
      verdict: 'not yet known',
      steps: [],
      reasons: ['Setting depends on the movement. Identify it first.'],
      working: [],
    };
  }
  const { functions, hasCrown } = movement;
  const wheel = hasDateWheel(movement);
  const planned = plan !== null && plan.moves.length > 0 ? plan : null;
  const next = wheel ? correction(movement, day) : null;
  return {
    verdict: planned === null ? 'set so' : planned.verdict,
    steps: [
      ...(wheel ? (planned?.steps ?? dateSteps(movement)) : []),
      ...(onDisplayAlone(functions)
        ? []
        : [
            hasCrown
              ? crownHome(movement, wantedMinutes)
              : 'It has no crown. Set the hands to the minute with the buttons, and start them on the signal.',
          ]),
      ...(functions.includes('digital display') ? displaySteps(movement, wheel) : []),
      ...(functions.includes('chronograph') ? [zeroing(movement)] : []),
    ],
    reasons: [
      ...(planned?.reasons ?? []),
      next?.reason ?? 'This watch has no date wheel, so no date needs correcting at the end of a month.',
      ...(!wheel && functions.includes('digital display') && functions.includes('date')
        ? [displayCorrection(day)]
        : []),
    ],
    working: [...(planned?.working ?? []), ...(next ? [next.working] : [])],
  };
}
