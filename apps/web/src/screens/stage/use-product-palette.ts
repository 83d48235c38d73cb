import { useEffect, useState } from 'react';
import { isProduct } from '@scenograph/core/elements/product/model';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { paletteOfPicture } from '../../workers/painters';

/** Colours of the shot's first product. */
export function useProductPalette(resolved: ResolvedShot): string[] {
  const [palette, setPalette] = useState<string[]>([]);
  const first = resolved.elements.find(isProduct);
  const picture = first?.picture ?? null;
  useEffect(() => {
    if (!picture) return setPalette([]);
    let here = true;
    paletteOfPicture(picture)
      .then((p) => here && setPalette(p))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [picture]);
  return palette;
}
