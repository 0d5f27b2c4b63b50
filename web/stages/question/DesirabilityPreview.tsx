import { desirability } from '@marvet/core/decide/desirability';
import { readNumber } from '@marvet/core/domain/readNumber';
import { plainNumber } from '@marvet/core/measure/catalogue';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';

interface DesirabilityPreviewProps {
  best: number;
  worst: number;
  otherWorst: number | null;
  unit: string;
  limit: { side: 'below' | 'above'; limit: number } | null;
}

const [WIDTH, HEIGHT] = [320, 84];

/** How a raw value becomes a desirability: the line, the limit, and one value that can be tried. */
export function DesirabilityPreview({ best, worst, otherWorst, unit, limit }: DesirabilityPreviewProps) {
  const [text, setText] = useState('');
  const usable = Number.isFinite(best) && Number.isFinite(worst) && best !== worst;
  if (!usable) return null;
  const ends = [best, worst, ...(otherWorst === null ? [] : [otherWorst])];
  const span = Math.max(...ends) - Math.min(...ends);
  const [low, high] = [Math.min(...ends) - span * 0.25, Math.max(...ends) + span * 0.25];
  const shape = { best, worst, otherWorst };
  const x = (value: number) => ((Math.max(low, Math.min(high, value)) - low) / (high - low)) * WIDTH;
  const y = (share: number) => HEIGHT - 4 - share * (HEIGHT - 12);
  const read = readNumber(text, { min: low - span, max: high + span });
  const tried = read.kind === 'empty' ? (best + worst) / 2 : read.kind === 'number' ? read.value : Number.NaN;
  const good = Number.isFinite(tried) ? desirability(tried, shape) : null;
  const out = limit !== null && Number.isFinite(tried) && (limit.side === 'below' ? tried < limit.limit : tried > limit.limit);
  const points = [low, ...ends.sort((a, b) => a - b), high].map((value) => `${x(value)},${y(desirability(value, shape))}`).join(' ');
  return (
    <div className="desirability">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 22}`} role="img" aria-label={`From 0 at ${plainNumber(worst)} ${unit} to 100 at ${plainNumber(best)} ${unit}`}>
        {limit && (
          <rect
            className="ruled-out"
            x={limit.side === 'below' ? 0 : x(limit.limit)}
            y={0}
            width={limit.side === 'below' ? x(limit.limit) : WIDTH - x(limit.limit)}
            height={HEIGHT}
          />
        )}
        <path className="axes" d={`M0 0 V${HEIGHT} H${WIDTH}`} />
        <polyline points={points} />
        {good !== null && <circle cx={x(tried)} cy={y(good)} r={5} />}
        {ends.map((value) => (
          <text key={value} x={x(value)} y={HEIGHT + 16} textAnchor="middle">
            {plainNumber(value)}
          </text>
        ))}
      </svg>
      <label className="small">
        <span className="soft">Try a value ({unit})</span>
        <Form.Control size="sm" className="mono" inputMode="decimal" placeholder={plainNumber((best + worst) / 2)} value={text} onChange={(event) => setText(event.target.value)} />
        <output className="mono">{good === null ? 'not a number' : out ? 'ruled out' : `counts ${Math.round(good * 100)} of 100`}</output>
      </label>
    </div>
  );
}
