import dayjs from 'dayjs';
import fc from 'fast-check';
import { addMonths, daysBetween, localDay, localTime, nextDateCorrection, yearsBetween } from './time';

describe('time and figures', () => {
  it('knows the shop’s day across midnight and summer time', () => {
    expect(localDay('2026-03-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-03-17');
    expect(localDay('2026-06-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-06-18');
  });
  it('adds months without running over', () => {
    expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
  });
  it('reads the clock of any zone as the calendar library does, hour by hour and across every change', () => {
    const zone = fc.constantFrom(
      'Europe/Lisbon',
      'Asia/Kathmandu',
      'Australia/Lord_Howe',
      'America/St_Johns',
      'UTC',
    );
    const instant = fc.date({
      min: new Date('2024-01-01'),
      max: new Date('2028-01-01'),
      noInvalidDate: true,
    });
    fc.assert(
      fc.property(zone, instant, (at, date) => {
        const utc = date.toISOString();
        expect(localTime(utc, at, 'YYYY-MM-DD HH:mm:ss')).toBe(
          dayjs.utc(utc).tz(at).format('YYYY-MM-DD HH:mm:ss'),
        );
      }),
    );
    // The very minutes round a change of the clocks.
    expect(
      ['2026-03-29T00:59:59.000Z', '2026-03-29T01:00:00.000Z'].map((utc) =>
        localTime(utc, 'Europe/Lisbon', 'HH:mm'),
      ),
    ).toEqual(['00:59', '02:00']);
    expect(
      ['2026-10-25T00:59:59.000Z', '2026-10-25T01:00:00.000Z'].map((utc) =>
        localTime(utc, 'Europe/Lisbon', 'HH:mm'),
      ),
    ).toEqual(['01:59', '01:00']);
  });
  it('counts days and years either way', () => {
    expect(daysBetween('2026-02-27', '2026-03-01')).toBe(2);
    expect(daysBetween('2026-03-01', '2026-02-27')).toBe(-2);
    expect(yearsBetween('2024-03-17', '2026-03-17')).toBeCloseTo(2, 2);
  });
  it('names the next first of a month a date wheel has to be helped over', () => {
    expect(nextDateCorrection('2026-01-20')).toEqual({ day: '2026-03-01', extraDays: 3 });
    expect(nextDateCorrection('2028-02-01')).toEqual({ day: '2028-03-01', extraDays: 2 });
    expect(nextDateCorrection('2026-03-17')).toEqual({ day: '2026-05-01', extraDays: 1 });
  });
});
