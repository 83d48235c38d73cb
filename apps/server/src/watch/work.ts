import { and, desc, eq, sql } from 'drizzle-orm';
import type { ResultOf } from '@scenograph/contract';
import type { Database } from '../database/database';
import { paintings, photos, products, recipeResults, recipes } from '../database/schema';
import { livingWorkers } from '../jobs/workers';

type Work = ResultOf<'GET /api/work'>;

/** Failed work that is shown; more is counted only. */
const SHOWN = 100;

interface Count extends Record<string, unknown> {
  kind: 'cutouts' | 'recipes' | 'pictures';
  waiting: number;
  working: number;
  failed: number;
  oldestSeconds: number | null;
}

/** How much work of each kind waits, is being done and has failed, and for how long the oldest of it waits. */
export async function countWork(db: Database): Promise<Count[]> {
  const { rows } = await db.execute<Count>(sql`
    select 'cutouts' as kind, count(*) filter (where cutout_state = 'waiting')::int as waiting,
      count(*) filter (where cutout_state = 'working')::int as working,
      count(*) filter (where cutout_state = 'failed')::int as failed,
      (select extract(epoch from now() - min(created_on))::float8 from pgboss.job
        where name = 'cutout' and state in ('created', 'retry')) as "oldestSeconds"
    from photos
    union all
    select 'recipes', count(*) filter (where state = 'waiting')::int, count(*) filter (where state = 'working')::int,
      count(*) filter (where state = 'failed')::int,
      extract(epoch from now() - min(updated_at) filter (where state = 'waiting'))::float8
    from recipe_results
    union all
    select 'pictures', count(*) filter (where state = 'waiting')::int, count(*) filter (where state = 'working')::int,
      count(*) filter (where state = 'failed')::int,
      extract(epoch from now() - min(created_at) filter (where state = 'waiting'))::float8
    from paintings p where state <> 'done' and exists (
      select from delivery_pictures c join deliveries d on d.id = c.delivery_id
      where c.key = p.key and d.state <> 'cancelled')`);
  return rows;
}

/** What has failed, with its reason; the newest of each kind. */
async function failedWork(db: Database): Promise<Work['failed']> {
  const cutouts = await db
    .select({ id: photos.id, title: photos.name, reason: photos.cutoutError })
    .from(photos)
    .where(eq(photos.cutoutState, 'failed'))
    .orderBy(desc(photos.createdAt))
    .limit(SHOWN);
  const runs = await db
    .select({
      id: recipes.id,
      productId: products.id,
      recipe: recipes.title,
      product: products.title,
      reason: recipeResults.says,
    })
    .from(recipeResults)
    .innerJoin(recipes, eq(recipes.id, recipeResults.recipeId))
    .innerJoin(products, eq(products.id, recipeResults.productId))
    .where(and(eq(recipeResults.state, 'failed'), sql`${recipeResults.says} <> 'A step before it failed.'`))
    .orderBy(desc(recipeResults.updatedAt))
    .limit(SHOWN);
  const { rows: pictures } = await db.execute<{ id: string; title: string; reason: string | null }>(sql`
    select distinct on (p.finished_at, p.key) d.id, c.file_name as title, p.reason
    from ${paintings} p join delivery_pictures c using (key) join deliveries d on d.id = c.delivery_id
    where p.state = 'failed' and d.state <> 'cancelled'
    order by p.finished_at desc, p.key limit ${SHOWN}`);
  return [
    ...cutouts.map((c) => ({ ...c, kind: 'cutouts' as const, productId: null })),
    ...runs.map(({ recipe, product, ...run }) => ({
      ...run,
      kind: 'recipes' as const,
      title: `${recipe}: ${product}`,
    })),
    ...pictures.map((p) => ({ ...p, kind: 'pictures' as const, productId: null })),
  ];
}

/** All work and who does it. */
export async function workOf(db: Database): Promise<Work> {
  const [kinds, failed, workers] = await Promise.all([countWork(db), failedWork(db), livingWorkers(db)]);
  return {
    kinds,
    failed,
    workers: workers.map(({ id, host, threads, startedAt }) => ({ id, host, threads, startedAt })),
  };
}
