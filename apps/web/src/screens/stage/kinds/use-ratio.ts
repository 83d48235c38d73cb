import { useEffect, useState } from 'react';
import { reducedUrl } from '../../../api/client';

/** Width against height of a stored picture; 1 until it is known. */
export function useRatio(picture: string | null): number {
  const [ratio, setRatio] = useState(1);
  useEffect(() => {
    if (!picture) return;
    const image = new Image();
    image.onload = () => setRatio(image.naturalWidth / image.naturalHeight || 1);
    image.src = reducedUrl(picture, 320);
    return () => {
      image.onload = null;
    };
  }, [picture]);
  return ratio;
}
