import Joi from 'joi';
import { drawPicture, levelPixels } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { createRgba, greyPlane, type Rgba } from '../../raster/pixels';
import { resize, resizePlane } from '../../raster/resample';
import { areaPxPerMm, artworkDensity, printOfVariant } from '../../surface/print';
import {
  areasCover,
  isWorked,
  itemWorkSchema,
  printItem,
  type BlankItem,
  type ItemWork,
} from '../../surface/print-item';
import { adjustHex, adjustPicture, isAdjusted, type GroundAdjust } from '../../stage/ground-colour';
import { colourSchema, hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { fillGradient, gradientSchema, type GradientFill } from './gradient';
import { paintSet, setSchema, type SetFill } from '../../stage/set';
import { surveySchema, surveyView, type SceneSurvey } from '../../stage/survey';

export type Fill = { type: 'colour'; colour: string } | GradientFill | SetFill | SceneFill;

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
    otherwise: Joi.forbidden().messages({ 'any.unknown': 'a backdrop is a colour, gradient, set or scene' }),
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
  paintItem(element, canvas, environment) {
    const { fill, box } = element;
    if (fill.type !== 'scene' || !fill.survey.areas.length) return;
    const shown = shownPicture(fill);
    const key = `item:${shown}:${fill.survey.outline}:${JSON.stringify(fill.survey.areas)}`;
    const drawable = environment.derived(key, () => itemCover(fill, environment));
    canvas.drawImage(drawable, box.x, box.y, box.width, box.height);
  },
  paint(element, canvas, environment) {
    const { fill, box, adjust } = element;
    const { frame } = environment;
    if (fill.type === 'scene') drawScene(fill, box, adjust, canvas, environment);
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

/** The picture that shows: the one in which marks were covered, or the picture itself. */
export const shownPicture = ({ picture, survey }: SceneFill) => survey.mended ?? picture;

function scenePictures(fill: SceneFill): string[] {
  const { survey, item } = fill;
  const outline = survey.outline ? [survey.outline] : [];
  const artwork = item.prints.filter((p) => !p.hidden).map((p) => p.artwork);
  return [shownPicture(fill), ...(survey.occluder ? [survey.occluder] : []), ...outline, ...artwork];
}

/** What the painter needs to know of a mockup's blank. */
export function blankOf({ survey }: SceneFill): BlankItem {
  return { ...surveyView(survey), areas: survey.areas };
}

function drawScene(
  fill: SceneFill,
  box: ElementBase['box'],
  adjust: GroundAdjust,
  canvas: Canvas2D,
  environment: PaintEnvironment,
): void {
  const picture = shownPicture(fill);
  const worked = isWorked(fill.item);
  if (!isAdjusted(adjust) && !worked) {
    drawPicture(picture, box.x, box.y, box.width, box.height, canvas, environment);
    return;
  }
  const source = environment.picture(picture);
  const level = Math.max(
    0,
    Math.floor(Math.log2(Math.max(1, source.width / (box.width * environment.scale)))),
  );
  const { prints, colour, shade } = fill.item;
  const done = worked ? JSON.stringify([prints, colour, shade, fill.survey.areas, fill.survey.outline]) : '';
  const key = `scene:${picture}:${level}:${JSON.stringify(adjust)}:${done}:${worked && environment.draft}`;
  const drawable = environment.derived(key, () => {
    const plain = environment.kept(`level:${picture}:${level}`, () => levelPixels(source.pixels(), level));
    const printed = worked ? printScene(plain, fill, environment) : plain;
    return isAdjusted(adjust) ? adjustPicture(printed, adjust) : printed;
  });
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, box.x, box.y, box.width, box.height);
}

/** Long side of the picture in which an item's place is measured. */
const ITEM_SIDE = 1200;

/** The item as black with alpha: inside its outline, or where none was made on its areas. */
function itemCover(fill: SceneFill, environment: PaintEnvironment): Rgba {
  const { survey } = fill;
  const k = Math.min(1, ITEM_SIDE / Math.max(survey.width, survey.height));
  const size = { width: Math.round(survey.width * k), height: Math.round(survey.height * k) };
  const cover = survey.outline
    ? resizePlane(greyPlane(environment.picture(survey.outline).pixels()), size.width, size.height).data
    : areasCover(blankOf(fill), k, size);
  const out = createRgba(size.width, size.height);
  for (let i = 0; i < cover.length; i++) out.data[i * 4 + 3] = cover[i] * 255;
  return out;
}

function printScene(picture: Rgba, fill: SceneFill, environment: PaintEnvironment): Rgba {
  const { outline } = fill.survey;
  const mask =
    outline && environment.kept(`mask:${outline}`, () => greyPlane(environment.picture(outline).pixels()));
  return printItem(picture, blankOf(fill), fill.item, {
    key: `${shownPicture(fill)}:${outline}`,
    artwork: (hash) => environment.picture(hash).pixels(),
    outline: mask || null,
    kept: environment.kept,
    draft: environment.draft,
  });
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
  const shown = shownPicture(fill);
  const source = environment.picture(shown);
  const level = Math.max(
    0,
    Math.floor(Math.log2(Math.max(1, source.width / (box.width * environment.scale)))),
  );
  const key = `foreground:${shown}:${mask}:${level}:${JSON.stringify(adjust)}`;
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
