import { useEffect } from 'react';
import { refresh } from './client';

/** Keeps what is on screen up to date with what happens on the server. */
export function useServerEvents(): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    const pending = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | null = null;
    source.onmessage = (message) => {
      if (!message.data) return;
      const event = JSON.parse(message.data) as { topic: string; id: string };
      if (event.topic === 'photo') pending.add('/api/photos').add('/api/products').add('/api/listings');
      if (event.topic === 'brand') pending.add('/api/brand').add('/api/products').add('/api/listings');
      if (event.topic === 'delivery') pending.add('/api/deliveries');
      // Many events in one moment ask the server once.
      timer ??= setTimeout(() => {
        refresh(...pending);
        pending.clear();
        timer = null;
      }, 120);
    };
    return () => source.close();
  }, []);
}
