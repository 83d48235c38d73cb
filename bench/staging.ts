import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { cutOut } from '@scenograph/core/cutout/index';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { sceneShot } from '@scenograph/core/shot/starters';
import { baseOfCutout } from '@scenograph/core/stage/base';
import { cameraFromPlane, onPlane, scaleAt } from '@scenograph/core/stage/camera';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { basePoint, movedOnGround } from '@scenograph/core/stage/stand';
import { encodePng } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';

const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const at = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))];

/** Dragging and full-size painting with all of staging, against the same shot painted plainly in the same run. */
export async function benchStaging(root: string): Promise<void> {
  console.log(
    '\nStaging. Baseline: the same scene and cutout painted plainly, without shadow, reflection, light and tone.',
  );
  const scenes = join(root, 'demo/assets/scenes');
  for (const file of (await readdir(scenes)).filter((f) => f.endsWith('.json'))) {
    const { survey, title } = readSceneFile(await readFile(join(scenes, file), 'utf8'), file);
    const camera = cameraFromPlane(survey.plane!, survey.width, survey.height);
    // Spots on plinths lie on planes of their own: only those on the surveyed one tell its error.
    const off = survey.spots
      .map((s) => Math.abs(scaleAt(camera, onPlane(camera, s)!).up / s.pxPerMm - 1) * 100)
      .filter((v) => v < 10);
    console.log(
      `  ${title}: pixels a mm off by ${Math.max(...off).toFixed(2)} percent at most (wanted: at most 2)`,
    );
  }

  const sceneBytes = await readFile(join(scenes, 'windowsill-morning.jpg'));
  const { survey } = readSceneFile(await readFile(join(scenes, 'windowsill-morning.json'), 'utf8'));
  const { image } = await cutOut(
    await decodePicture(await readFile(join(root, 'demo/assets/products/planter-teal.jpg'))),
    PLAIN_RECIPE,
    await loadSegmentationModel(),
  );
  const cutoutBytes = await encodePng(image);
  const files = new Map([sceneBytes, cutoutBytes].map((b) => [sha(b), b]));
  const data = {
    title: 'Planter',
    variant: '',
    sku: 'P',
    price: 24,
    currency: 'GBP',
    widthMm: 162,
    heightMm: 148,
    depthMm: 162,
    cutout: {
      picture: sha(cutoutBytes),
      width: image.width,
      height: image.height,
      base: baseOfCutout(image),
    },
  };
  const staged = shotOf(survey, true);
  const plain = shotOf(survey, false);
  function shotOf(of: SceneSurvey, all: boolean) {
    const shot = sceneShot(data, 'stand', { title: 'Sill', picture: sha(sceneBytes), survey: of });
    const product = shot.elements[1] as ProductElement;
    return resolveBase(
      {
        ...shot,
        elements: [
          shot.elements[0],
          {
            ...product,
            shadow: { ...product.shadow, strength: all ? 0.7 : 0, contact: all ? 0.7 : 0 },
            reflection: { strength: all ? 0.4 : 0, fade: 0.5, roughness: 0.3 },
            tone: { strength: all ? 0.6 : 0, limit: 6 },
            relight: all ? 1 : 0,
          },
        ],
      },
      data,
    );
  }

  const screen = 900 / 2000;
  const drag = async (shot: typeof staged) => {
    const painter = createPainter(async (hash) => files.get(hash)!);
    await painter.paint(shot, { scale: screen });
    const ground = groundOf(shot.elements);
    const product = shot.elements[1] as ProductElement;
    const from = basePoint(product);
    const times: number[] = [];
    let settled = 0;
    for (let i = 0; i < 90; i++) {
      const to = { x: from.x - 300 + i * 7, y: from.y + 60 * Math.sin(i / 12) };
      const moved = { ...product, box: movedOnGround(product, to, ground, shot) };
      const next = { ...shot, elements: [shot.elements[0], moved] };
      const started = performance.now();
      await painter.paint(next, { scale: screen, draft: true });
      if (i >= 10) times.push(performance.now() - started);
      if (i === 89) {
        const again = performance.now();
        await painter.paint(next, { scale: screen });
        settled = performance.now() - again;
      }
    }
    return { median: at(times, 0.5), late: at(times, 0.95), settled };
  };
  const base = await drag(plain);
  const ours = await drag(staged);
  console.log(
    `Dragging at 900 x 675: median ${ours.median.toFixed(1)} ms, 95th percentile ${ours.late.toFixed(1)} ms (wanted: 16 and 33); ` +
      `plain ${base.median.toFixed(1)} ms, ratio ${(ours.median / base.median).toFixed(2)}. ` +
      `Settled after ${ours.settled.toFixed(0)} ms (wanted: 250).`,
  );

  // The light dragged on the dome: shadows and the light on the product are made anew for each step.
  const lights = async (relight: number) => {
    const painter = createPainter(async (hash) => files.get(hash)!);
    await painter.paint(staged, { scale: screen });
    const product = staged.elements[1] as ProductElement;
    const times: number[] = [];
    for (let i = 0; i < 70; i++) {
      const light = { azimuthDeg: -170 + i * 5, elevationDeg: 30 + (i % 20), softness: 0.4 };
      const next = {
        ...staged,
        elements: [staged.elements[0], { ...product, relight, shadow: { ...product.shadow, light } }],
      };
      const started = performance.now();
      await painter.paint(next, { scale: screen, draft: true });
      if (i >= 10) times.push(performance.now() - started);
    }
    return times;
  };
  const [shadows, lit] = [await lights(0), await lights(1)];
  console.log(
    `Dragging the light: median ${at(lit, 0.5).toFixed(1)} ms, 95th percentile ${at(lit, 0.95).toFixed(1)} ms (wanted: 16); with the photo's light, shadows alone, ${at(shadows, 0.5).toFixed(1)} ms, ratio ${(at(lit, 0.5) / at(shadows, 0.5)).toFixed(2)}.`,
  );

  const full = async (shot: typeof staged) => {
    const times: number[] = [];
    for (let i = 0; i < 4; i++) {
      const painter = createPainter(async (hash) => files.get(hash)!);
      await painter.sizes(shot);
      const started = performance.now();
      await painter.paint(shot);
      times.push(performance.now() - started);
    }
    return Math.min(...times);
  };
  const before = process.memoryUsage().rss;
  const [plainMs, stagedMs] = [await full(plain), await full(staged)];
  const rise = (process.memoryUsage().rss - before) / 2 ** 20;
  const started = performance.now();
  await sharp(sceneBytes)
    .composite([
      {
        input: await sharp(cutoutBytes).resize(541).png({ compressionLevel: 0 }).toBuffer(),
        left: 700,
        top: 500,
      },
    ])
    .raw()
    .toBuffer();
  const sharpMs = performance.now() - started;
  console.log(
    `Full size, 2000 x 1500, pictures decoded: ${stagedMs.toFixed(0)} ms (wanted: at most 800); plain ${plainMs.toFixed(0)} ms, ratio ${(stagedMs / plainMs).toFixed(2)}; ` +
      `sharp, one composite with decoding, ${sharpMs.toFixed(0)} ms. Memory rose by ${rise.toFixed(0)} MiB (wanted: at most 400).`,
  );
}
