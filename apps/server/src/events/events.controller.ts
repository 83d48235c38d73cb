import { Controller, Inject, type MessageEvent } from '@nestjs/common';
import { interval, map, merge, type Observable, type Subject } from 'rxjs';
import { On } from '../http/route';
import type { ServerEvent } from './events';

export const EVENTS = Symbol('events');

@Controller()
export class EventsController {
  constructor(@Inject(EVENTS) private readonly events: Subject<ServerEvent>) {}

  /** Server-sent events; an empty beat now and then keeps the line open. */
  @On('GET /api/events')
  stream(): Observable<MessageEvent> {
    return merge(
      this.events.pipe(map((event) => ({ data: event }))),
      interval(20_000).pipe(map(() => ({ type: 'beat', data: '' }))),
    );
  }
}
