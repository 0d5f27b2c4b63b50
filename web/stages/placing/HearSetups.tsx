import type { Acoustics } from '@marvet/core/domain/station';
import type { SetupToHear } from '@marvet/core/place/hearSetups';
import { Ear } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Progress } from '../../parts/Progress.tsx';
import { Sheet } from '../../parts/states.tsx';
import { HeardSwitcher } from './HeardSwitcher.tsx';
import { ownVoice } from './ownVoice.ts';
import { renderedFrom, type Speaker, type ToHear, useHearing, VOICES } from './useHearing.ts';

interface HearSetupsProps {
  /** What can be heard, and how each is called. */
  setups: readonly { name: string; setup: SetupToHear }[];
  talkers: ToHear['talkers'];
  place: Acoustics;
  /** What has changed since it was rendered: "The frame". */
  what: string;
  seed: string;
  /** Choices of its own that the page has besides. */
  more?: ReactNode;
}

const OWN = 'own';

/** Hears microphones before anyone goes out: simulated, equally loud, switched at the same syllable, open or blind. */
export function HearSetups({ setups, talkers, place, what, seed, more }: HearSetupsProps) {
  const { hearing, render, stop } = useHearing();
  const [speaker, setSpeaker] = useState<Speaker>(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const asked: ToHear = { setups: setups.map(({ setup }) => setup), talkers, place, seed };
  const ready = hearing.kind === 'ready' ? hearing : null;
  const changed = ready !== null && ready.of !== renderedFrom(asked, speaker);
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setTrouble(null);
    try {
      setSpeaker(await ownVoice(chosen));
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <Sheet title="Hear it, simulated" aside={<span className="small soft">never mixed with recordings</span>}>
      <div className="row-line">
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="Who speaks"
          value={typeof speaker === 'number' ? speaker : OWN}
          onChange={(event) => (event.target.value === OWN ? file.current?.click() : setSpeaker(Number(event.target.value)))}
        >
          {VOICES.map(({ name }, index) => (
            <option key={name} value={index}>
              {name}
            </option>
          ))}
          <option value={OWN}>{typeof speaker === 'number' ? 'a close recording of your own…' : speaker.name}</option>
        </Form.Select>
        <input
          ref={file}
          type="file"
          accept="audio/*"
          className="visually-hidden"
          tabIndex={-1}
          aria-label="A close recording of your own"
          onChange={(event) => void choose(event.target.files?.[0])}
        />
        {hearing.kind === 'rendering' ? (
          <>
            <Progress share={hearing.share} label="Rendered" widthPx={160} />
            <Button size="sm" variant="outline" onClick={stop}>
              Cancel
            </Button>
          </>
        ) : (
          <Button size="sm" variant={ready && !changed ? 'outline' : 'primary'} disabled={setups.length === 0} onClick={() => render(asked, speaker)}>
            <Ear size={15} aria-hidden /> {ready ? 'Render again' : 'Hear it'}
          </Button>
        )}
      </div>
      {more}
      {changed && (
        <p className="caution p-2 mt-2 mb-0" role="status">
          {what} has changed since: what you hear is how it was.
        </p>
      )}
      {(trouble !== null || hearing.kind === 'failed') && (
        <p className="trouble mt-2 mb-0" role="alert">
          {trouble ?? (hearing.kind === 'failed' ? hearing.message : '')}
        </p>
      )}
      {ready && <HeardSwitcher key={ready.of} heard={ready.heard} nameOf={(id) => setups.find(({ setup }) => setup.id === id)?.name ?? 'taken away'} />}
      <p className="small soft mb-0 mt-2">{placeText(place)}</p>
    </Sheet>
  );
}

/** What of the place is in the sound. */
function placeText({ sizeM, absorption, noiseDba, windMs, sources }: Acoustics): string {
  const known = [
    sizeM && absorption ? 'its room' : null,
    noiseDba === null ? null : `noise of ${noiseDba} dB A`,
    sources.length > 0 ? sources.map(({ name }) => name).join(' and ') : null,
    windMs ? `wind of ${windMs} m/s` : null,
  ].filter(Boolean);
  return known.length > 0 ? `Of the station: ${known.join(', ')}.` : 'Nothing is known of the place: in the open, without noise. Choose a station with numbers.';
}
