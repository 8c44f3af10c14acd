import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const NOT_BUILT = 'not built';

/** Which program this is: another build works its answers out by other rules. Not built, all is one program. */
export function programId(): string {
  return import.meta.url.endsWith('.ts')
    ? NOT_BUILT
    : builtProgramId(dirname(fileURLToPath(import.meta.url)));
}

/** Which program lies built in a folder. */
export function builtProgramId(folder: string): string {
  if (!existsSync(folder)) return NOT_BUILT;
  const hash = createHash('sha256');
  for (const file of readdirSync(folder).sort())
    if (file.endsWith('.js')) hash.update(readFileSync(join(folder, file)));
  return hash.digest('hex').slice(0, 16);
}
