import { momentName } from '@marvet/core/domain/moment';
import { slateLabel } from '@marvet/core/domain/take';
import { Link } from 'react-router';
import { useMomentsQuery, useRoundsQuery } from '../../data/judging.ts';
import { useCriteriaQuery } from '../../data/records.ts';
import { placed, useTakesById, useTrialWords } from '../../data/trialData.ts';
import { useRecordingsQuery } from '../../data/work.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';

/** What listeners said of a candidate, and what was noted at a moment of its recordings. */
export function HeardOf({ trialId, candidateId }: { trialId: string; candidateId: string }) {
  const rounds = useRoundsQuery(trialId);
  const moments = useMomentsQuery(trialId);
  const recordings = useRecordingsQuery(trialId);
  const criteria = useCriteriaQuery(trialId);
  const words = useTrialWords(trialId);
  const byId = useTakesById(trialId);
  return (
    <Loaded of={[rounds, moments, recordings, criteria]}>
      {() => {
        const placeOf = new Map(recordings.data!.map((recording) => [recording.id, placed(recording, byId, words.chains)]));
        const isOwn = (recordingId: string | undefined) => recordingId !== undefined && placeOf.get(recordingId)?.chain?.id === candidateId;
        const slateOf = (recordingId: string) => {
          const take = placeOf.get(recordingId)?.take;
          return take ? `take ${slateLabel(take)}` : '';
        };
        const said = rounds.data!.flatMap((round) =>
          round.listeners.flatMap(({ id, name, letters, checks, ratings }) =>
            ratings.flatMap(({ letter, criterionId, points, reason }) =>
              letters && reason && !checks[letter] && isOwn(letters[letter])
                ? [{ key: `${id} ${letter} ${criterionId}`, name, points, reason, criterion: criteria.data!.find((each) => each.id === criterionId)?.name ?? '' }]
                : [],
            ),
          ),
        );
        const noted = moments.data!.filter(({ recordingId }) => isOwn(recordingId));
        if (said.length + noted.length === 0) return null;
        return (
          <Sheet title="What was heard">
            <ul className="mb-0">
              {said.map(({ key, name, points, reason, criterion }) => (
                <li key={key}>
                  “{reason}” <span className="small soft">{`${name}, ${criterion} ${points}`}</span>
                </li>
              ))}
              {noted.map((moment) => (
                <li key={moment.id}>
                  <Link to={`/trials/${trialId}/takes/${moment.recordingId}`}>{momentName(moment)}</Link>{' '}
                  <span className="small soft">
                    {slateOf(moment.recordingId)} at {moment.atS.toFixed(1)} s
                  </span>
                </li>
              ))}
            </ul>
          </Sheet>
        );
      }}
    </Loaded>
  );
}
