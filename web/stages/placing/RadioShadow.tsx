import type { WearerDraft } from '@marvet/core/domain/wearer';
import { radioShadowDb } from '@marvet/core/place/radioShadow';

const CENTRE = 96;
const RADIUS = 62;
const BEARINGS = [0, 45, 90, 135, 180, -135, -90, -45];
/** So much is drawn as the whole radius. */
const WHOLE_DB = 20;

/** What the body takes of its own radio link, by where the receiver stands, seen from above: the wearer looks down the page. */
export function RadioShadow({ wearer }: { wearer: Pick<WearerDraft, 'build' | 'transmitterDeg' | 'radioMhz'> }) {
  const lossAt = (receiverDeg: number) => radioShadowDb({ build: wearer.build, aerialDeg: wearer.transmitterDeg, receiverDeg, frequencyMhz: wearer.radioMhz });
  const at = (deg: number, radius: number): [number, number] => {
    // Ahead is down; the wearer's left is to the right, as one stands opposite.
    const angle = (deg * Math.PI) / 180;
    return [CENTRE + radius * Math.sin(angle), CENTRE + radius * Math.cos(angle)];
  };
  const reach = Array.from({ length: 72 }, (_, step) => at(5 * step, RADIUS * (1 - Math.min(1, lossAt(5 * step) / WHOLE_DB))));
  const aerial = at(wearer.transmitterDeg, 15);
  return (
    <figure className="placing shadow-rose" aria-label="What the body takes of the radio link, by the bearing of the receiver">
      <svg viewBox={`0 0 ${2 * CENTRE} ${2 * CENTRE}`} aria-hidden>
        <circle className="hatch" cx={CENTRE} cy={CENTRE} r={RADIUS} />
        <polygon points={reach.map((point) => point.map((value) => value.toFixed(1)).join(',')).join(' ')} />
        <ellipse className="trunk" cx={CENTRE} cy={CENTRE} rx={17} ry={11} />
        <path className="trunk" d={`M ${CENTRE - 5} ${CENTRE + 10} L ${CENTRE} ${CENTRE + 17} L ${CENTRE + 5} ${CENTRE + 10}`} />
        <circle className="hands" cx={aerial[0]} cy={aerial[1]} r={4} />
        {BEARINGS.map((deg) => {
          const [x, y] = at(deg, RADIUS + 17);
          return (
            <text key={deg} className="name" x={x} y={y + 4} textAnchor="middle">
              {lossAt(deg) < 0.5 ? '0' : `−${lossAt(deg).toFixed(0)}`}
            </text>
          );
        })}
      </svg>
      <figcaption className="small soft">dB by the bearing of the receiver, in the open; the wearer looks down the page. Indoors reflections fill some of it. Computed.</figcaption>
    </figure>
  );
}
