import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { applyFix } from '@scenograph/core/spec/checks/index';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Slot } from '@scenograph/core/spec/slot';
import { refresh, call } from '../../api/client';
import { difference, KEPT_STEPS } from '../../documents/difference';
import { msg } from '../../language/language';

/**
 * Mends what a check found in a slot, on the shot as it is stored now; the step can be undone on the stage. A shot that
 * was changed meanwhile is not overwritten: the server refuses with a sentence.
 */
export async function mendFromBoard(
  shotId: string,
  { slotKey, slot, data }: { slotKey: string; slot: Slot; data: ProductData },
  result: CheckResult,
): Promise<void> {
  const stored = await call('GET /api/shots/:id', { params: { id: shotId } });
  const before = stored.document;
  const resolved = resolveForSlot(before, slotKey, slot, data);
  const document = applyFix(result.check, before, resolved, slotKey, slot, result.about);
  const [forward, inverse] = difference(before, document);
  if (!forward.length) throw new Error(msg('Nothing is left to mend: the shot was changed meanwhile.'));
  const past = [...stored.history.past, { label: msg(result.fix!.title), forward, inverse }].slice(
    -KEPT_STEPS,
  );
  await call('PUT /api/shots/:id', {
    params: { id: shotId },
    body: {
      revision: stored.revision,
      document,
      history: { past, future: [] },
    },
  });
  refresh('/api/listings');
}
