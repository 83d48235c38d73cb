import { backdropKind, type BackdropElement } from './backdrop/model';
import { badgeKind, type BadgeElement } from './badge/model';
import { calloutKind, type CalloutElement } from './callout/model';
import { insetKind, type InsetElement } from './inset/model';
import { logoKind, type LogoElement } from './logo/model';
import { measureKind, type MeasureElement } from './measure/model';
import { pairKind, type PairElement } from './pair/model';
import { pictureKind, type PictureElement } from './picture/model';
import { productKind, type ProductElement } from './product/model';
import { shapeKind, type ShapeElement } from './shape/model';
import { starsKind, type StarsElement } from './stars/model';
import { unknownKind } from './unknown/model';
import { textKind, type TextElement } from './text/model';
import { watermarkKind, type WatermarkElement } from './watermark/model';
import { hasEffects, scaledEffects } from '../raster/effects';
import type { ElementBase } from './base';
import type { ElementKind } from './element';

export type ShotElement =
  | BackdropElement
  | ProductElement
  | TextElement
  | PictureElement
  | BadgeElement
  | StarsElement
  | LogoElement
  | WatermarkElement
  | InsetElement
  | PairElement
  | ShapeElement
  | MeasureElement
  | CalloutElement;

const KINDS = new Map<string, ElementKind>();

/** Makes a kind known. Its `kind` must be new. */
function register<E extends ElementBase>(kind: ElementKind<E>): void {
  if (KINDS.has(kind.kind)) throw new Error(`The element kind "${kind.kind}" is registered twice.`);
  KINDS.set(kind.kind, kind);
}

register(backdropKind);
register(productKind);
register(textKind);
register(pictureKind);
register(badgeKind);
register(starsKind);
register(logoKind);
register(watermarkKind);
register(insetKind);
register(pairKind);
register(shapeKind);
register(measureKind);
register(calloutKind);

/** The definition of a kind; of one that this version does not know, what such elements are taken for. */
export const elementKind = (kind: string): ElementKind => KINDS.get(kind) ?? unknownKind;

/** Whether this version knows the element's kind; what it does not know is kept and not painted. */
export const isKnown = (element: Pick<ElementBase, 'kind'>): boolean => KINDS.has(element.kind);

/** A ground fills the frame: it is not moved, copied or blended. */
export const isGround = (element: Pick<ShotElement, 'kind'>): boolean =>
  elementKind(element.kind).role === 'ground';

export function elementKinds(): ElementKind[] {
  return [...KINDS.values()];
}

/** An element with all its lengths but its box multiplied by `factor`. */
export function scaledElement(element: ShotElement, factor: number): ShotElement {
  const scaled = elementKind(element.kind).scaled(element, factor) as ShotElement;
  return hasEffects(scaled.effects) ? { ...scaled, effects: scaledEffects(scaled.effects, factor) } : scaled;
}
