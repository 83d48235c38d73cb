import { Controller, Inject, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Response } from 'express';
import { DATABASE, type Database } from '../database/database';
import { Call, On } from '../http/route';
import { BIN_DAYS, CACHE_DAYS, collect, GRACE_HOURS, storageByKind } from '../storage/collect';
import { readiness } from './health';
import { METRICS, type Metrics } from './metrics';
import { workOf } from './work';

/** How the server is: for its owner, for whoever starts it again when it hangs, and for what draws charts of it. */
@Controller()
export class WatchController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(METRICS) private readonly metrics: Metrics,
  ) {}

  @On('GET /api/health')
  health() {
    return { ok: true as const };
  }

  @On('GET /api/health/live')
  live() {
    return { ok: true as const };
  }

  @On('GET /api/health/ready')
  async ready(_call: unknown, @Res({ passthrough: true }) response: Response) {
    const state = await readiness(this.db);
    response.status(state.ready ? 200 : 503);
    return { ...state, ...(state.ready ? {} : { message: state.missing.join(' ') }) };
  }

  @On('GET /api/metrics')
  async prometheus(_call: unknown, @Res() response: Response) {
    response.type(this.metrics.contentType).send(await this.metrics.text());
  }

  @On('GET /api/work')
  work() {
    return workOf(this.db);
  }

  @On('GET /api/storage')
  async storage() {
    const keeps = { graceHours: GRACE_HOURS, cacheDays: CACHE_DAYS, binDays: BIN_DAYS };
    return { kinds: await storageByKind(this.db), keeps };
  }

  @On('POST /api/storage/collect')
  collect(@Call() { body }: CallOf<'POST /api/storage/collect'>) {
    return collect(this.db, body);
  }
}
