import fc from 'fast-check';
import { type Move, planSetting, QUICK_SETS, type SettingOf, type Shown, type Wanted } from './planSetting';

/** A watch that is turned minute by minute, its day wheel letting go after its date: nothing of the plan's own arithmetic. */
class Turned {
  date: number;
  /** Of fourteen places with two languages, of seven with one. */
  place: number;
  midnights = 0;
  quickSetInTheNight = false;
  backOverMidnight = false;
  backAmongTheWheels = false;
  constructor(
    public minutes: number,
    shown: Shown,
    private readonly places: number,
    /** So many minutes after midnight its day jumps. */
    private readonly dayLag: number,
  ) {
    this.date = shown.date;
    this.place =
      shown.weekday === null ? 0 : places === 14 ? 2 * shown.weekday + (shown.language ?? 0) : shown.weekday;
  }
  on(): void {
    this.minutes += 1;
    if (this.minutes === 1440) {
      this.minutes = 0;
      this.midnights += 1;
      this.date = this.date === 31 ? 1 : this.date + 1;
    }
    if (this.minutes === this.dayLag) this.place = (this.place + (this.places === 14 ? 2 : 1)) % this.places;
  }
  get weekday(): number {
    return this.places === 14 ? Math.floor(this.place / 2) : this.place;
  }
  private until(minutes: number, midnights: number): void {
    const last = this.midnights + midnights;
    while (this.midnights < last || this.minutes !== minutes) {
      this.on();
      if (this.midnights > last + 1) throw new Error('never there');
    }
  }
  private inTheNight({ changeOver }: SettingOf): boolean {
    const from = Math.min(1200, changeOver?.from ?? 1200);
    const to = changeOver === null ? 270 : Math.max(120, changeOver.to);
    return this.minutes >= from || this.minutes <= to;
  }
  make(move: Move, of: SettingOf): void {
    switch (move.move) {
      case 'find midnight':
        this.until(0, 1);
        break;
      case 'turn on':
        this.until(move.to, move.midnights);
        break;
      case 'turn on until the day':
        this.until(move.to, move.midnights);
        for (let nights = 0; this.weekday !== move.weekday; nights += 1) {
          if (nights > 7) throw new Error('never that day');
          this.until(move.to, 1);
        }
        break;
      case 'turn back':
        while (this.minutes !== move.to) {
          this.backAmongTheWheels ||= this.inTheNight(of);
          this.minutes -= 1;
          if (this.minutes < 0) {
            this.backOverMidnight = true;
            this.minutes = 1439;
          }
        }
        this.backAmongTheWheels ||= this.inTheNight(of);
        break;
      case 'quick-set the date':
        this.quickSetInTheNight ||= this.inTheNight(of);
        this.date = move.to;
        break;
      case 'quick-set the day':
        this.quickSetInTheNight ||= this.inTheNight(of);
        this.place = this.places === 14 ? 2 * move.to + (move.language ?? 0) : move.to;
        break;
      case 'look again':
        break;
    }
  }
  shows(language: 0 | 1 | null, day: boolean): Shown {
    return {
      dialMinutes: this.minutes % 720,
      half: this.minutes < 720 ? 'a.m.' : 'p.m.',
      weekday: day ? this.weekday : null,
      date: this.date,
      language: language === null ? null : ((this.place % 2) as 0 | 1),
    };
  }
  toNoon(): void {
    do this.on();
    while (this.minutes !== 720);
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
  it('reaches day, date and time when it is turned minute by minute, whichever half it was, however late its day jumps', () => {
    fc.assert(
      fc.property(
        shownBy,
        wantedBy,
        ofBy,
        fc.boolean(),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (shown, wanted, of, truly, late) => {
          const places = shown.language === null ? 7 : 14;
          const latest = of.changeOver === null ? 270 : Math.max(120, of.changeOver.to);
          const half = shown.half ?? (truly ? 'p.m.' : 'a.m.');
          const watch = new Turned(
            shown.dialMinutes + (half === 'p.m.' ? 720 : 0),
            shown,
            places,
            Math.round(late * latest),
          );
          let plan = planSetting(shown, wanted, of);
          for (const move of plan.moves) watch.make(move, of);
          if (plan.verdict === 'look again') {
            expect(plan.midnights).toBeNull();
            watch.midnights = 0;
            plan = planSetting(watch.shows(shown.language, shown.weekday !== null), wanted, of);
            for (const move of plan.moves) watch.make(move, of);
          }
          expect([watch.minutes, watch.date]).toEqual([wanted.minutes, wanted.date]);
          expect([watch.quickSetInTheNight, watch.backOverMidnight, watch.backAmongTheWheels]).toEqual([
            false,
            false,
            false,
          ]);
          // By noon the day has jumped that belongs to the time it was set to.
          watch.toNoon();
          if (shown.weekday !== null) {
            expect(watch.weekday).toBe((wanted.weekday + (wanted.minutes >= 720 ? 1 : 0)) % 7);
            const language = places === 14 ? watch.place % 2 : null;
            const reached = wanted.language === null || language === null || language === wanted.language;
            expect(plan.verdict === 'set so' ? reached : !reached).toBe(true);
          }
        },
      ),
      { numRuns: 1000 },
    );
  });

  it('counts no clicks: a quick-set is told to a figure', () => {
    fc.assert(
      fc.property(shownBy, wantedBy, ofBy, (shown, wanted, of) => {
        const said = planSetting(shown, wanted, of).steps.join(' ');
        expect(said).not.toMatch(/\btimes\b|\bonce\b/);
      }),
    );
  });

  it('passes no more midnights than a count by hand, without a quick-set', () => {
    fc.assert(
      fc.property(shownBy, wantedBy, (shown, wanted) => {
        const of: SettingOf = { quickSet: 'none', changeOver: null };
        const { midnights, verdict } = planSetting(shown, wanted, of);
        if (verdict === 'look again') return true;
        const least = (from: number): number => {
          for (let n = from; ; n += 1) {
            const date = ((shown.date - 1 + n) % 31) + 1;
            const day = shown.weekday === null ? wanted.weekday : (shown.weekday + n) % 7;
            if (date === wanted.date && day === wanted.weekday) return n;
          }
        };
        const back = midnights?.halfKnown === (shown.weekday === null ? 31 : 217) && least(0) === 0;
        return (back || midnights?.halfKnown === least(0)) && midnights?.found === least(1);
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
      reasons: [
        expect.stringContaining(
          'The other language cannot be reached. Each night moves the ring by two places, and the day has no quick-set.',
        ) as string,
      ],
    });
    const plan = planSetting(shown, wanted, { quickSet: 'date and day', changeOver: null });
    expect(plan.verdict).toBe('set so');
    expect(plan.steps).toEqual([
      'Turn the hands forwards until the date jumps: that is midnight.',
      'Turn the hands forwards to 06:00.',
      'Quick-set the day to Thursday, in the second language.',
      'Quick-set the date to 9.',
      'Turn the hands forwards to 15:00.',
    ]);
  });

  it('before the morning sets the day before, and passes midnight', () => {
    const plan = planSetting(
      { dialMinutes: 600, half: 'a.m.', weekday: null, date: 5, language: null },
      { minutes: 75, weekday: 0, date: 1, language: null },
      { quickSet: 'date only', changeOver: null },
    );
    expect(plan.steps).toEqual([
      'Quick-set the date to 31.',
      'Turn the hands forwards past midnight to 01:15.',
    ]);
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
