import type { Chain } from '@marvet/core/domain/chain';
import type { Gains, Take } from '@marvet/core/domain/take';
import { useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTrialWords } from '../../data/trialData.ts';
import { KeptText } from '../../parts/fields.tsx';
import { NOT_BEHIND_DIALOG } from '../../parts/keys.tsx';
import { BreakUps } from './BreakUps.tsx';
import { FieldReadings } from './FieldReadings.tsx';
import { Incidents } from './Incidents.tsx';
import { LiveReadings } from './LiveReadings.tsx';
import { LogState } from './LogState.tsx';
import { ReadingsOfTake } from './ReadingsOfTake.tsx';
import { RefusedLines } from './RefusedLines.tsx';
import { Switched } from './Switched.tsx';
import { TakePhotos } from './TakePhotos.tsx';
import type { FieldState } from './useFieldLog.ts';
import { VoiceNotes } from './VoiceNotes.tsx';

/** What is noted of a take beside its flags: on a desktop it stands next to the runner, on a phone under it. */
export function TakeNotes({ take, chains, gains, log }: { take: Take; chains: Chain[]; gains: Record<string, Gains>; log: FieldState }) {
  const words = useTrialWords(take.trialId);
  const note = useRef<HTMLDivElement>(null);
  useHotkeys(
    'n',
    (event) => {
      event.preventDefault();
      note.current?.querySelector<HTMLElement>('textarea')?.focus();
    },
    NOT_BEHIND_DIALOG,
  );
  return (
    <section className="sheet take-notes" aria-label="Beside the take">
      <LogState log={log} trialId={take.trialId} />
      <RefusedLines log={log} />
      <BreakUps take={take} words={words} log={log} />
      <Switched take={take} chains={chains} words={words} log={log} />
      <div ref={note}>
        <KeptText
          label="Note (N)"
          rows={2}
          maxLength={2000}
          value={take.note}
          onKeep={(text) => void log.write({ kind: 'note', takeId: take.id, text })}
          placeholder="what happened, what was on"
        />
      </div>
      <VoiceNotes take={take} />
      <TakePhotos take={take} />
      <LiveReadings take={take} write={log.write} />
      <ReadingsOfTake take={take} />
      <FieldReadings take={take} chains={chains} kit={gains} write={log.write} />
      <Incidents key={take.id} take={take} words={words} log={log} />
    </section>
  );
}
