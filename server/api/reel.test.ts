import { bufferSource } from '@marvet/core/audio/byteSource';
import { readChannel } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { mixed, whiteNoise } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Harness, openHarness, plainWav, readyTrial, recorderWav } from '../testing/harness.ts';
import { unzipped } from '../testing/zips.ts';

let harness: Harness;
let at: string;
let ids: string[];
let bytes: Uint8Array;
beforeAll(async () => {
  harness = await openHarness();
  const ready = await readyTrial(harness);
  at = ready.at;
  const voice = voiced(8);
  // Noise of its own, or the lower one would be taken for the backup of the other.
  const channel = (gain: number, seed: number) =>
    mixed(
      voice.map((value) => value * gain),
      whiteNoise(-58, 8, seed),
    ).subarray(0, voice.length);
  bytes = recorderWav([channel(1, 1), channel(0.25, 2)], '1', '1', ['QU', 'LO']);
  await harness.upload(ready.trial.id, 'S001.wav', bytes);
  await harness.upload(ready.trial.id, 'loose.wav', plainWav(channel(0.5, 3)));
  await harness.services.work.runner.idle();
  const rows = (await harness.call<{ id: string; takeId: string | null; channels: number[] }[]>('GET', `${at}/recordings`)).body;
  ids = rows.sort((a, b) => Number(a.takeId === null) - Number(b.takeId === null) || (a.channels[0] ?? 0) - (b.channels[0] ?? 0)).map(({ id }) => id);
});
afterAll(() => harness.close());

const reel = (query: Record<string, string>) => harness.raw('GET', `${at}/reel.zip?${new URLSearchParams({ recordingIds: ids.slice(0, 2).join(','), ...query })}`);
async function entriesOf(query: Record<string, string>): Promise<Map<string, Buffer>> {
  const answer = await reel(query);
  expect(answer.status).toBe(200);
  const zip = Buffer.from(await answer.arrayBuffer());
  expect(answer.headers.get('content-length')).toBe(String(zip.length));
  return unzipped(zip);
}
function soundOf(entries: Map<string, Buffer>) {
  const source = bufferSource(new Uint8Array(entries.get('reel.wav') as Buffer));
  const layout = readWavHeader(source);
  return { format: layout.format, samples: readChannel(source, layout, 0) };
}
const rms = (samples: Float64Array) => Math.sqrt(samples.reduce((sum, value) => sum + value * value, 0) / samples.length);

