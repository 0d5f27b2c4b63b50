import type { FrameDraft } from '@marvet/core/domain/frame';
import type { Acoustics } from '@marvet/core/domain/station';
import { signed } from '@marvet/core/measure/catalogue';
import type { HeardBoom } from '@marvet/core/place/hearFrame';
import { Ear, Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { ClipSwitcher } from '../../audio/clipSwitcher.ts';
import { Progress } from '../../parts/Progress.tsx';
import { Sheet } from '../../parts/states.tsx';
import { boomNames } from './boomWords.ts';
import { renderedFrom, useHearing, VOICES } from './useHearing.ts';

/** Hears the booms of a frame before anyone goes out: simulated, equally loud, switched at the same syllable. */
export function HearFrame({ frame, place }: { frame: FrameDraft; place: Acoustics }) {
  const { hearing, render, stop } = useHearing();
  const [voice, setVoice] = useState(0);
  const ready = hearing.kind === 'ready' ? hearing : null;
  const changed = ready !== null && ready.of !== renderedFrom(frame, place, voice);
  return (
    <Sheet title="Hear it, simulated" aside={<span className="small soft">never mixed with recordings</span>}>
      <div className="row-line">
        <Form.Select size="sm" className="w-auto" aria-label="Who speaks" value={voice} onChange={(event) => setVoice(Number(event.target.value))}>
          {VOICES.map(({ name }, index) => (
            <option key={name} value={index}>
              {name}
            </option>
          ))}
        </Form.Select>
        {hearing.kind === 'rendering' ? (
          <>
            <Progress share={hearing.share} label="Rendered" widthPx={160} />
            <Button size="sm" variant="outline" onClick={stop}>
              Cancel
            </Button>
          </>
        ) : (
          <Button size="sm" variant={ready && !changed ? 'outline' : 'primary'} disabled={frame.booms.length === 0} onClick={() => render(frame, place, voice)}>
            <Ear size={15} aria-hidden /> {ready ? 'Render again' : 'Hear it'}
          </Button>
        )}
      </div>
      {changed && (
        <p className="caution p-2 mt-2 mb-0" role="status">
          The frame has changed since: what you hear is how it was.
        </p>
      )}
      {hearing.kind === 'failed' && (
        <p className="trouble mt-2 mb-0" role="alert">
          {hearing.message}
        </p>
      )}
      {ready && <Switcher key={ready.of} heard={ready.heard} names={namesOf(ready.heard, frame)} />}
      <p className="small soft mb-0 mt-2">{placeText(place)}</p>
    </Sheet>
  );
}

function namesOf(heard: readonly HeardBoom[], { booms }: FrameDraft): string[] {
  const names = boomNames(booms);
  return heard.map(({ boomId }) => names[booms.findIndex((boom) => boom.id === boomId)] ?? 'taken away');
}

/** What of the place is in the sound. */
function placeText({ sizeM, absorption, noiseDba, windMs }: Acoustics): string {
  const known = [sizeM && absorption ? 'its room' : null, noiseDba === null ? null : `noise of ${noiseDba} dB A`, windMs ? `wind of ${windMs} m/s` : null].filter(Boolean);
  return known.length > 0 ? `Of the station: ${known.join(', ')}.` : 'Nothing is known of the place: in the open, without noise. Choose a station with numbers in The place.';
}

function Switcher({ heard, names }: { heard: readonly HeardBoom[]; names: readonly string[] }) {
  const switcher = useRef<ClipSwitcher | null>(null);
  const [state, setState] = useState({ heard: 0, playing: false });
  const [failure, setFailure] = useState<string | null>(null);
  useEffect(() => {
    const player = new ClipSwitcher();
    switcher.current = player;
    player
      .start(
        // The audio thread keeps what it is given; the next start needs its own.
        heard.map(({ samples }) => samples.slice()),
        ({ heard: clip, playing }) => setState({ heard: clip, playing }),
      )
      .catch((error: Error) => setFailure(error.message));
    return () => player.close();
  }, [heard]);
  if (failure !== null) {
    return (
      <p className="trouble mt-2 mb-0" role="alert">
        The sound cannot be played: {failure}
      </p>
    );
  }
  const least = Math.min(...heard.map(({ gainDb }) => gainDb));
  return (
    <fieldset className="row-line mt-2" aria-label="Simulated booms">
      <Button variant="primary" onClick={() => void switcher.current?.play(!state.playing)}>
        {state.playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />} {state.playing ? 'Pause' : 'Play'}
      </Button>
      {heard.map(({ boomId, gainDb }, index) => (
        <Button key={boomId} variant={state.heard === index ? 'primary' : 'outline'} aria-pressed={state.heard === index} onClick={() => switcher.current?.hear(index)}>
          {names[index]} <span className="small">turned up {signed(gainDb - least, 0)} dB</span>
        </Button>
      ))}
    </fieldset>
  );
}
