/** A day as it is written: the month in letters, so that nobody takes it for the day. */
export function dateText(ms: number): string {
  return new Date(ms).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}

/** A day with its time. */
export function dateTimeText(ms: number): string {
  return `${dateText(ms)}, ${clockText(ms)}`;
}

/** A time of day. */
export function clockText(ms: number): string {
  return new Date(ms).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
}
