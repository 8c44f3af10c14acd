import { parseArgs } from 'node:util';
import { fuzz } from './fuzz';
import { kill } from './kills';
import { beside, HEALTH_MS, locked } from './beside';
import { putBack, takenAway } from './putBack';
import { fullDisk, heavy, type Held, twoServers, windows } from './rest';

/**
 * Attacks the server in folders of its own: `--seed` makes the same requests again, `--minutes` bounds the kills,
 * `--kills` and `--requests` say how many. Prints what held and what did not.
 */
const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '20260317' },
    minutes: { type: 'string', default: '10' },
    kills: { type: 'string', default: '100' },
    requests: { type: 'string', default: '2000' },
  },
});
const numberOf = (name: keyof typeof values): number => {
  const read = Number(values[name]);
  if (!Number.isFinite(read) || read < 0)
    throw new Error(`--${name} ${values[name]}: give a number, e.g. 10.`);
  return read;
};
const until = Date.now() + numberOf('minutes') * 60_000;

const tell = (words: string, broken: readonly string[]): void => {
  console.log(`${broken.length === 0 ? '●' : '■'} ${words}${broken.length === 0 ? '' : ':'}`);
  for (const each of broken) console.log(`  ${each}`);
  if (broken.length > 0) process.exitCode = 1;
};

const fuzzed = await fuzz({ count: numberOf('requests'), seed: numberOf('seed') });
tell(
  `${fuzzed.requests} requests, seed ${values.seed}: ${Object.entries(fuzzed.statuses)
    .map(([status, count]) => `${count} × ${status}`)
    .join(', ')}; ${fuzzed.failures.length} failures`,
  [...fuzzed.failures, ...fuzzed.broken],
);

const rest: readonly [(given: { times: number }) => Promise<Held>, number][] = [
  [heavy, 3],
  [fullDisk, 3],
  [twoServers, 5],
  [windows, 50],
  [putBack, 5],
  [takenAway, 20],
  [locked, 10],
  [({ times }) => beside({ times, mostMs: HEALTH_MS }), 3],
];
for (const [attack, times] of rest) {
  const { words, broken, skipped } = await attack({ times });
  if (skipped === undefined) tell(words, broken);
  else console.log(`○ ${words}: left out, ${skipped}`);
}

const killed = await kill({ rounds: numberOf('kills'), until });
tell(
  `${killed.kills} kills, ${killed.amongWrites} of them among writes, a copy put back after ${killed.putBack}: ${killed.acknowledged} entries acknowledged, ${killed.lost.length} lost`,
  [...killed.lost.map((id) => `${id} is lost`), ...killed.broken],
);
