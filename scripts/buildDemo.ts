import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { buildDemo } from '../demo/build';

const dataDir = resolve(process.argv[2] ?? './demo-data');
rmSync(dataDir, { recursive: true, force: true });
buildDemo(dataDir);
