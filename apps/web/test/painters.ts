import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type * as real from '../src/workers/painters';

type Real = typeof real;

/** Stands in for the painting worker in component tests: paints nothing, and finds what a test tells it to. */
export const painting = {
  checks: [] as CheckResult[],
  palette: ['#345544', '#e8e2d4'],
  staging: null as Awaited<ReturnType<Real['measureStaging']>>,
  stage: (() => new Promise(() => undefined)) as Real['paintStage'],
  desk: null as Real['startDesk'] | null,
};

export const paintStage: Real['paintStage'] = (...asked) => painting.stage(...asked);
export const paintThumbnail: Real['paintThumbnail'] = () => Promise.resolve(null);
export const checkShot: Real['checkShot'] = () => Promise.resolve(painting.checks);
export const watchShot: Real['watchShot'] = () => Promise.resolve(painting.checks);
export const measureStaging: Real['measureStaging'] = () => Promise.resolve(painting.staging);
export const paletteOfPicture: Real['paletteOfPicture'] = () => Promise.resolve(painting.palette);
export const reachOfItem: Real['reachOfItem'] = () => new Promise(() => undefined);
/** The cutout worker of this test; see `test/desk.ts`. */
export const startDesk: Real['startDesk'] = () => {
  if (!painting.desk) throw new Error('No cutout worker in this test.');
  return painting.desk();
};
