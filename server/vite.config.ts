import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * The server as two files for npm start, which would otherwise translate and find some hundred modules
 * at every start. Packages stay outside; tests run the sources.
 */
export default defineConfig({
  root: here('.'),
  logLevel: 'warn',
  build: {
    ssr: true,
    target: 'node20',
    outDir: here('../dist'),
    // The command line's lies in a folder of its own in there.
    emptyOutDir: false,
    rollupOptions: {
      input: { main: here('main.ts'), worker: here('jobs/worker.ts') },
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name].mjs' },
    },
  },
});
