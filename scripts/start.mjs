// The shop’s own data: installs and builds what is missing, then serves.
import { buildAll, checkNode, installPackages, serve } from './prepare.mjs';

checkNode();
await installPackages();
buildAll();
serve({});
