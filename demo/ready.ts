import { cpSync } from 'node:fs';
import { buildDemo } from './build';

/** Where the whole check has built the demo once for all tests that want one. */
const BUILT_IN = 'WAX_READY_DEMO';

/** Puts the demo into a folder: a copy of the one built for the whole check, else one built now. */
export async function readyDemo(dataDir: string): Promise<void> {
  const built = process.env[BUILT_IN];
  if (built === undefined) await buildDemo(dataDir);
  else cpSync(built, dataDir, { recursive: true });
}
