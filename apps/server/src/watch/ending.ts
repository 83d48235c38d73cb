/** How long a process that is told to end may take for it, in milliseconds. */
const PATIENCE = 10_000;

/**
 * Ends the process: one step after another, whether each succeeds or not. A database that is away may leave a step without
 * an answer, and a step that fails is no reason to live on: after a while it ends in any case, and what was begun is taken up by
 * others.
 */
export async function endInOrder(
  steps: (() => Promise<unknown>)[],
  { patience = PATIENCE, exit }: { patience?: number; exit(): void } = { exit: () => process.exit(0) },
): Promise<void> {
  let ended = false;
  const end = () => {
    if (ended) return;
    ended = true;
    clearTimeout(late);
    exit();
  };
  const late = setTimeout(end, patience);
  for (const step of steps) {
    try {
      await step();
    } catch {
      // Said where it happened, if at all: there is nothing more to be done.
    }
  }
  end();
}
