import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ENCODINGS, type TextEncodingName } from '@scenograph/core/table/decode-text';
import type { Target } from '@scenograph/core/table/match-columns';
import { fieldName } from '@scenograph/core/table/match-columns';
import type { ImportPlan } from '@scenograph/core/table/plan-import';
import { DELIMITERS } from '@scenograph/core/table/read-table';
import { COLUMNS, type VariantRow } from '@scenograph/core/table/variant-row';
import { type ProductWithEdits, refresh, type Artwork, type Photo, call, upload } from '../../api/client';
import { Button, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { ProgressBar, StatusMark } from '../../ui/status';
import type { TableHead, TableWorker } from '../../workers/table.worker';
import type { VariantPatch } from './columns';
import { picturesOf, type Pictures } from './pictures-of';

const DELIMITER_TITLES: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };
/** So many problems are listed at once. */
const LISTED = 200;

/** A table is read, matched and tried; every problem is listed by row before anything is changed. */
export function ImportDialog({
  product,
  photos,
  artworks,
  onClose,
}: {
  product: ProductWithEdits;
  photos: Photo[];
  artworks: Artwork[];
  onClose(): void;
}) {
  const worker = useRef<Remote<TableWorker> | null>(null);
  const [file, setFile] = useState<{ name: string; bytes: Uint8Array } | null>(null);
  const [head, setHead] = useState<TableHead | null>(null);
  const [encoding, setEncoding] = useState<TextEncodingName | null>(null);
  const [delimiter, setDelimiter] = useState<string | null>(null);
  const [targets, setTargets] = useState<Target[]>([]);
  const [pictures, setPictures] = useState<Pictures>(new Map());
  const [plan, setPlan] = useState<ImportPlan | null>(null);
  const [trouble, setTrouble] = useState('');
  const [progress, setProgress] = useState<{ share: number; says: string } | null>(null);
  const cancelled = useRef<AbortController | null>(null);

  useEffect(() => {
    const raw = new Worker(new URL('../../workers/table.worker.ts', import.meta.url), { type: 'module' });
    worker.current = wrap<TableWorker>(raw);
    return () => raw.terminate();
  }, []);
  useEffect(() => {
    if (!file) return;
    let here = true;
    worker
      .current!.read(file.bytes, encoding, delimiter)
      .then((read) => {
        if (!here) return;
        setHead(read);
        setTargets(read.targets);
        setTrouble('');
      })
      .catch((e: Error) => here && setTrouble(e.message));
    return () => {
      here = false;
    };
  }, [file, encoding, delimiter]);
  const context = useMemo(() => {
    const photoName = new Map(photos.map((p) => [p.id, p.name]));
    const artworkTitle = new Map(artworks.map((a) => [a.id, a.title]));
    return {
      variants: new Map(
        product.variants.map((v) => [
          v.data.sku,
          {
            id: v.id,
            row: {
              sku: v.data.sku,
              title: v.data.variant,
              price: v.data.price,
              currency: v.data.currency,
              photo: (v.photoId && photoName.get(v.photoId)) || null,
              artwork: (v.artworkId && artworkTitle.get(v.artworkId)) || null,
              ink: v.data.ink ?? null,
              fields: v.data.fields ?? {},
            },
          },
        ]),
      ),
      photos: photos.map((p) => p.name),
      artworks: artworks.map((a) => a.title),
      pictures: [...pictures.keys()],
    };
  }, [product.variants, photos, artworks, pictures]);
  useEffect(() => {
    if (!head || targets.length !== head.columns.length) return;
    let here = true;
    void worker.current!.plan(targets, context).then((p) => here && setPlan(p));
    return () => {
      here = false;
    };
  }, [head, targets, context]);

  const choose = async ([chosen]: File[]) => {
    if (!chosen) return;
    setPlan(null);
    setFile({ name: chosen.name, bytes: new Uint8Array(await chosen.arrayBuffer()) });
  };
  const takePictures = async (files: File[]) => {
    const found = await picturesOf(files);
    if (!found.size) say('look', 'No pictures were found there.');
    setPictures(new Map([...pictures, ...found]));
  };

  const run = async () => {
    if (!plan) return;
    const stop = new AbortController();
    cancelled.current = stop;
    try {
      const photoId = new Map(photos.map((p) => [p.name, p.id]));
      for (const [i, name] of plan.pictures.entries()) {
        if (stop.signal.aborted)
          throw new Error(
            'Stopped. The table was not imported; pictures already imported stay under Photos.',
          );
        setProgress({
          share: i / plan.pictures.length,
          says: `${name} (${i + 1} of ${plan.pictures.length})`,
        });
        const blob = await pictures.get(name)!();
        const photo = await upload('POST /api/photos', {
          query: { name: name.split(/[\\/]/).pop()! },
          file: blob,
          signal: stop.signal,
        });
        photoId.set(name, photo.id);
      }
      setProgress({ share: 1, says: 'Storing the table' });
      const artworkId = new Map(artworks.map((a) => [a.title, a.id]));
      const patchOf = ({ photo, artwork, ...own }: Partial<VariantRow>): VariantPatch => ({
        ...own,
        ...(photo === undefined ? {} : { photoId: photo && photoId.get(photo) }),
        ...(artwork === undefined ? {} : { artworkId: artwork && artworkId.get(artwork) }),
      });
      await call('POST /api/products/:id/variants/batch', {
        params: { id: product.id },
        body: {
          label: `Import ${file!.name}`.slice(0, 120),
          set: plan.changes.flatMap((c) => (c.id ? [{ id: c.id, patch: patchOf(c.set) }] : [])),
          add: plan.changes.filter((c) => !c.id).map((c) => ({ ...patchOf(c.set), sku: c.sku })),
        },
      });
      say('pass', `Imported ${file!.name}: ${plan.changes.length} variants. Undo takes all of it back.`);
      onClose();
    } catch (e) {
      setTrouble((e as Error).message);
      setProgress(null);
    }
    refresh('/api/products', '/api/listings', '/api/photos');
  };

  const added = plan?.changes.filter((c) => !c.id).length ?? 0;
  const changed = (plan?.changes.length ?? 0) - added;
  return (
    <Dialog
      open
      wide
      onClose={() => {
        cancelled.current?.abort();
        onClose();
      }}
      title="Import a table"
      about="Rows find their variants by SKU. Nothing is changed before you have seen what would change."
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          {progress ? (
            <>
              <div className="mr-auto w-80">
                <ProgressBar share={progress.share} label="Import" />
                <p className="text-ink-2 mt-1 truncate text-[12px]">{progress.says}</p>
              </div>
              <Button tone="danger" onClick={() => cancelled.current?.abort()}>
                Cancel
              </Button>
            </>
          ) : (
            <>
              <Button onClick={onClose}>Cancel</Button>
              <Button
                tone="main"
                disabled={!plan || plan.problems.length > 0 || !plan.changes.length}
                onClick={() => void run()}
              >
                {plan?.changes.length
                  ? `Import ${plan.changes.length} row${plan.changes.length === 1 ? '' : 's'}`
                  : 'Import'}
              </Button>
            </>
          )}
        </>
      }
    >
      <div className="flex flex-wrap items-center gap-2.5">
        <FileButton
          title={file ? 'Another table' : 'Choose a table'}
          label="Table to import"
          accept=".csv,.tsv,.txt,text/csv"
          onFiles={(f) => void choose(f)}
        />
        {file && <span className="measure max-w-60 truncate">{file.name}</span>}
        {head && (
          <>
            <Select
              label="Encoding"
              value={encoding ?? head.encoding}
              onChange={(v) => setEncoding(v)}
              options={ENCODINGS.map((e) => ({ value: e, title: e }))}
            />
            <Select
              label="Delimiter"
              value={delimiter ?? head.delimiter}
              onChange={setDelimiter}
              options={DELIMITERS.map((d) => ({ value: d, title: DELIMITER_TITLES[d] }))}
            />
            <span className="text-ink-2">
              <span className="measure">{head.rows.toLocaleString('en-GB')}</span> rows
            </span>
          </>
        )}
      </div>
      {head && (
        <>
          <div className="mt-3 flex flex-wrap items-center gap-2.5">
            <FileButton
              title="Pictures or a ZIP"
              label="Pictures of the table"
              accept="image/*,.zip"
              multiple
              onFiles={(f) => void takePictures(f)}
            />
            <FolderButton onFiles={(f) => void takePictures(f)} />
            <span className="text-ink-2">
              {pictures.size
                ? `${pictures.size} pictures at hand, matched by file name`
                : 'Pictures that rows name can come with the table'}
            </span>
          </div>
          <table className="border-line mt-4 w-full border text-[12.5px]">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="px-2.5 py-1.5 font-medium">Column</th>
                <th className="px-2.5 py-1.5 font-medium">First values</th>
                <th className="w-60 px-2.5 py-1.5 font-medium">Goes to</th>
              </tr>
            </thead>
            <tbody>
              {head.columns.map((column, i) => (
                <tr key={i} className="border-line border-b last:border-b-0">
                  <td className="px-2.5 py-1 font-medium">{column || `column ${i + 1}`}</td>
                  <td className="measure text-ink-2 max-w-70 truncate px-2.5 py-1">
                    {head.sample
                      .map((r) => r[i])
                      .filter(Boolean)
                      .join('; ')}
                  </td>
                  <td className="px-2.5 py-1">
                    <Select
                      label={`${column} goes to`}
                      className="w-full"
                      value={targets[i]?.to ?? 'nowhere'}
                      onChange={(to) =>
                        setTargets((t) =>
                          t.map((old, n) =>
                            n !== i
                              ? old
                              : to === 'field'
                                ? { to: 'field', name: fieldName(column) ?? `column_${i + 1}` }
                                : ({ to } as Target),
                          ),
                        )
                      }
                      options={[
                        ...COLUMNS.map((c) => ({ value: c.id, title: c.title })),
                        {
                          value: 'field' as const,
                          title: `field {${fieldName(column) ?? `column_${i + 1}`}}`,
                        },
                        { value: 'nowhere' as const, title: 'nowhere: leave it out' },
                      ]}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {plan && (
        <section aria-live="polite" className="mt-4">
          <p className="flex items-center gap-2 font-medium">
            <StatusMark mark={plan.problems.length ? 'stop' : 'pass'} />
            {plan.problems.length
              ? `${plan.problems.length.toLocaleString('en-GB')} problem${plan.problems.length === 1 ? '' : 's'}: mend them in the table, or match its columns otherwise`
              : `${added} to be added, ${changed} to be changed, ${plan.same} as they are${plan.pictures.length ? `, ${plan.pictures.length} pictures to be imported` : ''}`}
          </p>
          {plan.problems.length > 0 && (
            <ul
              className="border-line mt-2 max-h-44 overflow-y-auto border"
              tabIndex={0}
              aria-label="Problems"
            >
              {plan.problems.slice(0, LISTED).map((p, i) => (
                <li key={i} className="border-line flex gap-3 border-b px-2.5 py-1 last:border-b-0">
                  <span className="measure text-ink-2 w-20 shrink-0">line {p.line}</span>
                  <span className="w-28 shrink-0 truncate">{p.column}</span>
                  <span>{p.text}</span>
                </li>
              ))}
              {plan.problems.length > LISTED && (
                <li className="text-ink-2 px-2.5 py-1">and {plan.problems.length - LISTED} more</li>
              )}
            </ul>
          )}
        </section>
      )}
    </Dialog>
  );
}

function FolderButton({ onFiles }: { onFiles(files: File[]): void }) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.setAttribute('webkitdirectory', ''), []);
  return (
    <>
      <Button onClick={() => input.current?.click()}>A folder of pictures</Button>
      <input
        ref={input}
        type="file"
        multiple
        className="hidden"
        aria-hidden
        tabIndex={-1}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
    </>
  );
}
