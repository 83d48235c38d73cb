import { log } from '../watch/logs';
import { troubleOf } from './trouble';

/**
 * A database that goes away ends no process: what nobody waited for (a queue's own book-keeping) fails by itself and is
 * put right by the sweeps when it is back. Any other failure that nobody waited for still ends the process, to be started
 * again.
 */
export function outliveDatabase(): void {
  process.on('unhandledRejection', (reason) => {
    if (troubleOf(reason)) {
      log.warn({ error: reason instanceof Error ? reason.message : String(reason) }, 'The database is away.');
      return;
    }
    log.fatal({ error: reason instanceof Error ? reason.stack : String(reason) });
    process.exit(1);
  });
}
