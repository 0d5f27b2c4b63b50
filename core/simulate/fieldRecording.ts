import { type FieldNotes, fieldChunks } from '../audio/chunks/fieldChunks.ts';
import { writeWav } from '../audio/writeWav.ts';

/** What a simulated recorder writes. */
export interface FieldRecording extends Omit<FieldNotes, 'originator'> {
  channels: Float64Array[];
}

/** A Broadcast Wave file, 24 bit, with bext and iXML filled in as a field recorder does. */
export function fieldRecordingWav({ channels, ...notes }: FieldRecording): Uint8Array {
  return writeWav(channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz: notes.sampleRateHz }, fieldChunks({ ...notes, originator: 'Simulated recorder' }));
}
