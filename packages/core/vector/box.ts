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

/** The upright rectangle around a turned box. */
export function uprightBounds(box: Box): { x: number; y: number; width: number; height: number } {
  const a = (box.rotation * Math.PI) / 180;
  const width = Math.abs(box.width * Math.cos(a)) + Math.abs(box.height * Math.sin(a));
  const height = Math.abs(box.width * Math.sin(a)) + Math.abs(box.height * Math.cos(a));
  return { x: box.x + (box.width - width) / 2, y: box.y + (box.height - height) / 2, width, height };
}
