import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { TAPE_KINDS } from '@marvet/core/domain/tape';
import type { WalkEntry } from '@marvet/core/domain/walk';
import { type WalkMap, walkMap } from '@marvet/core/radio/walkMap';
import type { WalkTrack } from '@marvet/core/radio/walkTrack';
import { legAt } from '@marvet/core/radio/walkWindows';
import { useMemo } from 'react';

const SIDE = 420;
/** Distances stand at the left edge, and lead to their pegs. */
const LABEL_PX = 46;

/** The way itself: north up, to scale, with the receiver, the marks, and where links broke up. */
export function WalkMapDrawing({ track, take, chains }: { track: WalkTrack; take: Take; chains: readonly Chain[] }) {
  const map = useMemo(() => walkMap(track, take.walk), [track, take.walk]);
  const perM = SIDE / (map.eastM - map.westM);
  const x = (eastM: number) => (eastM - map.westM) * perM;
  const y = (northM: number) => (map.northM - northM) * perM;
  const line = map.points.map(({ eastM, northM }) => `${x(eastM).toFixed(1)},${y(northM).toFixed(1)}`).join(' ');
  const broken = brokenOn(map, take, chains);
  return (
    <figure className="walk-map mb-0">
      <svg viewBox={`0 0 ${SIDE} ${SIDE}`} role="img" aria-label={mapWords(map, broken.length, track)}>
        <polyline points={line} className="way" />
        {pegsOf(map).map(({ entry, eastM, northM }) => (
          <g key={entry.id}>
            <path d={`M${LABEL_PX} ${y(northM)} L${x(eastM)} ${y(northM)}`} className="leader" />
            <path d="M0 -6 L0 6 M-6 0 L6 0" className="peg" transform={`translate(${x(eastM)} ${y(northM)})`} />
            <text x={8} y={y(northM) + 4}>
              {Number(entry.distanceM.toFixed(0))} m
            </text>
          </g>
        ))}
        {broken.map(({ key, eastM, northM, colour, letters, shiftPx }) => (
          <g key={key} transform={`translate(${x(eastM) + shiftPx} ${y(northM)})`}>
            <circle r={8} fill={colour} className="broke" />
            <text textAnchor="middle" y={3} className="letters">
              {letters}
            </text>
          </g>
        ))}
        <g transform={`translate(${x(0)} ${y(0)})`}>
          <path d="M0 -11 L9 7 L-9 7 Z" className="receiver" />
          <text y={22} textAnchor="middle">
            {track.receiverSaid ? 'receiver' : 'start'}
          </text>
        </g>
        <g transform={`translate(${SIDE - 22} 30)`}>
          <path d="M0 16 L0 -10 M-6 -3 L0 -12 L6 -3" className="north" />
          <text y={30} textAnchor="middle">
            N
          </text>
        </g>
        <g transform={`translate(14 ${SIDE - 16})`}>
          <path d={`M0 -5 L0 0 L${map.scaleM * perM} 0 L${map.scaleM * perM} -5`} className="north" />
          <text x={(map.scaleM * perM) / 2} y={-7} textAnchor="middle">
            {map.scaleM} m
          </text>
        </g>
      </svg>
      <figcaption className="small soft">
        {track.receiverSaid
          ? 'The way, north up. Discs are break-ups that were pressed: to the left on the way out, to the right on the way back.'
          : 'The way, north up. Nobody said where the receiver stands: it is taken where the track begins.'}
      </figcaption>
    </figure>
  );
}

/** Each distance once: out and back pass the same pegs. */
function pegsOf({ entries }: WalkMap) {
  const pegs = new Map<number, { entry: Extract<WalkEntry, { what: 'mark' }>; eastM: number; northM: number }>();
  for (const { entry, eastM, northM } of entries) if (entry.what === 'mark' && !pegs.has(entry.distanceM)) pegs.set(entry.distanceM, { entry, eastM, northM });
  return [...pegs.values()];
}

/** Break-ups stand beside the way: those of the way out to its left, those of the way back to its right, each candidate in a row of its own. */
function brokenOn(map: WalkMap, take: Take, chains: readonly Chain[]) {
  return map.entries.flatMap(({ entry, eastM, northM }) => {
    if (entry.what !== 'link' || entry.state === 'back again') return [];
    const out = legAt(take.walk, entry.atMs).heading === 'out';
    return take.setups.flatMap((setup, row) => {
      if (!entry.setupIds.includes(setup.id)) return [];
      const tape = chains.find(({ id }) => id === setup.candidateId)?.tape;
      const shiftPx = (out ? -1 : 1) * (16 + 18 * row);
      return [{ key: `${entry.id} ${setup.id}`, eastM, northM, shiftPx, colour: (tape && TAPE_KINDS[tape.kind]?.colour) ?? 'var(--fill)', letters: tape?.letters ?? '?' }];
    });
  });
}

function mapWords({ points }: WalkMap, broken: number, { receiverSaid }: WalkTrack): string {
  const farthest = Math.max(...points.map(({ distanceM }) => distanceM));
  return `The way of the walk: up to ${Math.round(farthest)} m from ${receiverSaid ? 'the receiver' : 'where it began'}, ${broken} break-ups pressed`;
}
