import { say } from '../ui/notices';
import { refresh, type Artwork, upload } from './client';

/** Files that a design may come as. */
export const ARTWORK_FILES = '.svg,image/svg+xml,image/png,image/jpeg,image/webp';

/** Takes designs into the library; what is refused or worth knowing is said, the others come in. */
export async function bringInArtwork(files: File[]): Promise<Artwork[]> {
  const taken: Artwork[] = [];
  for (const file of files)
    try {
      const made = await upload('POST /api/artwork', { query: { name: file.name }, file });
      for (const note of made.notes) say('look', `${made.title}: ${note}.`);
      taken.push(made);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  if (taken.length) refresh('/api/artwork');
  return taken;
}
