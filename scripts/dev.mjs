// For whoever builds it: server and page with reload, on demo data of their own.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, installPackages, loadDemo, root, say } from './prepare.mjs';

checkNode();
await installPackages();
const dataDir = join(root, 'dev-data');
const startFile = join(dataDir, 'demo-start');
if (!existsSync(startFile)) {
  say('Loading the demo data into dev-data/. Remove that folder to begin afresh.');
  loadDemo(dataDir);
}
const env = {
  ...process.env,
  PORT: process.env.PORT ?? '4310',
  WAX_DATA: dataDir,
  WAX_DEMO_START: readFileSync(startFile, 'utf8'),
};
const start = (args) => spawn(process.execPath, args, { cwd: root, stdio: 'inherit', env });
const both = [
  start([join(root, 'node_modules/tsx/dist/cli.mjs'), 'watch', '--clear-screen=false', 'src/server/main.ts']),
  start([join(root, 'node_modules/vite/bin/vite.js')]),
];
// Either of them alone is of no use: the end of one ends both.
let ending = false;
const end = (code) => {
  if (ending) return;
  ending = true;
  for (const each of both) each.kill('SIGTERM');
  process.exitCode = code;
};
for (const each of both) each.on('exit', (code) => end(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(0));
