import type { Build, WearerDraft } from '@marvet/core/domain/wearer';
import type { BodyView } from './bodyViews.ts';

/** Half the width of the shoulders, and how thick the trunk is from front to back, in metres. */
const SHAPES: Record<Build, { shoulderM: number; deepM: number }> = {
  slight: { shoulderM: 0.19, deepM: 0.19 },
  middle: { shoulderM: 0.22, deepM: 0.22 },
  broad: { shoulderM: 0.26, deepM: 0.28 },
  child: { shoulderM: 0.15, deepM: 0.15 },
};

type Looks = Pick<WearerDraft, 'build' | 'hair' | 'head' | 'glasses'>;

/** A neutral figure from the chin up and down to the belt; all of it in metres from the mouth. */
export function BodyFigure({ wearer, view }: { wearer: Looks; view: BodyView }) {
  return view.side === 'side' ? <FromSide wearer={wearer} view={view} /> : <FromFront wearer={wearer} view={view} />;
}

/** A path through points in metres: M and L with places, C with controls. */
function path(view: BodyView, commands: string): string {
  return commands.replace(/(-?[\d.]+),(-?[\d.]+)/g, (_, x: string, y: string) => `${view.x(Number(x)).toFixed(1)} ${view.y(Number(y)).toFixed(1)}`);
}

function FromFront({ wearer, view }: { wearer: Looks; view: BodyView }) {
  const { shoulderM: w } = SHAPES[wearer.build];
  const front = view.side === 'front';
  const trunk = `M -0.055,-0.03 C -0.055,-0.09 -0.05,-0.1 -0.09,-0.11 C ${-w * 0.8},-0.125 ${-w},-0.14 ${-w},-0.2 L ${-w - 0.035},-0.52 L ${-w + 0.04},-0.52 L ${-w * 0.78},-0.3 L ${-w * 0.76},-0.52 L ${w * 0.76},-0.52 L ${w * 0.78},-0.3 L ${w - 0.04},-0.52 L ${w + 0.035},-0.52 L ${w},-0.2 C ${w},-0.14 ${w * 0.8},-0.125 0.09,-0.11 C 0.05,-0.1 0.055,-0.09 0.055,-0.03`;
  return (
    <g className="body-figure" aria-hidden>
      {wearer.hair === 'long' && front && (
        <path className="hair" d={path(view, 'M -0.085,0.08 C -0.13,-0.02 -0.12,-0.1 -0.1,-0.15 C -0.04,-0.17 0.04,-0.17 0.1,-0.15 C 0.12,-0.1 0.13,-0.02 0.085,0.08 Z')} />
      )}
      <path d={path(view, trunk)} />
      <path
        d={path(
          view,
          'M -0.078,0.06 C -0.078,-0.01 -0.045,-0.047 0,-0.047 C 0.045,-0.047 0.078,-0.01 0.078,0.06 C 0.078,0.15 0.045,0.185 0,0.185 C -0.045,0.185 -0.078,0.15 -0.078,0.06 Z',
        )}
      />
      <path d={path(view, 'M -0.078,0.07 C -0.1,0.08 -0.095,0.02 -0.076,0.025 M 0.078,0.07 C 0.1,0.08 0.095,0.02 0.076,0.025')} />
      {front && (
        <path
          className="face"
          d={path(
            view,
            'M -0.022,0 C -0.01,-0.006 0.01,-0.006 0.022,0 M -0.045,0.085 L -0.02,0.085 M 0.02,0.085 L 0.045,0.085 M -0.006,0.075 C -0.014,0.045 -0.014,0.035 0.006,0.033',
          )}
        />
      )}
      {wearer.hair !== 'none' && (
        <path
          className="hair"
          d={path(
            view,
            front
              ? 'M -0.082,0.07 C -0.095,0.16 -0.045,0.205 0,0.205 C 0.045,0.205 0.095,0.16 0.082,0.07 C 0.075,0.12 0.05,0.145 0,0.14 C -0.05,0.145 -0.075,0.12 -0.082,0.07 Z'
              : 'M -0.083,0.04 C -0.1,0.16 -0.045,0.205 0,0.205 C 0.045,0.205 0.1,0.16 0.083,0.04 C 0.06,0 -0.06,0 -0.083,0.04 Z',
          )}
        />
      )}
      {wearer.hair === 'long' && !front && (
        <path className="hair" d={path(view, 'M -0.085,0.08 C -0.13,-0.02 -0.12,-0.1 -0.1,-0.15 C -0.04,-0.17 0.04,-0.17 0.1,-0.15 C 0.12,-0.1 0.13,-0.02 0.085,0.08 Z')} />
      )}
      {wearer.head === 'hat' && (
        <path className="worn" d={path(view, 'M -0.16,0.13 C -0.08,0.115 0.08,0.115 0.16,0.13 L 0.09,0.15 C 0.09,0.24 0.05,0.25 0,0.25 C -0.05,0.25 -0.09,0.24 -0.09,0.15 Z')} />
      )}
      {wearer.head === 'helmet' && (
        <path
          className="worn open"
          d={path(
            view,
            'M -0.125,0.06 C -0.13,0.2 -0.07,0.25 0,0.25 C 0.07,0.25 0.13,0.2 0.125,0.06 C 0.125,-0.04 0.08,-0.085 0,-0.085 C -0.08,-0.085 -0.125,-0.04 -0.125,0.06 Z M -0.085,0.05 L -0.08,0.12 L 0.08,0.12 L 0.085,0.05 L 0.065,-0.02 L -0.065,-0.02 Z',
          )}
        />
      )}
      {wearer.glasses && front && (
        <path
          className="worn open"
          d={path(view, 'M -0.06,0.1 L -0.015,0.1 L -0.018,0.065 L -0.055,0.065 Z M 0.06,0.1 L 0.015,0.1 L 0.018,0.065 L 0.055,0.065 Z M -0.015,0.092 L 0.015,0.092')}
        />
      )}
    </g>
  );
}

