import { useEffect } from 'react';
import { isNewer } from '../documents/open-revisions';
import { refresh, refreshBoards } from './client';

/** Keeps what is on screen up to date with what happens on the server. */
export function useServerEvents(): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    let opened = false;
    source.onopen = () => {
      // What happened while the line was cut or the computer slept was not heard.
      if (opened) refresh('/api/');
      opened = true;
    };
    const pending = new Set<string>();
    let boards = false;
    let timer: ReturnType<typeof setTimeout> | null = null;
    source.onmessage = (message) => {
      if (!message.data) return;
      const event = JSON.parse(message.data) as { topic: string; id: string; revision?: number };
      if (event.topic === 'shot' && isNewer('shot', event.id, event.revision))
        pending.add(`/api/shots/${event.id}`);
      if (event.topic === 'photo') pending.add('/api/photos').add('/api/products').add('/api/listings');
      if (event.topic === 'brand') pending.add('/api/brand').add('/api/products').add('/api/listings');
      // A finished picture changes its board too.
      if (event.topic === 'delivery') {
        pending.add('/api/deliveries');
        boards = true;
      }
      if (event.topic === 'listing') pending.add('/api/listings');
      if (event.topic === 'sheets') pending.add('/api/spec-sheets').add('/api/listings');
      if (event.topic === 'product') pending.add('/api/products').add('/api/listings');
      if (event.topic === 'recipe') pending.add('/api/recipes');
      // Many events in one moment ask the server once.
      timer ??= setTimeout(() => {
        refresh(...pending);
        if (boards) refreshBoards();
        boards = false;
        pending.clear();
        timer = null;
      }, 250);
    };
    return () => source.close();
  }, []);
}
