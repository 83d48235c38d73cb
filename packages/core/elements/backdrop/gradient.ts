import Joi from 'joi';
import type { Canvas2D, Gradient } from '../../raster/canvas';
import { parseHex } from '../../raster/colour';
import { createRgba, type Rgba } from '../../raster/pixels';
import { colourSchema } from '../../raster/schemas';

export interface GradientStop {
  /** 0 at the start to 1 at the end. */
  at: number;
  colour: string;
}

export const GRADIENT_FORMS = ['linear', 'mirrored', 'radial', 'conic', 'diamond'] as const;

/** Runs from one place of the frame to another; places as shares of the frame's width and height. */
export interface GradientFill {
  type: 'gradient';
  form: (typeof GRADIENT_FORMS)[number];
  from: { x: number; y: number };
  to: { x: number; y: number };
  stops: GradientStop[];
}

const place = Joi.object({
  x: Joi.number().min(-3).max(4).required(),
  y: Joi.number().min(-3).max(4).required(),
}).required();

export const gradientSchema = Joi.object({
  type: Joi.string(),
  form: Joi.string()
    .valid(...GRADIENT_FORMS)
    .required(),
  from: place,
  to: place,
  stops: Joi.array()
    .items(Joi.object({ at: Joi.number().min(0).max(1).required(), colour: colourSchema.required() }))
    .min(2)
    .max(64)
    .required(),
});

/** Fills the frame. Forms that a canvas does not have are computed, as `derived` bitmaps. */
export function fillGradient(
  fill: GradientFill,
  canvas: Canvas2D,
  frame: { width: number; height: number },
  computed: (make: () => Rgba) => object,
): void {
  const { width, height } = frame;
  const [x0, y0] = [fill.from.x * width, fill.from.y * height];
  const [x1, y1] = [fill.to.x * width, fill.to.y * height];
  if (fill.form === 'conic' || fill.form === 'diamond') {
    canvas.imageSmoothingEnabled = true;
    canvas.drawImage(
      computed(() => computeGradient(fill, frame)),
      0,
      0,
      width,
      height,
    );
    return;
  }
  const gradient =
    fill.form === 'radial'
      ? canvas.createRadialGradient(x0, y0, 0, x0, y0, Math.max(1, Math.hypot(x1 - x0, y1 - y0)))
      : fill.form === 'linear'
        ? canvas.createLinearGradient(x0, y0, x1, y1)
        : canvas.createLinearGradient(2 * x0 - x1, 2 * y0 - y1, x1, y1);
  const stops = fill.form === 'mirrored' ? mirrored(fill.stops) : fill.stops;
  canvas.fillStyle = withStops(gradient, stops);
  canvas.fillRect(0, 0, width, height);
}

/** The same run on both sides of the start. */
function mirrored(stops: GradientStop[]): GradientStop[] {
  const right = stops.map((s) => ({ ...s, at: 0.5 + s.at / 2 }));
  const left = stops.map((s) => ({ ...s, at: 0.5 - s.at / 2 })).reverse();
  return [...left, ...right];
}

function withStops(gradient: Gradient, list: GradientStop[]): Gradient {
  for (const stop of list) gradient.addColorStop(stop.at, stop.colour);
  return gradient;
}

/** Long side at which a gradient is computed: it has no finer detail than its creases. */
const COMPUTED = 1200;

export function computeGradient(fill: GradientFill, frame: { width: number; height: number }): Rgba {
  const k = Math.min(1, COMPUTED / Math.max(frame.width, frame.height));
  const width = Math.max(1, Math.round(frame.width * k));
  const height = Math.max(1, Math.round(frame.height * k));
  const out = createRgba(width, height);
  const stops = fill.stops.map((s) => ({ at: s.at, rgb: parseHex(s.colour) })).sort((a, b) => a.at - b.at);
  const [x0, y0] = [fill.from.x * width, fill.from.y * height];
  const [dx, dy] = [fill.to.x * width - x0, fill.to.y * height - y0];
  const length = Math.max(1, Math.hypot(dx, dy));
  const start = Math.atan2(dy, dx);
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o += 4) {
      const px = x + 0.5 - x0;
      const py = y + 0.5 - y0;
      let t: number;
      if (fill.form === 'conic') {
        t = (Math.atan2(py, px) - start) / (2 * Math.PI);
        t -= Math.floor(t);
      } else {
        const along = Math.abs(px * dx + py * dy) / length;
        const across = Math.abs(py * dx - px * dy) / length;
        t = (along + across) / length;
      }
      colourAt(stops, t, out.data, o);
    }
  return out;
}

function colourAt(
  stops: { at: number; rgb: [number, number, number] }[],
  t: number,
  out: Uint8ClampedArray,
  o: number,
): void {
  let i = 0;
  while (i < stops.length - 2 && t > stops[i + 1].at) i++;
  const [a, b] = [stops[i], stops[i + 1]];
  const share = b.at > a.at ? Math.min(1, Math.max(0, (t - a.at) / (b.at - a.at))) : t >= b.at ? 1 : 0;
  for (let c = 0; c < 3; c++) out[o + c] = a.rgb[c] + (b.rgb[c] - a.rgb[c]) * share;
  out[o + 3] = 255;
}
