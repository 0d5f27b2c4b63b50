import type { Marker } from '../../domain/fileFormat.ts';

const CUE_BYTES = 24;
const MOST_MARKERS = 2000;

/**
 * The markers of a file: the points of its cue chunk (Microsoft and IBM, Multimedia Programming Interface 1.0, 3.6), with the labels that
 * the labl entries of its list of kind adtl give them. Points that lie behind the last sample are left out; those of one moment are one.
 * @param cue body of the cue chunk
 * @param adtl body of the LIST chunk of kind adtl, where there is one
 * @returns in the order of their time
 */
export function readMarkers(cue: Uint8Array, adtl: Uint8Array | null, { sampleRateHz, frames }: { sampleRateHz: number; frames: number }): Marker[] {
  if (cue.byteLength < 4) return [];
  const data = new DataView(cue.buffer, cue.byteOffset, cue.byteLength);
  const labels = adtl ? readLabels(adtl) : new Map<number, string>();
  const count = Math.min(data.getUint32(0, true), Math.floor((cue.byteLength - 4) / CUE_BYTES), MOST_MARKERS);
  const byFrame = new Map<number, string>();
  for (let index = 0; index < count; index++) {
    const at = 4 + index * CUE_BYTES;
    const frame = data.getUint32(at + 20, true);
    if (frame >= frames) continue;
    byFrame.set(frame, byFrame.get(frame) || (labels.get(data.getUint32(at, true)) ?? ''));
  }
  return [...byFrame].sort(([a], [b]) => a - b).map(([frame, label]) => ({ atS: frame / sampleRateHz, label }));
}

/** Labels by the point that they are of. */
function readLabels(adtl: Uint8Array): Map<number, string> {
  const data = new DataView(adtl.buffer, adtl.byteOffset, adtl.byteLength);
  const latin1 = new TextDecoder('latin1');
  const labels = new Map<number, string>();
  for (let at = 4; at + 12 <= adtl.byteLength; ) {
    const length = data.getUint32(at + 4, true);
    if (length < 4 || at + 8 + length > adtl.byteLength) break;
    if (latin1.decode(adtl.subarray(at, at + 4)) === 'labl') {
      const text = latin1.decode(adtl.subarray(at + 12, at + 8 + length));
      labels.set(data.getUint32(at + 8, true), text.replace(/\0.*$/s, '').trim().slice(0, 200));
    }
    at += 8 + length + (length % 2);
  }
  return labels;
}

/** Writes markers as the bodies of a cue chunk and of a LIST chunk of kind adtl. */
export function writeMarkers(markers: readonly Marker[], sampleRateHz: number): { cue: Uint8Array; adtl: Uint8Array } {
  const cue = new Uint8Array(4 + markers.length * CUE_BYTES);
  const points = new DataView(cue.buffer);
  points.setUint32(0, markers.length, true);
  const entries: Uint8Array[] = [];
  for (const [index, { atS, label }] of markers.entries()) {
    const at = 4 + index * CUE_BYTES;
    const frame = Math.round(atS * sampleRateHz);
    points.setUint32(at, index + 1, true);
    points.setUint32(at + 4, frame, true);
    cue.set(new TextEncoder().encode('data'), at + 8);
    points.setUint32(at + 20, frame, true);
    const text = Uint8Array.from(`${label}\0`, (letter) => letter.charCodeAt(0));
    const entry = new Uint8Array(12 + text.length + (text.length % 2));
    entry.set(new TextEncoder().encode('labl'));
    new DataView(entry.buffer).setUint32(4, 4 + text.length, true);
    new DataView(entry.buffer).setUint32(8, index + 1, true);
    entry.set(text, 12);
    entries.push(entry);
  }
  const adtl = new Uint8Array(4 + entries.reduce((sum, entry) => sum + entry.length, 0));
  adtl.set(new TextEncoder().encode('adtl'));
  let at = 4;
  for (const entry of entries) {
    adtl.set(entry, at);
    at += entry.length;
  }
  return { cue, adtl };
}
