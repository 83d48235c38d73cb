import { unzip } from 'fflate';
import { say } from '../../ui/notices';
import { msg } from '../../language/language';

const PICTURE = /\.(jpe?g|png|webp|tiff?|avif)$/i;

/** Pictures that come with a table, by file name; each is read when it is needed. */
export type Pictures = Map<string, () => Promise<Blob>>;

/** The pictures among some files and in ZIPs among them; what cannot be opened is told. */
export async function picturesOf(files: File[]): Promise<Pictures> {
  const found: Pictures = new Map();
  for (const f of files) {
    if (/\.zip$/i.test(f.name)) {
      try {
        for (const [name, read] of await picturesOfZip(f)) found.set(name, read);
      } catch {
        say('stop', msg('"{f}" is not a ZIP that can be opened.', { f: f.name }));
      }
    } else if (PICTURE.test(f.name)) found.set(f.name, () => Promise.resolve(f));
  }
  return found;
}

/** The pictures in a ZIP; each is taken out when it is needed. */
async function picturesOfZip(file: File): Promise<Pictures> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const names: string[] = [];
  const open = (wanted: (name: string) => boolean) =>
    new Promise<Record<string, Uint8Array>>((resolve, reject) =>
      unzip(bytes, { filter: (f) => wanted(f.name) }, (error, files) =>
        error ? reject(error) : resolve(files),
      ),
    );
  await open((name) => {
    if (PICTURE.test(name) && !name.startsWith('__MACOSX/')) names.push(name);
    return false;
  });
  return new Map(
    names.map((name) => [
      name,
      async () => new Blob([(await open((n) => n === name))[name] as Uint8Array<ArrayBuffer>]),
    ]),
  );
}
