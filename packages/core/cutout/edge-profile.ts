import type { EdgeControls } from './recipe';

/** Width over which a photographed edge turns from opaque to clear, in pixels. */
const PHOTOGRAPHED = 2;
/** A Gaussian blur of one pixel widens the slope by so many. */
const WIDENING = 3.3;
/** The steepest slope that the controls can make, in pixels. */
export const STEEPEST = 0.2;

/** The slope of the matte across the edge, in photo pixels from the edge as it was found; outward is above 0. */
export interface EdgeProfile {
  /** Up to here the product is opaque. */
  begin: number;
  /** From here on nothing is left of it. */
  end: number;
}

/** The slope that edge controls make. */
export function profileOf({ shift, soften, crispness }: EdgeControls): EdgeProfile {
  const width = (PHOTOGRAPHED + WIDENING * soften) / (1 + 9 * crispness ** 2);
  return { begin: shift - width / 2, end: shift + width / 2 };
}

/** Edge controls that make a slope; what they say besides stays. A slope steeper than STEEPEST is held there. */
export function edgeWith(edge: EdgeControls, { begin, end }: EdgeProfile): EdgeControls {
  const width = Math.min(60 * WIDENING, Math.max(STEEPEST, end - begin));
  const shift = Math.min(40, Math.max(-40, (begin + end) / 2));
  const wider = width >= PHOTOGRAPHED;
  return {
    ...edge,
    shift,
    soften: wider ? (width - PHOTOGRAPHED) / WIDENING : 0,
    crispness: wider ? 0 : Math.min(1, Math.sqrt((PHOTOGRAPHED / width - 1) / 9)),
  };
}

/** Slopes for what is cut out: hard goods have a clean edge, cloth keeps its own, fibres want room. */
export const EDGE_PRESETS: readonly {
  id: string;
  title: string;
  edge: Pick<EdgeControls, 'shift' | 'soften' | 'smooth' | 'crispness'>;
}[] = [
  { id: 'found', title: 'As found', edge: { shift: 0, soften: 0, smooth: 0, crispness: 0 } },
  { id: 'hard', title: 'Hard goods', edge: { shift: -0.3, soften: 0, smooth: 3, crispness: 0.25 } },
  { id: 'cloth', title: 'Cloth', edge: { shift: 0, soften: 0.4, smooth: 1, crispness: 0 } },
  { id: 'fibre', title: 'Fibre', edge: { shift: 0.4, soften: 0.8, smooth: 0, crispness: 0 } },
];
