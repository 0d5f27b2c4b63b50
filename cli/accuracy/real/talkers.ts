import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { decoded } from './decoded.ts';

/** Which half of the proof a talker or a sound belongs to: thresholds are set on one, figures are told from the other. */
export type Half = 'tuning' | 'held';

/** Somebody who was recorded saying words or sentences, at home or in a studio. */
interface Talker {
  id: string;
  folders: string[];
  half: Half;
}

const ktuberling = (language: string) => `usr/share/ktuberling/sounds/${language}`;
const klettres = (language: string) => [`usr/share/klettres/${language}/alpha`, `usr/share/klettres/${language}/syllab`];

// Women, men and children; a package and language is one talker. Those at 8 kHz have no top to judge, and two
// that lost a sample at every 1,024th, where their own clicks would be counted as invented, are left out.
const TALKERS: Talker[] = [
  { id: 'words ca', folders: [ktuberling('ca')], half: 'tuning' },
  { id: 'words da', folders: [ktuberling('da')], half: 'held' },
  { id: 'words de', folders: [ktuberling('de')], half: 'held' },
  { id: 'words el', folders: [ktuberling('el')], half: 'tuning' },
  { id: 'words en', folders: [ktuberling('en')], half: 'held' },
  { id: 'words fr', folders: [ktuberling('fr')], half: 'tuning' },
  { id: 'words gl', folders: [ktuberling('gl')], half: 'held' },
  { id: 'words lt', folders: [ktuberling('lt')], half: 'tuning' },
  { id: 'words ru', folders: [ktuberling('ru')], half: 'held' },
  { id: 'words sl', folders: [ktuberling('sl')], half: 'tuning' },
  { id: 'words uk', folders: [ktuberling('uk')], half: 'held' },
  { id: 'letters cs', folders: klettres('cs'), half: 'held' },
  { id: 'letters en_GB', folders: klettres('en_GB'), half: 'tuning' },
  { id: 'letters es', folders: klettres('es'), half: 'held' },
  { id: 'letters fr', folders: klettres('fr'), half: 'tuning' },
  { id: 'letters he', folders: klettres('he'), half: 'tuning' },
  { id: 'letters hu', folders: klettres('hu'), half: 'held' },
  { id: 'letters ml', folders: klettres('ml'), half: 'tuning' },
  { id: 'letters nds', folders: klettres('nds'), half: 'held' },
  { id: 'letters uk', folders: klettres('uk'), half: 'tuning' },
  { id: 'sentences ru', folders: ['usr/share/asterisk/sounds/ru_RU_f_IvrvoiceRU'], half: 'held' },
];

/** Words shorter than this are beeps and breaths. */
const LEAST_S = 0.25;
const MOST_S = 6;
const RECORDED = /\.(ogg|wav|g722)$/;

export const talkersOf = (half: Half): string[] => TALKERS.filter((talker) => talker.half === half).map(({ id }) => id);

const known = new Map<string, Float64Array[]>();

/**
 * Words of a talker as they were recorded, with the noise that is in them.
 * @param most how many; always the same ones
 */
export function wordsOf(id: string, folder: string, most: number): Float64Array[] {
  const kept = known.get(id);
  if (kept && kept.length >= most) return kept.slice(0, most);
  const talker = TALKERS.find((each) => each.id === id);
  if (!talker) throw new Error(`Nobody is called ${id}`);
  const files = talker.folders
    .flatMap((each) => readdirSync(join(folder, each), { withFileTypes: true }).map((entry) => join(each, entry.name)))
    .filter((path) => RECORDED.test(path));
  const words: Float64Array[] = [];
  for (const path of files.sort()) {
    if (words.length >= most) break;
    const word = decoded(folder, path);
    if (word.length >= LEAST_S * 48_000 && word.length <= MOST_S * 48_000 && word.some((x) => Math.abs(x) > 0.02)) words.push(word);
  }
  known.set(id, words);
  return words;
}
