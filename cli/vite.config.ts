import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * The command that measures as two files, so that it starts at once: translating the sources took longer
 * than measuring a minute. Only what starts threads stays outside, since it finds its own files by place.
 */
export default defineConfig({
  root: here('.'),
  logLevel: 'warn',
  ssr: { noExternal: true, external: ['piscina'] },
  build: {
    ssr: true,
    target: 'node20',
    outDir: here('../dist/cli'),
    emptyOutDir: true,
    rollupOptions: {
      input: { measure: here('measure.ts'), measureWorker: here('measureWorker.ts') },
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name].mjs' },
    },
  },
});
