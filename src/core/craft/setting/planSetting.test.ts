import fc from 'fast-check';
import { type Move, planSetting, QUICK_SETS, type SettingOf, type Shown, type Wanted } from './planSetting';

/** A watch that is turned minute by minute: nothing of the plan's own arithmetic. */
class Turned {
  date: number;
  /** Of fourteen places with two languages, of seven with one. */
  place: number;
  midnights = 0;
  quickSetInTheNight = false;
  backOverMidnight = false;
  constructor(
    public minutes: number,
    shown: Shown,
    private readonly places: number,
  ) {
    this.date = shown.date;
    this.place =
      shown.weekday === null ? 0 : places === 14 ? 2 * shown.weekday + (shown.language ?? 0) : shown.weekday;
  }
  private on(): void {
    this.minutes += 1;
    if (this.minutes < 1440) return;
    this.minutes = 0;
    this.midnights += 1;
    this.date = this.date === 31 ? 1 : this.date + 1;
    this.place = (this.place + (this.places === 14 ? 2 : 1)) % this.places;
  }
  make(move: Move, of: SettingOf): void {
    if (move.move === 'find midnight') {
      const before = this.midnights;
      while (this.midnights === before) this.on();
    } else if (move.move === 'turn on') {
      const until = this.midnights + move.midnights;
      while (this.midnights < until || this.minutes !== move.to) {
        this.on();
        if (this.midnights > until + 1) throw new Error('never there');
      }
    } else if (move.move === 'turn back') {
      while (this.minutes !== move.to) {
        this.minutes -= 1;
        if (this.minutes < 0) {
          this.backOverMidnight = true;
          this.minutes = 1439;
        }
      }
    } else {
      const [from, to] = [
        Math.min(1200, of.changeOver?.from ?? 1200),
        Math.max(120, of.changeOver?.to ?? 120),
      ];
      if (this.minutes >= from || this.minutes <= to) this.quickSetInTheNight = true;
      for (let i = 0; i < move.times; i += 1) {
        if (move.move === 'quick-set the date') this.date = this.date === 31 ? 1 : this.date + 1;
        else this.place = (this.place + 1) % this.places;
      }
    }
  }
}

const shownBy = fc.record({
  dialMinutes: fc.integer({ min: 0, max: 719 }),
  half: fc.constantFrom('a.m.' as const, 'p.m.' as const, null),
  weekday: fc.option(fc.integer({ min: 0, max: 6 }), { nil: null }),
  date: fc.integer({ min: 1, max: 31 }),
  language: fc.constantFrom(0 as const, 1 as const, null),
});
const wantedBy = fc.record({
  minutes: fc.integer({ min: 0, max: 1439 }),
  weekday: fc.integer({ min: 0, max: 6 }),
  date: fc.integer({ min: 1, max: 31 }),
  language: fc.constantFrom(0 as const, 1 as const, null),
});
const ofBy = fc.record({
  quickSet: fc.constantFrom(...QUICK_SETS),
  changeOver: fc.constantFrom(null, { from: 1260, to: 270 }, { from: 1140, to: 60 }),
});

