import { THIRD_OCTAVE_NAMES_HZ } from '@marvet/core/audio/bands';
import type { SpectrumGroup } from '@marvet/core/measure/report.types';
import { BandChart } from '../../parts/BandChart.tsx';

/** Words and pauses in third-octave bands. */
export function SpectrumChart({ spectrum }: { spectrum: SpectrumGroup }) {
  const rows = THIRD_OCTAVE_NAMES_HZ.map((hz, band) => ({ hz, first: spectrum.speechDb[band] ?? null, second: spectrum.pauseDb[band] ?? null }));
  return <BandChart rows={rows} names={['words', 'pauses']} unit="dBFS" />;
}
