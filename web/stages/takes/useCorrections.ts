import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { Correction, MarkedEvent } from '@marvet/core/domain/correction';
import { newId } from '@marvet/core/domain/identity';
import { correctionOf } from '@marvet/core/measure/events/corrected';
import { eventText } from '@marvet/core/measure/eventWords';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import { useCorrectEventMutation, useTakeCorrectionBackMutation } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Corrects events of a recording by hand; what was done can be undone. */
export interface Corrections {
  /** Makes an event another one, or none (`now` null); without an event one is added. Returns the correction. */
  correct(event: AudioEvent | null, now: MarkedEvent | null): Promise<{ id: string; error?: unknown }>;
  /** What was found counts again. */
  takeBack(correction: Correction): void;
}

const textOf = (event: MarkedEvent) => eventText({ ...event, severityDb: 0 });

export function useCorrections({ trialId, id: recordingId, corrections }: Pick<RecordingDetail, 'trialId' | 'id' | 'corrections'>): Corrections {
  const [send] = useCorrectEventMutation();
  const [remove] = useTakeCorrectionBackMutation();
  const notice = useNotice();
  const told = useTold();
  const put = (correction: Correction, seen: Correction | null) => told(send({ trialId, recordingId, ...correction, seen }));
  const drop = (id: string) => told(remove({ trialId, recordingId, id }));
  return {
    async correct(event, now) {
      const { correction, seen } = correctionOf(event, now, corrections, newId());
      const { id, was } = correction;
      // One that somebody marked and that is none after all leaves nothing to say.
      const { error } = was === null && now === null ? await drop(id) : await put(correction, seen);
      const back = () => void (seen ? put(seen, was === null && now === null ? null : correction) : drop(id));
      if (!error) notice(now ? `Marked by hand: ${textOf(now)}` : `No event any more: ${textOf(was ?? (seen?.now as MarkedEvent))}`, back);
      return { id, error };
    },
    takeBack(correction) {
      void drop(correction.id).then(({ error }) => {
        if (!error) notice('As it was found', () => void put(correction, null));
      });
    },
  };
}
