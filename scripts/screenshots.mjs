// One picture of each main view, made from the demo data, into docs/screenshots/.
import { buildAll, checkNode, ensureChromium, fail, installPackages, run } from './prepare.mjs';

checkNode();
await installPackages();
const chromium = await ensureChromium();
buildAll();
const failed = run('Taking the pictures', process.execPath, ['--import', 'tsx', 'scripts/takePictures.ts'], {
  env: { ...process.env, CHROMIUM: chromium },
});
if (failed) fail(failed);
