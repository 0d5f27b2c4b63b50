import { useSearchParams } from 'react-router';
import { useSessionsQuery } from '../../app/api/judging.ts';
import { useCriteriaQuery } from '../../app/api/records.ts';
import { useRecordingsQuery, useTakesQuery } from '../../app/api/work.ts';
import { useTrialId } from '../../app/trialData.ts';
import { Empty, Loaded } from '../../parts/states.tsx';
import { NewRound } from './NewRound.tsx';
import { RoundCard } from './RoundCard.tsx';

/** Listening rounds: make one from chosen takes, let people listen blind, see what they said. */
export default function Listen() {
  const trialId = useTrialId();
  const sessions = useSessionsQuery(trialId);
  const criteria = useCriteriaQuery(trialId);
  const recordings = useRecordingsQuery(trialId);
  const takes = useTakesQuery(trialId);
  const [search] = useSearchParams();
  const chosen = search.get('takes')?.split(',').filter(Boolean) ?? [];
  return (
    <Loaded of={[sessions, criteria, recordings, takes]}>
      {() => (
        <div className="columns">
          <div className="stack">
            {sessions.data!.length === 0 && (
              <Empty>Nobody has listened yet. Choose takes on the right: all clips are brought to one loudness and heard under letters that only the server can read.</Empty>
            )}
            {sessions.data!.map((session) => (
              <RoundCard key={session.id} trialId={trialId} session={session} criteria={criteria.data!} recordings={recordings.data!} takes={takes.data!} />
            ))}
          </div>
          <NewRound
            key={chosen.join()}
            trialId={trialId}
            criteria={criteria.data!}
            recordings={recordings.data!}
            takes={takes.data!}
            chosen={chosen}
            number={sessions.data!.length + 1}
          />
        </div>
      )}
    </Loaded>
  );
}
