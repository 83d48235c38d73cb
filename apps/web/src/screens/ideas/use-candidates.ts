import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useRoute, type ListingDetail } from '../../api/client';
import { paletteOfPicture } from '../../workers/painters';
import { useTemplates } from '../templates/use-templates';
import { candidatesFor } from './candidates';

/** Finished pictures that could be made of the variant in the address; null while what they are made of is fetched. */
export function useCandidates(detail: ListingDetail) {
  const [params, setParams] = useSearchParams();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: templates } = useTemplates();
  const withCutout = useMemo(() => detail.variants.filter((v) => v.data.cutout), [detail.variants]);
  const variant = withCutout.find((v) => v.id === params.get('variant')) ?? withCutout[0] ?? null;
  const palette = usePalette(variant?.data.cutout?.picture ?? null);
  const all = useMemo(() => {
    if (!variant || !scenes || !templates || !palette) return null;
    const others = withCutout.filter((v) => v.id !== variant.id);
    return candidatesFor(variant, others, scenes, templates, palette);
  }, [variant, withCutout, scenes, templates, palette]);
  const choose = (id: string) => setParams((p) => (p.set('variant', id), p), { replace: true });
  return { withCutout, variant, choose, all };
}

/** A picture's main colours; none where they cannot be found. */
function usePalette(picture: string | null): string[] | null {
  const [palette, setPalette] = useState<string[] | null>(null);
  useEffect(() => {
    if (!picture) return;
    let here = true;
    paletteOfPicture(picture)
      .then((p) => here && setPalette(p))
      .catch(() => here && setPalette([]));
    return () => {
      here = false;
    };
  }, [picture]);
  return palette;
}
