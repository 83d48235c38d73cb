import { alphaPlane } from '@scenograph/core/raster/pixels';
import { observeWords, type LegibilityReport } from '@scenograph/core/paint/legibility-report';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { judgeMeasures, measureAll, type Measures } from '@scenograph/core/spec/checks/index';
import { neutralShot } from '@scenograph/core/spec/checks/neutral-shot';
import type { CheckResult, FileFacts } from '@scenograph/core/spec/checks/check';
import type { Slot } from '@scenograph/core/spec/slot';
import type { Painted } from '@scenograph/core/paint/paint-shot';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { Painter } from './painter';

/** Long side of the painting on which products' places are measured. */
const PRODUCTS_SIDE = 1000;

/** A shot painted at its own size, with how its words were seen meanwhile. */
export async function paintAndLook(
  painter: Painter,
  shot: ResolvedShot,
): Promise<{ painted: Painted; words: LegibilityReport[] }> {
  const { observer, reports } = observeWords();
  const painted = await painter.paint(shot, {}, observer);
  return { painted, words: reports() };
}

export interface Facts {
  words: LegibilityReport[] | null;
  alt?: string | null;
  file?: FileFacts | null;
}

/** Everything the checks measure on a painted shot; products are painted again alone to know where they are. */
export async function measureAt(
  painter: Painter,
  shot: ResolvedShot,
  picture: Rgba,
  facts: Facts,
  slot: Slot,
  slotKey: string,
): Promise<Measures> {
  const { shot: plain, coloured } = neutralShot(shot);
  const scale = Math.min(1, PRODUCTS_SIDE / Math.max(shot.width, shot.height));
  const alone = (await painter.paint(plain, { productsOnly: true, scale })).pixels();
  return measureAll({
    ...facts,
    slot,
    slotKey,
    width: picture.width,
    height: picture.height,
    picture,
    products: alphaPlane(alone),
    neutral: coloured ? alone : null,
    shot,
    sources: await painter.sizes(shot),
  });
}

/** Runs a slot's checks on a painted shot. */
export async function measurePainted(
  painter: Painter,
  shot: ResolvedShot,
  { painted, words }: { painted: Painted; words: LegibilityReport[] | null },
  slot: Slot,
  slotKey: string,
): Promise<CheckResult[]> {
  return judgeMeasures(await measureAt(painter, shot, painted.pixels(), { words }, slot, slotKey), slot);
}
