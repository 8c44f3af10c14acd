import { fileURLToPath } from 'node:url';
import { babel } from '@rollup/plugin-babel';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const SERVER = `http://127.0.0.1:${process.env.PORT ?? 4310}`;

export default defineConfig({
  root: fileURLToPath(new URL('src/web', import.meta.url)),
  plugins: [
    react(),
    // The port of the compiler that SWC carries is nine times as fast, and lays hooks behind an early return (1.16).
    // Before JSX is gone: by it the compiler knows a component.
    {
      enforce: 'pre',
      ...babel({
        include: /src\/web\/.*\.tsx$/,
        extensions: ['.ts', '.tsx'],
        babelHelpers: 'bundled',
        babelrc: false,
        configFile: false,
        sourceMaps: false,
        parallel: true,
        parserOpts: { plugins: ['typescript', 'jsx'] },
        plugins: ['babel-plugin-react-compiler'],
      }),
    },
  ],
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
