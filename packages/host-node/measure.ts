import { alphaPlane } from '@scenograph/core/raster/pixels';
import { lookAtWords, type WordLook } from '@scenograph/core/paint/look-at-words';
import { resize } from '@scenograph/core/raster/resample';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { runChecks } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { Slot } from '@scenograph/core/spec/slot';
import type { Painted } from '@scenograph/core/paint/paint-shot';
import type { Painter } from './painter';

/** A shot painted at its own size, with how its words were seen meanwhile. */
export async function paintAndLook(
  painter: Painter,
  shot: ResolvedShot,
): Promise<{ painted: Painted; words: WordLook[] }> {
  const { onlooker, looks } = lookAtWords();
  const painted = await painter.paint(shot, {}, onlooker);
  return { painted, words: looks() };
}

/** Runs a slot's checks on a painted shot; products are painted again alone to know where they are. */
export async function measurePainted(
  painter: Painter,
  shot: ResolvedShot,
  { painted, words }: { painted: Painted; words: WordLook[] | null },
  slot: Slot,
  slotKey: string,
): Promise<CheckResult[]> {
  const products = alphaPlane((await painter.paint(shot, { productsOnly: true })).pixels());
  const picture = painted.pixels();
  const sameSize = picture.width === products.width && picture.height === products.height;
  return runChecks({
    slot,
    slotKey,
    width: painted.width,
    height: painted.height,
    picture: sameSize ? picture : resize(picture, products.width, products.height),
    products,
    shot,
    words,
    sources: await painter.sizes(shot),
  });
}
