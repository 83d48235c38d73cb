import pg from 'pg';
import { Subject } from 'rxjs';

/** What browsers are told as it happens. */
export interface ServerEvent {
  topic: 'photo' | 'delivery' | 'shot' | 'listing' | 'brand' | 'sheets' | 'product' | 'recipe';
  id: string;
  [key: string]: unknown;
}

const CHANNEL = 'scenograph_events';

/**
 * Tells every web server, whichever process it happened in. Payloads stay small: details are fetched. What is told need
 * outlive nothing: its commit waits for no disk, which a request would wait for too.
 */
export async function announce(pool: pg.Pool, event: ServerEvent): Promise<void> {
  await pool.query("select set_config('synchronous_commit', 'off', true), pg_notify($1, $2)", [
    CHANNEL,
    JSON.stringify(event),
  ]);
}

/** Listens for announcements; reconnects when the connection is lost. */
export function listen(url: string): { events: Subject<ServerEvent>; close: () => Promise<void> } {
  const events = new Subject<ServerEvent>();
  let client: pg.Client | null = null;
  let closed = false;
  const connect = async () => {
    if (closed) return;
    const mine = new pg.Client({ connectionString: url });
    client = mine;
    mine.on('notification', (message) => {
      if (message.payload) events.next(JSON.parse(message.payload) as ServerEvent);
    });
    const again = () => {
      if (client === mine && !closed) {
        client = null;
        setTimeout(() => void connect(), 1000).unref();
      }
    };
    mine.on('error', again);
    mine.on('end', again);
    try {
      await mine.connect();
      await mine.query(`listen ${CHANNEL}`);
    } catch {
      again();
    }
  };
  void connect();
  return {
    events,
    async close() {
      closed = true;
      await client?.end().catch(() => undefined);
    },
  };
}
