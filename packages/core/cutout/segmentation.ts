import { components } from '../raster/components';
import { crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { resize, resizePlane, samplePlane } from '../raster/resample';
import { alongStroke, type View } from '../raster/footprint';
import type { Point } from './recipe';

/**
 * The segmentation model, however the host runs it: an encoder-decoder trained on made pictures (`training/`).
 * @param input `PLANES` planes of `width` x `height` floats one after another: red, green, blue in 0..1, then the hints
 *   `box` (1 inside, -1 outside, 0 where none is drawn), `keep` and `drop` (1 under a click), then `prior`, what an
 *   earlier look said (1 the product, -1 not, 0 where there was none)
 * @param width a multiple of 32, as is `height`
 * @returns 2 planes: `shape`, the coverage of the product, and `seen`, how far the ground shows through it, 0..1
 */
export interface SegmentationModel {
  answer(input: Float32Array, width: number, height: number): Promise<Float32Array>;
}

/** Planes that the model is given. */
export const PLANES = 7;

/** A line drawn with a round brush; a click is a line of one point. */
export interface HintStroke {
  side: 'keep' | 'drop';
  points: Point[];
  radius: number;
}

/** What a person has pointed out, in pixels of the picture that is segmented. */
export interface Hints {
  box: Rect | null;
  strokes: HintStroke[];
}

export const NO_HINTS: Hints = { box: null, strokes: [] };

/** What the model sees in a photo. */
export interface Segmentation {
  /** Probability that a pixel is the product's, 0..1. */
  shape: Plane;
  /** How far the ground shows through the product, 0..1. */
  seen: Plane;
  /** How far a look at the whole and a closer look agree: intersection over union, 0..1. */
  agreement: number;
}

/** Long side of the look at the whole picture, and of the looks at the part in which the product was seen. */
const WHOLE = 224;
const CLOSER = [256, 384];
/** What the looks are weighed by where all have seen a pixel; they err in different places. */
const SHARES = [0.25, 0.375, 0.375];

/**
 * The product as the model sees it: first in the whole picture, then closer and closer in the part where it was found, so
 * that small things and thin parts are seen large enough. Each look is told what the one before saw: by it the model weighs
 * what else has the same colours (recycling, as Jumper et al. 2021 call it).
 * @param picture 8-bit sRGB, at least 8 pixels on each side; the planes of the result have its size
 */
export async function segmentPhoto(
  model: SegmentationModel,
  picture: Rgba,
  hints: Hints = NO_HINTS,
): Promise<Segmentation> {
  const { width, height } = picture;
  const all: Rect = { x: 0, y: 0, width, height };
  const whole = await look(model, picture, all, WHOLE, hints, null);
  const part = closerPart(whole.shape, picture, hints);
  const looks = [whole];
  for (const side of CLOSER) looks.push(await look(model, picture, part, side, hints, looks.at(-1)!));
  const answer = combine(looks, part, width, height);
  if (hints.box) emptyOutside(answer.shape, hints.box);
  return answer;
}

/** How far a product may reach over a box drawn round it, as a share of the box's longer side. */
const BOX_SLACK = 0.04;

/** What lies outside a drawn box is none of the product's: its probability becomes 0, in place. */
function emptyOutside({ width, height, data }: Plane, box: Rect): void {
  const slack = BOX_SLACK * Math.max(box.width, box.height);
  const [left, right] = [box.x - slack, box.x + box.width + slack];
  const [top, bottom] = [box.y - slack, box.y + box.height + slack];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (x + 0.5 < left || x + 0.5 > right || y + 0.5 < top || y + 0.5 > bottom) data[y * width + x] = 0;
}

interface Look {
  /** What of the picture was looked at, in its pixels. */
  part: Rect;
  shape: Plane;
  seen: Plane;
}

/** One answer of the model about a part of the picture, at the model's own size. */
async function look(
  model: SegmentationModel,
  picture: Rgba,
  part: Rect,
  side: number,
  hints: Hints,
  before: Look | null,
): Promise<Look> {
  const k = side / Math.max(part.width, part.height);
  const fit = (v: number) => Math.max(32, Math.round((v * k) / 32) * 32);
  const [width, height] = [fit(part.width), fit(part.height)];
  const whole = part.width === picture.width && part.height === picture.height;
  const reduced = resize(whole ? picture : crop(picture, part), width, height);
  const input = modelInput(reduced, part, hints, before && priorOf(before, part, width, height));
  const answer = await model.answer(input, width, height);
  const n = width * height;
  return {
    part,
    shape: { width, height, data: answer.slice(0, n) },
    seen: { width, height, data: answer.slice(n, 2 * n) },
  };
}

/** What an earlier look said of a part of the picture, -1..1, at a size of its own. */
function priorOf({ part: seen, shape }: Look, part: Rect, width: number, height: number): Float32Array {
  const prior = new Float32Array(width * height);
  const kx = shape.width / seen.width;
  const ky = shape.height / seen.height;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const px = part.x + ((x + 0.5) * part.width) / width - seen.x;
      const py = part.y + ((y + 0.5) * part.height) / height - seen.y;
      prior[y * width + x] = 2 * samplePlane(shape, px * kx - 0.5, py * ky - 0.5) - 1;
    }
  return prior;
}

