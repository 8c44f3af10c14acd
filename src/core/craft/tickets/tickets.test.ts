import fc from 'fast-check';
import { makeTicket, readTicket } from './tickets';
describe('tickets', () => {
  it('reads back every ticket it makes, however it is spaced', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999_999 }), fc.constantFrom('-', ' ', ''), (number, gap) => {
        const ticket = makeTicket(number);
        const reading = readTicket(ticket.toLowerCase().replace('-', gap));
        return reading.verdict === 'ticket' && reading.ticket === ticket;
      }),
    );
  });

  it('notices any single digit typed wrongly', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9_999 }),
        fc.nat(3),
        fc.integer({ min: 1, max: 9 }),
        (number, place, shift) => {
          const ticket = makeTicket(number);
          const wrong = [...ticket];
          wrong[place + 1] = String((Number(wrong[place + 1]) + shift) % 10);
          return readTicket(wrong.join('')).verdict === 'misread';
        },
      ),
    );
  });

  it('takes no ticket with a digit dropped for another, however many there are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99_999_999 }),
        fc.nat(8),
        fc.constantFrom('-', ''),
        (number, place, gap) => {
          const ticket = makeTicket(number).replace('-', gap);
          const digits = [...ticket].flatMap((each, at) => (/\d/.test(each) ? [at] : []));
          const at = digits[place % digits.length] ?? 0;
          return readTicket(ticket.slice(0, at) + ticket.slice(at + 1)).verdict !== 'ticket';
        },
      ),
    );
  });

  it('keeps the tickets of a young shop as they are', () => {
    expect([427, 9999, 10_000].map(makeTicket)).toEqual(['T0427-5', 'T9999-4', 'T010000-8']);
  });

  it.each(['14.20', 'SR621SW', '', 'T12', '0427-1'])('does not take “%s” for a ticket', (text) => {
    expect(readTicket(text).verdict).toBe('not a ticket');
  });
});
