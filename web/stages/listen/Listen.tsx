import { useSearchParams } from 'react-router';
import { useRoundsQuery } from '../../data/judging.ts';
import { useCriteriaQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { useRecordingsQuery, useTakesQuery } from '../../data/work.ts';
import { Empty, Loaded } from '../../parts/states.tsx';
import { NewRound } from './NewRound.tsx';
import { OpenListening } from './OpenListening.tsx';
import { RoundCard } from './RoundCard.tsx';

/** Listening rounds: make one from chosen takes, let people listen blind, see what they said. */
export default function Listen() {
  const trialId = useTrialId();
  const rounds = useRoundsQuery(trialId);
  const criteria = useCriteriaQuery(trialId);
  const recordings = useRecordingsQuery(trialId);
  const takes = useTakesQuery(trialId);
  const [search] = useSearchParams();
  const chosen = search.get('takes')?.split(',').filter(Boolean) ?? [];
  return (
    <Loaded of={[rounds, criteria, recordings, takes]}>
      {() => (
        <div className="columns">
          <div className="stack">
            {chosen.length > 1 && <OpenListening key={chosen.join()} trialId={trialId} recordings={recordings.data!.filter(({ id }) => chosen.includes(id))} />}
            {rounds.data!.length === 0 && (
              <Empty>Nobody has listened yet. Choose takes on the right: all clips are brought to one loudness and heard under letters that only the server can read.</Empty>
            )}
            {rounds.data!.map((round) => (
              <RoundCard key={round.id} trialId={trialId} round={round} criteria={criteria.data!} recordings={recordings.data!} takes={takes.data!} />
            ))}
          </div>
          <NewRound
            key={chosen.join()}
            trialId={trialId}
            criteria={criteria.data!}
            recordings={recordings.data!}
            takes={takes.data!}
            chosen={chosen}
            number={rounds.data!.length + 1}
          />
        </div>
      )}
    </Loaded>
  );
}
