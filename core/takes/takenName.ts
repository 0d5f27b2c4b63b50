import { slateLabel, type Take } from '../domain/take.ts';

/** What of a file its name is to say when it is taken away. */
export interface TakenFile {
  name: string;
  /** Its takes; more than one where it was cut about several. */
  takes: readonly Pick<Take, 'slate' | 'pass'>[];
  /** Letters of the tapes of its candidates, in the order of its channels. */
  tapes: readonly string[];
}

/** Letters that some system cannot have in a file name, a drive or a folder; and those that no name shows. */
const UNSAFE = /[\\/:*?"<>|]|\p{Cc}/gu;

/**
 * Names under which files are taken away: slate and tapes before the name that each came with, so that they sort by take, and no two
 * alike.
 * @example takenNames([{ name: 'REC_0007.WAV', takes: [{ slate: 7, pass: 2 }], tapes: ['QU', 'LO'] }]) // ['07-2 QU LO REC_0007.WAV']
 */
export function takenNames(files: readonly TakenFile[]): string[] {
  const used = new Set<string>();
  return files.map(({ name, takes, tapes }) => {
    const ordered = [...takes].sort((a, b) => a.slate - b.slate || a.pass - b.pass).map((take) => slateLabel(take).replace('/', '-'));
    const slates = ordered.length === 0 ? 'no take' : ordered.length === 1 ? ordered[0] : `${ordered[0]} to ${ordered.at(-1)}`;
    const whole = [slates, ...new Set(tapes), name].join(' ').replace(UNSAFE, '_').slice(-200).trim();
    const [, stem = whole, ending = ''] = /^(.*?)(\.[^.]{1,5})?$/s.exec(whole) ?? [];
    let free = whole;
    // File systems that do not tell large from small letters are many.
    for (let count = 2; used.has(free.toLowerCase()); count++) free = `${stem} (${count})${ending}`;
    used.add(free.toLowerCase());
    return free;
  });
}
