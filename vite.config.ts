import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const SERVER = `http://127.0.0.1:${process.env.PORT ?? 4310}`;

export default defineConfig({
  root: fileURLToPath(new URL('src/web', import.meta.url)),
  plugins: [
    // The compiler's native port: a build in 4 s instead of 36. `src/web/compiled.test.ts` watches over it, for it is young.
    react({ compiler: true }),
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
