import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { VerdictView } from '@marvet/core/contract/verdict';
import { leftOutTexts } from '@marvet/core/decide/leftOut';
import { listed } from '@marvet/core/domain/listed';
import type { Round } from '@marvet/core/domain/round';
import type { Take } from '@marvet/core/domain/take';
import { signed } from '@marvet/core/measure/catalogue';
import { useTrialId } from '../../data/trialData.ts';
import { useRecordingsQuery } from '../../data/work.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';

/** How it was judged: what was measured how, who heard what, whether it was fair, and what was left out. */
export function HowJudged({ view, takes, rounds }: { view: VerdictView; takes: readonly Take[]; rounds: readonly Round[] }) {
  const recordings = useRecordingsQuery(useTrialId());
  return (
    <Sheet title="How it was judged">
      <Loaded of={[recordings]}>
        {() => {
          const left = leftOutTexts({ takes, recordings: recordings.data!, passes: view.passes, notes: view.notes });
          return (
            <ul className="mb-0">
              <li>{methodText(recordings.data!)}</li>
              {rounds.map((round) => (
                <li key={round.id}>{roundText(round)}</li>
              ))}
              {rounds.length === 0 && <li>Nobody listened blind.</li>}
              <li>{fairText(view)}</li>
              <li>{left.length > 0 ? `Left out. ${left.join(' ')}` : 'Nothing that was recorded is left out.'}</li>
            </ul>
          );
        }}
      </Loaded>
    </Sheet>
  );
}

function methodText(recordings: readonly RecordingRow[]): string {
  const versions = [...new Set(recordings.flatMap(({ methodVersion }) => methodVersion ?? []))].sort((a, b) => a - b);
  if (versions.length === 0) return 'Nothing was measured.';
  const more = versions.length > 1 ? ' Figures of different methods do not compare in all: measure those again in Takes.' : '';
  return `Figures are measured on the audio as it was recorded, by method ${listed(versions.map(String))}; every figure’s definition, with its standard, stands in the methods that ship with Marvet.${more}`;
}

const KINDS: Record<Round['kind'], string> = {
  scores: 'points',
  better: 'which of two is better',
  same: 'whether X is A or B',
  odd: 'which of three is the odd one',
  ranked: 'an order',
};

function roundText({ kind, recordingIds, targetLufs, listeners }: Round): string {
  const done = listeners.filter(({ finishedAtMs }) => finishedAtMs !== null).length;
  return `Listened to blind, for ${KINDS[kind]}: ${recordingIds.length} clips matched to ${signed(targetLufs, 0)} LUFS, ${done} of ${listeners.length} who were asked are done.`;
}

function fairText({ rows, criteria }: VerdictView): string {
  const apart = criteria.filter(({ id }, index) => (rows ?? []).some((row) => row.unlike.includes(id) || !row.cells[index]?.sameConditions || row.cells[index]?.reckonedBy));
  return apart.length === 0
    ? 'All candidates were compared under the same conditions, in every criterion.'
    : `Not all candidates have a value under all conditions in ${listed(apart.map(({ name }) => name))}: there what is missing is reckoned from what the others have, and who met none of them is held against none.`;
}
