import { useMemo } from 'react';
import { type ListingDetail, useRoute } from '../../api/client';

/** Pixel sizes of the listing's cutouts and of the library's pictures, by hash. */
export function useKnownSizes(detail: ListingDetail): ReadonlyMap<string, { width: number; height: number }> {
  const { data: pictures } = useRoute('GET /api/pictures');
  return useMemo(() => {
    const map = new Map<string, { width: number; height: number }>();
    for (const { data } of detail.variants) {
      if (data.cutout) map.set(data.cutout.picture, data.cutout);
      if (data.photo) map.set(data.photo.picture, data.photo);
    }
    for (const p of pictures ?? []) map.set(p.picture, p);
    return map;
  }, [detail.variants, pictures]);
}
