import { book } from '../../../testing/fixtures';
import { isForLicensed } from '../gaskets';
import { drainNeeded } from '../book';
import type { Calibre } from '../movements';
import { nextDateCorrection } from '../time';
import { changeOverOf } from './night';
import { planSetting } from './planSetting';
import {
  cautionsAtSetting,
  hasDateWheel,
  recipesAtSetting,
  settingAdvice,
  type SetMovement,
} from './setting';

const ofBook = (id: string, over: Partial<SetMovement> = {}): SetMovement => {
  const calibre = book.calibre(id);
  if (!calibre) throw new Error(`No ${id} in the book.`);
  return { ...calibre, changeOver: changeOverOf(calibre.changeOver), hasCrown: true, ...over };
};
const stepsOf = (movement: SetMovement | null, wantedMinutes: number | null = null): string =>
  settingAdvice(movement, '2026-03-17', { wantedMinutes }).steps.join(' ');

describe('how a watch is set', () => {
  it('finds midnight first, and forbids the quick-set at night, the calibre’s own night where it is wider', () => {
    const dated = settingAdvice(ofBook('orrelin-41-6'), '2026-03-17');
    expect(dated.steps[0]).toContain('midnight');
    // Of a change-over nobody knows the widest.
    expect(dated.steps.join(' ')).toContain('20:00–04:30');
    expect(stepsOf(ofBook('orrelin-41-6', { changeOver: { from: 1170, to: 270 } }))).toContain('19:30–04:30');
    expect(stepsOf(ofBook('orrelin-41-6', { changeOver: { from: 1380, to: 30 } }))).toContain('20:00–02:00');
    expect(settingAdvice(ofBook('orrelin-41-2'), '2026-03-17').steps).toHaveLength(1);
    expect(settingAdvice(null, '2026-03-17').verdict).toBe('not yet known');
  });

  it.each([
    [600, 'bring the minute hand back onto its mark'],
    [1194, 'bring the minute hand back onto its mark'],
    // Five minutes over the mark the wheels would be in hand.
    [1196, 'come up to the mark turning forwards and no farther'],
    [1439, 'come up to the mark turning forwards and no farther'],
    [0, 'come up to the mark turning forwards and no farther'],
    [275, 'come up to the mark turning forwards and no farther'],
    [276, 'bring the minute hand back onto its mark'],
  ])('takes the play up at %i minutes so: %s', (wantedMinutes, words) => {
    expect(stepsOf(ofBook('orrelin-41-6'), wantedMinutes)).toContain(words);
  });

  it('takes the play up at any hour where no date hangs on the hands', () => {
    expect(stepsOf(ofBook('orrelin-41-2'), 0)).toContain('bring the minute hand back onto its mark');
  });

  it('sets a display by its buttons, and beside hands so that they agree', () => {
    const alone = settingAdvice(ofBook('tasvik-82d', { hasCrown: false }), '2026-03-17');
    expect(alone.steps).toEqual([
      'Set hour, minute, date, day of the display with its buttons. Set the seconds last: to zero on the time signal.',
    ]);
    expect(alone.reasons).toEqual([
      'This watch has no date wheel, so no date needs correcting at the end of a month.',
      expect.stringContaining('29 Feb 2028'),
    ]);
    expect(stepsOf(ofBook('tasvik-82d'))).toContain('its crown and buttons');
    const both = stepsOf(ofBook('quillbeck-22-4'));
    expect(both).toContain('crown home on the signal');
    expect(both).toContain('Compare hands and display');
    expect(both).toContain('the seconds on the display');
    expect(both).toContain('first return it to 12');
  });

  it('looks for the date on a wheel only where there is one', () => {
    const functions: Calibre['functions'] = ['hands', 'digital display', 'date'];
    const at = (...shows: ('date' | 'display')[]) => shows.map((each) => ({ shows: each, clock: 6 }));
    expect(hasDateWheel({ functions, dial: at('display', 'date') })).toBe(true);
    expect(hasDateWheel({ functions, dial: at('display') })).toBe(false);
    // Nobody said where: midnight is looked for.
    expect(hasDateWheel({ functions, dial: [] })).toBe(true);
    expect(hasDateWheel({ functions: ['digital display', 'date'], dial: [] })).toBe(false);
    expect(hasDateWheel({ functions: ['hands'], dial: [] })).toBe(false);
    const shown = ofBook('quillbeck-22-4', { functions, dial: at('display') });
    expect(stepsOf(shown)).toContain('Set hour, minute, date of the display');
    expect(stepsOf(shown)).not.toContain('midnight');
  });

  it('sets hands without a crown by the buttons', () => {
    expect(stepsOf(ofBook('orrelin-41-2', { hasCrown: false }))).toContain('It has no crown');
  });

  it('sends chronograph hands home by the calibre’s own recipe, and says where the book has none', () => {
    const recipes = [
      { what: 'cell out', steps: ['x'] },
      { what: 'counters to zero', steps: ['Crown to its second place.', 'Upper button: the centre hand.'] },
    ];
    expect(stepsOf(ofBook('orrelin-62-3', { recipes }))).toContain(
      'counters to zero: Crown to its second place; Upper button: the centre hand. Then start, stop, reset.',
    );
    expect(stepsOf(ofBook('orrelin-62-3', { recipes: [], cautions: [] }))).toContain('the book has none');
    const cautions = ['Minute counter to zero with the lower pusher held.'];
    expect(stepsOf(ofBook('orrelin-62-3', { recipes: [], cautions }))).toContain(
      'Chronograph: Minute counter to zero with the lower pusher held. Then start',
    );
    expect(stepsOf(ofBook('orrelin-41-2'))).not.toContain('hronograph');
    expect(recipesAtSetting(recipes).map(({ what }) => what)).toEqual(['counters to zero']);
  });

  it('leaves no caution out, and puts first what is met here', () => {
    const cautions = [
      'The lever is pushed toward the coil.',
      'Bent, the buzzer spring leaves the alarm silent.',
    ];
    expect(cautionsAtSetting(cautions)).toEqual({ here: [cautions[1]], others: [cautions[0]] });
  });

  it('takes the way that was worked out, and its verdict', () => {
    const movement = ofBook('tasvik-71b', { dateQuickSet: false });
    const plan = planSetting(
      { dialMinutes: 582, half: 'a.m.', weekday: 5, date: 7, language: 0 },
      { minutes: 600, weekday: 1, date: 17, language: 1 },
      { quickSet: 'none', changeOver: null },
    );
    const advice = settingAdvice(movement, '2026-03-17', { plan, wantedMinutes: 600 });
    expect(advice.verdict).toBe('language out of reach');
    expect(advice.steps.slice(0, plan.steps.length)).toEqual(plan.steps);
    expect(advice.steps.at(-1)).toContain('crown home');
  });
});

