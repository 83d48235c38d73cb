import { elementKind, type ShotElement } from '../../elements/index';
import type { ResolvedShot } from '../../shot/resolve';

/**
 * The shot as it is painted to measure where products are and which colour they have of their own: their tone is not
 * matched to the scene. `coloured` is false where no product is placed and a mockup's blank is measured instead.
 */
export function neutralShot(shot: ResolvedShot): { shot: ResolvedShot; coloured: boolean } {
  const coloured = shot.elements.some((e) => elementKind(e.kind).role === 'subject' && !e.hidden);
  const elements = shot.elements.map(
    (e) => ({ ...e, ...elementKind(e.kind).ownColours?.(e) }) as ShotElement,
  );
  return { shot: { ...shot, elements }, coloured };
}
