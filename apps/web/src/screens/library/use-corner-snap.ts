import { useCallback, useEffect, useState } from 'react';
import type { Pair } from '@scenograph/core/surface/homography';
import { nearestCorner, type Corner } from '@scenograph/core/surface/strong-corners';
import { cornersSeen } from '../../workers/surveying';

/**
 * Draws places to the strong corners of a picture; until they are found, and where the picture cannot be read, places
 * stay where they are.
 * @param within how near a corner must lie, in the survey's pixels
 */
export function useCornerSnap(url: string, width: number, within: number): (to: Pair) => Pair {
  const [corners, setCorners] = useState<Corner[]>([]);
  useEffect(() => {
    let here = true;
    setCorners([]);
    cornersSeen(url, width).then(
      (found) => here && setCorners(found),
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [url, width]);
  return useCallback((to) => nearestCorner(corners, to, within) ?? to, [corners, within]);
}
