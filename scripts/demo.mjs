// The made-up counter: installs and builds what is missing, loads the demo data afresh, serves it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll, checkNode, installPackages, loadDemo, root, say, serve } from './prepare.mjs';

checkNode();
await installPackages();
buildAll();
const dataDir = join(root, 'demo-data');
say(
  'Loading the demo data afresh. What was recorded in an earlier demo is replaced; your shop’s own data is elsewhere.',
);
loadDemo(dataDir);
serve({ WAX_DATA: dataDir, WAX_DEMO_START: readFileSync(join(dataDir, 'demo-start'), 'utf8') });
