import { sceneCamera, surveyView, type SceneSurvey } from './survey';
import { relativeLuminance } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { areaSurface, pillow, raised, type PictureView } from '../surface/area-surface';
import { EDGE_POINTS, type PrintArea } from '../surface/area';
import type { Pair } from '../surface/homography';
import { estimateBulge, sidesAreDrawn, type Bulge } from './estimate-bulge';

/** Stock of less luminance than this wants a white layer under the ink. */
const DARK = 0.1;

/**
 * Print areas with what their side-file leaves open taken from the picture: how far a bulge stands out, and whether
 * the stock is dark. Areas that make no surface stay as they are; they are told where they are used.
 * @param picture any size; the survey's places are in its own pixels
 */
export function estimateAreas(
  survey: SceneSurvey,
  untold: { bulge: string[]; stock: string[] },
  picture: Rgba,
): PrintArea[] {
  const view = surveyView(survey);
  return survey.areas.map((area) => {
    try {
      return {
        ...(untold.bulge.includes(area.id) ? bulged(area, bulgeOf(picture, area, survey), view) : area),
        stock: untold.stock.includes(area.id) ? stockOf(picture, area, view) : area.stock,
      };
    } catch {
      return area;
    }
  });
}

/** How far an area of a survey bulges, as its picture shows it; null where it does not show. */
export function bulgeOf(picture: Rgba, area: PrintArea, survey: SceneSurvey): Bulge | null {
  const camera = sceneCamera(survey);
  const pitchDeg = camera ? (Math.asin(-camera.rotation[8]) * 180) / Math.PI : 0;
  return estimateBulge(picture, area, { ...surveyView(survey), light: survey.light, pitchDeg });
}

/** An area that bulges so: its middle, and its sides where their edges are not given. */
export function bulged(area: PrintArea, bulge: Bulge | null, view: PictureView): PrintArea {
  if (!bulge) return area;
  const { edges } = area;
  if (!edges || sidesAreDrawn(edges) || !bulge.sideMm) return { ...area, bulgeMm: bulge.bulgeMm };
  const at = raised(area, view);
  const side = (u: number): Pair[] =>
    Array.from({ length: EDGE_POINTS }, (_, i) => {
      const v = i / (EDGE_POINTS - 1);
      return at(u, v, bulge.sideMm * pillow(0.5, v));
    });
  return { ...area, bulgeMm: bulge.bulgeMm, edges: { ...edges, left: side(0), right: side(1) } };
}

/** Whether an area's stock is light or dark, by the median luminance of places spread over it. */
function stockOf(
  picture: Rgba,
  area: PrintArea,
  view: { width: number; height: number; focal: number | null },
): PrintArea['stock'] {
  const surface = areaSurface(area, view);
  const k = picture.width / view.width;
  const seen: number[] = [];
  for (let j = 1; j < 16; j++)
    for (let i = 1; i < 16; i++) {
      const [x, y] = surface.at(i / 16, j / 16).map((c) => Math.floor(c * k));
      if (!(x >= 0 && y >= 0 && x < picture.width && y < picture.height)) continue;
      const o = (y * picture.width + x) * 4;
      seen.push(relativeLuminance(picture.data[o], picture.data[o + 1], picture.data[o + 2]));
    }
  seen.sort((a, b) => a - b);
  return seen.length && seen[seen.length >> 1] < DARK ? 'dark' : 'light';
}
