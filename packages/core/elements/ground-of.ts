import { isBackdrop } from './backdrop/model';
import type { ElementBase } from './base';
import { levelOfScale, movedCamera, type Camera } from '../stage/camera';
import { surveyedFocus, surveyedHaze } from '../stage/depth-of-field';
import { thingFace, wallFace, wallRegion, type Face } from '../stage/faces';
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
        upright: null,
        focus: null,
        haze: null,
        shades: [],
        k: 1,
      };
    if (fill.type !== 'scene') continue;
    const { survey } = fill;
    const own = sceneCamera(survey);
    if (!own) continue;
    const k = box.width / survey.width;
    let raised = levels.get(survey);
    if (!raised) levels.set(survey, (raised = survey.spots.map((s) => levelOfScale(own, s, s.pxPerMm))));
    const camera = movedCamera(own, k, box.x, box.y);
    const moved = (polygon: readonly [number, number][]) =>
      polygon.map(([x, y]): [number, number] => [x * k + box.x, y * k + box.y]);
    return {
      camera,
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
      edge: survey.edge ? moved(survey.edge) : null,
      upright: uprightOf(survey, camera, moved),
      shades: survey.shades?.map(moved) ?? [],
      focus: surveyedFocus(survey),
      haze: surveyedHaze(survey),
      k,
    };
  }
  return null;
}

/** What of a scene takes shadows besides its ground: its wall and its things, moved into a frame. */
function uprightOf(
  { wall, things = [], width }: SceneSurvey,
  camera: Camera,
  moved: (polygon: readonly [number, number][]) => [number, number][],
): Ground['upright'] {
  const foot = wall && (moved(wall) as [[number, number], [number, number]]);
  const outlines = things.map(moved);
  const faces = [foot ? wallFace(camera, foot) : null, ...outlines.map((o) => thingFace(camera, o))].filter(
    (face): face is Face => face !== null,
  );
  if (!faces.length) return null;
  const regions = [...(foot ? [wallRegion(foot, width)] : []), ...outlines];
  return { faces, regions, key: JSON.stringify(regions) };
}
