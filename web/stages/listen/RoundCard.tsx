import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Criterion } from '@marvet/core/domain/criterion';
import { isPaired, type Round } from '@marvet/core/domain/round';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { pointsApartOf } from '@marvet/core/listen/hiddenChecks';
import { steadyWeights } from '@marvet/core/listen/steadyWeights';
import { signed } from '@marvet/core/measure/catalogue';
import { Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { placed, useTrialWords } from '../../data/trialData.ts';
import { useTrialQuery } from '../../data/trials.ts';
import { Sheet } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { Agreement } from './Agreement.tsx';
import { AwayPages } from './AwayPages.tsx';
import { CloseRound } from './CloseRound.tsx';
import { Guesses } from './Guesses.tsx';
import { KIND_WORDS } from './kindWords.ts';
import { ListenerLine } from './ListenerLine.tsx';
import { NewListener } from './NewListener.tsx';
import { Outcome } from './Outcome.tsx';
import { OwnOrder, RankedOutcome } from './RankedOutcome.tsx';
import { ScoreTable } from './ScoreTable.tsx';
import { useClipNames } from './useClipNames.ts';

interface RoundCardProps {
  trialId: string;
  round: Round;
  criteria: Criterion[];
  recordings: RecordingRow[];
  takes: Take[];
}

/** What each listener who is done weighs; empty where all weigh alike. */
function weightsOf({ steadyWeighs, listeners }: Round): Map<string, number> {
  const heard = steadyWeighs ? listeners.filter(({ letters }) => letters !== null) : [];
  const weights = steadyWeights(heard.map(pointsApartOf));
  return new Map(heard.map(({ id }, at) => [id, weights[at] as number]));
}

/** One round: who listened on what, what they scored or answered once done, and a seat for the next listener. */
export function RoundCard({ trialId, round, criteria, recordings, takes }: RoundCardProps) {
  const bin = useBin(trialId, 'round');
  const words = useTrialWords(trialId);
  const held = [...new Set(recordings.filter((recording) => round.recordingIds.includes(recording.id)).map((recording) => recording.takeId))].flatMap(
    (id) => takes.find((take) => take.id === id) ?? [],
  );
  const delays = (round.delaysMs ?? []).filter((delay) => delay !== null && Math.abs(delay) >= 0.5) as number[];
  const byId = new Map(takes.map((take) => [take.id, take]));
  const candidateOf = (id: string) =>
    placed(
      recordings.find((recording) => recording.id === id),
      byId,
      words.chains,
    ).chain?.id;
  const nameOf = useClipNames(trialId, round, recordings, takes);
  const { data: trial } = useTrialQuery(trialId);
  const weights = weightsOf(round);
  const used = criteria.filter((criterion) => round.criterionIds.includes(criterion.id));
  return (
    <Sheet
      title={round.title}
      aside={
        <span className="row-line">
          <span className="small soft">
            {KIND_WORDS[round.kind]}, {round.recordingIds.length} clips at {signed(round.matchedLufs, 1)} LUFS{round.sample && ', sample data'}
          </span>
          <Button size="sm" variant="plain" aria-label={`Delete ${round.title}`} onClick={() => bin(round.id, round.title)}>
            <Trash2 size={15} aria-hidden />
          </Button>
        </span>
      }
    >
      <p className="small soft mb-2">
        {held.map((take) => `Take ${slateLabel(take)}: ${words.condition(take)}`).join('; ')}
        {delays.length > 0 && `. Delays taken out against the first: ${delays.map((delay) => `${signed(delay, 1)} ms`).join(', ')}`}
      </p>
      {isPaired(round.kind) && <Outcome round={round} criteria={used} nameOf={nameOf} />}
      {round.kind === 'ranked' && <RankedOutcome round={round} criteria={used} nameOf={nameOf} />}
      {!isPaired(round.kind) && <Agreement round={round} criteria={used} />}
      {round.kind === 'scores' && (
        <Guesses round={round} candidateOf={candidateOf} expectations={trial?.expectations ?? []} nameOf={(id) => words.chains.get(id)?.name ?? 'gone'} />
      )}
      {round.listeners.map((listener) => (
        <ListenerLine key={listener.id} trialId={trialId} round={round} listener={listener}>
          {weights.get(listener.id) !== undefined && (
            <div className="small soft">Weighs {weights.get(listener.id)?.toFixed(2)} in the verdict, by how alike the clip that was there twice was judged.</div>
          )}
          {listener.letters && round.kind === 'ranked' && <OwnOrder listener={listener} criteria={used} nameOf={nameOf} />}
          {listener.letters && round.kind === 'scores' && (
            <ScoreTable trialId={trialId} letters={listener.letters} checks={listener.checks} ratings={listener.ratings} criteria={used} recordings={recordings} takes={takes} />
          )}
        </ListenerLine>
      ))}
      {round.closedAtMs === null && <NewListener trialId={trialId} roundId={round.id} />}
      {round.closedAtMs === null && <AwayPages trialId={trialId} round={round} />}
      {round.opens === 'closed' && <CloseRound trialId={trialId} round={round} />}
    </Sheet>
  );
}
