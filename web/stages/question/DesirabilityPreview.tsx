import { desirability } from '@marvet/core/decide/desirability';
import { plainNumber } from '@marvet/core/measure/catalogue';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';

interface DesirabilityPreviewProps {
  best: number;
  worst: number;
  unit: string;
  limit: { side: 'below' | 'above'; limit: number } | null;
}

const [WIDTH, HEIGHT] = [320, 84];

/** How a raw value becomes a desirability: the line, the limit, and one value that can be tried. */
export function DesirabilityPreview({ best, worst, unit, limit }: DesirabilityPreviewProps) {
  const [text, setText] = useState('');
  const usable = Number.isFinite(best) && Number.isFinite(worst) && best !== worst;
  if (!usable) return null;
  const span = Math.abs(best - worst);
  const [low, high] = [Math.min(best, worst) - span * 0.25, Math.max(best, worst) + span * 0.25];
  const x = (value: number) => ((Math.max(low, Math.min(high, value)) - low) / (high - low)) * WIDTH;
  const y = (share: number) => HEIGHT - 4 - share * (HEIGHT - 12);
  const tried = text.trim() === '' ? (best + worst) / 2 : Number(text.replace(',', '.').replace('−', '-'));
  const good = Number.isFinite(tried) ? desirability(tried, best, worst) : null;
  const out = limit !== null && Number.isFinite(tried) && (limit.side === 'below' ? tried < limit.limit : tried > limit.limit);
  const points = [low, Math.min(best, worst), Math.max(best, worst), high].map((value) => `${x(value)},${y(desirability(value, best, worst))}`).join(' ');
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
        {[worst, best].map((value) => (
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
