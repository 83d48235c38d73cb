import { useEffect, useRef, useState } from 'react';

/** Whether an element has come into view; stays true from then on. */
export function useInView<E extends HTMLElement = HTMLSpanElement>() {
  const ref = useRef<E>(null);
  const [inView, setInView] = useState(false);
  useEffect(() => {
    if (!ref.current || inView) return;
    const observer = new IntersectionObserver(([entry]) => entry.isIntersecting && setInView(true), {
      rootMargin: '120px',
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, [inView]);
  return { ref, inView };
}

/** Whether an element is in view now. */
export function useSeen<E extends HTMLElement>() {
  const ref = useRef<E>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new IntersectionObserver((entries) =>
      setSeen(entries[entries.length - 1].isIntersecting),
    );
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return { ref, seen };
}
