import { signed } from '@marvet/core/measure/catalogue';
import { denoiseText, worstBand } from '@marvet/core/measure/pair/denoiseWords';
import type { DenoiseMoment, PairGroup } from '@marvet/core/measure/report.types';
import { Ear } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Sheet } from '../../parts/states.tsx';

/** Which of the two is heard: what was processed, or the reference before it. */
export type HeardSide = 'processed' | 'reference';

interface NoiseTakenProps {
  pair: PairGroup;
  onHear: (side: HeardSide, moment: DenoiseMoment) => void;
}

/** What noise reduction took of the second to make the first: in a sentence, in figures, and the moments at which to hear it. */
export function NoiseTaken({ pair: { denoise, sameNoise }, onHear }: NoiseTakenProps) {
  if (!denoise) return sameNoise ? <Sheet title="What noise reduction took">Both have the same noise: nothing was taken of it.</Sheet> : null;
  const figures: [string, string][] = [
    ['Noise, against the voice', `${signed(denoise.noiseReductionDb, 1)} dB`],
    ['Voice, worst band', decibels(worstBand(denoise.voiceLossDb)?.db ?? null)],
    ['Faint ends of words', decibels(denoise.wordEdgeLossDb)],
    ['Warble of the noise left', signed(denoise.musicalNoise, 2)],
  ];
  return (
    <Sheet title="What noise reduction took">
      <p>{denoiseText(denoise)}</p>
      <div className="row-line align-items-start">
        <table className="plain w-auto grow">
          <tbody>
            {figures.map(([label, value]) => (
              <tr key={label}>
                <td>{label}</td>
                <td className="num">{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <Moments moments={denoise.moments} onHear={onHear} />
      </div>
    </Sheet>
  );
}

const decibels = (value: number | null) => (value === null ? 'not measured' : `${signed(value, 1)} dB`);

/** The moments at which it is heard best, each with the same moment before it. */
function Moments({ moments, onHear }: { moments: readonly DenoiseMoment[]; onHear: NoiseTakenProps['onHear'] }) {
  if (moments.length === 0) return <p className="small soft mb-0">No moment stands out at which it could be heard.</p>;
  return (
    <table className="plain w-auto grow" aria-label="Moments to hear">
      <tbody>
        {moments.map((moment) => (
          <tr key={`${moment.kind} ${moment.startS}`}>
            <td className="num">{moment.startS.toFixed(2)} s</td>
            <td>{momentText(moment)}</td>
            <td className="text-end text-nowrap">
              <Button size="sm" variant="outline" onClick={() => onHear('processed', moment)} aria-label={`Hear ${moment.startS.toFixed(2)} s processed`}>
                <Ear size={14} aria-hidden /> Hear
              </Button>{' '}
              <Button size="sm" variant="plain" onClick={() => onHear('reference', moment)} aria-label={`Hear ${moment.startS.toFixed(2)} s before`}>
                before
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function momentText({ kind, amount }: DenoiseMoment): string {
  return kind === 'swallowed' ? `a word’s end lost ${amount.toFixed(0)} dB` : `noise warbles, ${amount.toFixed(1)}`;
}