describe('the next correction of the date', () => {
  it.each([
    ['2026-03-17', '2026-05-01', 1],
    ['2026-02-10', '2026-03-01', 3],
    ['2028-02-10', '2028-03-01', 2],
    ['2026-12-05', '2027-03-01', 3],
    ['2026-06-30', '2026-07-01', 1],
  ])('from %s the date wheel next wants a hand on %s, by %i', (day, on, extraDays) => {
    expect(nextDateCorrection(day)).toEqual({ day: on, extraDays });
  });

  it.each([
    ['2026-03-17', 'by 1: 63 midnights'],
    ['2028-02-10', 'by 2: 126 midnights'],
    ['2026-02-10', 'by 3: 189 midnights'],
  ])('takes many midnights where the day has to come round, seen from %s: %s', (day, words) => {
    const movement = ofBook('tasvik-71b', { dateQuickSet: false });
    expect(settingAdvice(movement, day).reasons.join(' ')).toContain(words);
  });

  it('takes as many as it is behind where there is no day', () => {
    const movement = ofBook('orrelin-41-6', { dateQuickSet: false });
    expect(settingAdvice(movement, '2026-03-17').reasons.join(' ')).toContain('by 1: one midnight');
    expect(settingAdvice(movement, '2026-02-10').reasons.join(' ')).toContain('by 3: 3 midnights');
  });
});

describe('small words', () => {
  it('refers what only the licensed may certify, and asks high drain where much is drawn', () => {
    expect([isForLicensed(10), isForLicensed(20)]).toEqual([false, true]);
    expect(drainNeeded({ functions: ['hands', 'alarm'] })).toBe('high');
    expect(drainNeeded({ functions: ['hands', 'date'] })).toBe('low');
  });
});
