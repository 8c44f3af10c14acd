import { addMonths, localDay } from './time';
describe('time and figures', () => {
  it('knows the shop’s day across midnight and summer time', () => {
    expect(localDay('2026-03-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-03-17');
    expect(localDay('2026-06-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-06-18');
  });
  it('adds months without running over', () => {
    expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
  });
});
