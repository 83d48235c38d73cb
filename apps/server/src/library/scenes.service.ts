import {
  ConflictException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
} from '@nestjs/common';
import { and, asc, eq, sql } from 'drizzle-orm';
import JSZip from 'jszip';
import { NO_ITEM, surveyCamera, surveyView } from '@scenograph/core/stage/survey';
import type { By, CallOf } from '@scenograph/contract';
import { areaSurface } from '@scenograph/core/surface/area-surface';
import { writeSceneFile } from '@scenograph/core/stage/scene-file';
import { MIME } from '@scenograph/host-node/read-picture';
import type { IncomingFile, Intake } from '@scenograph/host-node/sandbox/operations';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { remove } from '../bin/bin';
import { NOBODY } from '../edits/edits';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { shown } from '../database/rows';
import { NO_HISTORY, photos, scenes } from '../database/schema';
import { troubleOf } from '../database/trouble';
import { INTAKE } from '../http/incoming';
import { refusalOf } from '../http/refusals';

export type SceneRow = typeof scenes.$inferSelect;

/** What a hand may change of a scene. */
type SceneChange = CallOf<'PUT /api/scenes/:id'>['body'];

/** The grey pictures that belong to a scene. */
export type Mask = 'occluder' | 'outline';

/** A picture smaller than this shows too little to stand something in. */
const SMALLEST = 300;

