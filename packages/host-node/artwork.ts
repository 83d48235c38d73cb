import { alphaPlane, boundsAbove, crop, type Rgba } from '@scenograph/core/raster/pixels';
import { covers, hasWhiteGround } from '@scenograph/core/surface/artwork';
import sharp from 'sharp';
import { encodePng } from './encode';
import {
  decodePicture,
  identifyPicture,
  MAX_PIXELS,
  RefusedPicture,
  takePicture,
  type PictureFormat,
} from './read-picture';
import { inkSvg, svgColours, svgFonts } from './svg-colours';

/** A design ready to be printed: trimmed, as straight-alpha PNG. */
export interface Artwork {
  png: Buffer;
  width: number;
  height: number;
  /** The colours of an SVG, most used first; empty for pixels. */
  colours: string[];
  /** Whether it lies on white paper that could be knocked out. */
  whiteGround: boolean;
  /** Whether nothing of it is clear. */
  covers: boolean;
  notes: string[];
}

/** SVGs are drawn so large; sharp at any print that a listing shows. */
const DRAWN_SIDE = 4000;
const SMALLEST = 8;

export interface ArtworkOptions {
  /** Take clear margins away; otherwise the design keeps its own frame. */
  trim?: boolean;
}

/**
 * Takes a design in (SVG, PNG, JPEG or WebP): checks it, draws an SVG large, trims what is clear around it. Throws
 * RefusedPicture with what is wrong and what to do.
 */
export async function takeArtwork(
  name: string,
  bytes: Buffer,
  { trim = true }: ArtworkOptions = {},
): Promise<Artwork> {
  const accept: PictureFormat[] = ['svg', 'png', 'jpeg', 'webp'];
  if (identifyPicture(name, bytes, accept) === 'svg') return drawSvg(name, bytes.toString('utf8'), trim);
  const taken = await takePicture(name, bytes, accept);
  const image = await decodePicture(taken.working?.bytes ?? bytes);
  return finish(name, image, [], taken.notes, trim);
}

/** An SVG's design with some of its colours changed. */
export async function drawInked(name: string, svg: string, inks: Record<string, string>): Promise<Artwork> {
  return drawSvg(name, inkSvg(svg, inks), true);
}

async function drawSvg(name: string, svg: string, trim: boolean): Promise<Artwork> {
  const bytes = Buffer.from(inkSvg(svg, {}));
  let image: Rgba;
  try {
    const meta = await sharp(bytes).metadata();
    const side = Math.max(meta.width, meta.height);
    const density = Math.min(100_000, Math.max(1, (72 * DRAWN_SIDE) / side));
    const { data, info } = await sharp(bytes, { density, limitInputPixels: MAX_PIXELS })
      .resize({ width: DRAWN_SIDE, height: DRAWN_SIDE, fit: 'inside' })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    image = { width, height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.byteLength) };
  } catch {
    throw new RefusedPicture(
      `"${name}" is an SVG that cannot be drawn; give it a width, a height and a viewBox and save it again.`,
    );
  }
  const fonts = svgFonts(svg);
  const notes = fonts.length
    ? [
        `its text asks for ${fonts.map((f) => `"${f}"`).join(', ')}; where a font is not on this machine another is drawn. Turn text into outlines to be sure`,
      ]
    : [];
  return finish(name, image, svgColours(svg), notes, trim);
}

async function finish(
  name: string,
  image: Rgba,
  colours: string[],
  notes: string[],
  trim: boolean,
): Promise<Artwork> {
  const bounds = boundsAbove(alphaPlane(image), 1 / 255);
  if (!bounds)
    throw new RefusedPicture(
      `"${name}" shows nothing: every pixel of it is clear. Check that its parts have a fill, and that its fonts are there.`,
    );
  if (Math.max(bounds.width, bounds.height) < SMALLEST)
    throw new RefusedPicture(
      `"${name}" is ${bounds.width} x ${bounds.height} pixels; a design needs at least ${SMALLEST}. Export it larger.`,
    );
  const trimmed = trim && (bounds.width < image.width || bounds.height < image.height);
  const design = trimmed ? crop(image, bounds) : image;
  return {
    png: Buffer.from(await encodePng(design)),
    width: design.width,
    height: design.height,
    colours,
    whiteGround: hasWhiteGround(design),
    covers: covers(design),
    notes: trimmed ? [...notes, 'clear margins trimmed'] : notes,
  };
}
