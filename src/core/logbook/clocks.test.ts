import { clockApart } from './clocks';

describe('the time of an entry', () => {
  it.each([
    ['2026-03-17T10:00:00.000Z', '2026-03-17T10:00:01.000Z', null],
    ['2026-03-17T10:00:00.000Z', '2026-03-17T10:10:59.000Z', null],
    [
      '2026-03-17T10:00:00.000Z',
      '2026-03-17T10:11:00.000Z',
      'recorded 11 min later (it waited, or the bench clock is behind)',
    ],
    ['2026-03-17T10:11:00.000Z', '2026-03-17T10:00:00.000Z', 'the bench clock is 11 min ahead of the server'],
    [
      '2026-03-17T10:00:00.000Z',
      '2026-03-17T15:00:00.000Z',
      'recorded 5 h later (it waited, or the bench clock is behind)',
    ],
    ['2026-03-20T10:00:00.000Z', '2026-03-17T10:00:00.000Z', 'the bench clock is 3 days ahead of the server'],
    ['2026-03-17T10:00:00.000Z', null, null],
  ])('said %s and on record %s: %s', (occurredAt, recordedAt, words) => {
    expect(clockApart({ occurredAt, recordedAt })).toBe(words);
  });
});
