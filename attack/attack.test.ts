import { readyServer } from '../src/testing/serverProcess';
import { fuzz } from './fuzz';
import { beside, locked } from './beside';
import { putBack, takenAway } from './putBack';
import { fullDisk, heavy, twoServers, windows } from './rest';

const SEED = 20260317;

beforeAll(readyServer, 200_000);

it('answers requests of every kind without failing, and its folder holds', async () => {
  const { failures, broken, statuses } = await fuzz({ count: 200, seed: SEED });
  expect({ failures, broken }).toEqual({ failures: [], broken: [] });
  // Requests that all fail at the door would show nothing.
  expect(statuses[201]).toBeGreaterThan(10);
  expect(statuses[422]).toBeGreaterThan(10);
}, 400_000);

it.each([
  ['heavy bodies', heavy, 1],
  ['a full disk', fullDisk, 1],
  ['a second server', twoServers, 2],
  ['many windows', windows, 10],
  [
    'copies put back while it runs',
    (given: { times: number }) => putBack({ ...given, ends: ['noticed', 'SIGKILL'] }),
    1,
  ],
  ['its database taken away', takenAway, 3],
  ['a locked database', locked, 2],
  ['pictures of very many pixels', beside, 1],
])(
  'stands %s',
  async (_, attack, times) => {
    expect((await attack({ times })).broken).toEqual([]);
  },
  400_000,
);
