// Prints each benchmark as a ratio against a yardstick measured in the same run.
import { buildAll, checkNode, installPackages, run, say } from './prepare.mjs';

checkNode();
await installPackages();
buildAll();
for (const name of [
  'bundle',
  'http',
  'find',
  'size',
  'largeBook',
  'opening',
  'identify',
  'sisters',
  'looks',
  'page',
  'typing',
  'life',
  'lives',
  'shopLives',
  'freePage',
  'cells',
  'markings',
  'stock',
  'live',
  'health',
  'diagnosis',
  'ailing',
  'gaskets',
  'leak',
  'leakFile',
  'charging',
  'chargingSeen',
  'leakUnruly',
]) {
  say(`benchmarks/${name}.ts`);
  const failed = run(name, process.execPath, ['--import', 'tsx', `benchmarks/${name}.ts`]);
  if (failed) process.exitCode = 1;
}
