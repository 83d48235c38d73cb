/** What of a slot decides how a shot is arranged in it; a spec sheet's slot has these and more. */
export interface SlotFrame {
  /** Pixels. */
  width: number;
  height: number;
  background: { kind: 'white' | 'transparent' | 'any' };
  /** Longer side of the products' bounds as a share of the frame's side; null is not limited. */
  coverage: { min: number | null; max: number | null; wanted: number | null };
  /** Clear space around the products, as a share of the frame's shorter side. */
  marginShare: number;
  /** Space at the frame's edge that overlays keep clear, as a share of the shorter side. */
  safeShare: number;
}
