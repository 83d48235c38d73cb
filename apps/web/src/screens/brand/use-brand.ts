import { useState } from 'react';
import { mutate } from 'swr';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { StoredKit } from '../../api/brand';
import { refresh, request, ServerRefusal, useServer } from '../../api/client';
import { say } from '../../ui/notices';

/** The kit on the screen: every change is stored at once, and can be taken back. */
export function useBrand() {
  const { data, error } = useServer<StoredKit>('/api/brand');
  const [past, setPast] = useState<BrandKit[]>([]);
  const store = async (kit: BrandKit) => {
    if (!data) return false;
    await mutate('/api/brand', { ...data, kit }, { revalidate: false });
    try {
      const saved = await request<StoredKit>('PUT', '/api/brand', { revision: data.revision, kit });
      await mutate('/api/brand', saved, { revalidate: false });
      refresh('/api/listings', '/api/products');
      return true;
    } catch (e) {
      say('stop', (e as Error).message);
      const present = e instanceof ServerRefusal && e.status === 409 ? (e.detail as StoredKit) : data;
      await mutate('/api/brand', present, { revalidate: false });
      return false;
    }
  };
  return {
    kit: data?.kit ?? null,
    error,
    canUndo: past.length > 0,
    async change(next: Partial<BrandKit>) {
      if (!data) return;
      if (await store({ ...data.kit, ...next })) setPast((p) => [...p, data.kit].slice(-50));
    },
    async undo() {
      const before = past[past.length - 1];
      if (before && (await store(before))) setPast((p) => p.slice(0, -1));
    },
  };
}
