import { MEASURE_IDS } from '@marvet/core/domain/measureId';
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

/** Every figure of a channel, each group with how right it is and the way to its method. */
export function FiguresTable({ report, lengthS }: { report: ChannelReport; lengthS: number }) {
  return (
    <Sheet title="All figures">
      <div className="figures">
        {GROUPS.map(([group, title]) => {
          const ids = MEASURE_IDS.filter((id) => id.startsWith(`${group}.`));
          return (
            <div key={group}>
              <h3 className="small">
                <Link to={`/methods#${group}`} title="How this is measured">
                  {title}
                </Link>{' '}
                <span className="soft fw-normal">within {ids[0] && MEASURES[ids[0]].within}</span>
              </h3>
              <table className="plain">
                <tbody>
                  {ids.map((id) => (
                    <tr key={id}>
                      <td>{MEASURES[id].label}</td>
                      <td className="num">{measureText(id, measureValue(report, id, lengthS))}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          );
        })}
      </div>
    </Sheet>
  );
}
