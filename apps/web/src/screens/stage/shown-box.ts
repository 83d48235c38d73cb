import type { ShotElement } from '@scenograph/core/elements/index';
import { isProduct } from '@scenograph/core/elements/product/model';
import type { Ground } from '@scenograph/core/stage/ground';
import { coveredRect } from '@scenograph/core/stage/lay-on-plane';
import { groundPlacement } from '@scenograph/core/stage/stand';
import type { Box } from '@scenograph/core/vector/box';

type Frame = { width: number; height: number };

/** Where an element is seen: what lies flat on a ground shows shorter than its box. */
export function shownBox(e: ShotElement, ground: Ground | null, frame: Frame): Box {
  if (!isProduct(e) || e.pose !== 'flat' || !ground) return e.box;
  const standing = groundPlacement(e, ground, frame);
  if (!standing) return e.box;
  const [w, h] = [e.box.width / standing.scale / 2, e.box.height / standing.scale / 2];
  const turned = {
    ...standing.stand,
    facing: standing.stand.facing - (e.box.rotation * Math.PI) / 180,
  };
  const rect = coveredRect(standing.camera, turned, { x0: -w, y0: -h, x1: w, y1: h }, frame);
  return rect ? { ...rect, rotation: 0 } : e.box;
}

/**
 * An element's box after a handle has made `box` of the one that is seen: what lies in perspective is scaled and turned by as
 * much.
 * @param frame of the picture, in its pixels
 */
export function boxFromShown(e: ShotElement, box: Box, ground: Ground | null, frame: Frame): Box {
  const shown = shownBox(e, ground, frame);
  if (shown === e.box) return box;
  const k = box.width / shown.width;
  const [width, height] = [e.box.width * k, e.box.height * k];
  return {
    x: e.box.x + (e.box.width - width) / 2,
    y: e.box.y + (e.box.height - height) / 2,
    width,
    height,
    rotation: e.box.rotation + box.rotation,
  };
}
