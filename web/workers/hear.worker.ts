import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { resample } from '@marvet/core/audio/resample';
import { hearSetups } from '@marvet/core/place/hearSetups';
import type { HearReply, HearRequest } from './hearMessages.ts';

const RATE_HZ = 48_000;

async function dryWords(voice: HearRequest['voice']): Promise<Float64Array> {
  if (!('url' in voice)) return resample(voice.samples, voice.rateHz, RATE_HZ);
  const response = await fetch(voice.url);
  if (!response.ok) throw new Error('The words cannot be fetched: is the server running?');
  const source = bufferSource(new Uint8Array(await response.arrayBuffer()));
  const layout = readWavHeader(source);
  return resample(readChannel(source, layout, 0), layout.format.sampleRateHz, RATE_HZ);
}

/** Renders setups beside the page. */
self.onmessage = async ({ data }: MessageEvent<HearRequest>) => {
  const reply = (message: HearReply, transfer: Transferable[] = []) => self.postMessage(message, { transfer });
  try {
    const { voice: words, ...asked } = data;
    const voice = await dryWords(words);
    const heard = hearSetups({ ...asked, voice, rateHz: RATE_HZ }, (share) => reply({ kind: 'progress', share }));
    reply(
      { kind: 'done', heard },
      heard.map(({ samples }) => samples.buffer as ArrayBuffer),
    );
  } catch (error) {
    reply({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
};
