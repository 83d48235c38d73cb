import { useEffect, useRef } from 'react';
import { ENCODINGS } from '@scenograph/core/table/decode-text';
import { DELIMITERS } from '@scenograph/core/table/read-table';
import type { Artwork, Photo, ProductWithEdits } from '../../api/client';
import { Button, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { FileButton } from '../../ui/file-button';
import { ProgressBar } from '../../ui/status';
import { MatchTable, PlanReport } from './import-parts';
import { useImport, type TableImport } from './use-import';
import { msg, rich } from '../../language/language';

const DELIMITER_TITLES: Record<string, string> = {
  ',': msg('comma'),
  ';': msg('semicolon'),
  '\t': msg('tab'),
  '|': msg('bar'),
};

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
  const table = useImport(product, photos, artworks, onClose);
  const { head, targets, setTargets, plan } = table;
  const close = () => {
    table.cancel();
    onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={close}
      title={msg('Import a table')}
      about={msg(
        'Rows find their variants by SKU. Nothing is changed before you have seen what would change.',
      )}
      footer={<ImportFooter table={table} onClose={onClose} />}
    >
      <FileRow table={table} />
      {head && (
        <>
          <PicturesRow table={table} />
          <MatchTable head={head} targets={targets} onChange={setTargets} />
        </>
      )}
      {plan && <PlanReport plan={plan} />}
    </Dialog>
  );
}

function ImportFooter({
  table: { trouble, progress, plan, run, cancel },
  onClose,
}: {
  table: TableImport;
  onClose(): void;
}) {
  const rows = plan?.changes.length ?? 0;
  return (
    <>
      {trouble && (
        <p role="alert" className="text-coral-ink mr-auto">
          {trouble}
        </p>
      )}
      {progress ? (
        <>
          <div className="mr-auto w-80">
            <ProgressBar share={progress.share} label={msg('Import')} />
            <p className="text-ink-2 mt-1 truncate text-[12px]">{progress.says}</p>
          </div>
          <Button tone="danger" onClick={cancel}>
            {msg('Cancel')}
          </Button>
        </>
      ) : (
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button
            tone="main"
            disabled={!plan || plan.problems.length > 0 || !rows}
            onClick={() => void run()}
          >
            {rows ? msg('Import {rows} {rows, plural, one {row} other {rows}}', { rows }) : msg('Import')}
          </Button>
        </>
      )}
    </>
  );
}

function FileRow({ table }: { table: TableImport }) {
  const { file, head, encoding, setEncoding, delimiter, setDelimiter, choose } = table;
  return (
    <div className="flex flex-wrap items-center gap-2.5">
      <FileButton
        title={file ? msg('Another table') : msg('Choose a table')}
        label={msg('Table to import')}
        accept=".csv,.tsv,.txt,text/csv"
        onFiles={(f) => void choose(f)}
      />
      {file && <span className="measure max-w-60 truncate">{file.name}</span>}
      {head && (
        <>
          <Select
            label={msg('Encoding')}
            value={encoding ?? head.encoding}
            onChange={(v) => setEncoding(v)}
            options={ENCODINGS.map((e) => ({ value: e, title: e }))}
          />
          <Select
            label={msg('Delimiter')}
            value={delimiter ?? head.delimiter}
            onChange={setDelimiter}
            options={DELIMITERS.map((d) => ({ value: d, title: DELIMITER_TITLES[d] }))}
          />
          <span className="text-ink-2">
            {rich('<measure>{rows, number}</measure> {rows, plural, one {row} other {rows}}', {
              measure: (inside) => <span className="measure">{inside}</span>,
              rows: head.rows,
            })}
          </span>
        </>
      )}
    </div>
  );
}

function PicturesRow({ table: { pictures, takePictures } }: { table: TableImport }) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2.5">
      <FileButton
        title={msg('Pictures or a ZIP')}
        label={msg('Pictures of the table')}
        accept="image/*,.zip"
        multiple
        onFiles={(f) => void takePictures(f)}
      />
      <FolderButton onFiles={(f) => void takePictures(f)} />
      <span className="text-ink-2">
        {pictures.size
          ? msg('{pictures, plural, one {# picture} other {# pictures}} at hand, matched by file name', {
              pictures: pictures.size,
            })
          : msg('Pictures that rows name can come with the table')}
      </span>
    </div>
  );
}

function FolderButton({ onFiles }: { onFiles(files: File[]): void }) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.setAttribute('webkitdirectory', ''), []);
  return (
    <>
      <Button onClick={() => input.current?.click()}>{msg('A folder of pictures')}</Button>
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
