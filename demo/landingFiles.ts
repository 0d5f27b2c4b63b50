import { cameraFile } from '@marvet/core/simulate/cameraFile';
import type { SimulatedCandidate } from '@marvet/core/simulate/candidate';
import { fieldRecordingWav } from '@marvet/core/simulate/fieldRecording';
import { renderTake } from '@marvet/core/simulate/renderTake';
import { dryClip } from './dryClip.ts';
import { chainId, SIMULATED } from './kit.ts';
import { AFTER_S, CAMERA, cameraFileName, dayFileName, LANDING, RECORDERS, SPOKEN, startMsOf } from './landing.ts';
import { PLACES } from './places.ts';

const RATE_HZ = 48_000;
const VOICE_DB_SPL = 66;
/** The longest of them begins so long before the first take. */
const BEFORE_S = Math.max(...RECORDERS.map(({ beforeS }) => beforeS));
/** What somebody says begins so long after the press of the start. */
const BREATH_S = 1.2;

const wired = (letters: string): SimulatedCandidate => ({ ...SIMULATED.get(chainId(letters))!, radio: null });
const HEARING: Record<string, SimulatedCandidate[]> = {
  BE: [{ ...wired('QO'), id: 'belt', gainDbfs: -12 }],
  BM: [{ ...wired('BM'), id: 'boom' }],
  // Far, open to all sides, and noisy; two capsules side by side, each with a noise of its own.
  CM: ['left', 'right'].map((side) => ({ ...wired('BM'), id: `camera ${side}`, pattern: { pressureShare: 0.7, tubeM: 0 }, selfNoiseDba: 27, gainDbfs: -4 })),
};

/** The whole morning as some microphones heard it: all words at their time, over one bed of noise. */
function morning(letters: string, distanceM: number): Float64Array[] {
  const last = SPOKEN.at(-1)!;
  const lengthS = BEFORE_S + last.atS + last.lengthS + AFTER_S;
  const voice = new Float64Array(Math.round(lengthS * RATE_HZ));
  for (const { clip, atS, lengthS: longS } of SPOKEN)
    voice.set(dryClip(clip, RATE_HZ).subarray(0, (longS - BREATH_S) * RATE_HZ), Math.round((BEFORE_S + atS + BREATH_S) * RATE_HZ));
  const place = { ...PLACES.reed!.heard, windMs: 1.5 };
  return renderTake({ seed: 'landing', sampleRateHz: RATE_HZ, voice, voiceDbSpl: VOICE_DB_SPL, leadS: 0, lengthS, distanceM, screen: 'fur', place, candidates: HEARING[letters]! })
    .channels;
}

const cutOut = (samples: Float64Array, fromS: number, toS?: number) =>
  samples.slice(Math.round((BEFORE_S + fromS) * RATE_HZ), toS === undefined ? undefined : Math.round((BEFORE_S + toS) * RATE_HZ));

/** Every file of the landing: how it is called, and its bytes. */
export const LANDING_FILES: { names: string[]; make: () => Promise<Map<string, Uint8Array>> }[] = [
  ...RECORDERS.map((recorder) => ({
    names: [dayFileName(recorder)],
    async make() {
      const { letters, aheadS, beforeS, name } = recorder;
      const channels = morning(letters, 1).map((samples) => cutOut(samples, -beforeS));
      const notes = { project: LANDING.name, scene: '', take: '', tape: name, note: '', trackNames: [''], sampleRateHz: RATE_HZ };
      return new Map([[dayFileName(recorder), fieldRecordingWav({ ...notes, channels, startedAtMs: startMsOf(-beforeS, aheadS) })]]);
    },
  })),
  {
    names: SPOKEN.map((_, take) => cameraFileName(take)),
    async make() {
      const whole = morning(CAMERA.letters, 3);
      const files = SPOKEN.map(async ({ atS, lengthS }, take) => {
        const channels = whole.map((samples) => cutOut(samples, atS - CAMERA.beforeS, atS + lengthS + CAMERA.afterS));
        return [cameraFileName(take), await cameraFile(channels, RATE_HZ, startMsOf(atS - CAMERA.beforeS, CAMERA.aheadS))] as const;
      });
      return new Map(await Promise.all(files));
    },
  },
];
