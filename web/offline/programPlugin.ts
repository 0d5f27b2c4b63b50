import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { build, type Plugin } from 'vite';

/** Fonts in the older form are for browsers that cannot keep pages either. */
const KEPT = /\.(js|css|woff2|html|svg|png|webmanifest)$/;
const HASHED = /^assets\//;
const WORKER = 'serviceWorker.js';

/**
 * Builds the worker that keeps the program on a device, once the program itself is built, with the list of
 * all of its files: those with a hash in their name for good, the others by what is in them.
 */
export function programPlugin(worker: string): Plugin {
  return {
    name: 'marvet-program',
    apply: 'build',
    async writeBundle({ dir }) {
      if (!dir) return;
      const names = (await readdir(dir, { recursive: true })).map((name) => name.replaceAll('\\', '/')).filter((name) => KEPT.test(name) && name !== WORKER);
      const entries = await Promise.all(
        names.sort().map(async (name) => ({
          url: `/${name}`,
          revision: HASHED.test(name)
            ? null
            : createHash('sha256')
                .update(await readFile(join(dir, name)))
                .digest('hex')
                .slice(0, 16),
        })),
      );
      await build({
        configFile: false,
        logLevel: 'warn',
        publicDir: false,
        define: { PROGRAM: JSON.stringify(entries), 'process.env.NODE_ENV': '"production"' },
        build: { outDir: dir, emptyOutDir: false, target: 'es2022', lib: { entry: worker, formats: ['iife'], name: 'marvet', fileName: () => WORKER } },
      });
    },
  };
}
