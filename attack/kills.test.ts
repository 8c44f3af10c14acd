import { readyServer } from '../src/testing/serverProcess';
import { kill } from './kills';

const ROUNDS = 13;

beforeAll(readyServer, 200_000);

it(`a server killed ${ROUNDS} times during writes loses no acknowledged entry and corrupts nothing`, async () => {
  const killed = await kill({ rounds: ROUNDS });
  expect(killed).toMatchObject({ kills: ROUNDS, lost: [], broken: [] });
  expect(killed.amongWrites).toBeGreaterThan(ROUNDS / 2);
  expect(killed.putBack).toBe(2);
  expect(killed.acknowledged).toBeGreaterThan(ROUNDS);
}, 400_000);
