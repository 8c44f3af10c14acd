import { fileURLToPath } from 'node:url';
import { transform } from '@swc/core';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const SERVER = `http://127.0.0.1:${process.env.PORT ?? 4310}`;

/** The compiler of React in its fast port: the other takes most of a build. JSX is left to what comes after. */
const reactCompiler = (): Plugin => ({
  name: 'react-compiler',
  enforce: 'pre',
  transform: {
    filter: { id: /\/src\/web\/.*\.tsx$/ },
    handler: async (code, id) => {
      const { code: compiled, map } = await transform(code, {
        filename: id,
        sourceMaps: true,
        configFile: false,
        swcrc: false,
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'preserve' }, reactCompiler: true },
        },
      });
      return { code: compiled, map };
    },
  },
});

export default defineConfig({
  root: fileURLToPath(new URL('src/web', import.meta.url)),
  plugins: [reactCompiler(), react()],
  build: {
    outDir: fileURLToPath(new URL('dist/web', import.meta.url)),
    emptyOutDir: true,
    target: 'es2022',
    manifest: true,
    // The shell, the craft and the bench are one file each: many small ones cost more than what they spare.
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'shell', tags: ['$initial'], priority: 3 },
            { name: 'craft', test: /[\\/]src[\\/](core|contract)[\\/]/, priority: 2 },
            { name: 'charts', test: /[\\/]node_modules[\\/](chart\.js|react-chartjs-2)[\\/]/, priority: 2 },
            { name: 'bench', test: /^(?!.*[\\/]figures[\\/])/, minShareCount: 2, priority: 1 },
          ],
        },
      },
    },
  },
  // The server refuses writes from a foreign Origin; in development the page comes from Vite's port.
  server: { proxy: { '/api': { target: SERVER, changeOrigin: true, headers: { origin: SERVER } } } },
});
