import type { ShotElement } from '@scenograph/core/elements/index';
import { pxPerMmAt, type SceneSurvey } from '@scenograph/core/elements/backdrop/survey';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';

export interface TrueSize {
  /** Frame pixels a millimetre where the product stands. */
  pxPerMm: number;
  /** 1 is true to size. */
  ratio: number;
}

/** How a standing product's size compares with its real one, where scene and millimetres are known. */
export function trueSize(shot: ResolvedShot, element: ShotElement): TrueSize | null {
  if (element.kind !== 'product' || !element.millimetres) return null;
  const ground = shot.elements.find((e) => e.kind === 'backdrop' && e.fill.type === 'scene' && !e.hidden);
  if (ground?.kind !== 'backdrop' || ground.fill.type !== 'scene') return null;
  const survey: SceneSurvey = ground.fill.survey;
  const k = ground.box.width / survey.width;
  // The middle of a round base lies a little above its lowest pixel.
  const standY = element.box.y + element.box.height - element.box.width * 0.1;
  const scale = pxPerMmAt(survey, (standY - ground.box.y) / k);
  if (!scale) return null;
  const pxPerMm = scale * k;
  return { pxPerMm, ratio: element.box.width / (element.millimetres.width * pxPerMm) };
}
