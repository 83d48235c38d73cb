import { setPriority } from 'node:os';
import sharp from 'sharp';
import { RefusedPicture } from '../read-picture';
import { operations, type Intake } from './operations';

/** What a reading process answers: what came of the file, or the sentence that refuses it. */
export type Answer = { value: unknown } | { refused: string };

/** The process that reads files from outside; started by `sandbox.ts` and ended with it. */

// Answers to others come before what somebody sent.
setPriority(5);
// One file after another: nothing is gained by keeping the last one's pixels.
sharp.cache(false);
sharp.concurrency(1);

const messageOf = (error: unknown) => (error instanceof Error ? error.message : String(error));
/** Sentences are ours; what a library throws is not shown to anyone. */
const isSentence = (error: unknown) =>
  error instanceof RefusedPicture ||
  (error instanceof Error &&
    error.constructor === Error &&
    /^(the |its? |an? |"|[A-Z]).*[.]$/s.test(error.message));

process.once('disconnect', () => process.exit());

process.on('message', ({ operation, args }: { operation: keyof Intake; args: [never] }) => {
  void (async () => {
    let answer: Answer;
    try {
      answer = { value: await (operations[operation] as (...args: unknown[]) => Promise<unknown>)(...args) };
    } catch (error) {
      if (!isSentence(error)) console.error(`reading failed (${operation}): ${messageOf(error)}`);
      const { name } = args[0] as { name: string };
      answer = {
        refused: isSentence(error)
          ? messageOf(error)
          : `"${name}" cannot be read: it is damaged, or not what its name says. Export or copy it again.`,
      };
    }
    // Who asked may be gone by now; then this one ends too.
    process.send!(answer, () => undefined);
    // Fonts lie in memory that the collector does not see: what the last file left is freed before the next.
    globalThis.gc?.();
  })();
});
process.on('disconnect', () => process.exit(0));
process.send!('ready', () => undefined);
