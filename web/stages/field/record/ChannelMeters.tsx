import { type ChannelLevel, LOWEST_DBFS } from './channelLevel.ts';

const share = (dbfs: number) => `${Math.max(0, Math.min(100, (100 * (dbfs - LOWEST_DBFS)) / -LOWEST_DBFS))}%`;
export const dbfsText = (dbfs: number) => (dbfs <= LOWEST_DBFS ? '−∞' : dbfs.toFixed(0).replace('-', '−'));

/** One channel's meter: level, held peak, and whether it clipped. */
export function ChannelMeter({ name, level }: { name: string; level: ChannelLevel }) {
  return (
    <div className={`channel-meter ${level.clipped ? 'clipped' : ''}`}>
      <meter className="visually-hidden" aria-label={`${name}, peak, dBFS`} min={LOWEST_DBFS} max={0} value={Math.round(level.peakDbfs)}>
        {dbfsText(level.peakDbfs)} dBFS{level.clipped && ', clipped'}
      </meter>
      <span className="bar" style={{ width: share(level.peakDbfs) }} />
      <span className="mean" style={{ width: share(level.rmsDbfs) }} />
      <span className="held" style={{ left: share(level.heldDbfs) }} />
    </div>
  );
}
