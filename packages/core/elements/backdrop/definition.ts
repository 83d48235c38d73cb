import Joi from 'joi';
import { drawPicture, levelPixels } from '../../paint/draw-picture';
import type { Canvas2D, PaintEnvironment } from '../../paint/environment';
import { createRgba, type Rgba } from '../../raster/pixels';
import { resize } from '../../raster/resample';
import { adjustHex, adjustPicture, isAdjusted, type GroundAdjust } from '../../stage/ground-colour';
import { colourSchema, hashSchema, type ElementBase, type ElementKind } from '../element';
import { fillGradient, gradientSchema, type GradientFill } from './gradient';
import { paintSet, setSchema, type SetFill } from './set';
import { surveySchema, type SceneSurvey } from './survey';

export type Fill =
  | { type: 'colour'; colour: string }
  | GradientFill
  | SetFill
  /** A scene picture; `focus` is the place to keep in view, as a share of the picture. */
  | { type: 'scene'; picture: string; focus: { x: number; y: number }; survey: SceneSurvey };

export interface BackdropElement extends ElementBase {
  kind: 'backdrop';
  fill: Fill;
  /** Hue, saturation and lightness of the background alone. */
  adjust: GroundAdjust;
  /** Darkened edges: how much, and how far in they reach, 0..1. */
  edges: { strength: number; reach: number };
}

const share = Joi.number().min(0).max(1).required();
const signed = Joi.number().min(-1).max(1).required();

const fillSchema = Joi.alternatives()
  .conditional('.type', {
    switch: [
      { is: 'colour', then: Joi.object({ type: Joi.string(), colour: colourSchema.required() }) },
      { is: 'gradient', then: gradientSchema },
      { is: 'set', then: setSchema },
      {
        is: 'scene',
        then: Joi.object({
          type: Joi.string(),
          picture: hashSchema.required(),
          focus: Joi.object({ x: share, y: share }).required(),
          survey: surveySchema.required(),
        }),
      },
    ],
    otherwise: Joi.forbidden().messages({ 'any.unknown': 'a backdrop is a colour, gradient, set or scene' }),
  })
  .required();

/** The ground of the picture: a colour, a gradient, a set made here, or a scene. Its box is the frame, or the scene's picture where it lies. */
export const backdropKind: ElementKind<BackdropElement> = {
  kind: 'backdrop',
  title: 'Backdrop',
  role: 'ground',
  schema: {
    fill: fillSchema,
    adjust: Joi.object({
      hue: Joi.number().min(-180).max(180).required(),
      saturation: signed,
      lightness: signed,
    }).required(),
    edges: Joi.object({ strength: share, reach: share }).required(),
  },
  needs: ({ fill }) => ({
    pictures:
      fill.type === 'scene' ? [fill.picture, ...(fill.survey.occluder ? [fill.survey.occluder] : [])] : [],
    fonts: [],
  }),
  scaled: (element) => element,
  paint(element, canvas, environment) {
    const { fill, box, adjust } = element;
    const { frame } = environment;
    if (fill.type === 'scene') drawScene(fill.picture, box, adjust, canvas, environment);
    else if (fill.type === 'colour') {
      canvas.fillStyle = adjustHex(fill.colour, adjust);
      canvas.fillRect(0, 0, frame.width, frame.height);
    } else if (fill.type === 'gradient') {
      const stops = fill.stops.map((s) => ({ ...s, colour: adjustHex(s.colour, adjust) }));
      const changed = { ...fill, stops };
      fillGradient(changed, canvas, frame, (make) =>
        environment.derived(`gradient:${JSON.stringify(changed)}:${frame.width}:${frame.height}`, make),
      );
    } else drawSet(fill, adjust, canvas, environment);
    darkenEdges(element, canvas, frame);
  },
};

function drawScene(
  picture: string,
  box: ElementBase['box'],
  adjust: GroundAdjust,
  canvas: Canvas2D,
  environment: PaintEnvironment,
): void {
  if (!isAdjusted(adjust)) {
    drawPicture(picture, box.x, box.y, box.width, box.height, canvas, environment);
    return;
  }
  const source = environment.picture(picture);
  const level = Math.max(
    0,
    Math.floor(Math.log2(Math.max(1, source.width / (box.width * environment.scale)))),
  );
  const key = `adjusted:${picture}:${level}:${adjust.hue}:${adjust.saturation}:${adjust.lightness}`;
  const drawable = environment.derived(key, () => adjustPicture(levelPixels(source.pixels(), level), adjust));
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, box.x, box.y, box.width, box.height);
}

/** A set is computed no larger than this: beyond it materials are enlarged. */
const LARGEST_SET = 2600;

function drawSet(fill: SetFill, adjust: GroundAdjust, canvas: Canvas2D, environment: PaintEnvironment): void {
  const { width, height } = environment.frame;
  // Halves of the frame's size, so that a stage that is zoomed makes few of them.
  const wanted = Math.min(1, environment.scale, LARGEST_SET / Math.max(width, height));
  const scale = Math.min(1, 2 ** (Math.ceil(Math.log2(wanted) * 2) / 2));
  const w = Math.max(1, Math.round(width * scale));
  const h = Math.max(1, Math.round(height * scale));
  const key = `set:${JSON.stringify(fill)}:${JSON.stringify(adjust)}:${w}:${h}`;
  const drawable = environment.derived(key, () => {
    const made = paintSet(fill, w, h, w / width);
    return isAdjusted(adjust) ? adjustPicture(made, adjust) : made;
  });
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, 0, 0, width, height);
}

function darkenEdges(
  { edges }: BackdropElement,
  canvas: Canvas2D,
  { width, height }: { width: number; height: number },
): void {
  if (edges.strength <= 0) return;
  canvas.save();
  canvas.translate(width / 2, height / 2);
  canvas.scale(width / 2, height / 2);
  const inner = 1.25 * (1 - edges.reach);
  const gradient = canvas.createRadialGradient(0, 0, inner, 0, 0, Math.SQRT2);
  for (let i = 0; i <= 6; i++) {
    const t = i / 6;
    const alpha = Math.round(255 * edges.strength * t * t * (3 - 2 * t))
      .toString(16)
      .padStart(2, '0');
    gradient.addColorStop(t, `#000000${alpha}`);
  }
  canvas.fillStyle = gradient;
  canvas.fillRect(-1, -1, 2, 2);
  canvas.restore();
}

/** The scene's foreground drawn again over the products behind it. */
export function paintForeground(
  element: BackdropElement,
  canvas: Canvas2D,
  environment: PaintEnvironment,
): void {
  const { fill, box, adjust } = element;
  if (fill.type !== 'scene' || !fill.survey.occluder) return;
  const mask = fill.survey.occluder;
  const source = environment.picture(fill.picture);
  const level = Math.max(
    0,
    Math.floor(Math.log2(Math.max(1, source.width / (box.width * environment.scale)))),
  );
  const key = `foreground:${fill.picture}:${mask}:${level}:${JSON.stringify(adjust)}`;
  const drawable = environment.derived(key, () => {
    const picture = levelPixels(source.pixels(), level);
    const cover = resize(environment.picture(mask).pixels(), picture.width, picture.height);
    const out: Rgba = createRgba(picture.width, picture.height);
    const coloured = isAdjusted(adjust) ? adjustPicture(picture, adjust) : picture;
    out.data.set(coloured.data);
    for (let j = 0; j < out.data.length; j += 4) out.data[j + 3] = cover.data[j + 1];
    return out;
  });
  canvas.save();
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, box.x, box.y, box.width, box.height);
  canvas.restore();
}
