import { mutate } from 'swr';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { StoredKit } from '../../api/brand';
import { refresh, request, ServerRefusal, useServer } from '../../api/client';
import { say } from '../../ui/notices';

/** The kit on the screen: every change is stored at once, and can be taken back, also after a reload. */
export function useBrand() {
  const { data, error } = useServer<StoredKit>('/api/brand');
  const send = async (method: 'PUT' | 'POST', path: string, body: object) => {
    if (!data) return;
    try {
      const saved = await request<StoredKit>(method, path, { revision: data.revision, ...body });
      await mutate('/api/brand', saved, { revalidate: false });
      refresh('/api/listings', '/api/products');
    } catch (e) {
      say('stop', (e as Error).message);
      const present = e instanceof ServerRefusal && e.status === 409 ? (e.detail as StoredKit) : data;
      await mutate('/api/brand', present, { revalidate: false });
    }
  };
  return {
    kit: data?.kit ?? null,
    error,
    canUndo: (data?.steps ?? 0) > 0,
    async change(next: Partial<BrandKit>) {
      if (!data) return;
      const kit = { ...data.kit, ...next };
      await mutate('/api/brand', { ...data, kit }, { revalidate: false });
      await send('PUT', '/api/brand', { kit });
    },
    undo: () => send('POST', '/api/brand/undo', {}),
  };
}
