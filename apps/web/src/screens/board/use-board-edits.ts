import { useMemo } from 'react';
import { call } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { say } from '../../ui/notices';
import { sayTurned } from '../../ui/say-turned';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

type Cell = { variantId: string; slotKey: string };

/** The changes of a listing's board that the server carries out; each can be undone there. */
export function useBoardEdits(listingId: string) {
  return useMemo(() => {
    const params = { id: listingId };
    const based = { of: boardOf(listingId) };
    const tell = <T extends object>(ask: Promise<T>) => tried(ask, '/api/listings');
    return {
      /** Fills a slot from a shot, for every variant. */
      feed: (slot: string, shotId: string | null) =>
        void tell(call('PUT /api/listings/:id/feeds', { params, body: { slot, shotId } }, based)),
      /** Fills single cells from a shot. */
      async assign(cells: Cell[], shotId: string | null) {
        const done = await tell(
          call('PUT /api/listings/:id/cells', { params, body: { cells, shotId } }, based),
        );
        if (done)
          say(
            'pass',
            msg('{assigned} {assigned, plural, one {cell} other {cells}} assigned.', {
              assigned: done.assigned,
            }),
          );
      },
      async fill() {
        const done = await tell(call('POST /api/listings/:id/fill', { params }, based));
        if (!done) return;
        const { filled, left } = done;
        say(
          left ? 'look' : 'pass',
          filled || left
            ? msg('{filled} {filled, plural, one {slot} other {slots}} filled by their rules{part}.', {
                filled,
                part: left ? msg('; {left} that no shot suits', { left }) : '',
              })
            : msg('Every slot has a shot already.'),
        );
      },
      async turn(way: 'undo' | 'redo') {
        const done = await tell(call('POST /api/listings/:id/turn', { params, body: { way } }, based));
        if (done) sayTurned(way, done);
      },
    };
  }, [listingId]);
}
export type BoardEdits = ReturnType<typeof useBoardEdits>;
