import { isBackdrop } from './backdrop/model';
import type { ElementBase } from './base';
import { levelOfScale, movedCamera } from '../stage/camera';
import type { Ground } from '../stage/ground';
import { setCamera } from '../stage/set';
import { sceneCamera, type SceneSurvey } from '../stage/survey';

const levels = new WeakMap<SceneSurvey, number[]>();

/** The ground of a shot's resolved elements; null where its backdrop has no standing plane. */
export function groundOf(elements: readonly ElementBase[]): Ground | null {
  for (const element of elements) {
    if (!isBackdrop(element) || element.hidden) continue;
    const { fill, box } = element;
    if (fill.type === 'set')
      return {
        camera: setCamera(fill, box),
        light: fill.light,
        gloss: fill.gloss,
        spots: [{ id: 'centre', x: box.x + box.width / 2, y: box.y + box.height * fill.standAt, level: 0 }],
        scene: null,
        occluder: null,
        edge: null,
        k: 1,
      };
    if (fill.type !== 'scene') continue;
    const { survey } = fill;
    const own = sceneCamera(survey);
    if (!own) continue;
    const k = box.width / survey.width;
    let raised = levels.get(survey);
    if (!raised) levels.set(survey, (raised = survey.spots.map((s) => levelOfScale(own, s, s.pxPerMm))));
    return {
      camera: movedCamera(own, k, box.x, box.y),
      light: survey.light,
      gloss: survey.gloss,
      spots: survey.spots.map((s, i) => ({
        id: s.id,
        x: s.x * k + box.x,
        y: s.y * k + box.y,
        level: raised[i],
      })),
      scene: { picture: survey.mended ?? fill.picture, box },
      occluder: survey.occluder,
      edge: survey.edge?.map(([x, y]): [number, number] => [x * k + box.x, y * k + box.y]) ?? null,
      k,
    };
  }
  return null;
}