function FromSide({ wearer, view }: { wearer: Looks; view: BodyView }) {
  const { deepM } = SHAPES[wearer.build];
  const [front, back] = [-0.005, -0.005 - deepM];
  const trunk = `M -0.05,-0.05 C -0.055,-0.08 -0.06,-0.095 -0.045,-0.12 C ${front - 0.02},-0.16 ${front},-0.22 ${front},-0.28 C ${front},-0.36 ${front - 0.015},-0.42 ${front - 0.01},-0.52 L ${back + 0.03},-0.52 C ${back + 0.03},-0.42 ${back - 0.015},-0.3 ${back - 0.01},-0.22 C ${back},-0.14 -0.17,-0.12 -0.155,-0.03`;
  const mid = (front + back) / 2;
  return (
    <g className="body-figure" aria-hidden>
      <path d={path(view, trunk)} />
      <path
        d={path(
          view,
          `M ${mid + 0.045},-0.2 C ${mid + 0.05},-0.3 ${mid + 0.04},-0.4 ${mid + 0.05},-0.52 M ${mid - 0.045},-0.2 C ${mid - 0.055},-0.3 ${mid - 0.05},-0.4 ${mid - 0.045},-0.52 M ${mid + 0.045},-0.2 C ${mid + 0.03},-0.13 ${mid - 0.03},-0.13 ${mid - 0.045},-0.2`,
        )}
      />
      {wearer.hair === 'long' && <path className="hair" d={path(view, 'M -0.08,0.15 C -0.21,0.12 -0.21,-0.04 -0.19,-0.14 L -0.12,-0.12 C -0.11,-0.02 -0.1,0.05 -0.08,0.15 Z')} />}
      <path
        d={path(
          view,
          'M -0.012,0.15 C -0.002,0.12 -0.004,0.1 0.0,0.085 L 0.02,0.04 C 0.02,0.032 0.012,0.03 0.003,0.028 L 0.004,0.008 L -0.002,0 L 0.002,-0.01 C -0.004,-0.02 0.0,-0.035 -0.012,-0.046 C -0.03,-0.055 -0.06,-0.04 -0.075,-0.02 C -0.1,-0.01 -0.13,-0.01 -0.16,-0.02 C -0.195,0.02 -0.2,0.1 -0.17,0.15 C -0.13,0.2 -0.04,0.2 -0.012,0.15 Z',
        )}
      />
      <path d={path(view, 'M -0.1,0.07 C -0.125,0.085 -0.125,0.02 -0.105,0.025 C -0.098,0.04 -0.098,0.05 -0.1,0.07')} />
      <path className="face" d={path(view, 'M -0.028,0.001 L -0.002,0 M -0.03,0.083 L -0.015,0.085')} />
      {wearer.hair !== 'none' && (
        <path
          className="hair"
          d={path(
            view,
            'M -0.012,0.155 C -0.02,0.21 -0.14,0.225 -0.19,0.15 C -0.215,0.09 -0.2,0.03 -0.165,-0.01 C -0.15,0.04 -0.15,0.09 -0.115,0.1 C -0.09,0.11 -0.07,0.15 -0.012,0.155 Z',
          )}
        />
      )}
      {wearer.head === 'hat' && (
        <path className="worn" d={path(view, 'M 0.08,0.125 L -0.26,0.125 L -0.18,0.15 C -0.18,0.24 -0.14,0.25 -0.09,0.25 C -0.03,0.25 -0.005,0.24 0.0,0.15 Z')} />
      )}
      {wearer.head === 'helmet' && (
        <path
          className="worn open"
          d={path(
            view,
            'M 0.065,-0.03 C 0.07,-0.07 0.03,-0.09 -0.02,-0.085 L -0.2,-0.03 C -0.24,0.05 -0.22,0.16 -0.17,0.21 C -0.11,0.26 0.0,0.25 0.035,0.15 L 0.025,0.11 L -0.05,0.1 L -0.06,-0.01 L 0.065,-0.03 Z',
          )}
        />
      )}
      {wearer.glasses && <path className="worn open" d={path(view, 'M 0.012,0.1 L 0.002,0.062 L -0.03,0.068 L -0.02,0.1 Z M -0.02,0.092 L -0.11,0.085')} />}
    </g>
  );
}
