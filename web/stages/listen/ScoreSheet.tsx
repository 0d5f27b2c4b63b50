import type { BlindRound, RatingDraft } from '@marvet/core/domain/round';
import { useRateMutation } from '../../data/judging.ts';
import { KeptText } from '../../parts/fields.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { BlindMark } from '../../parts/TapeMark.tsx';

const POINTS = Array.from({ length: 11 }, (_, points) => points);

interface ScoreSheetProps {
  listenerId: string;
  letters: string[];
  criterion: BlindRound['criteria'][number];
  ratings: RatingDraft[];
}

/** What the ends of the scale mean, in the words of whoever set it. */
function scaleText({ worstWords, bestWords, remark }: BlindRound['criteria'][number]): string {
  const ends = [worstWords && `0: ${worstWords}`, bestWords && `10: ${bestWords}`].filter(Boolean).join('. ');
  return [ends && `${ends}.`, remark].filter(Boolean).join(' ');
}

/** One criterion: points from 0 to 10 and a reason for every clip. */
export function ScoreSheet({ listenerId, letters, criterion, ratings }: ScoreSheetProps) {
  const [rate, { error }] = useRateMutation();
  return (
    <Sheet title={criterion.name} aside={<span className="small soft">{scaleText(criterion)}</span>}>
      <Trouble error={error} />
      {letters.map((letter) => {
        const rating = ratings.find((each) => each.letter === letter);
        const keep = (change: Partial<RatingDraft>) =>
          void rate({ listenerId, rating: { letter, criterionId: criterion.id, points: rating?.points ?? 5, reason: rating?.reason ?? '', ...change } });
        return (
          <div key={letter} className="score-row">
            <span className="pt-2">
              <BlindMark letter={letter} />
            </span>
            <div className="stack gap-2">
              <div className="points" role="radiogroup" aria-label={`${criterion.name}, clip ${letter}`}>
                {POINTS.map((points) => (
                  <label key={points}>
                    <input
                      type="radio"
                      aria-label={`${points} points`}
                      className="visually-hidden"
                      name={`${criterion.id}-${letter}`}
                      checked={rating?.points === points}
                      onChange={() => keep({ points })}
                    />
                    {points}
                  </label>
                ))}
              </div>
              <div className="why">
                {rating && (
                  <KeptText
                    label={`Why, clip ${letter}`}
                    hideLabel
                    maxLength={4000}
                    placeholder="why, in a word or two"
                    value={rating.reason}
                    onKeep={(reason) => keep({ reason })}
                  />
                )}
              </div>
            </div>
          </div>
        );
      })}
    </Sheet>
  );
}
