import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { ClipSwitcher, START_GAIN, secondsOf } from '../../audio/clipSwitcher.ts';
import type { Ear } from '../../audio/earCheck.ts';
import type { SwitcherReport } from '../../audio/switcherMessages.ts';
import { type KeyHelp, useKeyHelp } from '../../parts/keys.tsx';
import { Progress } from '../../parts/Progress.tsx';
import { WHILE_CHOOSING } from './whileChoosing.ts';

const HELP: KeyHelp[] = [
  { keys: 'A … L', does: 'Hear that clip, at the same place' },
  { keys: 'Space', does: 'Play, pause' },
  { keys: '[  ]', does: 'Loop starts here, loop ends here' },
  { keys: '0', does: 'Loop the whole' },
  { keys: '← →', does: 'Back, forward by 1 s' },
];
const HELP_OTHERWISE: KeyHelp[] = [...HELP, { keys: '=', does: 'Equalised, or as it is' }];
const SHORTEST_LOOP_S = 0.3;
const EARS: { ear: Ear; label: string }[] = [
  { ear: 'left', label: 'Left ear' },
  { ear: 'right', label: 'Right ear' },
  { ear: 'both', label: 'Middle' },
];

/** A clip under its letter. */
export interface PlayedClip {
  letter: string;
  /** What it is, where that may be seen; else its letter. */
  mark?: React.ReactNode;
  /** What is said of it while another is heard. */
  said: string;
}

/**
 * Where clips come from: each from an address of its own, in their order, or all in one file. `otherwise` has the same clips once more
 * in another form, to be switched to at once.
 */
export type ClipSource = { each: readonly string[]; otherwise?: { name: string; each: readonly string[] } } | { together: string };

/** What stays from one set of clips to the next: how loud, and whether it plays. */
export interface PlayerHabit {
  gainDb: number;
  playing: boolean;
}

interface ClipPlayerProps {
  clips: readonly PlayedClip[];
  source: ClipSource;
  /** What the clips are matched to. */
  matchedLufs: number;
  /** How it was left with the clips before. */
  habit?: PlayerHabit;
  onHabit?(habit: PlayerHabit): void;
  /** The clip that is heard as a picture, where it may be seen: in seconds of the clips, which all begin at once. */
  picture?(heard: number, atS: number, onSeek: (seconds: number) => void): React.ReactNode;
}

const QUIET: PlayerHabit = { gainDb: 20 * Math.log10(START_GAIN), playing: false };

