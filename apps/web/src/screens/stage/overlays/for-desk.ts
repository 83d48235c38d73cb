import { applyBrand, type BrandKit } from '@scenograph/core/brand/kit';
import type { ShotElement } from '@scenograph/core/elements/index';

/** What only resolving tells, and a desk shows. */
const TOLD = ['times', 'target', 'seen', 'lengthMm', 'locale'] as const;

/**
 * An element as a desk changes it. Lengths are the base's also in a slot, where they are scaled when the slot is fitted:
 * a desk that wrote the scaled ones back would have them scaled twice.
 */
export function forDesk(
  base: ShotElement,
  difference: Partial<ShotElement> | undefined,
  resolved: ShotElement,
  kit: BrandKit,
): ShotElement {
  const { box: _, ...own } = difference ?? {};
  const told = Object.fromEntries(
    TOLD.flatMap((key) =>
      key in resolved ? [[key, (resolved as unknown as Record<string, unknown>)[key]]] : [],
    ),
  );
  return { ...applyBrand({ ...base, ...own } as ShotElement, kit), ...told };
}
