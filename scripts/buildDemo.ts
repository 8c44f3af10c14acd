import { rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { buildDemo } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';

const dataDir = resolve(process.argv[2] ?? './demo-data');
rmSync(dataDir, { recursive: true, force: true });
await buildDemo(dataDir);
// The instant the demo’s clock starts at, for whoever serves it.
writeFileSync(join(dataDir, 'demo-start'), DEMO_START_UTC);
