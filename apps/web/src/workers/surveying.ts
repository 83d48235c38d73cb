import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { AreaEdges, PrintArea } from '@scenograph/core/surface/area';
import { liveWorker } from './live-worker';
import type { SurveyWorker } from './survey.worker';

const worker = liveWorker<SurveyWorker>(
  () => new Worker(new URL('./survey.worker.ts', import.meta.url), { type: 'module' }),
);

/** The strong corners of a surveyed picture, in the survey's pixels. */
export const cornersSeen = (url: string, width: number) => worker.ask((w) => w.corners(url, width));

/** How far an area bulges by its shading; null where the picture does not show it. */
export const bulgeSeen = (url: string, area: PrintArea, survey: SceneSurvey) =>
  worker.ask((w) => w.bulge(url, area, survey));

/** An area's edges drawn to what the picture shows within so many pixels beside them. */
export const edgesSeen = (url: string, edges: AreaEdges, width: number, reach: number) =>
  worker.ask((w) => w.edges(url, edges, width, reach));

/** How far an item's faces stand out by the cutout of its side view, as shares of its height; null where none shows. */
export const sideSeen = (file: Blob) => worker.ask((w) => w.side(file));

/** Where a scene is sharp and where it is soft, as its picture shows; null where it shows nothing. */
export const focusSeen = (url: string, survey: SceneSurvey) => worker.ask((w) => w.focus(url, survey));

/** Outlines of the shade that lies on a scene's ground, in the survey's pixels. */
export const shadeSeen = (url: string, survey: SceneSurvey) => worker.ask((w) => w.shade(url, survey));

/** Where a scene's ground ends, in the survey's pixels; null where the picture shows no edge. */
export const groundEdgeSeen = (url: string, survey: SceneSurvey) =>
  worker.ask((w) => w.groundEdge(url, survey));
