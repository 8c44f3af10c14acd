import fc from 'fast-check';
import { book, context } from '../../../testing/fixtures';
import { minutesBetween } from '../../craft/time';
import { SERVICES } from '../../craft/policy';
import { openAt, withinHours } from '../dayplan';
import { promiseFor } from './promiseFor';

const { hours } = context.policy;
const { zone } = context.shop;
const instants = fc
  .date({ min: new Date('2026-01-01'), max: new Date('2026-12-31'), noInvalidDate: true })
  .map((at) => at.toISOString());

it('lies in opening hours, whenever the watch comes and whatever the service', () => {
  fc.assert(
    fc.property(instants, fc.constantFrom(...SERVICES), (nowUtc, service) => {
      const promised = promiseFor(service, null, { ...context, nowUtc });
      return openAt(promised, hours, zone).verdict === 'open' && promised > nowUtc;
    }),
    { numRuns: 200 },
  );
});

it('is the same instant where the counter is open, else the opening that comes next', () => {
  fc.assert(
    fc.property(instants, (at) => {
      const within = withinHours(at, hours, zone);
      return openAt(at, hours, zone).verdict === 'open' ? within === at : within > at;
    }),
  );
  const never = Object.fromEntries(Object.keys(hours).map((day) => [day, null])) as typeof hours;
  expect(withinHours('2026-03-17T12:00:00.000Z', never, zone)).toBe('2026-03-17T12:00:00.000Z');
});

it('of a recharge is that of its plan, hours or days off, and of anything else half an hour', () => {
  const minutes = (service: (typeof SERVICES)[number], calibreId: string | null = null): number =>
    minutesBetween(context.nowUtc, promiseFor(service, book.calibre(calibreId), context));
  expect(minutes('cell only')).toBe(30);
  expect(minutes('recharge or new accumulator')).toBeGreaterThan(12 * 60);
  expect(minutes('recharge or new accumulator', 'vessarin-210s')).toBeGreaterThan(6 * 60);
  // Where the book is not read yet, and of a rotor, days.
  expect(
    minutesBetween(
      context.nowUtc,
      promiseFor('recharge or new accumulator', null, { ...context, catalogue: null }),
    ),
  ).toBeGreaterThan(2 * 24 * 60);
});
