import { refresh } from '../api/client';
import { say } from './notices';

/**
 * Waits for what the server was asked and fetches anew what that changed; after a refusal too, since what is shown was not
 * what the server knows.
 * @param changed starts of the paths whose answers are out of date now
 * @returns the answer, or null where it was refused, which is told
 */
export async function tried<T extends object>(ask: Promise<T>, ...changed: string[]): Promise<T | null> {
  try {
    return await ask;
  } catch (e) {
    say('stop', (e as Error).message);
    return null;
  } finally {
    refresh(...changed);
  }
}
