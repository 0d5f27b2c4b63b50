import type { WavChunks } from '../wavParts.ts';
import { writeBext } from './bext.ts';
import { writeIxml } from './ixml.ts';

/** What a field recorder notes beside the samples. */
export interface FieldNotes {
  originator: string;
  project: string;
  scene: string;
  take: string;
  tape: string;
  note: string;
  trackNames: string[];
  startedAtMs: number;
  sampleRateHz: number;
}

/** The same as the chunks bext (EBU Tech 3285) and iXML, times in UTC. */
export function fieldChunks({ originator, project, scene, take, tape, note, trackNames, startedAtMs, sampleRateHz }: FieldNotes): WavChunks {
  const started = new Date(startedAtMs);
  const iso = started.toISOString();
  const midnight = Date.UTC(started.getUTCFullYear(), started.getUTCMonth(), started.getUTCDate());
  const bext = writeBext({
    description: `sSCENE=${scene}\r\nsTAKE=${take}\r\nsTAPE=${tape}\r\n${note}`,
    originator,
    originationDate: iso.slice(0, 10),
    originationTime: iso.slice(11, 19),
    timeReferenceSamples: Math.round(((startedAtMs - midnight) / 1000) * sampleRateHz),
  });
  return [
    { id: 'bext', body: bext },
    { id: 'iXML', body: writeIxml({ project, scene, take, tape, note, trackNames }) },
  ];
}
