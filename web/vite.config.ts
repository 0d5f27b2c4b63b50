import { join } from 'node:path';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { programPlugin } from './offline/programPlugin.ts';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), programPlugin(join(import.meta.dirname, 'offline', 'serviceWorker.ts'))],
  build: {
    rolldownOptions: { input: ['index.html', 'listen.html', 'enter.html'].map((page) => join(import.meta.dirname, page)) },
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4810' } },
});
