import { verdictOf } from '@scenograph/core/cutout/confidence';
import type { Photo } from '../../api/client';
import { msg } from '../../language/language';

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
