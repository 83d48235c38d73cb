import { drawPicture, levelPixels } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { createRgba, greyPlane, type Rgba } from '../../raster/pixels';
import { resize, resizePlane } from '../../raster/resample';
import { areasCover, isWorked, printItem, type BlankItem } from '../../surface/print-item';
import { adjustHex, adjustPicture, isAdjusted, type GroundAdjust } from '../../stage/ground-colour';
import type { ElementBase } from '../base';
import { fillGradient } from './gradient';
import { paintSet, type SetFill } from '../../stage/set';
import { surveyView } from '../../stage/survey';
import type { ElementPainter } from '../painter';
import { SceneFill, BackdropElement, shownPicture } from './model';

export const backdropPainter: ElementPainter<BackdropElement> = {
  inVectors: ({ fill, edges }) =>
    fill.type === 'transparent' || (fill.type === 'colour' && edges.strength <= 0),
  paintForeground,
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
    if (fill.type === 'transparent') return;
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
    drawPicture(picture, box, canvas, environment);
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
function paintForeground(element: BackdropElement, canvas: Canvas2D, environment: PaintEnvironment): void {
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
