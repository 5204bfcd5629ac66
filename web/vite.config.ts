import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { serviceWorker } from './service-worker/plugin.ts';

const NONE = fileURLToPath(new URL('./src/work/none.ts', import.meta.url));

export default defineConfig({
  // the book is drawn, never printed from a page: what its package would load for that stays out
  resolve: { alias: { html2canvas: NONE, canvg: NONE, dompurify: NONE } },
  plugins: [react(), tailwindcss(), serviceWorker()],
  server: {
    proxy: {
      '/api': {
        target: 'http://127.0.0.1:4173',
        changeOrigin: true,
        headers: { origin: 'http://127.0.0.1:4173' },
      },
    },
  },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        // what every page loads is one file, and what stages share a few: some eighty small ones took longer to ask for than to read
        chunkFileNames: c => `assets/${c.name.startsWith('shared') ? 'shared' : '[name]'}-[hash].js`,
        codeSplitting: {
          groups: [
            { name: 'first', tags: ['$initial'], priority: 2 },
            {
              name: 'shared',
              minShareCount: 2,
              entriesAware: true,
              entriesAwareMergeThreshold: 4_000,
              priority: 1,
            },
          ],
        },
      },
    },
  },
});
