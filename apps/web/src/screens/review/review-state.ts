import { verdictOf } from '@scenograph/core/cutout/confidence';
import type { Photo } from '../../api/client';
import type { Mark } from '../../ui/status';
import { msg } from '../../language/language';

/** What a wall is sorted by: what could not be cut out comes before everything. */
export function sureness(photo: Photo): number {
  if (photo.cutoutState === 'failed') return -1;
  return photo.cutout?.confidence ?? 0;
}

const MARKS: Record<string, Mark> = { 'looks right': 'pass', 'look at it': 'look', 'needs a hand': 'stop' };

/** How a cutout stands on the wall, as a mark and in words. */
export function reviewState(photo: Photo): { mark: Mark; words: string } {
  switch (photo.cutoutState) {
    case 'failed':
      return { mark: 'stop', words: photo.cutoutError ?? msg('could not be cut out') };
    case 'waiting':
      return { mark: 'working', words: msg('queued') };
    case 'working':
      return { mark: 'working', words: msg('being cut out') };
    case 'cancelled':
      return { mark: 'missing', words: msg('cancelled, not cut out') };
    case 'done': {
      if (photo.accepted) return { mark: 'pass', words: msg('accepted') };
      const words = verdictOf(sureness(photo));
      return { mark: MARKS[words], words: msg(words) };
    }
  }
}
