/** Endings of files with sound that are read. */
const ENDINGS = ['wav', 'bwf', 'rf64', 'flac', 'aif', 'aiff', 'aifc', 'mp3', 'm4a', 'aac', 'ogg', 'oga', 'opus', 'mp4', 'm4v', 'mov', '3gp'];

/** What a file picker offers. */
export const ACCEPTED = [...ENDINGS.map((ending) => `.${ending}`), 'audio/*', 'video/mp4', 'video/quicktime'].join(',');

/**
 * Of what lies in a folder, the files with sound; what recorders leave beside them is left out, and counted. A file that
 * somebody chose by itself is always tried.
 */
export function soundFiles<Named extends { name: string }>(files: readonly Named[]): { sound: Named[]; leftOut: number } {
  const sound = files.filter(({ name }) => !name.startsWith('.') && ENDINGS.includes(name.split('.').at(-1)?.toLowerCase() ?? ''));
  return { sound, leftOut: files.length - sound.length };
}
