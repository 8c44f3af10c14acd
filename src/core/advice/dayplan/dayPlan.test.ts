import { Logbook, readyJob } from '../../../testing/fixtures';
import { openAt, orderRack, promiseWords, urgencyOf } from './dayPlan';
import { waitsFor } from './waitsFor';
import { openParts } from '../../logbook';
import { DEFAULT_POLICY, WEEKDAYS } from '../../craft/policy';
describe('small words', () => {
  const zone = 'Europe/Lisbon';
  const now = '2026-03-17T12:00:00.000Z';
  it.each([
    [null, 'nothing promised'],
    ['2026-03-17T12:20:00.000Z', 'promised 12:20, in 20 min'],
    ['2026-03-17T16:00:00.000Z', 'promised 16:00'],
    ['2026-03-17T11:45:00.000Z', 'promised 11:45, 15 min late'],
    ['2026-03-17T09:00:00.000Z', 'promised 09:00, 3 h late'],
    ['2026-03-19T09:00:00.000Z', 'promised Thu 19 Mar 09:00'],
    ['2026-03-13T09:00:00.000Z', 'promised Fri 13 Mar 09:00, 4 days late'],
  ])('a promise for %s reads “%s”', (promisedAt, words) => {
    expect(promiseWords(promisedAt, now, zone)).toBe(words);
  });

  it('says what a job waits for at each turn', () => {
    const fresh = new Logbook();
    expect(waitsFor(fresh.state())).toBe('Arrive: the watch');
    const refused = readyJob();
    const consent = refused.entries.find((entry) => entry.kind === 'arrive.consent');
    refused.add('arrive.consent', { risks: [], given: false }, { supersedes: [consent?.id ?? ''] });
    expect(waitsFor(refused.state())).toBe('the owner’s consent');
    expect(waitsFor(readyJob().state())).toBe('Hand back: the signature');
    const tray = readyJob();
    tray.add('open.part', { part: 'screw', position: 'corners', count: 4, serves: [], step: '' });
    expect(waitsFor(tray.state())).toBe('Hand back: 1 part on the tray');
    expect(openParts(tray.state().facts).map((part) => part.words)).toEqual(['screw, corners']);
    const torn = readyJob();
    const served = torn.entries.find((entry) => entry.kind === 'arrive.consent');
    for (const given of [true, false])
      torn.add('arrive.consent', { risks: [], given }, { supersedes: [served?.id ?? ''] });
    expect(waitsFor(torn.state())).toBe('a conflict to settle');
  });
});

describe('the rack', () => {
  const now = '2026-03-17T12:00:00.000Z';
  it.each([
    ['2026-03-17T11:59:00.000Z', 'overdue'],
    ['2026-03-17T12:59:00.000Z', 'due soon'],
    ['2026-03-17T18:00:00.000Z', 'today'],
    ['2026-03-19T18:00:00.000Z', 'later'],
    [null, 'no promise'],
  ])('a promise for %s is %s', (promisedAt, urgency) => {
    expect(urgencyOf(promisedAt, now)).toBe(urgency);
  });

  it('puts the most pressing first', () => {
    const job = (ticket: string, promisedAt: string | null) => ({ ticket, promisedAt });
    const ordered = orderRack(
      [job('c', null), job('b', '2026-03-17T13:30:00.000Z'), job('a', '2026-03-17T10:00:00.000Z')],
      now,
    );
    expect(ordered.map((each) => each.ticket)).toEqual(['a', 'b', 'c']);
  });
});

describe('whether the counter is open', () => {
  const { hours } = DEFAULT_POLICY;
  it.each([
    // Tuesday in March, Lisbon on UTC; in July an hour ahead.
    ['2026-03-17T09:40:00.000Z', 'open', ''],
    ['2026-03-17T08:15:00.000Z', 'closed', 'it opens Tuesday at 08:30'],
    ['2026-03-17T19:00:00.000Z', 'closed', 'it opens Wednesday at 08:30'],
    ['2026-07-14T16:45:00.000Z', 'closed', 'it opens Wednesday at 08:30'],
    ['2026-07-14T16:15:00.000Z', 'open', ''],
    ['2026-03-21T14:00:00.000Z', 'closed', 'it opens Monday at 08:30'],
    ['2026-03-22T10:00:00.000Z', 'closed', 'it opens Monday at 08:30'],
  ])('%s: %s %s', (instant, verdict, words) => {
    const answer = openAt(instant, hours, 'Europe/Lisbon');
    expect(answer.verdict).toBe(verdict);
    expect(answer.reasons.join()).toContain(words);
  });
  it('says so plainly where it never opens', () => {
    const never = Object.fromEntries(WEEKDAYS.map((day) => [day, null])) as unknown as typeof hours;
    expect(openAt('2026-03-17T09:40:00.000Z', never, 'Europe/Lisbon').reasons).toEqual([
      'The counter is closed then.',
    ]);
  });
});
