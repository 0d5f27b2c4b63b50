import type { RecordingDetail } from '@marvet/core/contract/recordings';
import Button from 'react-bootstrap/Button';
import ButtonGroup from 'react-bootstrap/ButtonGroup';

/** From here on two channels are nearly one: nothing is lost in mono, and nothing is wide. */
const NEARLY_MONO = 0.95;

/** What becomes of a stereo recording that is summed to mono, in a sentence. */
export function monoText({ correlation, monoLossDb }: NonNullable<RecordingDetail['stereo']>): string {
  const lost = `Summed to mono it loses ${monoLossDb.toFixed(1)} dB`;
  if (correlation < 0) return `${lost}: its channels work against each other, as where one of them is reversed.`;
  return correlation > NEARLY_MONO ? `${lost}: both channels are nearly the same.` : `${lost}.`;
}

interface StereoSidesProps {
  recording: RecordingDetail;
  /** Which of the two channels is looked at. */
  side: 0 | 1;
  onSide(side: 0 | 1): void;
}

/** The two channels of a stereo recording: how they go together, and which of them the pictures are of. */
export function StereoSides({ recording: { channels, stereo }, side, onSide }: StereoSidesProps) {
  return (
    <section className="row-line" aria-label="Stereo">
      <span>
        Stereo, heard in both ears.{' '}
        {stereo && (
          <>
            Correlation <b className="mono">{stereo.correlation.toFixed(2).replace('-', '−')}</b>. {monoText(stereo)}
          </>
        )}
      </span>
      <span className="row-line">
        The pictures show
        <ButtonGroup size="sm" aria-label="Channel that is shown">
          {([0, 1] as const).map((each) => (
            <Button key={each} variant={side === each ? 'primary' : 'outline'} aria-pressed={side === each} onClick={() => onSide(each)}>
              channel {(channels[each] ?? each) + 1}
            </Button>
          ))}
        </ButtonGroup>
      </span>
    </section>
  );
}