/** Instant switching between clips at one shared position, with a loop. */
export function ClipPlayer({ clips, source, matchedLufs, habit, onHabit, picture }: ClipPlayerProps) {
  const switcher = useRef<ClipSwitcher | null>(null);
  const [share, setShare] = useState(0);
  const [failure, setFailure] = useState<string | null>(null);
  const [state, setState] = useState({ atS: 0, heard: 0, playing: false });
  const [loop, setLoop] = useState<[number, number]>([0, 0]);
  const [gainDb, setGainDb] = useState((habit ?? QUIET).gainDb);
  /** How it is left: other clips in this player go on like that. */
  const left = useRef(habit ?? QUIET);
  const keep = (now: PlayerHabit) => {
    left.current = now;
    onHabit?.(now);
  };
  // Level and ears are set with the first clips, and stay with those that follow.
  const [first] = useState(habit === undefined);
  const count = clips.length;
  const otherwise = 'each' in source ? source.otherwise : undefined;
  const [inOther, setInOther] = useState(false);
  /** What was asked for last. What is heard is told a moment later, so that two presses in a row would go on from what was heard before. */
  const asked = useRef({ clip: 0, other: false });
  const address = 'each' in source ? [...source.each, ...(otherwise?.each ?? [])].join('\n') : source.together;
  const together = 'together' in source;
  useEffect(() => {
    const player = new ClipSwitcher();
    switcher.current = player;
    const report = ({ frame, heard, playing }: SwitcherReport) => setState({ atS: secondsOf(frame), heard: heard % count, playing });
    // Other clips may be wanted before these are there: what becomes of them then is no trouble.
    let wanted = true;
    setFailure(null);
    setShare(0);
    setInOther(false);
    asked.current = { clip: 0, other: false };
    const loading = together ? player.loadTogether(address, count, report, setShare) : player.load(address.split('\n'), report, setShare);
    loading.then(
      () => {
        if (!wanted) return;
        setLoop([0, player.lengthS]);
        player.setGain(10 ** (left.current.gainDb / 20));
        if (left.current.playing) void player.play(true);
      },
      (error: Error) => wanted && setFailure(error.message),
    );
    return () => {
      wanted = false;
      player.close();
    };
  }, [address, together, count]);
  const lengthS = switcher.current?.lengthS ?? 0;
  const ready = lengthS > 0;
  const play = () => {
    const playing = !left.current.playing;
    keep({ ...left.current, playing });
    void switcher.current?.play(playing);
  };
  const hear = (clip: number, other = asked.current.other) => {
    if (!switcher.current?.lengthS) return;
    asked.current = { clip, other };
    setInOther(other);
    switcher.current.hear(clip + (other ? count : 0));
  };
  const turn = () => otherwise && hear(asked.current.clip, !asked.current.other);
  const setLoopTo = (startS: number, endS: number) => {
    if (endS - startS < SHORTEST_LOOP_S) return;
    setLoop([startS, endS]);
    switcher.current?.loop(startS, endS);
  };
  useKeyHelp(otherwise ? HELP_OTHERWISE : HELP);
  useHotkeys(
    clips.map(({ letter }) => letter.toLowerCase()).join(','),
    (_event, handler) => {
      const index = clips.findIndex(({ letter }) => letter.toLowerCase() === handler.keys?.join(''));
      if (index >= 0) hear(index);
    },
    WHILE_CHOOSING,
    [clips],
  );
  useHotkeys(
    'space',
    (event) => {
      // On a button or an answer the space bar presses that.
      if ((event.target as HTMLElement).closest('button, [type="radio"], [type="checkbox"]')) return;
      event.preventDefault();
      play();
    },
    WHILE_CHOOSING,
    [onHabit],
  );
  useHotkeys('[', () => setLoopTo(state.atS, loop[1]), { useKey: true, ...WHILE_CHOOSING }, [state, loop]);
  useHotkeys(']', () => setLoopTo(loop[0], state.atS), { useKey: true, ...WHILE_CHOOSING }, [state, loop]);
  useHotkeys('0', () => setLoopTo(0, lengthS), WHILE_CHOOSING, [lengthS]);
  useHotkeys('=', turn, { useKey: true, ...WHILE_CHOOSING }, [otherwise, count]);
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
            onClick={() => hear(index)}
          >
            {letter}
            {mark}
            <small>{state.heard === index ? 'heard now' : said}</small>
          </button>
        ))}
      </div>
      {ready && picture?.(state.heard, state.atS, (seconds) => switcher.current?.seek(seconds))}
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
        {otherwise && (
          <Button size="sm" variant={inOther ? 'primary' : 'outline'} aria-pressed={inOther} disabled={!ready} onClick={turn}>
            {otherwise.name}
          </Button>
        )}
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
              keep({ ...left.current, gainDb: Number(event.target.value) });
              switcher.current?.setGain(10 ** (Number(event.target.value) / 20));
            }}
          />
          <span className="mono">−{Math.abs(Math.round(gainDb))} dB</span>
        </label>
      </div>
      {first && (
        <div className="row-line small">
          <span>Before you start</span>
          {EARS.map(({ ear, label }) => (
            <Button key={ear} size="sm" variant="outline" disabled={!ready || state.playing} onClick={() => void switcher.current?.check(ear, matchedLufs)}>
              {label}
            </Button>
          ))}
          <span className="soft">
            Noise as loud as the clips: is left left? It starts quietly, at −20 dB. Raise it with care: a level that is comfortable for minutes is loud enough.
          </span>
        </div>
      )}
    </section>
  );
}
