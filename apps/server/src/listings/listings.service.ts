import { containing } from '../database/rows';
import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { suggestedAlt } from '@scenograph/core/delivery/encoding';
import { slotKey } from '@scenograph/core/spec/slot';
import { mockupShot, sceneShot, whiteShot } from '@scenograph/core/shot/starters';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { readShot, type Shot } from '@scenograph/core/shot/document';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { cellFeeds, listings, photos, products, scenes, shots, variants } from '../database/schema';
import { boardScopeName, slotPiece } from '../board/board-scope';
import { changedBeside, revisionOf } from '../edits/edits';
import { Page } from '../http/route';
import { slotsOf } from './slots-of';
import { brandApart, variantsOf, type VariantWithData } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { refusalOf } from '../http/refusals';

type ListedRow = {
  id: string;
  title: string;
  sheets: string[];
  createdAt: string;
  productId: string;
  product: string;
  variants: number;
  cutouts: string[];
  shots: number;
  revision: number;
  feeds: string[][];
};

@Injectable()
export class ListingsService {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** Listings, newest first, in a few words: one statement. `search` looks in their titles and their products'. */
  async list(from: number, limit: number, search: string) {
    const matching = sql`l.workspace_id = ${WORKSPACE}
      and (${search} = '' or l.title ilike ${containing(search)} or p.title ilike ${containing(search)})`;
    const counted = this.db.execute<{ total: number }>(
      sql`select count(*)::int as total from listings l join products p on p.id = l.product_id where ${matching}`,
    );
    const [rows, sheets] = await Promise.all([
      this.db.execute<ListedRow>(sql`
        select l.id, l.title, l.sheets, l.created_at as "createdAt", p.id as "productId", p.title as product,
          coalesce(v.count, 0)::int as variants, coalesce(v.cutouts, '[]') as cutouts,
          coalesce((select r.revision from scopes r where r.scope = 'board:' || l.id), 1) as revision,
          coalesce(s.count, 0)::int as shots, coalesce(s.feeds, '[]') as feeds
        from listings l
        join products p on p.id = l.product_id
        left join lateral (
          select count(*) as count,
            jsonb_agg(c.cutout->>'picture' order by v.position) filter (where c.cutout is not null and v.position < 6) as cutouts
          from variants v left join photos c on c.id = v.photo_id
          where v.product_id = l.product_id
        ) v on true
        left join lateral (
          select count(*) as count, jsonb_agg(s.feeds) as feeds from shots s where s.listing_id = l.id
        ) s on true
        where ${matching}
        order by l.created_at desc, l.id
        offset ${from} limit ${limit}`),
      allSheets(this.db),
    ]);
    const items = rows.rows.map(({ feeds, ...listing }) => {
      const fed = new Set(feeds.flat());
      const slots = slotsOf(listing.sheets, sheets);
      return {
        ...listing,
        createdAt: new Date(listing.createdAt),
        slots: slots.length,
        missing: slots.filter((s) => s.slot.required && !fed.has(s.key)).length,
      };
    });
    return new Page(items, (await counted).rows[0].total);
  }

  async one(id: string) {
    const [listing] = await this.db
      .select()
      .from(listings)
      .where(and(eq(listings.id, id), eq(listings.workspaceId, WORKSPACE)));
    if (!listing) throw new NotFoundException('This listing is not here any more.');
    const revision = await revisionOf(this.db, boardScopeName(id));
    const [own, rows, sheets, cells] = await Promise.all([
      variantsOf(this.db, [listing.productId]),
      this.db
        .select()
        .from(shots)
        .where(eq(shots.listingId, id))
        .orderBy(asc(shots.position), asc(shots.createdAt)),
      allSheets(this.db),
      this.db
        .select({ variantId: cellFeeds.variantId, slotKey: cellFeeds.slotKey, shotId: cellFeeds.shotId })
        .from(cellFeeds)
        .where(eq(cellFeeds.listingId, id)),
    ]);
    return {
      listing,
      revision,
      ...brandApart(own),
      cellFeeds: cells,
      sheets: sheets.filter((s) => listing.sheets.includes(s.id)),
      shots: rows.map(({ history: _, ...shot }) => shot),
    };
  }

