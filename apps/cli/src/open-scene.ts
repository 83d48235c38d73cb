import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { surveyCamera } from '@scenograph/core/stage/survey';
import { reduceTo } from '@scenograph/core/raster/resample';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { estimateAreas } from '@scenograph/core/stage/estimate-areas';
import { decodePicture, takePicture } from '@scenograph/host-node/read-picture';
import { createPainter } from '@scenograph/host-node/painter';
import { InputError } from './common';

/** Smaller pictures show too little. */
const SMALLEST = 300;

/** A surveyed scene or mockup from its side-file, with the picture and masks beside it, by content hash. */
export async function openScene(file: string) {
  const scene = readOrRefuse(() => readSceneFileText(file));
  const { survey, ...rest } = await scene;
  const folder = dirname(file);
  const stem = basename(file).replace(/\.json$/i, '');
  const picture = ['jpg', 'jpeg', 'png', 'webp'].map((e) => join(folder, `${stem}.${e}`)).find(existsSync);
  if (!picture) throw new InputError(`"${file}" has no picture of the same name beside it.`);
  const files = new Map<string, Buffer>();
  const keep = async (path: string) => {
    const bytes = await readFile(path);
    const taken = await takePicture(basename(path), bytes);
    const working = Buffer.from(taken.working?.bytes ?? bytes);
    const hash = createHash('sha256').update(working).digest('hex');
    files.set(hash, working);
    return { hash, width: taken.width, height: taken.height };
  };
  const shown = await keep(picture);
  if (shown.width !== survey.width || shown.height !== survey.height)
    throw new InputError(
      `"${basename(picture)}" is ${shown.width} x ${shown.height} pixels; its side-file was surveyed at ${survey.width} x ${survey.height}.`,
    );
  if (Math.min(shown.width, shown.height) < SMALLEST)
    throw new InputError(
      `"${basename(picture)}" is ${shown.width} x ${shown.height} pixels; a scene needs at least ${SMALLEST} on each side.`,
    );
  const occluder = rest.occluderFile ? (await keep(join(folder, rest.occluderFile))).hash : null;
  const outline = rest.outlineFile ? (await keep(join(folder, rest.outlineFile))).hash : null;
  const areas = survey.areas.length
    ? estimateAreas(survey, rest.untold, reduceTo(await decodePicture(files.get(shown.hash)!), 1000))
    : [];
  const known = { ...survey, occluder, outline, areas };
  await readOrRefuse(async () => surveyCamera(known));
  return { title: rest.title, survey: known, picture: shown.hash, files };
}

/** A painter that knows the scene's pictures and one more. */
export function painterOf(
  { files }: Awaited<ReturnType<typeof openScene>>,
  { hash, bytes }: { hash: string; bytes: Uint8Array },
) {
  return createPainter(async (wanted) => {
    const found = wanted === hash ? bytes : files.get(wanted);
    if (!found) throw new InputError('A picture of the scene is missing.');
    return found;
  });
}

async function readSceneFileText(file: string) {
  return readSceneFile(await readFile(file, 'utf8'), basename(file));
}

/** What core says of bad input is a sentence for the user; missing files are told by the caller. */
async function readOrRefuse<T>(read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code) throw error;
    throw new InputError((error as Error).message);
  }
}
