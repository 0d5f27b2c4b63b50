import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { TAPE_KINDS } from '@marvet/core/domain/tape';
import { type WalkMap, walkMap } from '@marvet/core/radio/walkMap';
import type { WalkTrack } from '@marvet/core/radio/walkTrack';
import { useMemo } from 'react';

const SIDE = 420;

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
        {map.entries.map(({ entry, eastM, northM }) =>
          entry.what === 'mark' ? (
            <g key={entry.id} transform={`translate(${x(eastM)} ${y(northM)})`}>
              <path d="M0 -6 L0 6 M-6 0 L6 0" className="peg" />
              <text x={9} y={-5}>
                {Number(entry.distanceM.toFixed(0))} m
              </text>
            </g>
          ) : null,
        )}
        {broken.map(({ key, eastM, northM, colour, letters, shift }) => (
          <g key={key} transform={`translate(${x(eastM) + shift * 15} ${y(northM)})`}>
            <circle r={8} fill={colour} className="broke" />
            <text textAnchor="middle" y={4} className="letters">
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
          ? 'The way, north up; discs are break-ups that were pressed.'
          : 'The way, north up. Nobody said where the receiver stands: it is taken where the track begins.'}
      </figcaption>
    </figure>
  );
}

function brokenOn(map: WalkMap, take: Take, chains: readonly Chain[]) {
  return map.entries.flatMap(({ entry, eastM, northM }) => {
    if (entry.what !== 'link' || entry.state === 'back again') return [];
    return take.setups
      .filter(({ id }) => entry.setupIds.includes(id))
      .map((setup, shift) => {
        const tape = chains.find(({ id }) => id === setup.candidateId)?.tape;
        return { key: `${entry.id} ${setup.id}`, eastM, northM, shift, colour: (tape && TAPE_KINDS[tape.kind]?.colour) ?? 'var(--fill)', letters: tape?.letters ?? '?' };
      });
  });
}

function mapWords({ points }: WalkMap, broken: number, { receiverSaid }: WalkTrack): string {
  const farthest = Math.max(...points.map(({ distanceM }) => distanceM));
  return `The way of the walk: up to ${Math.round(farthest)} m from ${receiverSaid ? 'the receiver' : 'where it began'}, ${broken} break-ups pressed`;
}
