import { THIRD_OCTAVE_HZ, THIRD_OCTAVE_NAMES_HZ } from '@marvet/core/audio/bands';
import { matchFilterDb } from '@marvet/core/measure/pair/eqMatch';
import type { PairGroup } from '@marvet/core/measure/report.types';
import { BandChart } from './BandChart.tsx';
import { Empty } from './states.tsx';

/** Band differences, and what is left of them behind the equalisation. */
export function BandDifference({ pair }: { pair: PairGroup }) {
  const known = pair.bandDiffDb.flatMap((value) => value ?? []);
  if (known.length === 0) return <Empty>There is nothing to compare.</Empty>;
  const rows = THIRD_OCTAVE_NAMES_HZ.map((hz, band) => {
    const difference = pair.bandDiffDb[band] ?? null;
    const filters = pair.eqMatch.reduce((sum, filter) => sum + matchFilterDb(filter, THIRD_OCTAVE_HZ[band] as number), 0);
    return { hz, first: difference, second: difference === null ? null : difference + filters };
  });
  return <BandChart rows={rows} names={['difference', 'equalised']} unit="dB" zero />;
}
