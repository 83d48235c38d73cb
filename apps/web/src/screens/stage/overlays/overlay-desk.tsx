import type { ComponentType } from 'react';
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
  /** As it is painted: bound to data and brand. */
  element: E;
  /** As it is written in the base or the slot, with its placeholders. */
  written: E;
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
