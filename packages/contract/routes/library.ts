import { effectsSchema, type Effects } from '@scenograph/core/raster/effects';
import { surveySchema, type SceneSurvey } from '@scenograph/core/stage/survey';
import { PURPOSES, SEASONS } from '@scenograph/core/templates/template';
import { file, route } from '../route';
import * as s from '../schema';
import {
  documentHistory,
  documentOf,
  fileName,
  removed,
  sentHistory,
  sentShot,
  storedShot,
  pages,
} from './common';

const palette = s.list(s.colour(), { max: 24 });

const sceneRow = {
  id: s.id(),
  title: s.text(),
  picture: s.hash(),
  survey: documentOf<SceneSurvey>(),
  palette: s.list(s.colour()),
  season: s.nullable(s.text()),
  revision: s.integer(),
  createdAt: s.moment(),
};
export const scene = s.named('Scene', s.shape(sceneRow));
export const sceneWithHistory = s.named(
  'SceneWithHistory',
  s.shape({ ...sceneRow, history: documentHistory }),
);

export const picture = s.named(
  'Picture',
  s.shape({
    id: s.id(),
    title: s.text(),
    original: s.hash(),
    picture: s.hash(),
    width: s.integer(),
    height: s.integer(),
    createdAt: s.moment(),
  }),
);

export const artwork = s.named(
  'Artwork',
  s.shape({
    id: s.id(),
    title: s.text(),
    /** The file as it came, and the design drawn and trimmed as PNG. */
    original: s.hash(),
    picture: s.hash(),
    width: s.integer(),
    height: s.integer(),
    /** Whether it came as SVG, and with which colours. */
    vector: s.flag(),
    colours: s.list(s.text()),
    whiteGround: s.flag(),
    /** Whether nothing of it is clear. */
    covers: s.flag(),
    notes: s.list(s.text()),
    createdAt: s.moment(),
  }),
);

export const effectSetting = s.named(
  'EffectSetting',
  s.shape({ id: s.id(), title: s.text(), effects: documentOf<Effects>(), createdAt: s.moment() }),
);

const purpose = s.nullable(s.oneOf(...PURPOSES));
const season = s.nullable(s.oneOf(...SEASONS));

export const template = s.named(
  'Template',
  s.shape({
    /** A UUID for one's own, a word for those that ship. */
    id: s.text(),
    title: s.text(),
    purpose,
    season,
    document: storedShot,
    /** One's own, or one that ships. */
    own: s.flag(),
    createdAt: s.optional(s.moment()),
  }),
);

const mask = { query: fileName, upload: true, revised: true, answer: scene } as const;

/** Scenes, pictures, artwork, effects and templates: what shots are made of. */
export const library = {
  'GET /api/scenes': route({
    says: 'All scenes.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(scene),
  }),
  'GET /api/scenes/export.zip': route({
    says: 'One scene, or all, as a ZIP of pictures and side-files.',
    query: s.shape({ id: s.optional(s.id()) }),
    answer: file('application/zip'),
  }),
  'POST /api/scenes/import': route({
    says: 'Takes every scene of a ZIP; what cannot be read is named.',
    query: fileName,
    upload: true,
    answer: s.shape({ taken: s.integer(), refused: s.list(s.text()) }),
  }),
  'POST /api/scenes': route({
    says: 'A picture becomes a scene that is still to be surveyed.',
    query: fileName,
    upload: true,
    creates: true,
    answer: scene,
  }),
  'GET /api/scenes/:id': route({ says: 'A scene with the history of its survey.', answer: sceneWithHistory }),
  'PUT /api/scenes/:id': route({
    says: 'Stores a scene’s survey; 409 with the stored one where it was changed meanwhile.',
    body: s.shape({
      revision: s.integer({ min: 1 }),
      history: sentHistory,
      title: s.text({ max: 120 }),
      survey: s.of<SceneSurvey>(surveySchema),
      palette,
      season: s.nullable(s.text({ max: 60 })),
    }),
    answer: scene,
  }),
  'DELETE /api/scenes/:id': route({
    says: 'Removes a scene; shots go on showing it.',
    revised: true,
    answer: removed,
  }),
  'POST /api/scenes/:id/mask/:mask': route({
    says: 'A grey PNG becomes the scene’s foreground (`occluder`) or the outline of its blank item (`outline`).',
    ...mask,
  }),
  'POST /api/scenes/:id/mask/:mask/:photo': route({
    says: 'The matte of a photo’s cutout becomes the mask.',
    revised: true,
    answer: scene,
  }),
  'POST /api/scenes/:id/mended': route({
    says: 'Stores the picture in which marks were covered.',
    upload: true,
    answer: s.shape({ mended: s.hash() }),
  }),

  'GET /api/pictures': route({
    says: 'Logos and other pictures laid over shots.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(picture),
  }),
  'POST /api/pictures': route({
    says: 'Takes a picture in: SVG, PNG, WebP or JPEG.',
    query: fileName,
    upload: true,
    creates: true,
    answer: picture,
  }),
  'DELETE /api/pictures/:id': route({ says: 'Removes a picture; shots go on showing it.', answer: removed }),

  'GET /api/effects': route({
    says: 'Effects kept by name.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(effectSetting),
  }),
  'POST /api/effects': route({
    says: 'Keeps effects by name.',
    body: s.shape({ title: s.text({ max: 120 }), effects: s.of<Effects>(effectsSchema) }),
    creates: true,
    answer: effectSetting,
  }),
  'DELETE /api/effects/:id': route({ says: 'Removes kept effects.', answer: removed }),

  'GET /api/artwork': route({
    says: 'Designs to be printed on mockups.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(artwork),
  }),
  'POST /api/artwork': route({
    says: 'Takes a design in: SVG or pixels.',
    query: fileName,
    upload: true,
    creates: true,
    answer: artwork,
  }),
  'POST /api/artwork/:id/inks': route({
    says: 'Draws an SVG design with colours changed, each by the one in its place.',
    body: s.shape({ inks: s.record(s.colour(), { names: s.colour(), max: 400 }) }),
    answer: s.shape({ picture: s.hash(), width: s.integer(), height: s.integer() }),
  }),
  'DELETE /api/artwork/:id': route({ says: 'Removes a design; shots go on showing it.', answer: removed }),

  'GET /api/templates': route({
    says: 'One’s own templates, then those that ship.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(template),
  }),
  'POST /api/templates': route({
    says: 'Keeps a shot as a template.',
    body: s.shape({ title: s.text({ trim: true, min: 1, max: 120 }), purpose, season, document: sentShot }),
    creates: true,
    answer: template,
  }),
  'DELETE /api/templates/:id': route({ says: 'Removes a template of one’s own.', answer: removed }),
};
