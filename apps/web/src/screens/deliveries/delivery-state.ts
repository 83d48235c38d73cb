import type { Delivery } from '../../api/client';
import type { Mark } from '../../ui/status';
import { msg } from '../../language/language';

export function deliveryMark(d: Delivery): Mark {
  if (d.state === 'failed') return 'stop';
  if (d.state === 'cancelled') return 'missing';
  if (d.state === 'paused') return d.error ? 'stop' : 'look';
  if (d.state === 'done') return d.failed ? 'look' : 'pass';
  return 'working';
}

export function deliveryText(d: Delivery): string {
  const done = msg('{made} of {total}', { made: d.made + d.failed, total: d.total });
  if (d.state === 'queued') return 'queued';
  if (d.state === 'running') return msg('painting, {done}', { done });
  if (d.state === 'paused') return d.error ?? msg('paused at {done}', { done });
  if (d.state === 'cancelled')
    return msg('cancelled after {made} of {total}', { made: d.made, total: d.total });
  if (d.state === 'failed') return d.error ?? msg('failed');
  return d.failed ? msg('done, {failed} could not be made', { failed: d.failed }) : msg('done');
}

export const hasZip = (d: Delivery) => d.state !== 'cancelled' && d.state !== 'failed';
export const isOpen = (d: Delivery) => d.state === 'queued' || d.state === 'running' || d.state === 'paused';
