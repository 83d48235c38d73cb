import { useEffect, useRef, useState } from 'react';

/**
 * What a field holds between typing and being stored. The same text is committed once, however often the field is left;
 * a commit that gives null (as `tried` does where the server refused) brings back what is stored.
 * @param value what is stored, as text
 */
export function useDraft(value: string) {
  const [text, setText] = useState(value);
  const stored = useRef(value);
  stored.current = value;
  /** What was committed and has not come back as the value yet. */
  const sent = useRef<string | null>(null);
  useEffect(() => {
    setText(value);
    sent.current = null;
  }, [value]);
  return {
    text,
    setText,
    /** Whether it holds what is stored or on its way there. */
    settled: (now = text) => now === (sent.current ?? value),
    restore() {
      setText(value);
    },
    /** Shows `next` and sends it off. */
    commit(next: string, send: () => unknown) {
      setText(next);
      sent.current = next;
      void Promise.resolve(send()).then((answer) => {
        if (answer !== null || sent.current !== next) return;
        sent.current = null;
        setText(stored.current);
      });
    },
  };
}
