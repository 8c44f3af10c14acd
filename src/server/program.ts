import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { here } from './here';

/** Which program this is: another build works its answers out by other rules. Not built, all is one program. */
export function programId(moduleUrl: string = import.meta.url): string {
  if (moduleUrl.endsWith('.ts')) return 'not built';
  const hash = createHash('sha256');
  const folder = here(moduleUrl);
  for (const file of readdirSync(folder).sort())
    if (file.endsWith('.js')) hash.update(readFileSync(here(moduleUrl, file)));
  return hash.digest('hex').slice(0, 16);
}
