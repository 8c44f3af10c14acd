import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** A path beside the module that asks. */
export function here(moduleUrl: string, ...parts: readonly string[]): string {
  return join(dirname(fileURLToPath(moduleUrl)), ...parts);
}
