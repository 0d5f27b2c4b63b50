import { signed } from '@marvet/core/measure/catalogue';
import type { HeardSetup } from '@marvet/core/place/hearSetups';
import { Eye, EyeOff, Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { ClipSwitcher } from '../../audio/clipSwitcher.ts';

interface HeardSwitcherProps {
  heard: readonly HeardSetup[];
  nameOf: (id: string) => string;
}

/** The same in an order that nobody knows (Fisher and Yates). */
function shuffled<Value>(values: readonly Value[]): Value[] {
  const out = [...values];
  for (let last = out.length - 1; last > 0; last--) {
    const other = Math.floor(Math.random() * (last + 1));
    [out[last], out[other]] = [out[other] as Value, out[last] as Value];
  }
  return out;
}

/** Switches between what was rendered, by name, or blind under letters until they are opened. */
export function HeardSwitcher({ heard, nameOf }: HeardSwitcherProps) {
  const [blind, setBlind] = useState(false);
  const order = useMemo(() => (blind ? shuffled(heard) : heard), [blind, heard]);
  return (
    <>
      <Switcher key={order === heard ? 'open' : 'blind'} heard={order} nameOf={blind ? (_id, index) => String.fromCharCode(65 + index) : (id) => nameOf(id)} gains={!blind} />
      <Button size="sm" variant="plain" className="mt-1" onClick={() => setBlind(!blind)}>
        {blind ? <Eye size={15} aria-hidden /> : <EyeOff size={15} aria-hidden />} {blind ? 'Open the letters' : 'Hear them blind'}
      </Button>
    </>
  );
}

function Switcher({ heard, nameOf, gains }: { heard: readonly HeardSetup[]; nameOf: (id: string, index: number) => string; gains: boolean }) {
  const switcher = useRef<ClipSwitcher | null>(null);
  const [state, setState] = useState({ heard: 0, playing: false });
  const [failure, setFailure] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    const player = new ClipSwitcher();
    switcher.current = player;
    player
      .start(
        // The audio thread keeps what it is given; the next start needs its own.
        heard.map(({ samples }) => [samples.slice()]),
        {
          onReport: ({ heard: clip, playing }) => setState({ heard: clip, playing }),
          onFailure: (message) => setFailure(message),
        },
      )
      .catch((error: Error) => wanted && setFailure(error.message));
    return () => {
      wanted = false;
      player.close();
    };
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
    <fieldset className="row-line mt-2" aria-label="Simulated microphones">
      <Button variant="primary" onClick={() => void switcher.current?.play(!state.playing)}>
        {state.playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />} {state.playing ? 'Pause' : 'Play'}
      </Button>
      {heard.map(({ id, gainDb }, index) => (
        <Button key={id} variant={state.heard === index ? 'primary' : 'outline'} aria-pressed={state.heard === index} onClick={() => switcher.current?.hear(index)}>
          {nameOf(id, index)} {gains && <span className="small">turned up {signed(gainDb - least, 0)} dB</span>}
        </Button>
      ))}
    </fieldset>
  );
}
