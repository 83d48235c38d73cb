import { NO_ITEM, type SceneSurvey } from '@scenograph/core/stage/survey';
import type { Scene, SceneWithHistory } from '../src/api/client';
import { HASH, MOMENT } from './listing';

/** A survey of which only the light is known. */
export const UNSURVEYED: SceneSurvey = {
  width: 800,
  height: 600,
  plane: null,
  known: null,
  horizonY: null,
  light: {
    azimuthDeg: -40,
    elevationDeg: 45,
    softness: 0.3,
    ambient: 0.4,
    colour: '#ffffff',
  } as SceneSurvey['light'],
  gloss: 0,
  spots: [],
  occluder: null,
  ...NO_ITEM,
};

/** A table of 600 by 400 mm seen from above its front edge. */
export const TABLE: SceneSurvey = {
  ...UNSURVEYED,
  plane: {
    corners: [
      [260, 400],
      [540, 400],
      [620, 520],
      [180, 520],
    ],
    widthMm: 600,
    depthMm: 400,
  },
};

export const scene = (id: string, title: string, survey = TABLE): Scene => ({
  id,
  title,
  picture: HASH,
  survey,
  palette: ['#8a6f52'],
  season: null,
  revision: 1,
  createdAt: MOMENT,
});

export const sceneWithHistory = (id: string, title: string, survey = TABLE): SceneWithHistory => ({
  ...scene(id, title, survey),
  history: { past: [], future: [] },
});
