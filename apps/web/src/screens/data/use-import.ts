import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { TextEncodingName } from '@scenograph/core/table/decode-text';
import type { Target } from '@scenograph/core/table/match-columns';
import type { ImportPlan } from '@scenograph/core/table/plan-import';
import { refresh, type Artwork, type Photo, type ProductWithEdits } from '../../api/client';
import { say } from '../../ui/notices';
import type { TableHead, TableWorker } from '../../workers/table.worker';
import { contextOf, importPictures, storeTable, type ImportProgress } from './import-table';
import { picturesOf, type Pictures } from './pictures-of';
import { msg } from '../../language/language';

export type TableImport = ReturnType<typeof useImport>;

interface TableFile {
  name: string;
  bytes: Uint8Array;
}

/** A worker of its own, ended with the dialog. */
function useTableWorker() {
  const worker = useRef<Remote<TableWorker> | null>(null);
  useEffect(() => {
    const raw = new Worker(new URL('../../workers/table.worker.ts', import.meta.url), { type: 'module' });
    worker.current = wrap<TableWorker>(raw);
    return () => raw.terminate();
  }, []);
  return worker;
}

/** The table in a file, read by an encoding and a delimiter or by what they seem to be, its columns matched. */
function useTable(worker: RefObject<Remote<TableWorker> | null>, file: TableFile | null) {
  const [head, setHead] = useState<TableHead | null>(null);
  const [encoding, setEncoding] = useState<TextEncodingName | null>(null);
  const [delimiter, setDelimiter] = useState<string | null>(null);
  const [targets, setTargets] = useState<Target[]>([]);
  const [unread, setUnread] = useState('');
  useEffect(() => {
    if (!file) return;
    let here = true;
    worker
      .current!.read(file.bytes, encoding, delimiter)
      .then((read) => {
        if (!here) return;
        setHead(read);
        setTargets(read.targets);
        setUnread('');
      })
      .catch((e: Error) => here && setUnread(e.message));
    return () => {
      here = false;
    };
  }, [worker, file, encoding, delimiter]);
  return { head, encoding, setEncoding, delimiter, setDelimiter, targets, setTargets, unread };
}

const imported = (file: string, changes: number) =>
  msg('Imported {file}: {changes, plural, one {# variant} other {# variants}}. Undo takes all of it back.', {
    file,
    changes,
  });

/** A table being imported: read and matched in a worker, tried against the variants, carried out at last. */
export function useImport(
  product: ProductWithEdits,
  photos: Photo[],
  artworks: Artwork[],
  onDone: () => void,
) {
  const worker = useTableWorker();
  const [file, setFile] = useState<TableFile | null>(null);
  const { unread, ...table } = useTable(worker, file);
  const { head, targets } = table;
  const [pictures, setPictures] = useState<Pictures>(new Map());
  const [plan, setPlan] = useState<ImportPlan | null>(null);
  const [trouble, setTrouble] = useState('');
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const cancelled = useRef<AbortController | null>(null);
  const context = useMemo(
    () => contextOf(product.variants, photos, artworks, [...pictures.keys()]),
    [product.variants, photos, artworks, pictures],
  );
  useEffect(() => {
    if (!head || targets.length !== head.columns.length) return;
    let here = true;
    void worker.current!.plan(targets, context).then((p) => here && setPlan(p));
    return () => {
      here = false;
    };
  }, [worker, head, targets, context]);

  const choose = async ([chosen]: File[]) => {
    if (!chosen) return;
    setPlan(null);
    setTrouble('');
    setFile({ name: chosen.name, bytes: new Uint8Array(await chosen.arrayBuffer()) });
  };
  const takePictures = async (files: File[]) => {
    const found = await picturesOf(files);
    if (!found.size) say('look', msg('No pictures were found there.'));
    setPictures(new Map([...pictures, ...found]));
  };

  const run = async () => {
    if (!plan || !file) return;
    const stop = new AbortController();
    cancelled.current = stop;
    try {
      const photoIds = await importPictures(plan.pictures, pictures, stop.signal, setProgress);
      setProgress({ share: 1, says: msg('Storing the table') });
      for (const p of photos) if (!photoIds.has(p.name)) photoIds.set(p.name, p.id);
      await storeTable(product.id, file.name, plan, photoIds, new Map(artworks.map((a) => [a.title, a.id])));
      say('pass', imported(file.name, plan.changes.length));
      onDone();
    } catch (e) {
      setTrouble((e as Error).message);
      setProgress(null);
    }
    refresh('/api/products', '/api/listings', '/api/photos');
  };
  const cancel = () => cancelled.current?.abort();
  return {
    ...table,
    file,
    pictures,
    plan,
    trouble: trouble || unread,
    progress,
    choose,
    takePictures,
    run,
    cancel,
  };
}
