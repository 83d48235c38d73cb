import { call } from '../api/client';
import { say } from './notices';
import { tried } from './tried';
import { msg } from '../language/language';

/**
 * Waits until something is removed; the notice that says so brings it back.
 * @param name what it is called, to begin a sentence with
 * @param changed starts of the paths whose answers are out of date then
 * @returns whether it was removed
 */
export async function removing(
  ask: Promise<{ removed: string }>,
  name: string,
  ...changed: string[]
): Promise<boolean> {
  const done = await tried(ask, ...changed);
  if (!done) return false;
  const bringBack = async () => {
    if (await tried(call('POST /api/bin/:thing/restore', { params: { thing: done.removed } }), ...changed))
      say('pass', msg('{name} is back.', { name }));
  };
  say('pass', msg('{name} is removed.', { name }), { title: msg('Undo'), run: () => void bringBack() });
  return true;
}