  /** A new product with one variant a photo, its listing, and two first shots that feed every slot by rule. */
  async fromPhotos(body: { photoIds: string[]; title: string; sheets?: string[]; sceneId?: string }) {
    const found = await this.db.select().from(photos).where(inArray(photos.id, body.photoIds));
    const chosen = body.photoIds.map((id) => found.find((p) => p.id === id));
    if (chosen.some((p) => !p)) throw new NotFoundException('A photo of this listing is not here any more.');
    const unready = chosen.find((p) => !p!.cutout);
    if (unready)
      throw new UnprocessableEntityException(
        `"${unready.name}" has no cutout yet. Wait for it, or open the photo and cut it out.`,
      );
    const sheets = await allSheets(this.db);
    const ids = body.sheets ?? sheets.map((s) => s.id);
    const unknown = ids.find((id) => !sheets.some((s) => s.id === id));
    if (unknown) throw new UnprocessableEntityException(`There is no spec sheet "${unknown}".`);
    return this.db.transaction(async (tx) => {
      const [product] = await tx
        .insert(products)
        .values({ workspaceId: WORKSPACE, title: body.title, pose: 'stand' })
        .returning();
      for (const [position, photo] of chosen.entries())
        await tx.insert(variants).values({
          productId: product.id,
          title: chosen.length > 1 ? photo!.name.replace(/\.[^.]+$/, '') : '',
          sku: skuFrom(body.title, position, chosen.length),
          photoId: photo!.id,
          position,
        });
      const [listing] = await tx
        .insert(listings)
        .values({ workspaceId: WORKSPACE, title: body.title, productId: product.id, sheets: ids })
        .returning();
      const [first] = await variantsOf(tx, [product.id]);
      const [scene] = await tx
        .select()
        .from(scenes)
        .where(body.sceneId ? eq(scenes.id, body.sceneId) : eq(scenes.workspaceId, WORKSPACE))
        .orderBy(asc(scenes.createdAt))
        .limit(1);
      if (body.sceneId && !scene) throw new NotFoundException('This scene is not in the library any more.');
      const wanted = slotsOf(ids, sheets);
      await tx.insert(shots).values(starterShots(listing.id, first, scene, wanted));
      return listing;
    });
  }

  async addShot(listingId: string, body: { kind: 'white' | 'scene'; sceneId?: string; title?: string }) {
    const { listing, shots: present } = await this.one(listingId);
    const own = await variantsOf(this.db, [listing.productId]);
    // A mockup is printed on: it needs no cutout.
    const product = () => {
      const first = own.find((v) => v.data.cutout);
      if (!first) throw new UnprocessableEntityException('No variant of this listing has a cutout yet.');
      return first;
    };
    let document: Shot;
    let title = body.title;
    if (body.kind === 'white') {
      const first = product();
      document = whiteShot(first.data, first.pose);
      title ??= 'On white';
    } else {
      const [scene] = body.sceneId
        ? await this.db.select().from(scenes).where(eq(scenes.id, body.sceneId))
        : await this.db.select().from(scenes).where(eq(scenes.workspaceId, WORKSPACE)).limit(1);
      if (!scene) throw new NotFoundException('This scene is not in the library any more.');
      if (scene.survey.areas.length) document = mockupShot(scene);
      else {
        const first = product();
        document = sceneShot(first.data, first.pose, scene);
      }
      title ??= scene.title;
    }
    const [made] = await this.db
      .insert(shots)
      .values({
        workspaceId: WORKSPACE,
        listingId,
        title,
        alt: suggestedAlt(title),
        document,
        history: { past: [], future: [] },
        feeds: [],
        position: present.length,
      })
      .returning();
    return made;
  }

