import { mutate } from 'swr';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { call, refresh, ServerRefusal, useRoute, type StoredKit } from '../../api/client';
import { say } from '../../ui/notices';

/** The kit on the screen: every change is stored at once, and can be taken back, also after a reload. */
export function useBrand() {
  const { data, error } = useRoute('GET /api/brand');
  const send = async (ask: (revision: number) => Promise<StoredKit>) => {
    if (!data) return;
    try {
      const saved = await ask(data.revision);
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
      await send((revision) => call('PUT /api/brand', { body: { revision, kit } }));
    },
    undo: () => send((revision) => call('POST /api/brand/undo', { body: { revision } })),
  };
}
