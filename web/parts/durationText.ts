/**
 * A length of time as people say it.
 * @example durationText(5400) // "1 h 30 min"
 */
export function durationText(seconds: number): string {
  if (seconds < 60) return `${Math.round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  const hours = Math.floor(minutes / 60);
  return hours === 0 ? `${minutes} min` : `${hours} h ${minutes % 60 ? `${minutes % 60} min` : ''}`.trim();
}
