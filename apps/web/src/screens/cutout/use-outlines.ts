import { useState } from 'react';
import type { OutlineStep } from '@scenograph/core/cutout/recipe';
import { type Outline, call, upload } from '../../api/client';
import { say } from '../../ui/notices';
import { addStep } from './use-gestures';
import { msg } from '../../language/language';

/** The outlines that are kept with a photo: saved from the desk, taken in from files, used as steps, removed. */
export function useOutlines(photoId: string, first: Outline[]) {
  const [list, setList] = useState(first);
  const keep = async (name: string, title: string, file: Blob): Promise<void> => {
    const kept = await upload('POST /api/photos/:id/outlines', {
      params: { id: photoId },
      query: { name, title },
      file,
    });
    setList((l) => [kept, ...l]);
  };
  /** Whether it went well; what did not is told. */
  const trying = (work: () => Promise<void>): Promise<boolean> =>
    work().then(
      () => true,
      (e: Error) => {
        say('stop', e.message);
        return false;
      },
    );
  return {
    list,
    save: (title: string, matte: Promise<Blob>) =>
      trying(async () => {
        await keep('outline.png', title, await matte);
        say('pass', msg('"{title}" is kept with the photo.', { title }));
      }),
    take: (file: File) => trying(() => keep(file.name, file.name.replace(/\.\w+$/, ''), file)),
    use(outline: Outline, mode: OutlineStep['mode']): void {
      addStep(outline.title, {
        id: crypto.randomUUID(),
        name: '',
        on: true,
        kind: 'outline',
        mode,
        matte: outline.matte,
      });
    },
    remove: (outline: Outline) =>
      trying(async () => {
        const params = { id: photoId, outline: outline.id };
        await call('DELETE /api/photos/:id/outlines/:outline', { params });
        setList((l) => l.filter((o) => o.id !== outline.id));
        const bringBack = async () => {
          await call('POST /api/bin/:thing/restore', { params: { thing: outline.id } });
          setList((l) => [outline, ...l.filter((o) => o.id !== outline.id)]);
        };
        const run = () => void trying(bringBack);
        say('pass', msg('"{outline}" is removed.', { outline: outline.title }), { title: msg('Undo'), run });
      }),
  };
}
