import { useEffect, useRef, useState } from 'react';
import { ClipSwitcher, START_GAIN, secondsOf } from '../../audio/clipSwitcher.ts';
import type { Ear } from '../../audio/earCheck.ts';
import type { SwitcherReport } from '../../audio/switcherMessages.ts';

const SHORTEST_LOOP_S = 0.3;
/** How long the audio thread may take to answer, and how near its answer lies. */
const ANSWER_MS = 500;
const ANSWERED_S = 0.25;
const NOT_SOUGHT = { atS: 0, untilMs: 0 };
const STILL = { atS: 0, heard: 0, playing: false, waiting: false };

/** Where clips come from: all together, in pieces that are numbered from 0. */
export interface ClipSource {
  /** The address before the number of the piece, and after it. */
  pieces: string;
  question?: string;
  /** There are the same clips once more in another form after them, to be switched to at once, and what that is called. */
  otherwise?: string;
}

/** What stays from one set of clips to the next: how loud, and whether it plays. */
export interface PlayerHabit {
  gainDb: number;
  playing: boolean;
}

const QUIET: PlayerHabit = { gainDb: 20 * Math.log10(START_GAIN), playing: false };

/** Clips that are switched between, as a page sees and steers them. */
export function useClips(count: number, { pieces, question = '', otherwise }: ClipSource, habit: PlayerHabit | undefined, onHabit?: (habit: PlayerHabit) => void) {
  const switcher = useRef<ClipSwitcher | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [state, setState] = useState(STILL);
  const [loop, setLoop] = useState<[number, number]>([0, 0]);
  const [gainDb, setGainDb] = useState((habit ?? QUIET).gainDb);
  const [inOther, setInOther] = useState(false);
  /** Which clips have been playing. */
  const [played, setPlayed] = useState<ReadonlySet<number>>(new Set());
  /** How it is left: other clips in this player go on like that. */
  const left = useRef(habit ?? QUIET);
  /** What was asked for last. What is heard is told a moment later, so that two presses in a row would go on from what was heard before. */
  const asked = useRef({ clip: 0, other: false });
  /** Where one went last. Reports that were on their way then would pull the slider back under the finger. */
  const sought = useRef(NOT_SOUGHT);
  const served = otherwise === undefined ? count : 2 * count;
  useEffect(() => {
    const player = new ClipSwitcher();
    switcher.current = player;
    const onReport = ({ frame, heard, playing, waiting }: SwitcherReport) => {
      const { atS, untilMs } = sought.current;
      const stale = Date.now() < untilMs && Math.abs(secondsOf(frame) - atS) > ANSWERED_S;
      if (!stale) sought.current = NOT_SOUGHT;
      setState({ atS: stale ? atS : secondsOf(frame), heard: heard % count, playing, waiting });
      if (playing && !waiting) setPlayed((before) => (before.has(heard % count) ? before : new Set([...before, heard % count])));
    };
    // Other clips may be wanted before these are there: what becomes of them then is no trouble.
    let wanted = true;
    setFailure(null);
    setState(STILL);
    setInOther(false);
    setPlayed(new Set());
    asked.current = { clip: 0, other: false };
    sought.current = NOT_SOUGHT;
    const listener = { onReport, onFailure: (message: string) => wanted && setFailure(message) };
    player.load({ clips: served, addressOf: (piece) => `${pieces}/${piece}${question}` }, listener).then(
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
  }, [pieces, question, served, count]);
  const lengthS = switcher.current?.lengthS ?? 0;
  const keep = (now: PlayerHabit) => {
    left.current = now;
    onHabit?.(now);
  };
  const hear = (clip: number, other = asked.current.other) => {
    if (!switcher.current?.lengthS) return;
    asked.current = { clip, other };
    setInOther(other);
    switcher.current.hear(clip + (other ? count : 0));
  };
  return {
    ...state,
    failure,
    loop,
    gainDb,
    inOther,
    played,
    lengthS,
    ready: lengthS > 0,
    hear,
    /** Between the clips as they are and their other form, where there is one. */
    turn: () => otherwise !== undefined && hear(asked.current.clip, !asked.current.other),
    play() {
      const playing = !left.current.playing;
      keep({ ...left.current, playing });
      void switcher.current?.play(playing);
    },
    seek(seconds: number) {
      const atS = Math.max(loop[0], Math.min(loop[1], seconds));
      sought.current = { atS, untilMs: Date.now() + ANSWER_MS };
      setState((now) => ({ ...now, atS }));
      switcher.current?.seek(atS);
    },
    setLoopTo(startS: number, endS: number) {
      if (endS - startS < SHORTEST_LOOP_S) return;
      setLoop([startS, endS]);
      switcher.current?.loop(startS, endS);
    },
    setLevel(levelDb: number) {
      setGainDb(levelDb);
      keep({ ...left.current, gainDb: levelDb });
      switcher.current?.setGain(10 ** (levelDb / 20));
    },
    check: (ear: Ear, levelLufs: number) => void switcher.current?.check(ear, levelLufs),
  };
}