describe('a reel to send', () => {
  it('plays clips matched, one after the other, with chapters in three forms and the untouched files beside it', async () => {
    const entries = await entriesOf({ gapS: '1' });
    expect([...entries.keys()]).toEqual(['reel.wav', 'reel.html', 'reel.vtt', 'reel.txt', 'untouched files/01 QU LO S001.wav']);
    expect(entries.get('untouched files/01 QU LO S001.wav')!.equals(Buffer.from(bytes))).toBe(true);
    const { format, samples } = soundOf(entries);
    expect(format).toMatchObject({ channels: 1, bitDepth: 24, sampleRateHz: 48_000 });
    const [first, second] = format.markers!;
    expect([first?.label, second?.label]).toEqual(['Quoin, take 01', 'Lodestar, take 01']);
    const lengthS = second!.atS - 1;
    expect(format.durationS).toBeCloseTo(2 * lengthS + 1, 3);
    const part = (atS: number) => samples.subarray(Math.round(atS * 48_000), Math.round((atS + lengthS) * 48_000));
    // 12 dB apart as they came, alike in the reel, and the same syllable at the same place.
    const [a, b] = [part(0), part(second!.atS)] as [Float64Array, Float64Array];
    expect(20 * Math.log10(rms(a) / rms(b))).toBeCloseTo(0, 0);
    expect(a.reduce((sum, value, index) => sum + value * (b[index] as number), 0) / (a.length * rms(a) * rms(b))).toBeGreaterThan(0.95);
    expect(rms(samples.subarray(Math.round((lengthS + 0.01) * 48_000), Math.round((lengthS + 0.99) * 48_000)))).toBe(0);
    expect(entries.get('reel.vtt')!.toString()).toMatch(/^WEBVTT\n\n00:00:00\.000 --> [\d:.]+\nQuoin, take 01\n\n[\d:.]+ --> [\d:.]+\nLodestar, take 01\n$/);
    expect(entries.get('reel.txt')!.toString()).toMatch(/00:00\.0 {2}Quoin, take 01\r\n[\s\S]*Lodestar, take 01: -?[\d.]+ dB, 01 QU LO S001\.wav/);
  });

  it('speaks the letter of each clip before it, as loud as the clips, where that is wanted', async () => {
    const { format, samples } = soundOf(await entriesOf({ gaps: 'spoken', gapS: '1' }));
    const [first, second] = format.markers!;
    const lengthS = format.durationS - second!.atS;
    for (const [begins, clipS] of [
      [0, first!.atS],
      [first!.atS + lengthS + 1, second!.atS],
    ] as const) {
      const [from, to] = [Math.round(begins * 48_000), Math.round((clipS - 0.4) * 48_000)];
      expect(to - from).toBeGreaterThan(0.15 * 48_000);
      const spoken = samples.subarray(from + 2_400, to - 2_400);
      const clip = samples.subarray(Math.round((clipS + 0.2) * 48_000), Math.round((clipS + lengthS - 0.2) * 48_000));
      expect(Math.abs(20 * Math.log10(rms(spoken) / rms(clip)))).toBeLessThan(6);
      expect(rms(samples.subarray(to + 48, to + 19_000))).toBe(0);
    }
  });

  it('has a page with the same clips in it, which asks nobody for anything', async () => {
    const page = (await entriesOf({})).get('reel.html')!.toString();
    const clips = [...page.matchAll(/<script type="text\/plain" class="clip">([A-Za-z0-9+/=]+)<\/script>/g)].map((match) => {
      const source = bufferSource(new Uint8Array(Buffer.from(match[1] as string, 'base64')));
      return readChannel(source, readWavHeader(source), 0);
    });
    expect(clips).toHaveLength(2);
    expect(20 * Math.log10(rms(clips[0]!) / rms(clips[1]!))).toBeCloseTo(0, 0);
    expect(page).not.toMatch(/(src|href)=|https?:|fetch\(|import\(/);
    expect(page).toContain('<b>B</b>Lodestar, take 01');
  });

  it('plays the same words of each, phrase by phrase', async () => {
    const { format } = soundOf(await entriesOf({ order: 'phrase' }));
    const told = (await harness.call<{ parts: number; lengthS: number }>('GET', `${at}/reel?${new URLSearchParams({ recordingIds: ids.slice(0, 2).join(','), order: 'phrase' })}`))
      .body;
    expect(told.parts).toBe(format.markers!.length);
    expect(told.lengthS).toBeCloseTo(format.durationS, 3);
    const labels = format.markers!.map(({ label }) => label);
    expect(labels.length).toBeGreaterThan(3);
    expect(labels.slice(0, 3)).toEqual(['Quoin, take 01, phrase 1', 'Lodestar, take 01, phrase 1', 'Quoin, take 01, phrase 2']);
  });

  it.each([
    ['phrases of several takes', () => ({ order: 'phrase', recordingIds: ids.join(',') }), 'order'],
    ['one recording', () => ({ recordingIds: ids[0] as string }), 'recordingIds'],
    ['a gap of a minute', () => ({ gapS: '60' }), 'gapS'],
    ['nothing', () => ({ recordingIds: '' }), 'recordingIds'],
  ])('%s cannot be made into one, and it is said which field', async (_, query, field) => {
    const answer = await reel(query());
    expect(answer.status).toBe(422);
    // The same is told before it is fetched, where a page can show it.
    expect((await harness.raw('GET', `${at}/reel?${new URLSearchParams({ recordingIds: ids.slice(0, 2).join(','), ...query() })}`)).status).toBe(422);
    expect(Object.keys(((await answer.json()) as { error: { fields: object } }).error.fields)).toContain(field);
  });
});
