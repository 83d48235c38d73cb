import { verdictOf } from '@scenograph/core/cutout/confidence';
import type { Photo } from '../../api/client';
import { msg } from '../../language/language';
import type { Mark } from '../../ui/status';
import { reviewState } from '../review/review-state';

/** How a photo's cutout stands, in words. */
export function cutoutText(photo: Photo): string {
  if (photo.cutoutState === 'waiting') return msg('Queued for its cutout');
  if (photo.cutoutState === 'working') return msg('Being cut out ...');
  if (photo.cutoutState === 'cancelled') return msg('Cancelled; open it to cut it out');
  if (photo.cutoutState === 'failed') return photo.cutoutError ?? msg('Could not be cut out.');
  if (photo.inUse === false) return msg('Corrected, not in use yet');
  if (photo.accepted) return msg('Cut out, accepted');
  return msg('Cut out, {verdict}', { verdict: msg(verdictOf(photo.cutout?.confidence ?? 0)) });
}

/** The mark of what those words say: never more sure than they are. */
export const cutoutMark = (photo: Photo): Mark => (photo.inUse ? reviewState(photo).mark : 'stale');
