import { cpSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const root = fileURLToPath(new URL('.', import.meta.url));
/** What the server reads beside its modules: each module asks for a folder by its own name. */
const BESIDE = [
  'store/migrations',
  'store/catalogue',
  'devices/drivers/pictures',
  'devices/drivers/recordings',
];

/** The server in one file: it starts in a fifth of the time. Packages stay where they are installed. */
export default defineConfig({
  root,
  build: {
    ssr: true,
    rollupOptions: {
      input: {
        main: 'src/server/main.ts',
        worker: 'src/server/offLoop/worker.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: 'shared-[hash].js' },
    },
    outDir: join(root, 'dist/server'),
    emptyOutDir: true,
    target: 'node20',
    copyPublicDir: false,
  },
  plugins: [
    {
      name: 'files-beside-the-server',
      // Wherever it is built to.
      writeBundle({ dir = '' }) {
        for (const folder of BESIDE)
          cpSync(join(root, 'src/server', folder), join(dir, basename(folder)), {
            recursive: true,
          });
      },
    },
  ],
});
