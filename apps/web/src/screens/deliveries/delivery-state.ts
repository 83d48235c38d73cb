import type { Delivery } from '../../api/client';
import type { Mark } from '../../ui/status';

export function deliveryMark(d: Delivery): Mark {
  if (d.state === 'failed') return 'stop';
  if (d.state === 'cancelled') return 'missing';
  if (d.state === 'paused') return d.error ? 'stop' : 'look';
  if (d.state === 'done') return d.failed ? 'look' : 'pass';
  return 'working';
}

export function deliveryText(d: Delivery): string {
  const done = `${d.made + d.failed} of ${d.total}`;
  if (d.state === 'queued') return 'queued';
  if (d.state === 'running') return `painting, ${done}`;
  if (d.state === 'paused') return d.error ?? `paused at ${done}`;
  if (d.state === 'cancelled') return `cancelled after ${d.made} of ${d.total}`;
  if (d.state === 'failed') return d.error ?? 'failed';
  return d.failed ? `done, ${d.failed} could not be made` : 'done';
}

export const hasZip = (d: Delivery) => d.state !== 'cancelled' && d.state !== 'failed';
export const isOpen = (d: Delivery) => d.state === 'queued' || d.state === 'running' || d.state === 'paused';
