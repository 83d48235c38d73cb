import { blur } from '../raster/blur';
import { parseHex } from '../raster/colour';
import type { Plane, Rgba } from '../raster/pixels';
import { polygonCover, shapeOutline, strokeCover, type View } from '../raster/footprint';
import type { Point, RepairPiece } from './recipe';

/** A piece's closed outline in photo pixels. */
export function pieceOutline(piece: Pick<RepairPiece, 'shape' | 'points' | 'corner'>): Point[] {
  if (piece.shape === 'path') return piece.points;
  return shapeOutline(piece.shape === 'ellipse' ? 'ellipse' : 'rectangle', piece.points, piece.corner);
}

/** Lays the drawn pieces in front of and behind a cutout, in place (Porter and Duff 1984, over). */
export function addRepairs(colours: Rgba, alpha: Plane, view: View, pieces: readonly RepairPiece[]): void {
  for (const piece of pieces) {
    if (!piece.on) continue;
    const outline = pieceOutline(piece);
    const layers: [string, Plane][] = [];
    if (piece.fill) layers.push([piece.fill, polygonCover(view, outline)]);
    if (piece.outline)
      layers.push([
        piece.outline.colour,
        strokeCover(view, [...outline, outline[0]], Math.max(0.5 * view.k, piece.outline.width / 2)),
      ]);
    // Behind, the outline lies nearest to the product's back: the order turns round.
    if (piece.place === 'behind') layers.reverse();
    for (const [colour, cover] of layers)
      lay(
        colours,
        alpha,
        parseHex(colour),
        blur(cover, piece.softness / view.k / 2),
        piece.place === 'front',
      );
  }
}

function lay(
  colours: Rgba,
  alpha: Plane,
  colour: [number, number, number],
  cover: Plane,
  over: boolean,
): void {
  for (let i = 0; i < alpha.data.length; i++) {
    const c = cover.data[i];
    if (c <= 0) continue;
    const a = alpha.data[i];
    const mine = over ? c : c * (1 - a);
    const theirs = over ? a * (1 - c) : a;
    const total = mine + theirs;
    for (let k = 0; k < 3; k++)
      colours.data[i * 4 + k] = (colour[k] * mine + colours.data[i * 4 + k] * theirs) / total;
    alpha.data[i] = total;
  }
}
