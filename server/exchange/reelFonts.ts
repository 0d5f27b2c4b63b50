import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { EmbeddedFont } from '@marvet/core/listen/reelPage';

const { resolve } = createRequire(import.meta.url);
const WEIGHTS = [400, 700];

/** The fonts of Marvet, for pages that leave it (SIL Open Font License, which allows that). */
export const reelFonts = (): Promise<EmbeddedFont[]> =>
  Promise.all(
    WEIGHTS.map(async (weight) => ({
      weight,
      base64: await readFile(resolve(`@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff2`), 'base64'),
    })),
  );
