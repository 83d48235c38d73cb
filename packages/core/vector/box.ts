import Joi from 'joi';

/** A place in the frame: top left corner and size before turning, in frame pixels; `rotation` in degrees clockwise about the centre. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
  rotation: number;
}

const length = Joi.number().min(-100000).max(100000);

export const boxSchema = Joi.object({
  x: length.required(),
  y: length.required(),
  width: Joi.number().greater(0).max(100000).required(),
  height: Joi.number().greater(0).max(100000).required(),
  rotation: Joi.number().min(-360).max(360).required(),
});

/**
 * The box in another size, with one of its points where it was.
 * @param still the point that keeps its place, as shares of the box before it is turned: 0, 0 is its top left corner
 */
export function resizedBox(box: Box, width: number, height: number, still: { x: number; y: number }): Box {
  const a = (box.rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  /** From the middle of a box of this size to the point, turned. */
  const toStill = (w: number, h: number) => {
    const [u, v] = [(still.x - 0.5) * w, (still.y - 0.5) * h];
    return { x: u * cos - v * sin, y: u * sin + v * cos };
  };
  const [from, to] = [toStill(box.width, box.height), toStill(width, height)];
  return {
    x: box.x + box.width / 2 + from.x - to.x - width / 2,
    y: box.y + box.height / 2 + from.y - to.y - height / 2,
    width,
    height,
    rotation: box.rotation,
  };
}

/** The upright rectangle around a turned box. */
export function uprightBounds(box: Box): { x: number; y: number; width: number; height: number } {
  const a = (box.rotation * Math.PI) / 180;
  const width = Math.abs(box.width * Math.cos(a)) + Math.abs(box.height * Math.sin(a));
  const height = Math.abs(box.width * Math.sin(a)) + Math.abs(box.height * Math.cos(a));
  return { x: box.x + (box.width - width) / 2, y: box.y + (box.height - height) / 2, width, height };
}
