import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Round } from '@marvet/core/domain/round';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { placed, useTrialWords } from '../../data/trialData.ts';

/** What the recordings of a round are called: by candidate, and by more where two are of one. */
export function useClipNames(trialId: string, { recordingIds }: Pick<Round, 'recordingIds'>, recordings: readonly RecordingRow[], takes: readonly Take[]): (id: string) => string {
  const words = useTrialWords(trialId);
  const byId = new Map(takes.map((take) => [take.id, take]));
  const places = recordingIds.map((id) => {
    const { chain, setup, take } = placed(
      recordings.find((each) => each.id === id),
      byId,
      words.chains,
    );
    return { id, name: chain?.name ?? 'gone', more: [setup && words.setup(setup), take && `take ${slateLabel(take)}`].filter(Boolean).join(', ') };
  });
  const alone = (name: string) => places.filter((each) => each.name === name).length === 1;
  return (id) => {
    const place = places.find((each) => each.id === id);
    return !place ? 'gone' : alone(place.name) ? place.name : `${place.name} (${place.more})`;
  };
}
