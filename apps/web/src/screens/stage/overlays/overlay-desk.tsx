import type { ComponentType } from 'react';
import { applyBrand, type BrandKit } from '@scenograph/core/brand/kit';
import type { Box } from '@scenograph/core/elements/element';
import type { ShotElement } from '@scenograph/core/elements/index';
import { BadgeDesk } from './badge-desk';
import { CalloutDesk } from './callout-desk';
import { InsetDesk } from './inset-desk';
import { LogoDesk } from './logo-desk';
import { MeasureDesk } from './measure-desk';
import { PairDesk } from './pair-desk';
import { ShapeDesk } from './shape-desk';
import { StarsDesk } from './stars-desk';
import { TextDesk } from './text-desk';
import { WatermarkDesk } from './watermark-desk';

/** What the desk of an overlay is given. */
export interface OverlayDeskProps<E extends ShotElement = ShotElement> {
  /** As it is written in the base or the slot, with its placeholders, in the base's lengths, in the brand's colours. */
  element: E;
  /** Where it lies in the frame on the stage. */
  placed: Box;
  /** Everything on the stage, resolved. */
  elements: readonly ShotElement[];
  frame: { width: number; height: number };
  during(patch: Partial<ShotElement>): void;
  commit(label: string, patch: Partial<ShotElement>): void;
}

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
