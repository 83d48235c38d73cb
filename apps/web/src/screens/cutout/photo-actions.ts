import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import type { Tidy } from '@scenograph/core/retouch/tidy';
import { refresh, type Photo, call } from '../../api/client';
import { say } from '../../ui/notices';
import { saveRecipe, useRecipe } from './recipe-store';
import { msg } from '../../language/language';

/** Stores what is on the desk and, where it has changed, has the full-size cutout made: every shot with it follows. */
export async function putToUse(photoId: string): Promise<void> {
  const { id: open, saving, inUse } = useRecipe.getState();
  if (open !== photoId || (saving === 'saved' && inUse)) return;
  await saveRecipe();
  try {
    const { queued } = await call('POST /api/photos/cutouts', {
      body: {
        ids: [photoId],
        changedOnly: true,
      },
    });
    if (useRecipe.getState().id === photoId) useRecipe.setState({ inUse: true });
    refresh('/api/photos');
    if (!queued) return;
    say('working', msg('The corrected cutout is made at full size; every shot with it follows.'));
  } catch (e) {
    say('stop', (e as Error).message);
  }
}

/** Stores the corrections, marks the photo as accepted and goes on to the next one. */
export function useAccept(photo: Photo, next: Photo | undefined): () => Promise<void> {
  const navigate = useNavigate();
  return useCallback(async () => {
    if (!(await saveRecipe()))
      return say('stop', msg('The steps could not be stored yet; try again in a moment.'));
    try {
      await call('POST /api/photos/accepted', {
        body: { ids: [photo.id], revisions: [useRecipe.getState().revision], accepted: true },
      });
      await call('POST /api/photos/cutouts', { body: { ids: [photo.id], changedOnly: true } });
      refresh('/api/photos');
      say(
        'pass',
        msg('Accepted. What was corrected is made at full size; every shot that shows it follows.'),
      );
      void navigate(next ? `/photos/${next.id}/cutout` : '/photos/review');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  }, [photo.id, next, navigate]);
}

/** Gives other photos the same adjustments; the notice that follows takes them back. */
export async function adjustAlike(others: readonly Photo[], tidy: Tidy): Promise<void> {
  try {
    const { queued, before } = await call('POST /api/photos/tidy', {
      body: { ids: others.map((p) => p.id), revisions: others.map((p) => p.revision), tidy },
    });
    refresh('/api/photos');
    say(
      'working',
      msg(
        '{queued, plural, one {# photo takes the same adjustments and is} other {# photos take the same adjustments and are}} cut out again.',
        { queued },
      ),
      {
        title: msg('Undo'),
        run: () =>
          void call('POST /api/photos/tidy/restore', { body: { photos: before } })
            .then(() => {
              refresh('/api/photos');
              say(
                'pass',
                msg(
                  '{before, plural, one {# photo has the adjustments back that it} other {# photos have the adjustments back that they}} had.',
                  { before: before.length },
                ),
              );
            })
            .catch((e: Error) => say('stop', e.message)),
      },
    );
  } catch (e) {
    say('stop', (e as Error).message);
  }
}
