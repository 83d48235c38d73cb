import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { levelPixels } from '@scenograph/core/elements/draw-picture';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { estimateAreas } from '@scenograph/core/stage/estimate-areas';
import { NO_WORK, printItem, type PrintSources } from '@scenograph/core/surface/print-item';
import { newPrint } from '@scenograph/core/surface/print';
import { takeArtwork } from '@scenograph/host-node/artwork';
import { decodePicture } from '@scenograph/host-node/read-picture';

const MOCKUPS = ['planter-band', 'seed-packet', 'linen-cloth', 'gift-box', 'crate-label'];
const at = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))];

/** Live fitting and full-size printing of a 4000-pixel design, against sharp laying the same design flat. */
export async function benchPrint(root: string): Promise<void> {
  console.log(
    '\nPrinting a 4000-pixel SVG. Baseline: sharp scales the same design and lays it flat on the picture.',
  );
  const art = await takeArtwork('basil.svg', await readFile(join(root, 'demo/artwork/basil-label.svg')));
  const artwork = await decodePicture(art.png);
  const folder = join(root, 'demo/assets/mockups');
  for (const name of MOCKUPS) {
    const bytes = await readFile(join(folder, `${name}.jpg`));
    const picture = await decodePicture(bytes);
    const { survey, untold } = readSceneFile(await readFile(join(folder, `${name}.json`), 'utf8'));
    const areas = estimateAreas(survey, untold, picture).slice(0, 1);
    const blank = { width: survey.width, height: survey.height, focal: null, areas };
    const design = newPrint('p', 'p', { hash: 'x', ...art }, areas[0]);
    const sources = (draft: boolean): PrintSources => {
      const store = new Map<string, unknown>();
      return {
        key: name,
        artwork: () => artwork,
        outline: null,
        draft,
        kept<T>(key: string, make: () => T): T {
          if (!store.has(key)) store.set(key, make());
          return store.get(key) as T;
        },
      };
    };
    const full: number[] = [];
    for (let i = 0; i < 4; i++) {
      const fresh = sources(false);
      const begun = performance.now();
      printItem(picture, blank, { ...NO_WORK, prints: [design] }, fresh);
      full.push(performance.now() - begun);
    }
    const small = levelPixels(picture, 1);
    const live = sources(true);
    const drag: number[] = [];
    for (let i = 0; i < 60; i++) {
      const place = { ...design.place, x: design.place.x + i * 0.2 };
      const begun = performance.now();
      printItem(small, blank, { ...NO_WORK, prints: [{ ...design, place }] }, live);
      if (i) drag.push(performance.now() - begun);
    }
    const begun = performance.now();
    await sharp(bytes)
      .composite([{ input: await sharp(art.png).resize(300).png().toBuffer(), left: 500, top: 500 }])
      .raw()
      .toBuffer();
    const flat = performance.now() - begun;
    console.log(
      `  ${name}: full size ${at(full, 0.5).toFixed(0)} ms from nothing (wanted: at most 700), sharp flat ${flat.toFixed(0)} ms, ratio ${(at(full, 0.5) / flat).toFixed(2)}; ` +
        `dragged at ${small.width} x ${small.height}: median ${at(drag, 0.5).toFixed(1)} ms, 95th percentile ${at(drag, 0.95).toFixed(1)} ms (wanted: 16.7)`,
    );
  }
}
