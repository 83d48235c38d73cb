import { create } from 'zustand';
import { refresh, ServerRefusal, type Photo, upload } from './client';
import { msg } from '../language/language';

/** One file on its way in. */
export interface Upload {
  id: number;
  name: string;
  share: number;
  state: 'waiting' | 'sending' | 'taken' | 'refused' | 'stopped';
  message: string;
  photo: Photo | null;
  stop: AbortController;
  file: File;
}

interface Uploads {
  list: Upload[];
  clear(): void;
}

export const useUploads = create<Uploads>((set) => ({
  list: [],
  clear: () => set((s) => ({ list: s.list.filter((u) => u.state === 'waiting' || u.state === 'sending') })),
}));

let next = 1;
let active = 0;
const AT_ONCE = 3;
const BUSY_MS = 2000;

const change = (id: number, patch: Partial<Upload>) =>
  useUploads.setState((s) => ({ list: s.list.map((u) => (u.id === id ? { ...u, ...patch } : u)) }));

/** Sends files in, a few at a time; one that is refused does not hold up the others. */
export function bringIn(files: Iterable<File>): void {
  const added = [...files].map<Upload>((file) => ({
    id: next++,
    name: file.name || msg('pasted picture.png'),
    share: 0,
    state: 'waiting',
    message: '',
    photo: null,
    stop: new AbortController(),
    file,
  }));
  useUploads.setState((s) => ({ list: [...added, ...s.list] }));
  pump();
}

export function stopUpload(upload: Upload): void {
  if (upload.state === 'waiting') change(upload.id, { state: 'stopped', message: msg('Not sent.') });
  else upload.stop.abort();
}

function pump(): void {
  while (active < AT_ONCE) {
    const queue = useUploads.getState().list.filter((u) => u.state === 'waiting');
    const sending = queue[queue.length - 1];
    if (!sending) return;
    active++;
    change(sending.id, { state: 'sending' });
    upload('POST /api/photos', {
      query: { name: sending.name },
      file: sending.file,
      onProgress: (share) => change(sending.id, { share }),
      signal: sending.stop.signal,
    })
      .then((photo) => change(sending.id, { state: 'taken', photo, share: 1 }))
      .catch(async (error: Error) => {
        const { aborted } = sending.stop.signal;
        // The server is busy with other files: this one waits here, and is sent again.
        if (error instanceof ServerRefusal && error.status === 429 && !aborted) {
          await new Promise((r) => setTimeout(r, BUSY_MS));
          change(sending.id, { state: 'waiting', share: 0 });
        } else change(sending.id, { state: aborted ? 'stopped' : 'refused', message: error.message });
      })
      .finally(() => {
        active--;
        refresh('/api/photos');
        pump();
      });
  }
}
