import type { BandPicture, Span } from '@marvet/core/measure/report.types';
import { useEffect, useMemo, useRef } from 'react';
import { LEAST_WIDTH, LEFT, RIGHT, USUAL_WIDTH } from '../../parts/lanes/LevelLanes.tsx';
import { useWidth } from '../../parts/useWidth.ts';
import { bandCells, bandPixels } from './bandPixels.ts';

const HEIGHT = 116;
const NAMED_HZ = [63, 250, 1000, 4000, 16000] as const;

interface SpectrumLaneProps {
  bands: BandPicture;
  window: Span;
  atS: number;
  onSeek(seconds: number): void;
}

/** Third-octave levels over time under the level, on the same time axis: where in the spectrum a noise lies is seen at a glance. */
export function SpectrumLane({ bands, window: [fromS, toS], atS, onSeek }: SpectrumLaneProps) {
  const [box, shownWidth] = useWidth<HTMLDivElement>(USUAL_WIDTH);
  const canvas = useRef<HTMLCanvasElement>(null);
  const cells = useMemo(() => bandCells(bands), [bands]);
  const width = Math.max(LEAST_WIDTH, shownWidth);
  const columns = Math.max(1, width - LEFT - RIGHT);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || cells.steps === 0) return;
    // One pixel a band: the element stretches it.
    context.canvas.width = columns;
    context.canvas.height = cells.bands;
    context.putImageData(new ImageData(bandPixels(cells, [fromS, toS], columns), columns, cells.bands), 0, 0);
  }, [cells, fromS, toS, columns]);
  const [lowestHz, highestHz] = [bands.bandsHz[0] ?? 20, bands.bandsHz.at(-1) ?? 20_000];
  const y = (hz: number) => HEIGHT * (1 - (Math.log(hz / lowestHz) / Math.log(highestHz / lowestHz)) * (1 - 1 / cells.bands) - 0.5 / cells.bands);
  const share = (atS - fromS) / (toS - fromS);
  return (
    <div ref={box} className="spectrum-lane" style={{ height: HEIGHT }}>
      {NAMED_HZ.filter((hz) => hz <= highestHz).map((hz) => (
        <span key={hz} className="hz" style={{ top: y(hz), width: LEFT - 8 }}>
          {hz < 1000 ? `${hz} Hz` : `${hz / 1000} kHz`}
        </span>
      ))}
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Spectrum over time, from ${Math.round(lowestHz)} Hz up; the darkest is ${cells.topDbfs.toFixed(0)} dBFS`}
        title={`Third octaves; the darkest is ${cells.topDbfs.toFixed(0)} dBFS, paper lies ${cells.rangeDb.toFixed(0)} dB under it. Click to listen there`}
        style={{ left: LEFT, width: columns, height: HEIGHT }}
        onClick={(event) => {
          const { left, width: drawn } = event.currentTarget.getBoundingClientRect();
          onSeek(fromS + ((event.clientX - left) / drawn) * (toS - fromS));
        }}
      />
      {share > 0 && share <= 1 && <i className="playhead" style={{ left: LEFT + share * columns }} />}
    </div>
  );
}
