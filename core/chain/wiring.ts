/** Words of papers that mean the same contact or the same use of it. */
const SYNONYMS: [RegExp, string][] = [
  [/\b(?:hot|signal|audio|positive|\+|live)(?![a-z])/g, 'hot'],
  [/\b(?:cold|negative|return)\b/g, 'cold'],
  [/\b(?:ground|gnd|earth|shield|screen|shell|common)\b/g, 'ground'],
  [/\b(?:bias|supply|power|voltage)\b/g, 'bias'],
  [/\b(?:sleeve|slv)\b/g, 'sleeve'],
];
/** Words that say nothing of which contact is which. */
const FILLERS = new Set(['is', 'on', 'the', 'to', 'at', 'carries', 'with', 'and', 'wired', 'wiring', 'pin', 'contact', 'as']);

/** Wiring in words that can be compared: `Tip = signal` and `tip hot` are the same. */
function canonical(text: string): string {
  let words = text.toLowerCase().replace(/[=:;,/()–—]/g, ' ');
  for (const [pattern, word] of SYNONYMS) words = words.replace(pattern, word);
  const kept = words.split(/[\s-]+/).filter((word) => word !== '' && !FILLERS.has(word));
  // What belongs together stands together: contact and its use, whichever is said first.
  const pairs: string[] = [];
  for (let at = 0; at < kept.length; at += 2)
    pairs.push(
      kept
        .slice(at, at + 2)
        .sort()
        .join(' '),
    );
  return pairs.sort().join(', ');
}

/** Whether two descriptions of a wiring mean the same. */
export function sameWiring(a: string, b: string): boolean {
  return canonical(a) === canonical(b);
}
