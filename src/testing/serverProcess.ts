import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { join } from 'node:path';

/** The real server as a process of its own, on a free port. */
export interface ServerProcess {
  readonly url: string;
  readonly child: ChildProcess;
  /** Ends it with a signal and waits until it is gone. */
  end(signal: NodeJS.Signals): Promise<void>;
}

/** Builds the server that `startServer` starts. */
export function buildServer(): void {
  execFileSync(process.execPath, ['scripts/build.mjs', 'server'], { stdio: 'inherit' });
}

/** Sees to it that there is a server to start: the whole check has built it, a test alone builds it. */
export function readyServer(): void {
  if (process.env.WAX_BUILT !== 'yes') buildServer();
}

const STARTS_WITHIN_MS = 60_000;

/** Starts the server over a data folder and waits until it says it is ready. */
export async function startServer(
  dataDir: string,
  environment: NodeJS.ProcessEnv = {},
): Promise<ServerProcess> {
  const root = process.cwd();
  const child = spawn(process.execPath, [join(root, 'dist/server/main.js')], {
    cwd: root,
    env: { ...process.env, PORT: '0', WAX_DATA: dataDir, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const url = await new Promise<string>((resolve, reject) => {
    const timer = setTimeout(() => {
      child.kill('SIGKILL');
      reject(new Error('The server did not start in time.'));
    }, STARTS_WITHIN_MS);
    const said: string[] = [];
    createInterface({ input: child.stdout }).on('line', (line) => {
      said.push(line);
      const found = /ready at (http:\/\/\S+)/.exec(line)?.[1];
      if (found) {
        clearTimeout(timer);
        resolve(found);
      }
    });
    void gone.then(() => {
      clearTimeout(timer);
      reject(new Error(`The server ended: ${said.join('\n')}`));
    });
  });
  return {
    url,
    child,
    async end(signal) {
      child.kill(signal);
      await gone;
    },
  };
}