@Injectable()
export class ScenesService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(INTAKE) private readonly intake: Intake,
  ) {}

  list(): Promise<SceneRow[]> {
    return this.db
      .select()
      .from(scenes)
      .where(eq(scenes.workspaceId, WORKSPACE))
      .orderBy(asc(scenes.createdAt));
  }

  async one(id: string): Promise<SceneRow> {
    const [row] = await this.db
      .select()
      .from(scenes)
      .where(and(eq(scenes.id, id), eq(scenes.workspaceId, WORKSPACE)));
    if (!row) throw new NotFoundException('This scene is not in the library any more.');
    return row;
  }

  /** A picture becomes a scene that is still to be surveyed; its light and palette are estimated. */
  async take(file: IncomingFile): Promise<SceneRow> {
    const { name } = file;
    const taken = await this.intake.picture(file);
    if (Math.min(taken.width, taken.height) < SMALLEST)
      throw new UnprocessableEntityException(
        `"${name}" is ${taken.width} x ${taken.height} pixels; a scene needs at least ${SMALLEST} on each side.`,
      );
    const shownFile = taken.working ?? { path: file.path, mime: MIME[taken.format] };
    const { light, palette } = await this.intake.sceneFacts({ name, path: shownFile.path });
    const picture = await this.store.putFile(shownFile.path, shownFile.mime);
    const [row] = await this.db
      .insert(scenes)
      .values({
        workspaceId: WORKSPACE,
        title: name.replace(/\.[^.]+$/, ''),
        picture,
        survey: {
          width: taken.width,
          height: taken.height,
          horizonY: null,
          plane: null,
          known: null,
          spots: [],
          light,
          gloss: 0,
          occluder: null,
          ...NO_ITEM,
        },
        palette,
        season: null,
      })
      .returning();
    return row;
  }

  /** Stores a survey. One that gives no camera is refused with what is wrong; what there was stays. */
  async change(id: string, { revision, ...change }: SceneChange): Promise<SceneRow> {
    const scene = await this.one(id);
    const { survey } = change;
    if (survey.width !== scene.survey.width || survey.height !== scene.survey.height)
      throw new UnprocessableEntityException(
        `This survey is of a picture of ${survey.width} x ${survey.height} pixels; the scene has ${scene.survey.width} x ${scene.survey.height}.`,
      );
    try {
      surveyCamera(survey);
      for (const area of survey.areas) areaSurface(area, surveyView(survey));
    } catch (error) {
      throw refusalOf(error, 'The survey');
    }
    const [row] = await this.db
      .update(scenes)
      .set({ ...change, revision: sql`${scenes.revision} + 1` })
      .where(and(eq(scenes.id, id), eq(scenes.revision, revision)))
      .returning();
    if (row) return row;
    throw changedElsewhere(await this.one(id));
  }

  /** Shots keep the survey and name the picture by content: they go on showing it. */
  remove = (id: string, { revision }: By) => remove(this.db, 'scene', id, revision);

  /** A grey picture of the scene's shape becomes its foreground mask, or the outline of the blank item in it. */
  async setMask(id: string, mask: Mask, file: IncomingFile, by: By = NOBODY): Promise<SceneRow> {
    const { survey } = await this.one(id);
    const taken = await this.intake.picture(file, ['png']);
    const { width, height } = survey;
    const shape = taken.width / taken.height / (width / height);
    if (shape > 1.02 || shape < 0.98)
      throw new UnprocessableEntityException(
        `"${file.name}" is ${taken.width} x ${taken.height} pixels; the picture is ${width} x ${height}. A mask needs the picture's shape.`,
      );
    const matte = await this.intake.matte(file, survey);
    return this.keepMask(id, mask, await this.store.putFile(matte.path, matte.mime), by);
  }

  /** The matte of a photo's cutout becomes the mask: the desk's tools made it. */
  async maskFromPhoto(id: string, mask: Mask, photoId: string, by: By): Promise<SceneRow> {
    const [photo] = await this.db.select().from(photos).where(eq(photos.id, photoId));
    if (!photo?.cutout?.matte)
      throw new UnprocessableEntityException('It is not cut out yet. Accept its cutout first.');
    return this.keepMask(id, mask, photo.cutout.matte, by);
  }

  /** The picture in which marks were covered, made where the steps are edited. */
  async setMended(id: string, file: IncomingFile): Promise<{ mended: string }> {
    const scene = await this.one(id);
    const taken = await this.intake.picture(file, ['png']);
    if (taken.width !== scene.survey.width || taken.height !== scene.survey.height)
      throw new UnprocessableEntityException(
        `The mended picture is ${taken.width} x ${taken.height} pixels; the scene has ${scene.survey.width} x ${scene.survey.height}.`,
      );
    return { mended: await this.store.putFile(file.path, 'image/png') };
  }

  /** Puts a mask into the survey as it stands; the rest of that may have been changed while the mask was read. */
  private async keepMask(id: string, mask: Mask, hash: string, { revision }: By): Promise<SceneRow> {
    return this.db.transaction(async (tx) => {
      const [scene] = await tx.select().from(scenes).where(eq(scenes.id, id)).for('update');
      if (!scene) throw new NotFoundException('This scene is not in the library any more.');
      if (revision !== null && revision !== scene.revision) throw changedElsewhere(scene);
      const [row] = await tx
        .update(scenes)
        .set({ survey: { ...scene.survey, [mask]: hash }, revision: scene.revision + 1 })
        .where(eq(scenes.id, id))
        .returning();
      return row;
    });
  }

  /** The scenes as a ZIP: each a picture, its side-file and its mask. */
  async exportZip(ids: string[] | null): Promise<Buffer> {
    const zip = new JSZip();
    const used = new Set<string>();
    for (const scene of await this.list()) {
      if (ids && !ids.includes(scene.id)) continue;
      const plain =
        scene.title
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .replace(/^-|-$/g, '') || 'scene';
      let name = plain;
      for (let n = 2; used.has(name); n++) name = `${plain}-${n}`;
      used.add(name);
      // With its marks covered, where that was done.
      const shown = scene.survey.mended ?? scene.picture;
      const info = await this.store.info(shown);
      const ending = info?.mime === 'image/png' ? 'png' : info?.mime === 'image/webp' ? 'webp' : 'jpg';
      zip.file(`${name}.${ending}`, await this.store.get(shown), { compression: 'STORE' });
      zip.file(`${name}.json`, JSON.stringify(writeSceneFile(name, scene), null, 1));
      if (scene.survey.occluder)
        zip.file(`${name}.occluder.png`, await this.store.get(scene.survey.occluder));
      if (scene.survey.outline) zip.file(`${name}.outline.png`, await this.store.get(scene.survey.outline));
    }
    if (!used.size) throw new UnprocessableEntityException('There is no scene to export.');
    return zip.generateAsync({ type: 'nodebuffer' });
  }

  /** Takes every scene of a ZIP; what cannot be read is told by name, the others come in. */
  async importZip(zip: IncomingFile): Promise<{ taken: number; refused: string[] }> {
    const files = (await this.intake.unpack(zip)).map(({ name, path }) => ({
      name: name.split('/').pop()!,
      path,
    }));
    const byName = new Map(files.map((f) => [f.name, f]));
    const sides = files.filter((f) => f.name.endsWith('.json'));
    if (!sides.length)
      throw new UnprocessableEntityException(
        `"${zip.name}" holds no side-file (.json). A scene is a picture with a JSON file of the same name.`,
      );
    const refused: string[] = [];
    for (const side of sides) {
      try {
        await this.importOne(side, byName);
      } catch (error) {
        if (troubleOf(error)) throw error;
        refused.push(refusalOf(error, `"${side.name}"`).message);
      }
    }
    return { taken: sides.length - refused.length, refused };
  }

  private async importOne(side: IncomingFile, files: Map<string, IncomingFile>): Promise<void> {
    const stem = side.name.replace(/\.json$/, '');
    const picture = ['jpg', 'jpeg', 'png', 'webp'].map((e) => files.get(`${stem}.${e}`)).find(Boolean);
    if (!picture) throw new Error(`"${side.name}" has no picture of the same name beside it.`);
    const read = await this.intake.scene(side, picture.path);
    const row = await this.take(picture);
    await this.change(row.id, {
      revision: row.revision,
      history: NO_HISTORY,
      title: read.title,
      survey: read.survey,
      palette: read.palette.length ? read.palette : row.palette,
      season: read.season,
    });
    const mask = read.occluderFile && files.get(read.occluderFile);
    if (mask) await this.setMask(row.id, 'occluder', mask);
    const outline = read.outlineFile && files.get(read.outlineFile);
    if (outline) await this.setMask(row.id, 'outline', outline);
  }
}

const changedElsewhere = (scene: SceneRow) =>
  new ConflictException({
    message: `The survey of "${scene.title}" was changed elsewhere since you opened it. Nothing was saved over it.`,
    detail: shown(scene),
  });
