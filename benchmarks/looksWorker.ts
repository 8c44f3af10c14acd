import { parentPort, workerData } from 'node:worker_threads';
import { nextBestLook, openIdentifier, type Seen } from '../src/core/craft/identify';
import { openBook } from '../src/core/craft/book';
import { NO_TOOLS } from '../src/core/craft/tools';
import { readShippedCells } from '../src/server/store/shippedCells';
import { inventedCalibres, inventedMakers } from '../src/testing/observations';

const { sizes, rounds } = workerData as { readonly sizes: readonly number[]; readonly rounds: number };
const makers = inventedMakers(48);
const cells = readShippedCells();
const evidence: Seen[] = [
  { look: 'heldBy', value: 'side lever', withinMm: 0 },
  { look: 'date', value: '3', withinMm: 0 },
];

/** The first rounds are the compiler’s. */
const WARM = 15;

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

const timed = sizes.map((size) => {
  const calibres = inventedCalibres(size, makers, 3);
  const identifier = openIdentifier(
    openBook({ ...NO_TOOLS, revision: 1, cells, makers, caseTypes: [], gaskets: [], calibres }),
    [],
  );
  const [identify, look]: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds + WARM; round += 1) {
    const began = performance.now();
    identifier.identifyMovement(evidence);
    const between = performance.now();
    nextBestLook(identifier.believe(evidence), ['heldBy', 'date']);
    if (round < WARM) continue;
    identify.push(between - began);
    look.push(performance.now() - between);
  }
  return { size, identifyMs: median(identify), lookMs: median(look) };
});
parentPort?.postMessage(timed);
