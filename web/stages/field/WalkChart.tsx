import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { TAPE_KINDS } from '@marvet/core/domain/tape';
import type { WalkLevel } from '@marvet/core/radio/levelsAlongWalk';
import { distanceAt, type WalkTrack } from '@marvet/core/radio/walkTrack';
import { CartesianGrid, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts';

interface WalkChartProps {
  take: Take;
  chains: readonly Chain[];
  levels: ReadonlyMap<string, WalkLevel[]>;
  track: WalkTrack | null;
}

interface Drawn {
  distanceM: number;
  levelDbm: number;
  words: string;
}

const HEIGHT = 260;

/** Radio level against distance, facing and turned, with the break-ups that were pressed along its foot. */
export function WalkChart({ take, chains, levels, track }: WalkChartProps) {
  const own = chains.filter(({ id }) => (levels.get(id)?.length ?? 0) > 0);
  if (own.length === 0) return null;
  const all = own.flatMap(({ id }) => levels.get(id) ?? []);
  const floor = Math.floor(Math.min(...all.map(({ levelDbm }) => levelDbm)) / 10) * 10;
  const broken = own.map((chain, row) => ({
    chain,
    at: pressedAt(take, chain.id, track).map((distanceM) => ({ distanceM, levelDbm: floor - 3 - 4 * row, words: `${chain.tape.letters} broke up at ${distanceM.toFixed(0)} m` })),
  }));
  return (
    <figure className="mb-0" aria-label="Radio level against distance">
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <ScatterChart margin={{ top: 8, right: 14, bottom: 22, left: 4 }}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis
            type="number"
            dataKey="distanceM"
            name="distance"
            unit=" m"
            domain={[0, 'dataMax']}
            stroke="var(--ink)"
            label={{ value: 'Distance from the receiver, m', position: 'insideBottom', offset: -14, fill: 'var(--ink)' }}
          />
          <YAxis
            type="number"
            dataKey="levelDbm"
            domain={[floor - 4 * own.length - 3, 'auto']}
            stroke="var(--ink)"
            width={58}
            label={{ value: 'dBm', angle: -90, position: 'insideLeft', fill: 'var(--ink)' }}
          />
          <Tooltip content={({ payload }) => <span className="chart-tip">{(payload?.[0]?.payload as Drawn | undefined)?.words}</span>} />
          {own.flatMap((chain) =>
            (['facing', 'turned'] as const).map((side) => (
              <Scatter
                key={`${chain.id} ${side}`}
                isAnimationActive={false}
                data={(levels.get(chain.id) ?? [])
                  .filter((level) => level.side === side)
                  .map(
                    (level): Drawn => ({ ...level, words: `${chain.tape.letters} ${level.levelDbm.toFixed(0)} dBm at ${level.distanceM.toFixed(0)} m, ${side}, ${level.heading}` }),
                  )}
                shape={(props: unknown) => (
                  <Dot {...(props as { cx: number; cy: number })} colour={TAPE_KINDS[chain.tape.kind]?.colour ?? 'var(--fill)'} open={side === 'turned'} />
                )}
              />
            )),
          )}
          {broken.map(({ chain, at }) => (
            <Scatter key={chain.id} isAnimationActive={false} data={at} shape={(props: unknown) => <BreakUp {...(props as { cx: number; cy: number })} />} />
          ))}
        </ScatterChart>
      </ResponsiveContainer>
      <figcaption className="small soft">
        Discs: facing; rings: turned. Strokes at the foot: break-ups that were pressed, a row each of {own.map(({ tape }) => tape.letters).join(', then ')}.
      </figcaption>
      <details className="small">
        <summary>As a table</summary>
        <table className="plain">
          <thead>
            <tr>
              <th>Candidate</th>
              <th>Side</th>
              <th className="num">Level at the nearest, dBm</th>
              <th className="num">at the farthest, dBm</th>
              <th className="num">least, dBm</th>
            </tr>
          </thead>
          <tbody>
            {own.flatMap((chain) =>
              (['facing', 'turned'] as const).map((side) => {
                const along = (levels.get(chain.id) ?? []).filter((level) => level.side === side).sort((a, b) => a.distanceM - b.distanceM);
                if (along.length === 0) return null;
                return (
                  <tr key={`${chain.id} ${side}`}>
                    <td>{chain.name}</td>
                    <td>{side}</td>
                    <td className="num">{along[0]?.levelDbm.toFixed(0)}</td>
                    <td className="num">{along.at(-1)?.levelDbm.toFixed(0)}</td>
                    <td className="num">{Math.min(...along.map(({ levelDbm }) => levelDbm)).toFixed(0)}</td>
                  </tr>
                );
              }),
            )}
          </tbody>
        </table>
      </details>
    </figure>
  );
}

function pressedAt(take: Take, candidateId: string, track: WalkTrack | null): number[] {
  const ids = take.setups.filter((setup) => setup.candidateId === candidateId).map(({ id }) => id);
  return take.walk.flatMap((entry) => {
    if (entry.what !== 'link' || entry.state === 'back again' || !entry.setupIds.some((id) => ids.includes(id))) return [];
    const distanceM = distanceAt(entry.atMs, take.walk, track);
    return distanceM === null ? [] : [distanceM];
  });
}

function Dot({ cx, cy, colour, open }: { cx: number; cy: number; colour: string; open: boolean }) {
  return <circle cx={cx} cy={cy} r={3} fill={open ? 'none' : colour} stroke={open ? colour : 'var(--ink)'} strokeWidth={open ? 1.6 : 0.4} />;
}

function BreakUp({ cx, cy }: { cx: number; cy: number }) {
  return <path d={`M${cx} ${cy - 5} L${cx} ${cy + 5}`} stroke="var(--alarm)" strokeWidth={2} />;
}
