/** What an item is made of where it is printed, and how ink behaves there. */
export const MATERIALS = ['paper', 'cloth', 'ceramic', 'wood', 'metal'] as const;
export type PrintMaterial = (typeof MATERIALS)[number];

export type Lay = 'multiply' | 'opaque';

/** How ink shows on a material. */
export interface InkBehaviour {
  title: string;
  /** Where print looks real: full ink hides what it lies on. */
  opacity: number;
  /** How much of the weave or grain shows through, 0..1. */
  grain: number;
  /** How far the ink spreads into the stock, in mm. */
  spreadMm: number;
  /** How much of the blank's highlights lies over the ink, 0..1. */
  gloss: number;
  /** How far folds carry the design with them, 0..1. */
  folds: number;
}

/** Starting values by material; screen print on cloth and paper, glaze transfer on ceramic, pad print on wood and metal. */
export const INK: Record<PrintMaterial, InkBehaviour> = {
  paper: { title: 'Paper', opacity: 0.94, grain: 1, spreadMm: 0.06, gloss: 0.25, folds: 0.1 },
  cloth: { title: 'Cloth', opacity: 0.9, grain: 1, spreadMm: 0.15, gloss: 0, folds: 0.6 },
  ceramic: { title: 'Ceramic', opacity: 0.96, grain: 0.85, spreadMm: 0.02, gloss: 1, folds: 0 },
  wood: { title: 'Wood', opacity: 0.88, grain: 1, spreadMm: 0.12, gloss: 0.3, folds: 0 },
  metal: { title: 'Metal', opacity: 0.92, grain: 0.7, spreadMm: 0.02, gloss: 1, folds: 0 },
};

/** Full ink over a white layer hides what it lies on. */
export function usualOpacity(material: PrintMaterial, lay: Lay): number {
  return lay === 'opaque' ? 1 : INK[material].opacity;
}

/** How ink is laid where nothing else is asked: over a white layer on dark stock, multiplied on light. */
export function usualLay(stock: 'light' | 'dark'): Lay {
  return stock === 'dark' ? 'opaque' : 'multiply';
}
