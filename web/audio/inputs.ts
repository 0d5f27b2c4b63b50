import { pieceFrames } from '@marvet/core/domain/capture';
import workletUrl from './capture.worklet.ts?worker&url';
import type { CaptureCommand, CaptureReport, CaptureSetting } from './captureMessages.ts';

/** What is asked of a browser, so that it leaves the sound alone. */
const UNTOUCHED = { echoCancellation: false, noiseSuppression: false, autoGainControl: false } as const;
/** A browser is asked for all channels that an input has. */
const AS_MANY_AS_THERE_ARE = 32;

/** An audio input of this computer. */
export interface AudioInput {
  deviceId: string;
  label: string;
}

/** What a browser says that it does to an input. */
export interface InputSettings extends Pick<MediaTrackSettings, 'sampleRate' | 'sampleSize' | 'channelCount' | 'echoCancellation' | 'noiseSuppression' | 'autoGainControl'> {
  label: string;
}

/** Inputs at work: their levels and pieces are told, until they are closed. */
export interface OpenedInputs {
  settings: InputSettings[];
  /** Channels in all, in the order of the inputs, with what each is called. */
  channels: string[];
  sampleRateHz: number;
  tell(command: CaptureCommand): void;
  close(): void;
}

/** Inputs that this browser knows; asks for leave first, since it names none before. */
export async function knownInputs(): Promise<AudioInput[]> {
  const asked = await navigator.mediaDevices.getUserMedia({ audio: true });
  for (const track of asked.getTracks()) track.stop();
  const devices = await navigator.mediaDevices.enumerateDevices();
  return devices.filter(({ kind, deviceId }) => kind === 'audioinput' && deviceId !== 'default').map(({ deviceId, label }) => ({ deviceId, label: label || 'Input' }));
}

/**
 * Opens inputs side by side, with nothing done to their sound as far as the browser allows.
 * @param onEnded an input was pulled out
 */
export async function openInputs(deviceIds: readonly string[], onReport: (report: CaptureReport) => void, onEnded: (label: string) => void): Promise<OpenedInputs> {
  const streams: MediaStream[] = [];
  const letGo = () => {
    for (const stream of streams) for (const track of stream.getTracks()) track.stop();
  };
  try {
    for (const deviceId of deviceIds)
      streams.push(await navigator.mediaDevices.getUserMedia({ audio: { deviceId: { exact: deviceId }, channelCount: { ideal: AS_MANY_AS_THERE_ARE }, ...UNTOUCHED } }));
    const tracks = streams.flatMap((stream) => stream.getAudioTracks());
    const settings = tracks.map((track): InputSettings => ({ ...track.getSettings(), label: track.label }));
    const rate = settings[0]?.sampleRate;
    const context = new AudioContext({ latencyHint: 'playback', ...(rate ? { sampleRate: rate } : {}) });
    await context.audioWorklet.addModule(workletUrl);
    const channelsOfInputs = settings.map(({ channelCount }) => channelCount ?? 1);
    const processorOptions: CaptureSetting = { channelsOfInputs, pieceFrames: pieceFrames(context.sampleRate) };
    const node = new AudioWorkletNode(context, 'capture', {
      numberOfInputs: streams.length,
      numberOfOutputs: 1,
      channelCountMode: 'max',
      channelInterpretation: 'discrete',
      processorOptions,
    });
    node.port.onmessage = ({ data }: MessageEvent<CaptureReport>) => onReport(data);
    // Held for as long as they are open: a source that nobody holds may be cleared away, and falls silent.
    const sources = streams.map((stream, index) => {
      const source = context.createMediaStreamSource(stream);
      source.connect(node, 0, index);
      return source;
    });
    // Some browsers run only what leads to a loudspeaker: it leads there, and gives silence.
    node.connect(context.destination);
    await context.resume();
    for (const track of tracks) track.addEventListener('ended', () => onEnded(track.label));
    return {
      settings,
      channels: settings.flatMap(({ label }, index) =>
        Array.from({ length: channelsOfInputs[index] as number }, (_, own) => (streams.length > 1 ? `${label}, ${own + 1}` : `Channel ${own + 1}`)),
      ),
      sampleRateHz: context.sampleRate,
      tell: (command) => node.port.postMessage(command),
      close() {
        letGo();
        node.port.onmessage = null;
        for (const source of sources) source.disconnect();
        node.disconnect();
        void context.close();
      },
    };
  } catch (error) {
    letGo();
    throw error;
  }
}

/** What a browser does to inputs, in sentences; the first says whether anything is wrong with it. */
export function whatBrowserDoes(settings: readonly InputSettings[], sampleRateHz: number): { fair: boolean; sentences: string[] } {
  const worked = settings.flatMap((each) =>
    [each.echoCancellation ? 'echo cancelling' : '', each.noiseSuppression ? 'noise suppression' : '', each.autoGainControl ? 'automatic gain' : '']
      .filter(Boolean)
      .map((what) => `${what} on ${each.label}`),
  );
  const resampled = settings.filter(({ sampleRate }) => sampleRate !== undefined && sampleRate !== sampleRateHz);
  const inputs = settings.map(
    ({ label, sampleRate, sampleSize, channelCount }) =>
      `${label}: ${channelCount ?? 1} ${channelCount === 1 ? 'channel' : 'channels'}${sampleRate ? `, ${sampleRate.toLocaleString('en-GB')} Hz` : ', rate not told'}${sampleSize ? `, ${sampleSize} bit` : ''}.`,
  );
  return {
    fair: worked.length === 0,
    sentences: [
      worked.length > 0
        ? `This browser works on the sound though it was asked not to: ${worked.join(', ')}. Figures of it say more of the browser than of the gear.`
        : 'No processing was asked for, and the browser says that none is on.',
      ...inputs,
      `Recorded at ${sampleRateHz.toLocaleString('en-GB')} Hz, 24 bit, uncompressed.`,
      ...(resampled.length > 0 ? [`${resampled.map(({ label }) => label).join(' and ')} is converted to that rate by the browser.`] : []),
      ...(settings.length > 1 ? ['Inputs with clocks of their own drift apart: alignment between them is measured, not given.'] : []),
    ],
  };
}
