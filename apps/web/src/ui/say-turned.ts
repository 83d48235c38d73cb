import type { AnswerOf } from '@scenograph/contract';
import { msg } from '../language/language';
import { say } from './notices';

type Turned = Pick<AnswerOf<'POST /api/listings/:id/turn'>, 'label' | 'done' | 'left'>;

/** Says what was undone or done again, and what of it stayed since somebody else has changed it. */
export function sayTurned(way: 'undo' | 'redo', { label, done, left }: Turned): void {
  if (!label) return;
  if (left && !done)
    return say('look', msg('"{label}" was changed again elsewhere since, and stays as it is.', { label }));
  const said = way === 'undo' ? msg('Undone: {label}.', { label }) : msg('Done again: {label}.', { label });
  const stays = msg(
    '{left, plural, one {# value of it was} other {# values of it were}} changed again since and {left, plural, one {stays} other {stay}} as {left, plural, one {it is} other {they are}}.',
    { left },
  );
  say(left ? 'look' : 'pass', left ? `${said} ${stays}` : said);
}
