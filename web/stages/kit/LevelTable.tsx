import type { LevelRun } from '@marvet/core/chain/levels';
import { signed } from '@marvet/core/measure/catalogue';

/** The figures behind the diagram, a row a link. */
export function LevelTable({ run }: { run: LevelRun }) {
  const figure = (value: number | null) => (value === null ? <span className="soft">–</span> : signed(value, 0));
  return (
    <div className="sheet-scroll mt-3">
      <table className="plain">
        <thead>
          <tr>
            <th>Link</th>
            <th className="num">Arrives, dBu</th>
            <th className="num">Gain, dB</th>
            <th className="num">Voice under clipping, dB</th>
            <th className="num">Peaks leave, dB</th>
            <th className="num">Adds noise, dB SPL A</th>
            <th className="num">Voice over all noise, dB</th>
          </tr>
        </thead>
        <tbody>
          {run.stages.map((stage, index) => (
            <tr key={`${index}-${stage.name}`}>
              <td>
                {index + 1} {stage.name}
                {run.noisiest === index && <span className="small soft"> · adds most noise</span>}
                {run.clipsFirst === index && <span className="small soft"> · clips first</span>}
              </td>
              <td className="num">{figure(stage.inputDbu)}</td>
              <td className="num">{stage.gainDb === 0 ? <span className="soft">–</span> : signed(stage.gainDb, 0)}</td>
              <td className="num">{figure(stage.averageUnderClipDb)}</td>
              <td className={`num${stage.peakHeadroomDb !== null && stage.peakHeadroomDb < 0 ? ' alarm fw-bold' : ''}`}>{figure(stage.peakHeadroomDb)}</td>
              <td className="num">{figure(stage.ownNoiseDbSpl)}</td>
              <td className="num">{figure(stage.noiseDbSpl === null ? null : run.voiceDbSpl - stage.noiseDbSpl)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
