import { msg } from '../../language/language';
export function secondsText(seconds: number): string {
  if (seconds < 1) return msg('no time');
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return msg('{seconds} min', { seconds: Math.round(seconds / 60) });
  return `${(seconds / 3600).toFixed(1)} h`;
}
