import { backdropPainter } from './backdrop/paint';
import { badgePainter } from './badge/paint';
import { calloutPainter } from './callout/paint';
import { insetPainter } from './inset/paint';
import { logoPainter } from './logo/paint';
import { measurePainter } from './measure/paint';
import { pairPainter } from './pair/paint';
import { picturePainter } from './picture/paint';
import { productPainter } from './product/paint';
import { shapePainter } from './shape/paint';
import { starsPainter } from './stars/paint';
import { textPainter } from './text/paint';
import { watermarkPainter } from './watermark/paint';
import { isKnown, type ShotElement } from './index';
import type { ElementPainter } from './painter';

/** A painter for every kind: one that is missing does not compile. */
const PAINTERS: { [K in ShotElement['kind']]: ElementPainter<Extract<ShotElement, { kind: K }>> } = {
  backdrop: backdropPainter,
  badge: badgePainter,
  callout: calloutPainter,
  inset: insetPainter,
  logo: logoPainter,
  measure: measurePainter,
  pair: pairPainter,
  picture: picturePainter,
  product: productPainter,
  shape: shapePainter,
  stars: starsPainter,
  text: textPainter,
  watermark: watermarkPainter,
};

/** Paints nothing. */
const unknownPainter: ElementPainter = { paint: () => undefined };

/** The painter of a kind; what this version does not know is not painted. */
export const elementPainter = (kind: string): ElementPainter =>
  isKnown({ kind }) ? PAINTERS[kind as ShotElement['kind']] : unknownPainter;
