// The shop’s own data: installs and builds what is missing, then serves.
import { buildWeb, checkNode, installPackages, serve } from './prepare.mjs';

checkNode();
installPackages();
buildWeb();
serve({});