  /** New shots of documents; a slot that one of them fills is taken from whichever filled it. All or none. */
  async addDocuments(listingId: string, list: { title: string; document: unknown; feeds: string[] }[]) {
    const { shots: present, sheets } = await this.one(listingId);
    const known = new Set(sheets.flatMap((s) => s.slots.map((slot) => slotKey(s, slot))));
    const unknown = list.flatMap((s) => s.feeds).find((key) => !known.has(key));
    if (unknown) throw new NotFoundException(`This listing has no slot "${unknown}".`);
    const rows = list.map(({ title, document, feeds }, i) => ({
      workspaceId: WORKSPACE,
      listingId,
      title,
      alt: suggestedAlt(title),
      document: readOrRefuse(document),
      history: { past: [], future: [] },
      feeds,
      position: present.length + i,
    }));
    const taken = new Set(list.flatMap((s) => s.feeds));
    return this.db.transaction(async (tx) => {
      const pieces = new Set([...taken].map((slotKey) => slotPiece(slotKey)));
      await changedBeside(tx, boardScopeName(listingId), 'Add shots', pieces);
      const now = await tx.select().from(shots).where(eq(shots.listingId, listingId)).for('update');
      for (const shot of now.filter((s) => s.feeds.some((f) => taken.has(f))))
        await tx
          .update(shots)
          .set({ feeds: shot.feeds.filter((f) => !taken.has(f)), updatedAt: sql`now()` })
          .where(eq(shots.id, shot.id));
      return tx.insert(shots).values(rows).returning();
    });
  }

  /** A shot of no product: in a listing of its own, with neither variants nor slots. */
  async addAlone(title: string, document: unknown) {
    const read = readOrRefuse(document);
    return this.db.transaction(async (tx) => {
      const [product] = await tx
        .insert(products)
        .values({ workspaceId: WORKSPACE, title, pose: 'stand' })
        .returning();
      const [listing] = await tx
        .insert(listings)
        .values({ workspaceId: WORKSPACE, title, productId: product.id, sheets: [] })
        .returning();
      const [made] = await tx
        .insert(shots)
        .values({
          workspaceId: WORKSPACE,
          listingId: listing.id,
          title,
          alt: suggestedAlt(title),
          document: read,
          history: { past: [], future: [] },
          feeds: [],
          position: 0,
        })
        .returning();
      return made;
    });
  }
}

export function readOrRefuse(document: unknown): Shot {
  try {
    return readShot(document);
  } catch (error) {
    throw refusalOf(error, 'The shot');
  }
}

/** Slots that want white take the shot on white; all others the scene. */
function starterShots(
  listingId: string,
  first: VariantWithData,
  scene: typeof scenes.$inferSelect | undefined,
  wanted: ReturnType<typeof slotsOf>,
): (typeof shots.$inferInsert)[] {
  const white = wanted.filter((w) => w.slot.background.kind === 'white' || !scene).map((w) => w.key);
  const others = wanted.map((w) => w.key).filter((k) => !white.includes(k));
  const common = { workspaceId: WORKSPACE, listingId, history: { past: [], future: [] } };
  const list: (typeof shots.$inferInsert)[] = [
    {
      ...common,
      title: 'On white',
      alt: suggestedAlt('On white'),
      document: whiteShot(first.data, first.pose),
      feeds: white,
      position: 0,
    },
  ];
  if (scene)
    list.push({
      ...common,
      title: scene.title,
      alt: suggestedAlt(scene.title),
      document: sceneShot(first.data, first.pose, scene),
      feeds: others,
      position: 1,
    });
  return list;
}

function skuFrom(title: string, position: number, count: number): string {
  const letters = title
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9 ]/g, '')
    .trim()
    .split(/\s+/)
    .map((w) => w.slice(0, 3).toUpperCase())
    .slice(0, 3)
    .join('-');
  return `${letters || 'ITEM'}${count > 1 ? `-${position + 1}` : ''}`;
}
