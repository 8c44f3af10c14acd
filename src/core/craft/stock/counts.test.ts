import { sinceCounted } from './counts';

const fitted = { delta: -1, reason: 'fitted', ticket: 'T0001-8' };
const goodsIn = { delta: 5, reason: 'goods in', ticket: '' };

it.each([
  ['what was fitted', { balance: 4, unbooked: 0 }, [fitted, goodsIn], 5, 0, '−1 fitted T0001-8'],
  [
    'no further back than was seen',
    { balance: 3, unbooked: 0 },
    [fitted, fitted, goodsIn],
    4,
    0,
    '−1 fitted T0001-8',
  ],
  ['what was taken beyond it', { balance: 0, unbooked: 2 }, [fitted], 0, 1, '1 more taken than booked'],
])('tells %s since a count saw the ledger', (_, lot, lines, balanceSeen, unbookedSeen, words) => {
  expect(sinceCounted(lot, lines, { balanceSeen, unbookedSeen })).toBe(
    `The ledger showed ${balanceSeen} when this was counted. Since then: ${words}.`,
  );
});
