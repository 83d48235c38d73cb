import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type pg from 'pg';
import { DATABASE, POOL, type Database } from '../database/database';
import { announce, type ServerEvent } from '../events/events';
import { Call, On } from '../http/route';
import { restore } from './bin';

/** What a browser is told to look at anew. */
const TOPICS: Record<string, ServerEvent['topic']> = {
  photo: 'photo',
  shot: 'shot',
  recipe: 'recipe',
  product: 'product',
  listing: 'listing',
  delivery: 'delivery',
  'spec sheet': 'sheets',
};

/** What was removed, and how it comes back. */
@Controller()
export class BinController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
  ) {}

  @On('POST /api/bin/:thing/restore')
  async restore(@Call() { params: { thing } }: CallOf<'POST /api/bin/:thing/restore'>) {
    const back = await restore(this.db, thing);
    const topic = TOPICS[back.kind];
    if (topic) await announce(this.pool, { topic, id: thing });
    return back;
  }
}
