import { useEffect } from 'react';
import { readClip } from '@scenograph/core/shot/clip';
import type { Shot } from '@scenograph/core/shot/document';
import { newId } from '@scenograph/core/shot/edit';
import { newPicture } from '@scenograph/core/shot/starters';
import type { Point } from '@scenograph/core/vector/outline';
import { refresh, upload } from '../../api/client';
import { ownerOfKeys } from '../../ui/keys';
import { say } from '../../ui/notices';
import { copied, paste, remove } from './commands';
import type { Editing } from './use-editing';

/** What copied elements are in the clipboard; other applications get their names as text. */
const CLIP = 'application/x-scenograph-clip+json';

/**
 * Copy, cut and paste on the stage, in the same shot, another one or another window: elements, text, pictures; and
 * pictures dropped on it. Where a field has the focus, all is the field's.
 */
export function useStageClipboard(add: Editing['add'], addText: (text: string) => void): void {
  useEffect(() => {
    const onCopy = (e: ClipboardEvent) => {
      if (ownerOfKeys(e.target) === 'field' || document.getSelection()?.isCollapsed === false) return;
      const clip = copied();
      if (!clip || !e.clipboardData) return;
      e.preventDefault();
      e.clipboardData.setData(CLIP, JSON.stringify(clip));
      e.clipboardData.setData('text/plain', clip.elements.map((c) => c.name).join('\n'));
      if (e.type === 'cut') remove();
    };
    const onPaste = (e: ClipboardEvent) => {
      if (ownerOfKeys(e.target) === 'field' || !e.clipboardData) return;
      const { files } = e.clipboardData;
      const clip = e.clipboardData.getData(CLIP);
      const text = e.clipboardData.getData('text/plain').trim();
      if (!clip && !files.length && !text) return;
      e.preventDefault();
      if (clip) pasteText(clip);
      else if (files.length) void layPictures(files, null, add);
      else addText(text);
    };
    const onDrop = (e: DragEvent) => {
      const picture = (e.target as Element).closest?.('[data-drop-says]')?.querySelector('canvas');
      if (!picture || !e.dataTransfer?.files.length) return;
      e.preventDefault();
      const { left, top, width, height } = picture.getBoundingClientRect();
      const at = { x: (e.clientX - left) / width, y: (e.clientY - top) / height };
      void layPictures(e.dataTransfer.files, at, add);
    };
    // Before the shell, which takes files for photos.
    window.addEventListener('copy', onCopy, true);
    window.addEventListener('cut', onCopy, true);
    window.addEventListener('paste', onPaste, true);
    window.addEventListener('drop', onDrop, true);
    return () => {
      window.removeEventListener('copy', onCopy, true);
      window.removeEventListener('cut', onCopy, true);
      window.removeEventListener('paste', onPaste, true);
      window.removeEventListener('drop', onDrop, true);
    };
  }, [add, addText]);
}

function pasteText(text: string): void {
  try {
    paste(readClip(text));
  } catch (e) {
    say('stop', (e as Error).message);
  }
}

/**
 * Takes pictures into the library and lays them in the shot.
 * @param at where their middle goes, as shares of the frame; null where pictures go of themselves
 */
async function layPictures(files: FileList, at: Point | null, add: Editing['add']): Promise<void> {
  for (const file of files)
    try {
      const made = await upload('POST /api/pictures', { query: { name: file.name }, file });
      add((shot) => placedAt(newPicture(newId('picture', shot), made.title, made, shot.frame), at, shot));
    } catch (e) {
      say('stop', (e as Error).message);
    }
  refresh('/api/pictures');
}

function placedAt(element: ReturnType<typeof newPicture>, at: Point | null, { frame }: Shot) {
  if (!at) return element;
  const { box } = element;
  const within = (middle: number, size: number, room: number) =>
    Math.min(Math.max(middle - size / 2, 0), Math.max(0, room - size));
  return {
    ...element,
    box: {
      ...box,
      x: within(at.x * frame.width, box.width, frame.width),
      y: within(at.y * frame.height, box.height, frame.height),
    },
  };
}
