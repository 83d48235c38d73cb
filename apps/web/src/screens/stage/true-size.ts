import { isProduct } from '@scenograph/core/elements/product/model';
import type { ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { pitchNote, groundPlacement, type GroundPlacement } from '@scenograph/core/stage/stand';
import { msg } from '../../language/language';

export interface TrueSize {
  standing: GroundPlacement;
  /** Frame pixels a millimetre of the product as drawn. */
  pxPerMm: number;
  /** 1 is true to size. */
  ratio: number;
}

/** How a standing product's size compares with its real one, where scene and millimetres are known. */
export function trueSize(shot: ResolvedShot, element: ShotElement): TrueSize | null {
  if (!isProduct(element)) return null;
  const standing = groundPlacement(element, groundOf(shot.elements), shot);
  if (!standing || standing.ratio === null) return null;
  return { standing, pxPerMm: standing.pxPerMm, ratio: standing.ratio };
}

/** What is worth saying of how a product stands, in sentences. */
export function standNotes(shot: ResolvedShot, element: ShotElement): string[] {
  if (!isProduct(element) || element.pose === 'flat') return [];
  const ground = groundOf(shot.elements);
  const standing = groundPlacement(element, ground, shot);
  if (!ground) return [];
  if (!standing)
    return [
      msg(
        'Its base is above the horizon here: nothing could stand there. Move it down, or let it float before a plain backdrop.',
      ),
    ];
  const notes: string[] = [];
  if (!element.millimetres)
    notes.push(
      msg(
        'This product knows no millimetres: it is sized by eye. Give its size on the Products page to have it true.',
      ),
    );
  const pitch = pitchNote(standing, element.pitchDeg !== null);
  if (pitch) notes.push(pitch);
  return notes;
}
