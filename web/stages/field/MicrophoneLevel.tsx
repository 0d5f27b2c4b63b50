import { aLevelDbfs, energyMeanDb } from '@marvet/core/audio/aLevel';
import { type Device, deviceDraftSchema } from '@marvet/core/domain/device';
import { useCallback, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { usePostLinesMutation, useSaveDeviceMutation } from '../../data/devices.ts';
import { KeptNumber } from '../../parts/fields.tsx';

const NAME = 'Microphone of this page';
const READ_EVERY_MS = 250;
const POST_EVERY_MS = 1000;
/** As long as from one reading to the next, and more: what falls between two is heard too. */
const BLOCK = 16_384;
/** What is shown is the mean of a second; what is set against a meter that of three. */
const SHOWN_READINGS = 4;
const SET_READINGS = 12;
/** Two channels, so that what was told before it was set against a meter never passes for dB A. */
const CHANNELS = [
  { id: 'raw', quantity: 'audioLevelDbfs', name: 'Level, A-weighted, not calibrated', group: '' },
  { id: 'la', quantity: 'soundLevelDba', name: 'Level, A, once it is set', group: '' },
];
/** Nothing that a browser does to a voice may touch a level. */
const UNTOUCHED = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/** A level from the microphone of this page: not calibrated until it is set against a known one, and said to be so. */
export function MicrophoneLevel({ trialId, devices }: { trialId: string; devices: readonly Device[] }) {
  const [on, setOn] = useState(false);
  const [levelDbfs, setLevelDbfs] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [does, setDoes] = useState('');
  const [save] = useSaveDeviceMutation();
  const [post] = usePostLinesMutation();
  const device = devices.find(({ name, way }) => name === NAME && way.by === 'posted');
  const own = useRef(device);
  own.current = device;
  const session = useRef(crypto.randomUUID());
  const n = useRef(0);
  const recent = useRef<(number | null)[]>([]);
  const waiting = useRef<{ n: number; at: number; levelDbfs: number }[]>([]);
  const calibrationDb = device?.calibrationDb ?? null;

  const turn = async (wanted: boolean) => {
    setTrouble(null);
    setOn(wanted);
    if (wanted && !device)
      await save({ trialId, from: null, draft: deviceDraftSchema.parse({ name: NAME, kind: 'sound level meter', way: { by: 'posted' }, position: devices.length }) });
  };
  const heard = useCallback((level: number | null) => {
    recent.current = [...recent.current.slice(1 - SET_READINGS), level];
    setLevelDbfs(energyMeanDb(recent.current.slice(-SHOWN_READINGS)));
    if (level !== null) waiting.current.push({ n: ++n.current, at: Date.now(), levelDbfs: level });
  }, []);
  useEffect(() => {
    if (!on) return;
    return listen(heard, setDoes, (text) => {
      setTrouble(text);
      setOn(false);
    });
  }, [on, heard]);
  useEffect(() => {
    if (!on) return;
    const timer = setInterval(() => {
      const readings = waiting.current.slice(0, 500);
      if (!own.current?.on || readings.length === 0) return;
      const { id: deviceId, calibrationDb: addDb } = own.current;
      const hello = { hello: 1, name: NAME, kind: 'sound level meter', session: session.current, now: Date.now(), channels: CHANNELS };
      const lines = readings.map(({ n, at, levelDbfs: raw }) => ({ n, at, values: addDb === null ? { raw } : { raw, la: raw + addDb } }));
      void post({ trialId, deviceId, lines: [hello, ...lines] }).then(({ data }) => {
        const ack = data?.ack ?? 0;
        waiting.current = waiting.current.filter((line) => line.n > ack);
      });
    }, POST_EVERY_MS);
    return () => clearInterval(timer);
  }, [on, post, trialId]);

  const set = (knownDba: number | null) => {
    const heardDbfs = energyMeanDb(recent.current);
    if (!device) return;
    if (knownDba !== null && heardDbfs === null) {
      setTrouble('Nothing is heard now. Make the sound that the meter reads, then enter what it reads.');
      return;
    }
    setTrouble(null);
    const calibrationDb = knownDba === null || heardDbfs === null ? null : knownDba - heardDbfs;
    void save({ trialId, from: device, draft: deviceDraftSchema.parse({ ...device, calibrationDb }) });
  };
  return (
    <details className="mt-3">
      <summary>A level from the microphone of this page</summary>
      <div className="stack mt-2">
        <div className="row-line">
          <Form.Check type="switch" id="microphone-level" label="Listen" checked={on} onChange={(event) => void turn(event.target.checked)} />
          {on && (
            <span className="mono fs-5" role="status">
              {levelDbfs === null ? 'silent' : calibrationDb === null ? `${levelDbfs.toFixed(0).replace('-', '−')} dBFS (A)` : `${(levelDbfs + calibrationDb).toFixed(0)} dB A`}
            </span>
          )}
          {on && <span className="small soft">{calibrationDb === null ? 'not calibrated: good for louder and quieter, not for dB A' : 'set against a known level by hand'}</span>}
        </div>
        {on && (
          <div className="row-line align-items-end">
            <KeptNumber label="A meter beside it reads, dB A" min={20} max={140} value={null} onKeep={set} />
            {calibrationDb !== null && (
              <Button size="sm" variant="plain" onClick={() => set(null)}>
                Not calibrated
              </Button>
            )}
          </div>
        )}
        {on && does && <p className="small soft mb-0">{does}</p>}
        {trouble && (
          <div className="caution" role="status">
            {trouble}
          </div>
        )}
      </div>
    </details>
  );
}

/** Opens the microphone and tells its level now and then, until it is stopped. */
function listen(onLevel: (levelDbfs: number | null) => void, onDoes: (text: string) => void, onTrouble: (text: string) => void): () => void {
  let stopped = false;
  let stop = () => undefined as undefined;
  const start = async () => {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: UNTOUCHED });
    const context = new AudioContext();
    const end = () => {
      for (const track of stream.getTracks()) track.stop();
      void context.close();
      return undefined;
    };
    if (stopped) return end();
    const analyser = new AnalyserNode(context, { fftSize: BLOCK });
    // Some browsers run only what leads to a loudspeaker: it leads there, and is not heard.
    context
      .createMediaStreamSource(stream)
      .connect(analyser)
      .connect(new GainNode(context, { gain: 0 }))
      .connect(context.destination);
    await context.resume();
    const settings = stream.getAudioTracks()[0]?.getSettings() ?? {};
    const touched = Object.keys(UNTOUCHED).filter((name) => settings[name as keyof typeof UNTOUCHED] === true);
    onDoes(
      touched.length > 0
        ? `This browser works on the sound all the same (${touched.join(', ')}): its level is worth little.`
        : `Nothing is done to the sound, at ${context.sampleRate / 1000} kHz.`,
    );
    const samples = new Float32Array(BLOCK);
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples);
      onLevel(aLevelDbfs(samples, context.sampleRate));
    }, READ_EVERY_MS);
    stop = () => {
      clearInterval(timer);
      return end();
    };
  };
  start().catch((error: unknown) =>
    onTrouble(
      (error as Error).name === 'NotAllowedError'
        ? 'The browser may not listen. Allow the microphone for this page, then turn it on again.'
        : `The microphone cannot be opened: ${(error as Error).message}`,
    ),
  );
  return () => {
    stopped = true;
    stop();
  };
}
