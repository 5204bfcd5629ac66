import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { serviceWorker } from './service-worker/plugin.ts';

export default defineConfig({
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
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
});
