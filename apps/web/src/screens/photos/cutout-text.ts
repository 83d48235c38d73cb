import { verdictOf } from '@scenograph/core/cutout/confidence';
import type { Photo } from '../../api/client';

/** How a photo's cutout stands, in words. */
export function cutoutText(photo: Photo): string {
  if (photo.cutoutState === 'waiting') return 'Queued for its cutout';
  if (photo.cutoutState === 'working') return 'Being cut out ...';
  if (photo.cutoutState === 'cancelled') return 'Cancelled; open it to cut it out';
  if (photo.cutoutState === 'failed') return photo.cutoutError ?? 'Could not be cut out.';
  if (photo.inUse === false) return 'Corrected, not in use yet';
  if (photo.accepted) return 'Cut out, accepted';
  return `Cut out, ${verdictOf(photo.cutout?.confidence ?? 0)}`;
}
