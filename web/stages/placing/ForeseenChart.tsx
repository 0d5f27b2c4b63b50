import type { StoredChain } from '@marvet/core/domain/chain';
import { TAPE_KINDS } from '@marvet/core/domain/tape';
import { signed } from '@marvet/core/measure/catalogue';
import type { ForeseenRow } from '@marvet/core/place/foreseen';
import { CartesianGrid, Legend, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts';
import { inkLegend } from '../../parts/TapeLine.tsx';

/** Found against foreseen, a mark a recording in its candidate's tape; on the line the model was right. */
export function ForeseenChart({ rows, chains, unit }: { rows: readonly ForeseenRow[]; chains: readonly StoredChain[]; unit: string }) {
  const values = rows.flatMap(({ foreseen, found }) => [foreseen, found]);
  const room = Math.max(unit === 's' ? 0.1 : 2, 0.08 * (Math.max(...values) - Math.min(...values)));
  const round = unit === 's' ? 10 : 1;
  const domain: [number, number] = [Math.floor((Math.min(...values) - room) * round) / round, Math.ceil((Math.max(...values) + room) * round) / round];
  const axis = { type: 'number' as const, domain, stroke: 'var(--soft)', fontSize: 12, tickFormatter: (value: number) => signed(value, unit === 's' ? 1 : 0) };
  const own = chains.filter(({ id }) => rows.some(({ candidateId }) => candidateId === id));
  return (
    <ResponsiveContainer width="100%" height={320}>
      <ScatterChart margin={{ top: 6, right: 16, bottom: 18, left: 0 }}>
        <CartesianGrid stroke="var(--rule)" />
        <XAxis
          dataKey="foreseen"
          name="foreseen"
          unit={` ${unit}`}
          {...axis}
          label={{ value: `foreseen, ${unit}`, position: 'insideBottom', offset: -12, fill: 'var(--soft)', fontSize: 12 }}
        />
        <YAxis
          dataKey="found"
          name="found"
          unit={` ${unit}`}
          width={62}
          {...axis}
          label={{ value: `found, ${unit}`, angle: -90, position: 'insideLeft', offset: 8, fill: 'var(--soft)', fontSize: 12 }}
        />
        <ReferenceLine
          segment={[
            { x: domain[0], y: domain[0] },
            { x: domain[1], y: domain[1] },
          ]}
          stroke="var(--ink)"
          strokeDasharray="6 4"
        />
        <Tooltip
          contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
          formatter={(value) => signed(Number(value), unit === 's' ? 2 : 1)}
        />
        <Legend formatter={inkLegend} verticalAlign="top" />
        {own.map((chain) => {
          const { colour, marker } = TAPE_KINDS[chain.tape.kind] ?? TAPE_KINDS[0];
          return (
            <Scatter
              key={chain.id}
              name={`${chain.tape.letters} ${chain.name}`}
              data={rows.filter(({ candidateId }) => candidateId === chain.id)}
              fill={colour}
              stroke="var(--ink)"
              shape={marker}
              isAnimationActive={false}
            />
          );
        })}
      </ScatterChart>
    </ResponsiveContainer>
  );
}
