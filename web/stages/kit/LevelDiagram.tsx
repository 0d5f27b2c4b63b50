import type { LevelRun } from '@marvet/core/chain/levels';
import { Area, CartesianGrid, ComposedChart, Legend, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { useWidth } from '../../parts/useWidth.ts';

/** From here on there is room for the names of the links; below, their numbers stand. */
const WIDE = 640;

const shown = (value: unknown): string => (typeof value === 'number' ? `${value.toFixed(0)} dB SPL` : 'not known');

/**
 * The room that each link leaves between noise and clipping, all told as sound at the microphone: so the
 * voice is level all along, and what narrows the band is to blame.
 */
export default function LevelDiagram({ run }: { run: LevelRun }) {
  const [frame, width] = useWidth<HTMLDivElement>(WIDE);
  const narrow = width < WIDE;
  const rows = run.stages.map((stage, index) => ({
    name: narrow ? `${index + 1}` : `${index + 1} ${stage.name}`,
    room: stage.noiseDbSpl === null || stage.clipDbSpl === null ? null : [stage.noiseDbSpl, stage.clipDbSpl],
    noise: stage.noiseDbSpl,
    clip: stage.clipDbSpl,
    average: run.voiceDbSpl,
    peak: run.peakDbSpl,
  }));
  const line = { isAnimationActive: false, strokeWidth: 2.5, dot: { r: 3, strokeDasharray: '' }, connectNulls: true } as const;
  return (
    <div ref={frame}>
      <ResponsiveContainer width="100%" height={300}>
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis dataKey="name" stroke="var(--soft)" fontSize={12} padding={narrow ? { left: 16, right: 16 } : { left: 60, right: 60 }} interval={0} />
          <YAxis
            stroke="var(--soft)"
            fontSize={12}
            width={58}
            domain={[0, 140]}
            ticks={[0, 20, 40, 60, 80, 100, 120, 140]}
            label={{ value: 'dB SPL at the microphone', angle: -90, position: 'insideLeft', offset: 14, dy: 70, fill: 'var(--soft)', fontSize: 12 }}
          />
          <Tooltip
            contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
            formatter={(value, name) => (Array.isArray(value) ? [`${(Number(value[1]) - Number(value[0])).toFixed(0)} dB`, name] : [shown(value), name])}
          />
          <Legend formatter={(name: string) => <span style={{ color: 'var(--ink)' }}>{name}</span>} />
          <Area dataKey="room" name="room between noise and clipping" fill="var(--fill-soft)" stroke="none" isAnimationActive={false} connectNulls />
          <Line dataKey="clip" name="clips from here" stroke="var(--alarm)" strokeDasharray="6 3" {...line} />
          <Line dataKey="peak" name="peaks of the voice" stroke="var(--ink)" strokeDasharray="2 3" {...line} />
          <Line dataKey="average" name="voice" stroke="var(--ink)" {...line} />
          <Line dataKey="noise" name="noise, A-weighted" stroke="var(--soft)" strokeDasharray="10 3" {...line} />
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
