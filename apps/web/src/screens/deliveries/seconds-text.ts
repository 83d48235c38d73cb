/** A time to wait, as people say it. */
export function secondsText(seconds: number): string {
  if (seconds < 1) return 'no time';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${(seconds / 3600).toFixed(1)} h`;
}
