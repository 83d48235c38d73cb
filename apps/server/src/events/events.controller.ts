import { Controller, Inject, Req, type MessageEvent } from '@nestjs/common';
import type { Request } from 'express';
import { finalize, interval, map, merge, type Observable, type Subject } from 'rxjs';
import { TooMany } from '../http/refusals';
import { On } from '../http/route';
import type { ServerEvent } from './events';

export const EVENTS = Symbol('events');

/** Streams that one address may hold open: windows of everybody behind it. */
const MOST_STREAMS = 200;

@Controller()
export class EventsController {
  private readonly open = new Map<string, number>();

  constructor(@Inject(EVENTS) private readonly events: Subject<ServerEvent>) {}

  /** Server-sent events; an empty beat now and then keeps the line open. */
  @On('GET /api/events')
  stream(_call: unknown, @Req() request: Request): Observable<MessageEvent> {
    const from = request.ip ?? '';
    const open = this.open.get(from) ?? 0;
    if (open >= MOST_STREAMS)
      throw new TooMany(
        `${MOST_STREAMS} windows are open from this address already. Close some, then reload this one.`,
      );
    this.open.set(from, open + 1);
    return merge(
      this.events.pipe(map((event) => ({ data: event }))),
      interval(20_000).pipe(map(() => ({ type: 'beat', data: '' }))),
    ).pipe(
      finalize(() => {
        const left = this.open.get(from)! - 1;
        if (left) this.open.set(from, left);
        else this.open.delete(from);
      }),
    );
  }
}
