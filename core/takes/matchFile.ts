import type { FileFormat } from '../domain/fileFormat.ts';
import type { MatchedBy } from '../domain/recording.ts';
import type { Take, TakeSetup } from '../domain/take.ts';
import type { Tape } from '../domain/tape.ts';

export interface FileMatch {
  takeId: string;
  by: MatchedBy;
}

type Named = Pick<Take, 'id' | 'slate' | 'pass'>;

/**
 * Slate and pass in a file name. A number counts as a slate when it stands first or is marked by S,
 * SL, slate or scene; T, take, a slash or a hyphen bring the pass. Numbers of a machine's own counting
 * ("REC_0003") do not count.
 * @example slateInName('Saltreach_S022_T02.wav') // { slate: 22, pass: 2 }
 * @example slateInName('07-2 QO.wav') // { slate: 7, pass: 2 }
 */
export function slateInName(fileName: string): { slate: number; pass: number } | null {
  const base = fileName.replace(/\.[A-Za-z0-9]+$/, '');
  const marked = /(?:^|[^A-Za-z])(?:slate|scene|sl|s)[-_ ]?0*(\d{1,4})(?!\d)(?:[-_ /]*(?:take|tk|t|p)[-_ ]?0*(\d{1,3})(?!\d)|[-_/]0*(\d{1,2})(?!\d))?/i.exec(base);
  const leading = /^0*(\d{1,4})(?!\d)(?:[-_ ]*(?:take|tk|t|p)[-_ ]?0*(\d{1,3})(?!\d)|[-_/]0*(\d{1,2})(?!\d))?/i.exec(base);
  const match = marked ?? leading;
  if (!match) return null;
  return { slate: Number(match[1]), pass: Number(match[2] ?? match[3] ?? 1) };
}

/** The take that a file belongs to, by its name first, then by scene and take of its metadata; null when neither says. */
export function matchFile(fileName: string, format: Pick<FileFormat, 'scene' | 'take'>, takes: readonly Named[]): FileMatch | null {
  const inName = slateInName(fileName);
  const byName = inName && takes.find((take) => take.slate === inName.slate && take.pass === inName.pass);
  if (byName) return { takeId: byName.id, by: 'file name' };
  const byMetadata = matchMetadata(format, takes);
  return byMetadata ? { takeId: byMetadata.id, by: 'iXML or bext' } : null;
}

/** Scene is the slate and take the pass; where the scene is a name, take is the slate. */
function matchMetadata(format: Pick<FileFormat, 'scene' | 'take'>, takes: readonly Named[]): Named | undefined {
  const scene = wholeNumber(format.scene);
  const take = wholeNumber(format.take);
  if (scene !== null) return takes.find((each) => each.slate === scene && each.pass === (take ?? 1));
  if (take !== null) return takes.find((each) => each.slate === take && each.pass === 1);
  return undefined;
}

function wholeNumber(text: string | null): number | null {
  const match = /^\s*0*(\d{1,4})\s*$/.exec(text ?? '');
  return match ? Number(match[1]) : null;
}

interface NamedCandidate {
  id: string;
  name: string;
  tape: Tape;
}

/**
 * The candidate of each channel of a file: by track name (the tape's letters as a word, or the chain's
 * name), by letters in the file name of a one-channel file, or because the take has one candidate only.
 * Null where nothing says; no candidate is given twice.
 */
export function matchChannels(fileName: string, trackNames: readonly (string | null)[], candidates: readonly NamedCandidate[]): (string | null)[] {
  const used = new Set<string>();
  const claim = (candidate: NamedCandidate | undefined) => {
    if (!candidate || used.has(candidate.id)) return null;
    used.add(candidate.id);
    return candidate.id;
  };
  const [only, ...others] = candidates;
  if (trackNames.length === 1) {
    const named = candidates.find((candidate) => names(candidate, trackNames[0] ?? '') || names(candidate, fileName.replace(/\.[^.]+$/, '')));
    return [claim(named ?? (others.length === 0 ? only : undefined))];
  }
  return trackNames.map((name) => claim(candidates.find((candidate) => names(candidate, name ?? ''))));
}

/**
 * The setup of each channel of a file: that of the candidate which {@link matchChannels} finds, where the
 * take has it once. Which of two setups of one candidate a channel is nobody but a person can say.
 */
export function matchSetups(
  fileName: string,
  trackNames: readonly (string | null)[],
  setups: readonly Pick<TakeSetup, 'id' | 'candidateId'>[],
  candidates: readonly NamedCandidate[],
): (string | null)[] {
  const inTake = candidates.filter((candidate) => setups.some((setup) => setup.candidateId === candidate.id));
  return matchChannels(fileName, trackNames, inTake).map((candidateId) => {
    const own = setups.filter((setup) => setup.candidateId === candidateId);
    return own.length === 1 ? (own[0]?.id ?? null) : null;
  });
}

/**
 * The same by channel, of a file in which two channels may be one source, and a backup is none.
 * @param sources channels with which its sources begin; all others get none
 */
export function matchSources(
  fileName: string,
  trackNames: readonly (string | null)[],
  sources: readonly number[],
  setups: readonly Pick<TakeSetup, 'id' | 'candidateId'>[],
  candidates: readonly NamedCandidate[],
): (string | null)[] {
  const found = matchSetups(
    fileName,
    sources.map((channel) => trackNames[channel] ?? null),
    setups,
    candidates,
  );
  return trackNames.map((_, channel) => found[sources.indexOf(channel)] ?? null);
}

function names(candidate: NamedCandidate, text: string): boolean {
  const words = text.toUpperCase().split(/[^A-Z0-9]+/);
  return words.includes(candidate.tape.letters) || (text.trim() !== '' && text.toUpperCase().includes(candidate.name.toUpperCase()));
}
