import Joi from 'joi';
import { areaPxPerMm, artworkDensity, printOfVariant } from '../../surface/print';
import { itemWorkSchema, type ItemWork } from '../../surface/print-item';
import { type GroundAdjust } from '../../stage/ground-colour';
import { colourSchema, hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { gradientSchema, type GradientFill } from './gradient';
import { setSchema, type SetFill } from '../../stage/set';
import { surveySchema, type SceneSurvey } from '../../stage/survey';

/** What the ground is made of; `transparent` is nothing, where files can be transparent. */
export type Fill =
  { type: 'transparent' } | { type: 'colour'; colour: string } | GradientFill | SetFill | SceneFill;

/** A scene's picture, or a mockup's with what is printed on it. */
export interface SceneFill {
  type: 'scene';
  picture: string;
  /** The place to keep in view, as a share of the picture. */
  focus: { x: number; y: number };
  /** How much closer it is framed than the frame asks for: 1 shows as much as can be shown. */
  zoom: number;
  survey: SceneSurvey;
  item: ItemWork;
}

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
      { is: 'transparent', then: Joi.object({ type: Joi.string() }) },
      { is: 'colour', then: Joi.object({ type: Joi.string(), colour: colourSchema.required() }) },
      { is: 'gradient', then: gradientSchema },
      { is: 'set', then: setSchema },
      {
        is: 'scene',
        then: Joi.object({
          type: Joi.string(),
          picture: hashSchema.required(),
          focus: Joi.object({ x: share, y: share }).required(),
          zoom: Joi.number().min(1).max(20).required(),
          survey: surveySchema.required(),
          item: itemWorkSchema.required(),
        }),
      },
    ],
    otherwise: Joi.forbidden().messages({
      'any.unknown': 'a backdrop is transparent, a colour, gradient, set or scene',
    }),
  })
  .required();

/** The ground of the picture: a colour, a gradient, a set made here, or a scene. Its box is the frame, or the scene's picture where it lies. */
export const backdropKind: ElementKind<BackdropElement> = {
  kind: 'backdrop',
  title: 'Backdrop',
  role: 'ground',
  weight: 9,
  plain: ({ edges }, ground) =>
    ground === 'clear'
      ? { hidden: true }
      : {
          fill: { type: 'colour', colour: '#ffffff' },
          adjust: { hue: 0, saturation: 0, lightness: 0 },
          edges: { ...edges, strength: 0 },
        },
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
    pictures: fill.type === 'scene' ? scenePictures(fill) : [],
    fonts: [],
  }),
  enlarged: ({ fill, box, name }, sizes) => {
    if (fill.type !== 'scene') return [];
    const size = sizes.get(shownPicture(fill)) ?? fill.survey;
    const k = box.width / fill.survey.width;
    return [
      { name, factor: box.width / size.width },
      ...fill.item.prints.flatMap((print) => {
        const area = fill.survey.areas.find((a) => a.id === print.area);
        return area && !print.hidden
          ? [{ name: print.name, factor: 1 / artworkDensity(print, areaPxPerMm(area) * k) }]
          : [];
      }),
    ];
  },
  scaled: (element) => element,
  bind(element, data, missing) {
    const { fill } = element;
    if (fill.type !== 'scene' || !data || !fill.item.prints.some((p) => p.followsVariant)) return element;
    const prints = fill.item.prints.map((p) => printOfVariant(p, data, missing));
    return { ...element, fill: { ...fill, item: { ...fill.item, prints } } };
  },
};

/** The picture that shows: the one in which marks were covered, or the picture itself. */
export const shownPicture = ({ picture, survey }: SceneFill) => survey.mended ?? picture;

function scenePictures(fill: SceneFill): string[] {
  const { survey, item } = fill;
  const outline = survey.outline ? [survey.outline] : [];
  const artwork = item.prints.filter((p) => !p.hidden).map((p) => p.artwork);
  return [shownPicture(fill), ...(survey.occluder ? [survey.occluder] : []), ...outline, ...artwork];
}

export const isBackdrop = (element: { kind: string }): element is BackdropElement =>
  element.kind === 'backdrop';