/** The model's planes for a reduced part of the picture. */
export function modelInput(
  reduced: Rgba,
  part: Rect,
  hints: Hints,
  prior: Float32Array | null = null,
): Float32Array {
  const { width, height, data } = reduced;
  const n = width * height;
  const input = new Float32Array(PLANES * n);
  if (prior) input.set(prior, 6 * n);
  for (let i = 0; i < n; i++)
    for (let c = 0; c < 3; c++) {
      // What is transparent lies on white.
      const a = data[i * 4 + 3] / 255;
      input[c * n + i] = (data[i * 4 + c] * a) / 255 + (1 - a);
    }
  const kx = width / part.width;
  const ky = height / part.height;
  if (hints.box) {
    const left = Math.round((hints.box.x - part.x) * kx);
    const top = Math.round((hints.box.y - part.y) * ky);
    const right = Math.max(left + 1, Math.round((hints.box.x + hints.box.width - part.x) * kx));
    const bottom = Math.max(top + 1, Math.round((hints.box.y + hints.box.height - part.y) * ky));
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        input[3 * n + y * width + x] = x >= left && x < right && y >= top && y < bottom ? 1 : -1;
  }
  const view: View = { width, height, left: part.x, top: part.y, k: 1 / Math.sqrt(kx * ky) };
  const least = Math.max(2, 0.006 * Math.max(width, height)) * view.k;
  for (const { side, points, radius } of hints.strokes) {
    const plane = (side === 'keep' ? 4 : 5) * n;
    alongStroke(view, points, Math.max(least, radius), 0, (i, cover) => {
      if (cover > 0.5) input[plane + i] = 1;
    });
  }
  return input;
}

/** Where to look closer, in picture pixels: the seen product or the drawn box, with room around it. */
function closerPart(shape: Plane, picture: Rgba, hints: Hints): Rect {
  const { width, height, data } = shape;
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (data[y * width + x] > 0.3) {
        left = Math.min(left, x);
        right = Math.max(right, x);
        top = Math.min(top, y);
        bottom = y;
      }
  const kx = picture.width / width;
  const ky = picture.height / height;
  let found: Rect | null =
    right < 0
      ? null
      : { x: left * kx, y: top * ky, width: (right + 1 - left) * kx, height: (bottom + 1 - top) * ky };
  if (hints.box) found = hints.box;
  if (!found) return { x: 0, y: 0, width: picture.width, height: picture.height };
  const room = 0.12 * Math.max(found.width, found.height) + 0.02 * Math.max(picture.width, picture.height);
  const x = Math.max(0, Math.floor(found.x - room));
  const y = Math.max(0, Math.floor(found.y - room));
  return {
    x,
    y,
    width: Math.max(8, Math.min(picture.width, Math.ceil(found.x + found.width + room)) - x),
    height: Math.max(8, Math.min(picture.height, Math.ceil(found.y + found.height + room)) - y),
  };
}

const logOdds = (p: number) => {
  const q = Math.min(0.999, Math.max(0.001, p));
  return Math.log(q / (1 - q));
};

/** All looks at the picture's size, averaged as log-odds; outside the closer ones' part the look at the whole stands alone. */
function combine(looks: readonly Look[], part: Rect, width: number, height: number): Segmentation {
  const [whole, ...closer] = looks;
  const closest = closer[closer.length - 1];
  const shape = resizePlane(whole.shape, width, height);
  const seen = resizePlane(whole.seen, width, height);
  let both = 0;
  let either = 0;
  for (let y = part.y; y < part.y + part.height; y++)
    for (let x = part.x; x < part.x + part.width; x++) {
      const i = y * width + x;
      const read = (plane: Plane) =>
        samplePlane(
          plane,
          ((x + 0.5 - part.x) * plane.width) / part.width - 0.5,
          ((y + 0.5 - part.y) * plane.height) / part.height - 0.5,
        );
      const first = shape.data[i];
      let odds = SHARES[0] * logOdds(first);
      let p = first;
      for (let k = 0; k < closer.length; k++) {
        p = read(closer[k].shape);
        odds += SHARES[k + 1] * logOdds(p);
      }
      if (p > 0.5 && first > 0.5) both++;
      if (p > 0.5 || first > 0.5) either++;
      shape.data[i] = 1 / (1 + Math.exp(-odds));
      seen.data[i] = read(closest.seen);
    }
  return { shape, seen, agreement: either ? both / either : 0 };
}

/**
 * A segmentation after strokes have taught the model: changes are taken only where they hang together with a stroke
 * and go its way, so that a stroke never makes something vanish, or appear, elsewhere.
 * @param before without the strokes, @param after with them, both of the picture's size
 */
export function takeTaught(
  before: Segmentation,
  after: Segmentation,
  strokes: readonly HintStroke[],
): Segmentation {
  const { width, height } = before.shape;
  const shape: Plane = { width, height, data: Float32Array.from(before.shape.data) };
  const view: View = { width, height, left: 0, top: 0, k: 1 };
  for (const side of ['keep', 'drop'] as const) {
    const mine = strokes.filter((s) => s.side === side);
    if (!mine.length) continue;
    const changed = new Uint8Array(width * height);
    for (let i = 0; i < changed.length; i++) {
      const was = before.shape.data[i] > 0.5;
      const is = after.shape.data[i] > 0.5;
      if (side === 'keep' ? is && !was : was && !is) changed[i] = 1;
    }
    const { labels, list } = components(changed, width, height);
    const touched = new Uint8Array(list.length + 1);
    for (const { points, radius } of mine)
      alongStroke(view, points, radius + 2, 0, (i, cover) => {
        if (cover > 0) touched[labels[i]] = 1;
      });
    touched[0] = 0;
    const body = before.shape.data.reduce((s, p) => s + (p > 0.5 ? 1 : 0), 0);
    for (let i = 0; i < changed.length; i++) {
      const l = labels[i];
      if (l && touched[l] && (side === 'keep' || list[l - 1].area < body * 0.5))
        shape.data[i] = after.shape.data[i];
    }
  }
  return { ...before, shape };
}
