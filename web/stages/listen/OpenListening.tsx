import { openPiecesQuestion } from '@marvet/core/contract/openListening';
import { type RecordingRow, TABLE_FIGURES } from '@marvet/core/contract/recordings';
import { slateLabel } from '@marvet/core/domain/take';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { signed } from '@marvet/core/measure/catalogue';
import { useMemo, useState } from 'react';
import { useOpenListeningQuery } from '../../data/judging.ts';
import { placed, useTakesById, useTrialWords } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { Against } from './Against.tsx';
import { ClipPlayer, type PlayedClip } from './ClipPlayer.tsx';
import { DifferencePicture } from './DifferencePicture.tsx';
import { HeardPicture } from './HeardPicture.tsx';
import { Moments } from './Moments.tsx';
import { ReelToSend } from './ReelToSend.tsx';

const LOUDNESS = TABLE_FIGURES.indexOf('loudness.integratedLufs');
/** Loudness and ceiling of a first listening; a round has its own. */
const MATCHED = { targetLufs: -23, ceilingDbtp: -1 };

/** What a recording is called that belongs to no candidate yet. */
const trackOf = ({ trackName, channels }: RecordingRow) => trackName || `channel ${channels.map((channel) => channel + 1).join(' and ')}`;

/** The recordings of the tray, heard with open eyes: matched and aligned, switched at once, before anybody listens blind. */
export function OpenListening({ trialId, recordings }: { trialId: string; recordings: RecordingRow[] }) {
  const open = recordings.filter((recording) => recording.table?.[LOUDNESS] == null);
  const ids = useMemo(() => recordings.map(({ id }) => id), [recordings]);
  const query = useOpenListeningQuery({ trialId, recordingIds: ids, ...MATCHED }, { skip: open.length > 0 || ids.length < 2 });
  const words = useTrialWords(trialId);
  const byId = useTakesById(trialId);
  const [against, setAgainst] = useState('');
  const nameOf = (id: string) => {
    const recording = recordings.find((each) => each.id === id);
    const { chain, take } = placed(recording, byId, words.chains);
    return [chain?.name ?? (recording && trackOf(recording)), take ? `take ${slateLabel(take)}` : recording?.fileName].filter(Boolean).join(', ');
  };
  const clips = useMemo(
    () =>
      (query.data?.clips ?? []).map(({ recordingId, gainDb }, place): PlayedClip => {
        const recording = recordings.find(({ id }) => id === recordingId);
        const { chain, take } = placed(recording, byId, words.chains);
        return {
          letter: BLIND_LETTERS[place] as string,
          mark: chain && <TapeMark tape={chain.tape} name={chain.name} />,
          said: [!chain && recording && trackOf(recording), take && `take ${slateLabel(take)}`, `${gainDb > 0 ? '+' : ''}${signed(gainDb, 1)} dB`].filter(Boolean).join(', '),
        };
      }),
    [query.data, recordings, byId, words.chains],
  );
  return (
    <Sheet title="Open listening" aside={query.data && <span className="small soft">matched at {signed(query.data.matchedLufs, 1)} LUFS, aligned</span>}>
      {open.length > 0 ? (
        <p className="soft mb-0" role="status">
          {open.length} of {recordings.length} are still being measured. They are matched by their loudness, so it begins once all are.
        </p>
      ) : (
        <Loaded of={[query]}>
          {() => (
            <>
              <ClipPlayer
                clips={clips}
                matchedLufs={query.data?.matchedLufs ?? MATCHED.targetLufs}
                source={{
                  pieces: `/api/trials/${trialId}/open-listening/pieces`,
                  question: openPiecesQuestion(query.data!, against),
                  ...(against && { otherwise: `Equalised to ${nameOf(against)}` }),
                }}
                picture={(heard, atS, onSeek) => {
                  const clip = query.data?.clips[heard];
                  if (!clip) return null;
                  const { recordingId, startS } = clip;
                  const lengthS = query.data?.lengthS ?? 0;
                  return (
                    <>
                      <HeardPicture trialId={trialId} recordingId={recordingId} startS={startS} lengthS={lengthS} atS={atS} onSeek={onSeek} />
                      {against && against !== recordingId && (
                        <DifferencePicture trialId={trialId} id={recordingId} other={against} names={[nameOf(recordingId), nameOf(against)]} />
                      )}
                      <Moments
                        key={recordingId}
                        trialId={trialId}
                        recordingId={recordingId}
                        letter={BLIND_LETTERS[heard] as string}
                        atS={startS + atS}
                        window={[startS, startS + lengthS]}
                        onSeek={(seconds) => onSeek(seconds - startS)}
                      />
                    </>
                  );
                }}
              />
              <Against trialId={trialId} ids={ids} against={against} nameOf={nameOf} onAgainst={setAgainst} />
              <ReelToSend trialId={trialId} recordings={recordings} {...MATCHED} />
            </>
          )}
        </Loaded>
      )}
      <p className="small soft mb-0 mt-2">
        You see which is which, so you may hear what you expect. Where it counts, make a round and listen blind. Notes are kept with their recording, and nothing else of this.
      </p>
    </Sheet>
  );
}
