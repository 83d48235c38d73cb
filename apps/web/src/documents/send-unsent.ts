import { ServerRefusal } from '../api/client';
import { say } from '../ui/notices';
import { difference } from './difference';
import { DOCUMENT_KINDS } from './kinds';
import { allUnsent, dropUnsent, whenNobodyHolds, type Unsent } from './outbox';
import { msg } from '../language/language';

/** Milliseconds between two rounds while something waits. */
const EVERY = 15_000;

/** What was told once is not told again in every round. */
const told = new Set<string>();

/** Sends what waits in the outbox for documents that no window has open: left before the server had them. */
export async function sendUnsent(go: (path: string) => void): Promise<number> {
  const waiting = await allUnsent();
  for (const entry of waiting)
    await whenNobodyHolds(entry.kind, entry.id, () => sendOne(entry, go)).catch(() => undefined);
  return (await allUnsent()).length;
}

async function sendOne({ kind: name, id, body, changedAt }: Unsent, go: (path: string) => void) {
  const kind = DOCUMENT_KINDS.find((k) => k.name === name);
  if (!kind || kind.asMade === false) return;
  const once = (text: string, action?: { title: string; run(): void }) => {
    if (told.has(`${name}/${id}/${changedAt}`)) return;
    told.add(`${name}/${id}/${changedAt}`);
    say('stop', text, action);
  };
  const open = { title: msg('Open it'), run: () => go(kind.path(id)) };
  try {
    await kind.put(id, body as never);
    await dropUnsent(name, id);
    await kind.storedLate?.(id);
    told.delete(`${name}/${id}/${changedAt}`);
  } catch (error) {
    if (!(error instanceof ServerRefusal) || error.status === 0 || error.status >= 500) return;
    if (error.status === 409) {
      const theirs = kind.theirs(error.detail).document as object;
      if (!difference(body.document, theirs)[0].length) return dropUnsent(name, id);
      return once(
        msg('A {word} that you changed was changed elsewhere too; your version is kept here.', {
          word: kind.word,
        }),
        open,
      );
    }
    if (error.status === 404) {
      await dropUnsent(name, id);
      return once(
        msg('A {word} that you changed is not there any more, so the last changes to it are lost.', {
          word: kind.word,
        }),
      );
    }
    once(
      msg('The last changes to a {word} could not be stored: {message}', {
        word: kind.word,
        message: error.message,
      }),
      open,
    );
  }
}

/** Sends what waits at the start, when the network comes back and every now and then. */
export function keepSending(go: (path: string) => void): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const round = () => {
    if (timer) clearTimeout(timer);
    void sendUnsent(go).finally(() => (timer = setTimeout(round, EVERY)));
  };
  window.addEventListener('online', round);
  round();
  return () => {
    window.removeEventListener('online', round);
    if (timer) clearTimeout(timer);
  };
}
