// Attacks the built server in folders of its own, outside `npm test`: kills, fuzzed requests, heavy bodies, a full disk,
// two servers, many windows. npm run attack -- --minutes 20 --kills 1000 --requests 10000 --seed 1
import { buildPart } from './build.mjs';
import { checkNode, fail, installPackages, run } from './prepare.mjs';

checkNode();
await installPackages();
const notBuilt = buildPart('server');
if (notBuilt) fail(notBuilt);
const failed = run('The attack', process.execPath, [
  '--import',
  'tsx',
  'attack/run.ts',
  ...process.argv.slice(2),
]);
if (failed) fail('Something did not hold: see above.');
