import type { FileFormat } from './fileFormat.ts';

/** How the remark begins that tells that a file was made smaller with loss. */
export const LOSSY = 'lossy:';

/** Remarks on how a file came: that its codec left something out, and what was odd when its sound was taken out of it. */
export function formatRemarks({ lossy, codec, remarks }: Pick<FileFormat, 'lossy' | 'codec' | 'remarks'>): string[] {
  return [...(lossy ? [`${LOSSY} ${codec} leaves out what nobody is to hear; noise, air and small differences say as much of it as of the gear`] : []), ...remarks];
}

/**
 * How a file is stored, in a few words.
 * @example formatText({ container: 'FLAC', codec: 'FLAC', lossy: false, encoding: 'pcm', bitDepth: 24, sampleRateHz: 48000 }) // "FLAC, 24 bit 48 kHz"
 */
export function formatText({
  container,
  codec,
  lossy,
  encoding,
  bitDepth,
  sampleRateHz,
}: Pick<FileFormat, 'container' | 'codec' | 'lossy' | 'encoding' | 'bitDepth' | 'sampleRateHz'>): string {
  const rate = `${sampleRateHz / 1000} kHz`;
  const wave = ['RIFF', 'RF64', 'BW64'].includes(container);
  const how = codec === container || codec === 'PCM' ? container : `${codec} in ${container}`;
  if (lossy) return `${how}, lossy, ${rate}`;
  const depth = `${bitDepth} bit ${encoding === 'float' ? 'float ' : ''}${rate}`;
  return wave ? depth : `${how}, ${depth}`;
}
