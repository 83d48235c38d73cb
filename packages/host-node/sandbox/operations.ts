import { readFile, writeFile } from 'node:fs/promises';
import type { Light } from '@scenograph/core/stage/light';
import { estimateLight } from '@scenograph/core/stage/estimate-light';
import type { ReadScene } from '@scenograph/core/stage/scene-file';
import { readScene } from '../read-scene';
import { paletteOf } from '@scenograph/core/raster/palette';
import { reduceTo } from '@scenograph/core/raster/resample';
import { drawInked, takeArtwork, type Artwork, type ArtworkOptions } from '../artwork';
import { encodeGreyPng } from '../encode';
import {
  decodeGrey,
  decodePicture,
  rasterOutline,
  sniffFormat,
  takePicture,
  type PictureFormat,
  type TakenPicture,
} from '../read-picture';
import { reducedCopy } from '../reduced-copy';
import { takeFont } from '../take-font';
import { unpackZip } from '../unpack-zip';

/**
 * What is done with files that came from outside. Every operation reads a file and leaves what it makes as a file beside
 * it, so that it can run in a process of its own (`sandbox.ts`) and no picture passes through the one that asked.
 */

/** A file from outside as it lies on disk, and what it is called where it came from. */
export interface IncomingFile {
  name: string;
  path: string;
}

/** A file that was made. */
export interface MadeFile {
  path: string;
  mime: string;
}

/** A picture taken in; `working` is null where the file itself is upright 8-bit sRGB. */
export type TakenFile = Omit<TakenPicture, 'working'> & { working: MadeFile | null };

export type ArtworkFile = Omit<Artwork, 'png'> & { format: PictureFormat; png: MadeFile };

/** A matte as grey PNG; `empty` where nothing in it is kept. */
export interface MatteFile extends MadeFile {
  width: number;
  height: number;
  empty: boolean;
}

/** A picture taken in as a scene: what is seen in it beside its size. */
export interface SceneFacts {
  light: Light;
  palette: string[];
}

const PNG = 'image/png';

async function leave(file: IncomingFile, ending: string, bytes: Uint8Array, mime: string): Promise<MadeFile> {
  const path = `${file.path}.${ending}`;
  await writeFile(path, bytes);
  return { path, mime };
}

export const operations = {
  /** Takes a picture in. Throws RefusedPicture. */
  async picture(file: IncomingFile, accept?: PictureFormat[]): Promise<TakenFile> {
    const { working, ...taken } = await takePicture(file.name, await readFile(file.path), accept);
    return { ...taken, working: working && (await leave(file, 'working', working.bytes, working.mime)) };
  },

  /** Takes a design in, drawn and trimmed. Throws RefusedPicture. */
  async artwork(file: IncomingFile, options?: ArtworkOptions): Promise<ArtworkFile> {
    const bytes = await readFile(file.path);
    const { png, ...design } = await takeArtwork(file.name, bytes, options);
    return { ...design, format: sniffFormat(bytes)!, png: await leave(file, 'png', png, PNG) };
  },

  /** An SVG's design with some of its colours changed. Throws RefusedPicture. */
  async inked(file: IncomingFile, inks: Record<string, string>): Promise<Omit<ArtworkFile, 'format'>> {
    const { png, ...design } = await drawInked(file.name, await readFile(file.path, 'utf8'), inks);
    return { ...design, png: await leave(file, 'png', png, PNG) };
  },

  /** A grey picture as a matte; an SVG's shapes, drawn at a size in pixels. The file must have been taken in. */
  async matte(file: IncomingFile, svgSize: { width: number; height: number }): Promise<MatteFile> {
    const bytes = await readFile(file.path);
    const matte =
      sniffFormat(bytes) === 'svg'
        ? await rasterOutline(bytes, svgSize.width, svgSize.height)
        : await decodeGrey(bytes);
    return {
      ...(await leave(file, 'matte', await encodeGreyPng(matte), PNG)),
      width: matte.width,
      height: matte.height,
      empty: !matte.data.some((v) => v > 0.5),
    };
  },

  /** The light and the colours of a picture that was taken in as a scene. */
  async sceneFacts(file: IncomingFile): Promise<SceneFacts> {
    const small = reduceTo(await decodePicture(await readFile(file.path)), 400);
    return { light: estimateLight(small), palette: paletteOf(small) };
  },

  /** A scene's side-file, with the areas that its picture tells estimated. Throws a sentence that names the file. */
  async scene(file: IncomingFile, picture: string): Promise<ReadScene> {
    return readScene(file.name, await readFile(file.path, 'utf8'), await readFile(picture));
  },

  /** A font as a plain one, with its names. Throws a sentence. */
  async font(file: IncomingFile): Promise<MadeFile & { family: string; style: string }> {
    const { bytes, family, style } = await takeFont(file.name, await readFile(file.path));
    return { ...(await leave(file, 'sfnt', bytes, 'font/sfnt')), family, style };
  },

  /** The files of a ZIP, each on disk. Throws a sentence where it is no ZIP or holds too much. */
  async unpack(file: IncomingFile): Promise<IncomingFile[]> {
    return unpackZip(file, `${file.path}.files`);
  },

  /** A copy of a stored picture no larger than `side` on its long side; null where the picture itself is to be sent. */
  async reduced(file: IncomingFile, side: number): Promise<MadeFile | null> {
    const made = await reducedCopy(await readFile(file.path), side);
    return made && leave(file, 'reduced', made.bytes, made.mime);
  },
};

/** What reads files from outside: in this process (`operations`), or in one of its own (`createSandbox`). */
export type Intake = typeof operations;
