import { msg } from '../language/language';
import { say } from './notices';

/** Says what was undone or done again, and what of it stayed since somebody else has changed it. */
export function sayTurned(
  way: 'undo' | 'redo',
  { label, left }: { label: string | null; left: number },
): void {
  if (!label) return;
  const done = way === 'undo' ? msg('Undone: {label}.', { label }) : msg('Done again: {label}.', { label });
  const stays = msg(
    '{left, plural, one {# value of it was} other {# values of it were}} changed again since and {left, plural, one {stays} other {stay}} as {left, plural, one {it is} other {they are}}.',
    { left },
  );
  say(left ? 'look' : 'pass', left ? `${done} ${stays}` : done);
}
