/** A frequency on an axis. */
export const hzText = (hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz));
export const HZ_TICKS = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16000];
