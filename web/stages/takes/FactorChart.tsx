import type { Chain } from '@marvet/core/domain/chain';
import type { Plan } from '@marvet/core/domain/plan';
import { signed } from '@marvet/core/measure/catalogue';
import type { FigurePoint } from '@marvet/core/takes/figureGrid';
import Form from 'react-bootstrap/Form';
import { CartesianGrid, Legend, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { Field } from '../../parts/fields.tsx';
import { inkLegend, TapeLine } from '../../parts/TapeLine.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { alongFactor } from './alongFactor.ts';

interface FactorChartProps {
  points: FigurePoint[];
  plan: Plan;
  chains: Chain[];
  unit: string;
  digits: number;
  label: string;
}

/** The figure along the levels of one factor: a line a candidate, each point the median over what was recorded at every level. */
export function FactorChart({ points, plan, chains, unit, digits, label }: FactorChartProps) {
  const [search, changeAddress] = useAddress();
  const along = alongFactor(points, plan, chains, search.get('along'));
  if (!along) return null;
  const { kind, varied, rows, sharedConditions } = along;
  return (
    <div className="mt-3">
      <div className="filters mb-2">
        <Field label={`${label} along`}>
          {(id) => (
            <Form.Select id={id} size="sm" value={kind} onChange={(event) => changeAddress({ along: event.target.value })}>
              {varied.map((each) => (
                <option key={each} value={each}>
                  {each}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
        <span className="small soft mb-1">
          {sharedConditions > 0
            ? `Medians over ${sharedConditions === 1 ? 'the one condition that was' : `the ${sharedConditions} conditions that were`} recorded at every ${kind}; the matrix above is the table behind.`
            : `No condition was recorded at every ${kind}: these are medians of unlike conditions, which say little about the ${kind} itself.`}
        </span>
      </div>
      <ResponsiveContainer width="100%" height={260}>
        <LineChart data={rows} margin={{ top: 6, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis dataKey="level" stroke="var(--soft)" fontSize={12} padding={{ left: 40, right: 40 }} />
          <YAxis
            stroke="var(--soft)"
            fontSize={12}
            width={58}
            domain={['auto', 'auto']}
            tickFormatter={(value: number) => signed(value, Math.min(1, digits))}
            label={{ value: unit, angle: -90, position: 'insideLeft', offset: 10, fill: 'var(--soft)', fontSize: 12 }}
          />
          <Tooltip
            contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
            formatter={(value) => (typeof value === 'number' ? `${signed(value, digits)} ${unit}` : 'not measured')}
          />
          <Legend formatter={inkLegend} />
          {chains.map((chain) => (
            <TapeLine key={chain.id} dataKey={chain.id} name={`${chain.tape.letters} ${chain.name}`} tape={chain.tape} points={rows.length} dots />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
