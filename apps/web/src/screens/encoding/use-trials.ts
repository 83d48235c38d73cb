import { useEffect, useState } from 'react';
import { PLAIN_ENCODING, type Encoding } from '@scenograph/core/delivery/encoding';
import { FORMATS, type Slot } from '@scenograph/core/spec/slot';
import { call } from '../../api/client';
import { say } from '../../ui/notices';
import type { Result } from './way';

/** One way to write a picture, and what came of it; null while that is not known. */
export interface Trial {
  id: number;
  encoding: Encoding;
  result: Result | null;
}

let next = 1;
const trialOf = (change: Partial<Encoding>): Trial => ({
  id: next++,
  encoding: { ...PLAIN_ENCODING, ...change },
  result: null,
});

/** The ways that a slot's picture is tried in: first the one in use, then one for each other format. */
function firstTrials(slot: Slot, stored: Encoding | null): Trial[] {
  const first = stored?.format ?? slot.formats[0];
  const others = FORMATS.filter((f) => f !== first);
  return [
    trialOf(stored ?? { format: first }),
    ...others.map((format) =>
      trialOf({ format, quality: format === 'png' ? null : format === 'avif' ? 60 : 82 }),
    ),
  ];
}

/** Ways to write one picture; the server writes and measures those that are new or changed, one after the other. */
export function useTrials(of: {
  shotId: string;
  slot: Slot;
  slotKey: string;
  variantId: string;
  stored: Encoding | null;
}) {
  const { shotId, slot, slotKey, variantId, stored } = of;
  const [trials, setTrials] = useState(() => firstTrials(slot, stored));
  const waiting = trials.find((t) => !t.result);
  useEffect(() => {
    if (!waiting) return;
    let here = true;
    const { encoding } = waiting;
    const came = (result: Result) =>
      here && setTrials((list) => list.map((t) => (t === waiting ? { ...t, result } : t)));
    const timer = setTimeout(() => {
      call('POST /api/shots/:id/trials', {
        params: { id: shotId },
        body: {
          slot: slotKey,
          variant: variantId,
          trials: [{ encoding, limited: encoding.quality === null }],
        },
      })
        .then(([result]) => came(result))
        .catch((e: Error) => {
          if (here) say('stop', e.message);
          came({ ok: false, reason: e.message });
        });
    }, 60);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [waiting, shotId, slotKey, variantId]);
  return {
    trials,
    change: (id: number, patch: Partial<Encoding>) =>
      setTrials((list) =>
        list.map((t) => (t.id === id ? { ...t, encoding: { ...t.encoding, ...patch }, result: null } : t)),
      ),
    add: () => setTrials((list) => [...list, trialOf({ format: slot.formats[0], quality: 75 })]),
    remove: (id: number) => setTrials((list) => list.filter((t) => t.id !== id)),
  };
}
