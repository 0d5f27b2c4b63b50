import { signed } from '@marvet/core/measure/catalogue';
import { WORN_BANDS_HZ } from '@marvet/core/place/wornColour';
import { Line } from 'recharts';
import { LogChart } from '../../parts/LogChart.tsx';

/** A curve of colour by third octaves. */
export interface ColourLine {
  name: string;
  colourDb: readonly (number | null)[];
}

const TICKS_HZ = [100, 250, 500, 1000, 2500, 5000, 10_000];
const STROKES = [
  ['var(--accent)', '0'],
  ['var(--ink)', '7 4'],
  ['var(--fill)', '2 3'],
] as const;

const hzText = (hz: number) => (hz >= 1000 ? `${Number((hz / 1000).toFixed(1))}k` : String(Math.round(hz)));

/** Colour against the boom, without level, by third octave; the table behind it. */
export function ColourChart({ lines }: { lines: readonly ColourLine[] }) {
  const rows = WORN_BANDS_HZ.map((hz, band) => ({ hz, ...Object.fromEntries(lines.map(({ colourDb }, index) => [`line${index}`, colourDb[band] ?? null])) }));
  return (
    <>
      <LogChart
        rows={rows}
        along={{ key: 'hz', unit: 'Hz', domain: [95, 13_000], ticks: TICKS_HZ, text: hzText }}
        up={{ label: 'against the boom, dB', unit: 'dB', digits: 0, domain: [(least) => Math.min(-6, Math.floor(least)), (most) => Math.max(6, Math.ceil(most))] }}
        zero
        height={220}
      >
        {lines.map(({ name }, index) => {
          const [stroke, dash] = STROKES[index % STROKES.length]!;
          return <Line key={name} dataKey={`line${index}`} name={name} stroke={stroke} strokeDasharray={dash} strokeWidth={2} dot={false} isAnimationActive={false} />;
        })}
      </LogChart>
      <details>
        <summary className="small">The same as a table</summary>
        <table className="plain small">
          <thead>
            <tr>
              <th className="num">Band Hz</th>
              {lines.map(({ name }) => (
                <th key={name} className="num">
                  {name} dB
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {WORN_BANDS_HZ.map((hz, band) => (
              <tr key={hz}>
                <td className="num">{hzText(hz)}</td>
                {lines.map(({ name, colourDb }) => (
                  <td key={name} className="num">
                    {colourDb[band] === null || colourDb[band] === undefined ? 'in noise' : signed(colourDb[band], 1)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}
