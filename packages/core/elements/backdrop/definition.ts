import Joi from 'joi';
import { drawPicture } from '../../paint/draw-picture';
import type { Gradient } from '../../paint/environment';
import { colourSchema, hashSchema, type ElementBase, type ElementKind } from '../element';
import { surveySchema, type SceneSurvey } from './survey';

export interface GradientStop {
  /** 0 at the start to 1 at the end. */
  at: number;
  colour: string;
}

export type Fill =
  | { type: 'colour'; colour: string }
  /** `angle` in degrees: 0 runs left to right, 90 top to bottom. */
  | { type: 'linear'; angle: number; stops: GradientStop[] }
  /** Centre as a share of the frame; radius as a share of its diagonal. */
  | { type: 'radial'; x: number; y: number; radius: number; stops: GradientStop[] }
  /** A scene picture; `focus` is the place to keep in view, as a share of the picture. */
  | { type: 'scene'; picture: string; focus: { x: number; y: number }; survey: SceneSurvey };

export interface BackdropElement extends ElementBase {
  kind: 'backdrop';
  fill: Fill;
}

const stops = Joi.array()
  .items(Joi.object({ at: Joi.number().min(0).max(1).required(), colour: colourSchema.required() }))
  .min(2)
  .max(12)
  .required();
const share = Joi.number().min(0).max(1).required();

const fillSchema = Joi.alternatives()
  .conditional('.type', {
    switch: [
      { is: 'colour', then: Joi.object({ type: Joi.string(), colour: colourSchema.required() }) },
      {
        is: 'linear',
        then: Joi.object({ type: Joi.string(), angle: Joi.number().min(-360).max(360).required(), stops }),
      },
      {
        is: 'radial',
        then: Joi.object({
          type: Joi.string(),
          x: share,
          y: share,
          radius: Joi.number().min(0.01).max(4).required(),
          stops,
        }),
      },
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
    otherwise: Joi.forbidden().messages({ 'any.unknown': 'a backdrop is a colour, linear, radial or scene' }),
  })
  .required();

/** The ground of the picture: a colour, a gradient or a scene. Its box is the frame, or the scene's picture where it lies. */
export const backdropKind: ElementKind<BackdropElement> = {
  kind: 'backdrop',
  title: 'Backdrop',
  role: 'ground',
  schema: { fill: fillSchema },
  needs: (element) => ({ pictures: element.fill.type === 'scene' ? [element.fill.picture] : [], fonts: [] }),
  scaled: (element) => element,
  paint(element, canvas, environment) {
    const { fill, box } = element;
    const { width, height } = environment.frame;
    if (fill.type === 'scene') {
      drawPicture(fill.picture, box.x, box.y, box.width, box.height, canvas, environment);
      return;
    }
    if (fill.type === 'colour') {
      canvas.fillStyle = fill.colour;
    } else if (fill.type === 'linear') {
      const a = (fill.angle * Math.PI) / 180;
      const reach = (Math.abs(width * Math.cos(a)) + Math.abs(height * Math.sin(a))) / 2;
      const dx = Math.cos(a) * reach;
      const dy = Math.sin(a) * reach;
      const gradient = canvas.createLinearGradient(
        width / 2 - dx,
        height / 2 - dy,
        width / 2 + dx,
        height / 2 + dy,
      );
      canvas.fillStyle = withStops(gradient, fill.stops);
    } else {
      const radius = fill.radius * Math.hypot(width, height);
      const x = fill.x * width;
      const y = fill.y * height;
      canvas.fillStyle = withStops(canvas.createRadialGradient(x, y, 0, x, y, radius), fill.stops);
    }
    canvas.fillRect(0, 0, width, height);
  },
};

function withStops(gradient: Gradient, list: GradientStop[]): Gradient {
  for (const stop of list) gradient.addColorStop(stop.at, stop.colour);
  return gradient;
}
