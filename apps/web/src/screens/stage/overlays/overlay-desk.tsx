import type { ComponentType } from 'react';
import { applyBrand, type BrandKit } from '@scenograph/core/brand/kit';
import type { ShotElement } from '@scenograph/core/elements/index';
import { BadgeDesk } from './badge-desk';
import { CalloutDesk } from './callout-desk';
import { InsetDesk } from './inset-desk';
import { LogoDesk } from './logo-desk';
import { MeasureDesk } from './measure-desk';
import type { OverlayDeskProps } from './overlay-desk-props';
import { PairDesk } from './pair-desk';
import { ShapeDesk } from './shape-desk';
import { StarsDesk } from './stars-desk';
import { TextDesk } from './text-desk';
import { WatermarkDesk } from './watermark-desk';

const DESKS: Partial<Record<ShotElement['kind'], unknown>> = {
  text: TextDesk,
  badge: BadgeDesk,
  stars: StarsDesk,
  logo: LogoDesk,
  watermark: WatermarkDesk,
  inset: InsetDesk,
  pair: PairDesk,
  shape: ShapeDesk,
  measure: MeasureDesk,
  callout: CalloutDesk,
};

/** The desk of the chosen overlay's kind; null where it has none. */
export function overlayDesk(kind: ShotElement['kind']): ComponentType<OverlayDeskProps> | null {
  return (DESKS[kind] as ComponentType<OverlayDeskProps> | undefined) ?? null;
}

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
  return { ...applyBrand({ ...base, ...own } as ShotElement, kit), ...told } as ShotElement;
}
