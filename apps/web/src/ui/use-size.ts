import { useLayoutEffect, useRef, useState } from 'react';

/**
 * An element's size in the page, kept up to date.
 * @param first what is taken until it has been measured
 */
export function useSize<E extends Element = HTMLDivElement>(first = { width: 0, height: 0 }) {
  const ref = useRef<E>(null);
  const [size, setSize] = useState(first);
  useLayoutEffect(() => {
    if (!ref.current) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      setSize({ width, height });
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return { ref, size, ...size };
}
