import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { ClipSwitcher, START_GAIN, secondsOf } from '../../audio/clipSwitcher.ts';
import { type KeyHelp, useKeyHelp } from '../../parts/keys.tsx';
import { Progress } from '../../parts/Progress.tsx';

const HELP: KeyHelp[] = [
  { keys: 'A … L', does: 'Hear that clip, at the same place' },
  { keys: 'Space', does: 'Play, pause' },
  { keys: '[  ]', does: 'Loop starts here, loop ends here' },
  { keys: '0', does: 'Loop the whole' },
  { keys: '← →', does: 'Back, forward by 1 s' },
];
const SHORTEST_LOOP_S = 0.3;

/** A clip under its letter. */
export interface PlayedClip {
  letter: string;
  url: string;
  /** What it is, where that may be seen; else its letter. */
  mark?: React.ReactNode;
  /** What is said of it while another is heard. */
  said: string;
}

/** Instant switching between clips at one shared position, with a loop. */
export function ClipPlayer({ clips }: { clips: readonly PlayedClip[] }) {
  const switcher = useRef<ClipSwitcher | null>(null);
  const [share, setShare] = useState(0);
  const [failure, setFailure] = useState<string | null>(null);
  const [state, setState] = useState({ atS: 0, heard: 0, playing: false });
  const [loop, setLoop] = useState<[number, number]>([0, 0]);
  const [gainDb, setGainDb] = useState(20 * Math.log10(START_GAIN));
  const urls = clips.map(({ url }) => url).join('\n');
  useEffect(() => {
    const player = new ClipSwitcher();
    switcher.current = player;
    player
      .load(urls.split('\n'), ({ frame, heard, playing }) => setState({ atS: secondsOf(frame), heard, playing }), setShare)
      .then(
        () => setLoop([0, player.lengthS]),
        (error: Error) => setFailure(error.message),
      );
    return () => player.close();
  }, [urls]);
  const lengthS = switcher.current?.lengthS ?? 0;
  const ready = lengthS > 0;
  const play = () => void switcher.current?.play(!state.playing);
  const setLoopTo = (startS: number, endS: number) => {
    if (endS - startS < SHORTEST_LOOP_S) return;
    setLoop([startS, endS]);
    switcher.current?.loop(startS, endS);
  };
  useKeyHelp(HELP);
  useHotkeys(
    clips.map(({ letter }) => letter.toLowerCase()).join(','),
    (_event, handler) => {
      const index = clips.findIndex(({ letter }) => letter.toLowerCase() === handler.keys?.join(''));
      if (index >= 0) switcher.current?.hear(index);
    },
    [clips],
  );
  useHotkeys(
    'space',
    (event) => {
      if ((event.target as HTMLElement).closest('button')) return;
      event.preventDefault();
      play();
    },
    [state.playing],
  );
  useHotkeys('[', () => setLoopTo(state.atS, loop[1]), { useKey: true }, [state, loop]);
  useHotkeys(']', () => setLoopTo(loop[0], state.atS), { useKey: true }, [state, loop]);
  useHotkeys('0', () => setLoopTo(0, lengthS), [lengthS]);
  useHotkeys('left', () => switcher.current?.seek(state.atS - 1), [state]);
  useHotkeys('right', () => switcher.current?.seek(state.atS + 1), [state]);
  if (failure) {
    return (
      <div className="trouble" role="alert">
        {failure}
      </div>
    );
  }
  return (
    <section className="sheet stack" aria-label="Clips">
      {!ready && <Progress share={share} label="Clips fetched" />}
      <div className="clip-buttons">
        {clips.map(({ letter, mark, said }, index) => (
          <button
            key={letter}
            type="button"
            className={`clip-button ${state.heard === index ? 'heard' : ''}`}
            aria-pressed={state.heard === index}
            disabled={!ready}
            onClick={() => switcher.current?.hear(index)}
          >
            {letter}
            {mark}
            <small>{state.heard === index ? 'heard now' : said}</small>
          </button>
        ))}
      </div>
      <div className="passage">
        <Button style={{ minHeight: 48, minWidth: 120 }} disabled={!ready} onClick={play}>
          {state.playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />} {state.playing ? 'Pause' : 'Play'}
        </Button>
        <input
          type="range"
          aria-label="Position in seconds"
          min={0}
          max={lengthS}
          step={0.05}
          value={state.atS}
          disabled={!ready}
          onChange={(event) => switcher.current?.seek(Number(event.target.value))}
        />
        <span className="mono small">
          {state.atS.toFixed(1)} / {lengthS.toFixed(1)} s
        </span>
      </div>
      <div className="row-line">
        <span className="small">
          Loop{' '}
          <span className="mono">
            {loop[0].toFixed(1)} to {loop[1].toFixed(1)} s
          </span>
        </span>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => setLoopTo(state.atS, loop[1])}>
          Starts here
        </Button>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => setLoopTo(loop[0], state.atS)}>
          Ends here
        </Button>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => setLoopTo(0, lengthS)}>
          Whole
        </Button>
        <label className="small row-line ms-auto">
          Level
          <input
            type="range"
            aria-label="Listening level in dB"
            min={-40}
            max={0}
            step={1}
            value={gainDb}
            onChange={(event) => {
              setGainDb(Number(event.target.value));
              switcher.current?.setGain(10 ** (Number(event.target.value) / 20));
            }}
          />
          <span className="mono">−{Math.abs(Math.round(gainDb))} dB</span>
        </label>
      </div>
      <div className="small soft">It starts quietly, at −20 dB. Raise it with care: a level that is comfortable for minutes is loud enough, and all clips are matched.</div>
    </section>
  );
}