describe('the plan of setting', () => {
  it('reaches day, date and time when it is turned minute by minute, whichever half it was', () => {
    fc.assert(
      fc.property(shownBy, wantedBy, ofBy, fc.boolean(), (shown, wanted, of, truly) => {
        const places = shown.language === null ? 7 : 14;
        const plan = planSetting(shown, wanted, of);
        const half = shown.half ?? (truly ? 'p.m.' : 'a.m.');
        const watch = new Turned(shown.dialMinutes + (half === 'p.m.' ? 720 : 0), shown, places);
        for (const move of plan.moves) watch.make(move, of);
        expect([watch.minutes, watch.date]).toEqual([wanted.minutes, wanted.date]);
        expect([watch.quickSetInTheNight, watch.backOverMidnight]).toEqual([false, false]);
        if (shown.weekday !== null) {
          expect(places === 14 ? Math.floor(watch.place / 2) : watch.place).toBe(wanted.weekday);
          const language = places === 14 ? watch.place % 2 : null;
          const reached = wanted.language === null || language === null || language === wanted.language;
          expect(plan.verdict === 'set so' ? reached : !reached).toBe(true);
        }
        expect(watch.midnights).toBe(plan.midnights?.taken);
      }),
      { numRuns: 300 },
    );
  });

  it('passes no more midnights than a count by hand, without a quick-set', () => {
    fc.assert(
      fc.property(shownBy, wantedBy, (shown, wanted) => {
        const of: SettingOf = { quickSet: 'none', changeOver: null };
        const { midnights } = planSetting(shown, wanted, of);
        const least = (from: number): number => {
          for (let n = from; ; n += 1) {
            const date = ((shown.date - 1 + n) % 31) + 1;
            const day = shown.weekday === null ? wanted.weekday : (shown.weekday + n) % 7;
            if (date === wanted.date && day === wanted.weekday) return n;
          }
        };
        return midnights?.halfKnown === least(0) && midnights.found === least(1);
      }),
    );
  });

  it.each([
    [0, 3, 1, 11, 10],
    [0, 1, 12, 12, 155],
    [4, 4, 20, 20, 0],
    [0, 0, 31, 1, 63],
    [0, 0, 30, 1, 126],
    [0, 0, 29, 1, 189],
  ])('day %d to %d, date %d to %d: %d midnights', (weekday, to, date, wanted, midnights) => {
    const plan = planSetting(
      { dialMinutes: 600, half: 'a.m.', weekday, date, language: null },
      { minutes: 700, weekday: to, date: wanted, language: null },
      { quickSet: 'none', changeOver: null },
    );
    expect(plan.midnights?.halfKnown).toBe(midnights);
    if (midnights > 30) expect(plan.reasons.join(' ')).toContain(`${midnights} midnights`);
  });

  it('keeps the language of a ring, changes it by quick-set, and says where it is out of reach', () => {
    const shown: Shown = { dialMinutes: 600, half: null, weekday: 1, date: 5, language: 0 };
    const wanted: Wanted = { minutes: 900, weekday: 3, date: 9, language: 1 };
    expect(planSetting(shown, wanted, { quickSet: 'date only', changeOver: null })).toMatchObject({
      verdict: 'language out of reach',
      reasons: [expect.stringContaining('out of reach') as string],
    });
    const plan = planSetting(shown, wanted, { quickSet: 'date and day', changeOver: null });
    expect(plan.verdict).toBe('set so');
    expect(plan.steps).toEqual([
      'Turn on until the date jumps: that is midnight.',
      'Turn on to 06:00.',
      'Quick-set the day 3 times.',
      'Quick-set the date 3 times.',
      'Turn on to 15:00.',
    ]);
  });

  it('before the morning sets the day before, and passes midnight', () => {
    const plan = planSetting(
      { dialMinutes: 600, half: 'a.m.', weekday: null, date: 5, language: null },
      { minutes: 75, weekday: 0, date: 1, language: null },
      { quickSet: 'date only', changeOver: null },
    );
    expect(plan.steps).toEqual(['Quick-set the date 26 times.', 'Turn on past midnight to 01:15.']);
  });

  it.each([
    [{ dialMinutes: NaN }, 'what the hands show'],
    [{ dialMinutes: 900 }, 'what the hands show'],
    [{ weekday: 9 }, 'the day it shows'],
    [{ date: 0 }, 'the date it shows'],
    [{ date: Infinity }, 'the date it shows'],
  ])('%j is none, and said so', (more, words) => {
    const plan = planSetting(
      { dialMinutes: 0, half: null, weekday: 0, date: 1, language: null, ...more },
      { minutes: 0, weekday: 0, date: 1, language: null },
      { quickSet: 'none', changeOver: null },
    );
    expect(plan).toMatchObject({ verdict: 'not yet known', moves: [], midnights: null });
    expect(plan.reasons[0]).toContain(words);
  });
});
