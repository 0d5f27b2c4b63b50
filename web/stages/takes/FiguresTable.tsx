import type { MeasuredAgainst } from '@marvet/core/contract/recordings';
import { isPairMeasure, type MeasureId, RECORDING_MEASURE_IDS } from '@marvet/core/domain/measureId';
import type { Figures } from '@marvet/core/domain/recording';
import { MEASURES, measureText, measureValue } from '@marvet/core/measure/catalogue';
import type { ChannelReport } from '@marvet/core/measure/report.types';
import { Link } from 'react-router';
import { Sheet } from '../../parts/states.tsx';

const GROUPS: [string, string][] = [
  ['levels', 'Levels'],
  ['loudness', 'Loudness'],
  ['activity', 'Speech'],
  ['noise', 'Noise'],
  ['spectrum', 'Spectrum'],
  ['intelligibility', 'Intelligibility'],
  ['character', 'Character'],
];
const AGAINST: [string, string] = ['pair', 'Against the reference'];

interface FiguresTableProps {
  recordingId: string;
  report: ChannelReport;
  lengthS: number;
  against: MeasuredAgainst | null;
  /** Of a stereo recording, those of both channels as one. */
  both?: Figures | null;
}

/** Every figure of a channel, each group with how right it is and the way to its method. */
export function FiguresTable({ recordingId, report, lengthS, against, both = null }: FiguresTableProps) {
  const figureOf = (id: MeasureId) => (isPairMeasure(id) ? (against?.figures[id] ?? null) : measureValue(report, id, lengthS));
  return (
    <Sheet title="All figures">
      <div className="figures">
        {[...GROUPS, ...(against ? [AGAINST] : [])].map(([group, title]) => {
          const ids = RECORDING_MEASURE_IDS.filter((id) => id.startsWith(`${group}.`));
          return (
            <div key={group}>
              <h3 className="small">
                <Link to={`/methods#${group}`} title="How this is measured">
                  {title}
                </Link>{' '}
                <span className="soft fw-normal">within {ids[0] && MEASURES[ids[0]].within}</span>
              </h3>
              <table className="plain">
                {both && group !== 'pair' && (
                  <thead>
                    <tr>
                      <th>
                        <span className="visually-hidden">Figure</span>
                      </th>
                      <th className="num">both</th>
                      <th className="num">channel {report.index + 1}</th>
                    </tr>
                  </thead>
                )}
                <tbody>
                  {ids.map((id) => (
                    <tr key={id}>
                      <td>{MEASURES[id].label}</td>
                      {both && group !== 'pair' && <td className="num">{measureText(id, both[id] ?? null)}</td>}
                      <td className="num">{measureText(id, figureOf(id))}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {group === 'pair' && against && <AgainstWords recordingId={recordingId} against={against} />}
            </div>
          );
        })}
      </div>
    </Sheet>
  );
}

function AgainstWords({ recordingId, against: { referenceId, warnings } }: { recordingId: string; against: MeasuredAgainst }) {
  if (referenceId === recordingId) return <p className="small soft mb-0">This is the reference of its take.</p>;
  return (
    <p className="small mb-0">
      {warnings.map((warning) => `${warning}. `)}
      <Link to={`../takes/pair/${recordingId}/${referenceId}`}>Look at the pair</Link>
    </p>
  );
}
