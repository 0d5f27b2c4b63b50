import { writeBext } from '../audio/chunks/bext.ts';
import { writeIxml } from '../audio/chunks/ixml.ts';
import { writeWav } from '../audio/writeWav.ts';

/** What a field recorder writes beside the samples. */
export interface FieldRecording {
  channels: Float64Array[];
  sampleRateHz: number;
  project: string;
  scene: string;
  take: string;
  tape: string;
  note: string;
  trackNames: string[];
  startedAtMs: number;
}

/** A Broadcast Wave file, 24 bit, with bext and iXML filled in as a field recorder does. */
export function fieldRecordingWav(recording: FieldRecording): Uint8Array {
  const started = new Date(recording.startedAtMs);
  const iso = started.toISOString();
  const midnight = Date.UTC(started.getUTCFullYear(), started.getUTCMonth(), started.getUTCDate());
  const bext = writeBext({
    description: `sSCENE=${recording.scene}\r\nsTAKE=${recording.take}\r\nsTAPE=${recording.tape}\r\n${recording.note}`,
    originator: 'Simulated recorder',
    originationDate: iso.slice(0, 10),
    originationTime: iso.slice(11, 19),
    timeReferenceSamples: ((recording.startedAtMs - midnight) / 1000) * recording.sampleRateHz,
  });
  const ixml = writeIxml({
    project: recording.project,
    scene: recording.scene,
    take: recording.take,
    tape: recording.tape,
    note: recording.note,
    trackNames: recording.trackNames,
  });
  return writeWav(recording.channels, { encoding: 'pcm', bitDepth: 24, sampleRateHz: recording.sampleRateHz }, [
    { id: 'bext', body: bext },
    { id: 'iXML', body: ixml },
  ]);
}
