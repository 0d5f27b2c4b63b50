import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Ear } from '../../audio/earCheck.ts';
import { type KeyHelp, useKeyHelp } from '../../parts/keys.tsx';
import { type ClipSource, type PlayerHabit, useClips } from './useClips.ts';
import { WHILE_CHOOSING } from './whileChoosing.ts';

const HELP: KeyHelp[] = [
  { keys: 'A … L', does: 'Hear that clip, at the same place' },
  { keys: 'Space', does: 'Play, pause' },
  { keys: '[  ]', does: 'Loop starts here, loop ends here' },
  { keys: '0', does: 'Loop the whole' },
  { keys: '← →', does: 'Back, forward by 1 s' },
];
const HELP_OTHERWISE: KeyHelp[] = [...HELP, { keys: '=', does: 'Equalised, or as it is' }];
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

interface ClipPlayerProps {
  clips: readonly PlayedClip[];
  source: ClipSource;
  /** What the clips are matched to. */
  matchedLufs: number;
  /** How it was left with the clips before. */
  habit?: PlayerHabit;
  onHabit?(habit: PlayerHabit): void;
  /** Which clips have been playing, by their letters. */
  onPlayed?(letters: readonly string[]): void;
  /** The clip that is heard as a picture, where it may be seen: in seconds of the clips, which all begin at once. */
  picture?(heard: number, atS: number, onSeek: (seconds: number) => void): React.ReactNode;
}

/** Instant switching between clips at one shared position, with a loop. */
export function ClipPlayer({ clips, source, matchedLufs, habit, onHabit, onPlayed, picture }: ClipPlayerProps) {
  const { otherwise } = source;
  const { atS, heard, playing, waiting, failure, loop, gainDb, inOther, lengthS, ready, played, ...clip } = useClips(clips.length, source, habit, onHabit);
  // Level and ears are set with the first clips, and stay with those that follow.
  const [first] = useState(habit === undefined);
  const tell = useRef<(letters: ReadonlySet<number>) => void>(() => undefined);
  tell.current = (places) => onPlayed?.(clips.flatMap(({ letter }, at) => (places.has(at) ? letter : [])));
  useEffect(() => tell.current(played), [played]);
  useKeyHelp(otherwise ? HELP_OTHERWISE : HELP);
  useHotkeys(
    clips.map(({ letter }) => letter.toLowerCase()).join(','),
    (_event, handler) => {
      const index = clips.findIndex(({ letter }) => letter.toLowerCase() === handler.keys?.join(''));
      if (index >= 0) clip.hear(index);
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
      clip.play();
    },
    WHILE_CHOOSING,
    [onHabit],
  );
  useHotkeys('[', () => clip.setLoopTo(atS, loop[1]), { useKey: true, ...WHILE_CHOOSING }, [atS, loop]);
  useHotkeys(']', () => clip.setLoopTo(loop[0], atS), { useKey: true, ...WHILE_CHOOSING }, [atS, loop]);
  useHotkeys('0', () => clip.setLoopTo(0, lengthS), WHILE_CHOOSING, [lengthS]);
  useHotkeys('=', clip.turn, { useKey: true, ...WHILE_CHOOSING }, [otherwise, clips.length]);
  useHotkeys('left', () => clip.seek(atS - 1), [atS, loop]);
  useHotkeys('right', () => clip.seek(atS + 1), [atS, loop]);
  if (failure) {
    return (
      <div className="trouble" role="alert">
        {failure}
      </div>
    );
  }
  return (
    <section className="sheet stack" aria-label="Clips">
      <div className="clip-buttons">
        {clips.map(({ letter, mark, said }, index) => (
          <button
            key={letter}
            type="button"
            className={`clip-button ${heard === index ? 'heard' : ''}`}
            aria-pressed={heard === index}
            disabled={!ready}
            onClick={() => clip.hear(index)}
          >
            {letter}
            {mark}
            <small>{heard === index ? 'heard now' : said}</small>
          </button>
        ))}
      </div>
      {ready && picture?.(heard, atS, clip.seek)}
      <div className="passage">
        <Button style={{ minHeight: 48, minWidth: 120 }} disabled={!ready} onClick={clip.play}>
          {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />} {playing ? 'Pause' : 'Play'}
        </Button>
        <input
          type="range"
          aria-label="Position in seconds"
          min={0}
          max={lengthS}
          step={0.05}
          value={atS}
          disabled={!ready}
          onChange={(event) => clip.seek(Number(event.target.value))}
        />
        {/* One place for both, so that nothing moves under the finger. */}
        <span className="mono small" role="status" aria-live={ready && !waiting ? 'off' : 'polite'}>
          {ready && !waiting ? `${atS.toFixed(1)} / ${lengthS.toFixed(1)} s` : 'fetching …'}
        </span>
      </div>
      <div className="row-line">
        <span className="small">
          Loop{' '}
          <span className="mono">
            {loop[0].toFixed(1)} to {loop[1].toFixed(1)} s
          </span>
        </span>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => clip.setLoopTo(atS, loop[1])}>
          Starts here
        </Button>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => clip.setLoopTo(loop[0], atS)}>
          Ends here
        </Button>
        <Button size="sm" variant="outline" disabled={!ready} onClick={() => clip.setLoopTo(0, lengthS)}>
          Whole
        </Button>
        {otherwise && (
          <Button size="sm" variant={inOther ? 'primary' : 'outline'} aria-pressed={inOther} disabled={!ready} onClick={clip.turn}>
            {otherwise}
          </Button>
        )}
        <label className="small row-line ms-auto">
          Level
          <input type="range" aria-label="Listening level in dB" min={-40} max={0} step={1} value={gainDb} onChange={(event) => clip.setLevel(Number(event.target.value))} />
          <span className="mono">−{Math.abs(Math.round(gainDb))} dB</span>
        </label>
      </div>
      {first && (
        <div className="row-line small">
          <span>Before you start</span>
          {EARS.map(({ ear, label }) => (
            <Button key={ear} size="sm" variant="outline" disabled={!ready || playing} onClick={() => clip.check(ear, matchedLufs)}>
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
