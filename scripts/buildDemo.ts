import { readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { buildDemo } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import { lockDataDir, LOCK_FILE } from '../src/server/store/dataDir';

const dataDir = resolve(process.argv[2] ?? './demo-data');
/** A demo that is being served keeps its folder. */
function held(): () => void {
  try {
    return lockDataDir(dataDir);
  } catch (error) {
    console.error(`■ ${error instanceof Error ? error.message : String(error)}`);
    process.exit(1);
  }
}

const unlock = held();
for (const name of readdirSync(dataDir))
  if (!name.startsWith(LOCK_FILE)) rmSync(join(dataDir, name), { recursive: true, force: true });
await buildDemo(dataDir);
unlock();
// The instant the demo’s clock starts at, for whoever serves it.
writeFileSync(join(dataDir, 'demo-start'), DEMO_START_UTC);
