import type { Script } from '@marvet/core/domain/script';
import { type Prompt, promptAt, promptOf } from '@marvet/core/domain/scriptPrompt';
import { MessageSquareText } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { useHotkeys } from 'react-hotkeys-hook';
import { NOT_BEHIND_DIALOG } from '../../parts/keys.tsx';

/** The script for the talker, over the whole screen: to be read at three metres. */
export function TalkerPrompt({ script, label }: { script: Script; label: string }) {
  const [open, setOpen] = useState(false);
  useHotkeys('p', () => setOpen(true), NOT_BEHIND_DIALOG);
  return (
    <>
      <Button variant="outline" className="prompt-open" aria-label="Show it to the talker (P)" title="Show it to the talker (P)" onClick={() => setOpen(true)}>
        <MessageSquareText size={20} aria-hidden />
      </Button>
      <Modal show={open} fullscreen onHide={() => setOpen(false)} aria-label={`For the talker: ${script.name}`} className="talker-prompt" enforceFocus={false}>
        <Modal.Body>
          <PromptBody prompt={promptOf(script)} slate={label} onClose={() => setOpen(false)} />
        </Modal.Body>
      </Modal>
    </>
  );
}

const TICK_MS = 100;
/** A letter takes so much of the square of its size, lines included, and so much of it across. */
const LETTER_AREA = 0.72;
const LETTER_WIDTH = 0.6;
/** Head and foot take the rest of the screen. */
const FOR_WORDS = 0.72;
const LEAST_PX = 28;

/** The largest letters in which a text fills the screen and its longest word a line. */
function letterPx(text: string): number {
  const { innerWidth, innerHeight } = window;
  const longest = Math.max(...text.split(/\s+/).map((word) => word.length));
  return Math.max(LEAST_PX, Math.min(Math.sqrt((FOR_WORDS * innerWidth * innerHeight) / (LETTER_AREA * text.length)), (0.92 * innerWidth) / (LETTER_WIDTH * longest)));
}

function PromptBody({ prompt, slate, onClose }: { prompt: Prompt; slate: string; onClose: () => void }) {
  const [startedAtMs, setStartedAtMs] = useState<number | null>(null);
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (startedAtMs === null) return;
    const timer = setInterval(() => setNowMs(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [startedAtMs]);
  const shown = useMemo(() => promptAt(prompt, startedAtMs === null ? 0 : Math.max(0, nowMs - startedAtMs) / 1000), [prompt, startedAtMs, nowMs]);
  const timed = prompt.kind !== 'words';
  const start = () => {
    setNowMs(Date.now());
    setStartedAtMs(Date.now());
  };
  return (
    <>
      <div className="row-line apart prompt-head">
        <span className="mono">{slate}</span>
        <Button variant="outline" onClick={onClose}>
          Close
        </Button>
      </div>
      <p className="prompt-large" style={{ fontSize: letterPx(shown.large) }} role={timed ? 'timer' : undefined}>
        {shown.large}
      </p>
      {timed && (
        <div className="row-line apart prompt-foot">
          <span>{shown.small}</span>
          <Button variant="primary" onClick={start}>
            {startedAtMs === null ? 'Begin' : 'Again'}
          </Button>
        </div>
      )}
    </>
  );
}
