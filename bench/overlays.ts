import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { cutOut } from '@scenograph/core/cutout/index';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { observeWords } from '@scenograph/core/paint/legibility-report';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Shot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import { baseOfCutout } from '@scenograph/core/stage/base';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { encodePng } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';

const at = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))];

/** Repainting one changed overlay, and every size after a change, against sharp composing the same layers. */
export async function benchOverlays(root: string): Promise<void> {
  console.log(
    '\nOverlays. Baseline: sharp scales the cutout and lays it with an SVG of the words on a plain ground.',
  );
  const photo = await decodePicture(await readFile(join(root, 'demo/assets/products/planter-teal.jpg')));
  const { image } = await cutOut(photo, PLAIN_RECIPE, await loadSegmentationModel());
  const cutout = await encodePng(image);
  const picture = createHash('sha256').update(cutout).digest('hex');
  const data: ProductData = {
    title: 'Stoneware planter 16 cm',
    variant: '',
    sku: 'P',
    price: 24,
    currency: 'GBP',
    widthMm: 162,
    heightMm: 148,
    depthMm: 162,
    fields: { was: '30', rating: '4.7', reviews: '128' },
    cutout: { picture, width: image.width, height: image.height, base: baseOfCutout(image) },
  };
  const painter = createPainter(async () => cutout);
  const filled = (id: string) => fillTemplate(DESIGNS.find((d) => d.id === id)!.document, data, 'stand');

  // One overlay while it is dragged, at the size the stage shows.
  for (const id of ['sale-half', 'review', 'quality', 'summer']) {
    const shot = filled(id);
    const moved = (i: number): Shot => ({
      ...shot,
      elements: shot.elements.map((e) =>
        e.name === 'Headline' ? { ...e, box: { ...e.box, x: e.box.x + i } } : e,
      ),
    });
    const times: number[] = [];
    for (let i = 0; i < 60; i++) {
      const begun = performance.now();
      const painted = await painter.paint(resolveBase(moved(i), data), {
        scale: 0.35,
        draft: true,
        resumes: true,
      });
      painted.pixels();
      if (i > 4) times.push(performance.now() - begun);
    }
    const base: number[] = [];
    for (let i = 0; i < 12; i++) {
      const begun = performance.now();
      await composed(cutout, 560, 560, i);
      base.push(performance.now() - begun);
    }
    const [mine, theirs] = [at(times, 0.5), at(base, 0.5)];
    console.log(
      `  ${id}: repaint ${mine.toFixed(1)} ms median, ${at(times, 0.95).toFixed(1)} at the 95th percentile (wanted 16); baseline ${theirs.toFixed(1)} ms, ratio ${(mine / theirs).toFixed(2)}`,
    );
  }

  const folder = join(root, 'demo/spec-sheets');
  const slots = (
    await Promise.all(
      (await readdir(folder)).map(async (f) =>
        readSpecSheet(JSON.parse(await readFile(join(folder, f), 'utf8'))).slots.map((slot) => ({ f, slot })),
      ),
    )
  ).flat();
  for (const id of ['sale-half', 'feature-list']) {
    const shot = filled(id);
    const all = async (change: string) => {
      const changed: Shot = {
        ...shot,
        elements: shot.elements.map((e) =>
          e.name === 'Headline' ? ({ ...e, text: change } as typeof e) : e,
        ),
      };
      const begun = performance.now();
      for (const { f, slot } of slots) {
        const resolved = resolveForSlot(changed, `${f}/${slot.id}`, slot, data);
        await painter.paint(resolved, { scale: Math.min(1, 240 / Math.max(slot.width, slot.height)) });
      }
      return performance.now() - begun;
    };
    await all('Warming up');
    const mine = Math.min(await all('Fine things, now less'), await all('Good pots for less'));
    const begun = performance.now();
    for (const { slot } of slots) {
      const k = 240 / Math.max(slot.width, slot.height);
      await composed(cutout, Math.round(slot.width * k), Math.round(slot.height * k), 0);
    }
    const theirs = performance.now() - begun;
    console.log(
      `  ${id}: ${slots.length} sizes after a change in ${mine.toFixed(0)} ms (wanted 1500); baseline ${theirs.toFixed(0)} ms, ratio ${(mine / theirs).toFixed(2)}`,
    );
  }

  const resolved = resolveBase(filled('review'), data);
  const plain: number[] = [];
  const looking: number[] = [];
  for (let i = 0; i < 12; i++) {
    let begun = performance.now();
    (await painter.paint(resolved, { scale: 0.5 })).pixels();
    plain.push(performance.now() - begun);
    begun = performance.now();
    (await painter.paint(resolved, { scale: 0.5 }, observeWords().observer)).pixels();
    looking.push(performance.now() - begun);
  }
  console.log(
    `  watching over words while painting: ${at(looking, 0.5).toFixed(1)} ms; painting alone ${at(plain, 0.5).toFixed(1)} ms, ratio ${(at(looking, 0.5) / at(plain, 0.5)).toFixed(2)}`,
  );
}

/** The cutout scaled and laid with words on a plain ground, as a hand-written script would do it. */
async function composed(cutout: Uint8Array, width: number, height: number, i: number): Promise<void> {
  const side = Math.max(8, Math.round(Math.min(width, height) * 0.6));
  const product = await sharp(cutout)
    .resize(side, side, { fit: 'inside' })
    .png({ compressionLevel: 0 })
    .toBuffer();
  const words = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><text x="${4 + (i % 8)}" y="${height * 0.4}" font-size="${Math.max(6, height * 0.12)}" font-family="serif" fill="#222">Good things, now less</text></svg>`,
  );
  await sharp({ create: { width, height, channels: 3, background: '#f6f2e8' } })
    .composite([{ input: product, gravity: 'southeast' }, { input: words }])
    .raw()
    .toBuffer();
}
