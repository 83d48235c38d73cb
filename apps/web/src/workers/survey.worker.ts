import { expose } from 'comlink';
import { findEdge } from '@scenograph/core/cutout/find-edge';
import { alphaPlane, createPlane, type Rgba } from '@scenograph/core/raster/pixels';
import { bulgeOf } from '@scenograph/core/stage/estimate-areas';
import type { Bulge } from '@scenograph/core/stage/estimate-bulge';
import { seenFocus } from '@scenograph/core/stage/depth-of-field';
import { findShade } from '@scenograph/core/stage/find-shade';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { AreaEdges, PrintArea } from '@scenograph/core/surface/area';
import type { Pair } from '@scenograph/core/surface/homography';
import { sideOutline, type SideOutline } from '@scenograph/core/surface/side-outline';
import { snapEdge } from '@scenograph/core/surface/snap-edge';
import { strongCorners, type Corner } from '@scenograph/core/surface/strong-corners';
import { reduceTo } from '@scenograph/core/raster/resample';
import { storedFile } from './stored-file';

/** Looks at a surveyed picture away from the page: its corners, its edges, how far a packet bulges. */

let last: { url: string; picture: Promise<Rgba> } | null = null;

function pictureAt(url: string): Promise<Rgba> {
  if (last?.url === url) return last.picture;
  const picture = read(url);
  last = { url, picture };
  // What could not be read is asked for again.
  picture.catch(() => {
    if (last?.picture === picture) last = null;
  });
  return picture;
}

async function read(url: string): Promise<Rgba> {
  const answer = await storedFile(url, 'The picture cannot be loaded. Reload the page and try again.');
  return pixelsOf(await answer.blob());
}

async function pixelsOf(file: Blob): Promise<Rgba> {
  const bitmap = await createImageBitmap(file);
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

function luma({ width, height, data }: Rgba) {
  const out = createPlane(width, height);
  for (let i = 0, j = 0; i < out.data.length; i++, j += 4)
    out.data[i] = 0.299 * data[j] + 0.587 * data[j + 1] + 0.114 * data[j + 2];
  return out;
}

const api = {
  /** @param width the survey's, in whose pixels the corners are given */
  async corners(url: string, width: number): Promise<Corner[]> {
    const picture = await pictureAt(url);
    const k = width / picture.width;
    return strongCorners(luma(picture)).map(({ at: [x, y], strength }) => ({ at: [x * k, y * k], strength }));
  },
  async bulge(url: string, area: PrintArea, survey: SceneSurvey): Promise<Bulge | null> {
    return bulgeOf(await pictureAt(url), area, survey);
  },
  /** Outlines of the shade that lies on the ground, in the survey's pixels. */
  async shade(url: string, survey: SceneSurvey): Promise<[number, number][][]> {
    return findShade(reduceTo(await pictureAt(url), 640), survey);
  },
  /** Where the ground ends, in the survey's pixels; null where no edge is seen. */
  async groundEdge(url: string, survey: SceneSurvey): Promise<[number, number][] | null> {
    return findEdge(reduceTo(await pictureAt(url), 480), survey);
  },
  /** What the side view of an item, cut out, says of its faces; null where it shows none. */
  async side(file: Blob): Promise<SideOutline | null> {
    const picture = await pixelsOf(file).catch(() => {
      throw new Error('This file is no picture that can be read. Choose the cutout as PNG or WebP.');
    });
    const matte = alphaPlane(reduceTo(picture, 1200));
    if (matte.data.every((v) => v > 0.99))
      throw new Error('This picture has no transparency. Cut the item out first, and choose that.');
    return sideOutline(matte);
  },
  async focus(url: string, survey: SceneSurvey): Promise<SceneSurvey['focus']> {
    return seenFocus(reduceTo(await pictureAt(url), 960), survey);
  },
  /** @param reach how far beside the edges is looked, in the survey's pixels */
  async edges(url: string, edges: AreaEdges, width: number, reach: number): Promise<AreaEdges> {
    const picture = await pictureAt(url);
    const seen = luma(picture);
    const k = picture.width / width;
    const snapped = (edge: Pair[]) =>
      snapEdge(
        seen,
        edge.map(([x, y]): Pair => [x * k, y * k]),
        reach * k,
      ).map(([x, y]): Pair => [x / k, y / k]);
    return {
      top: snapped(edges.top),
      bottom: snapped(edges.bottom),
      left: edges.left && snapped(edges.left),
      right: edges.right && snapped(edges.right),
    };
  },
};

export type SurveyWorker = typeof api;
expose(api);
