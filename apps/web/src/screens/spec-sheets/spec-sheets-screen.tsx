import { Copy, Download, Plus } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { readSlot, type SpecSheet } from '@scenograph/core/spec/slot';
import { call, useRoute } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { SlotTable } from './slot-table';
import { msg } from '../../language/language';

/** A sheet to begin with: one slot that asks for little. */
const NEW_SHEET = {
  id: 'new-marketplace',
  marketplace: msg('New marketplace'),
  slots: [
    readSlot({
      id: 'main',
      title: msg('Main'),
      width: 2000,
      height: 2000,
      formats: ['jpeg'],
      maxBytes: 2 * 1024 * 1024,
      background: { kind: 'any' },
    }),
  ],
};

export function SpecSheetsScreen() {
  const { data, error } = useRoute('GET /api/spec-sheets');
  const navigate = useNavigate();
  const add = async (sheet: object) => {
    const made = await tried(call('POST /api/spec-sheets', { body: sheet }), '/api/spec-sheets');
    if (made) void navigate(`/spec-sheets/${made.id}`);
  };
  const bringIn = async ([file]: File[]) => {
    let value: object;
    try {
      value = JSON.parse(await file.text()) as object;
    } catch {
      return say(
        'stop',
        msg('"{file}" is not JSON. Choose a spec sheet that was exported here.', { file: file.name }),
      );
    }
    await add(value);
  };
  const copy = async (id: string) => {
    const found = await tried(call('GET /api/spec-sheets/:sheet', { params: { sheet: id } }));
    if (found)
      await add({
        ...found.sheet,
        marketplace: msg('{marketplace}, copy', { marketplace: found.sheet.marketplace }).slice(0, 80),
      });
  };
  return (
    <>
      <TopBar />
      <main tabIndex={0} className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex flex-wrap items-center gap-2">
          <h1 className="font-display mr-auto text-[22px] font-bold">{msg('Spec sheets')}</h1>
          <FileButton
            title={msg('Import JSON')}
            label={msg('Spec sheet as JSON')}
            accept=".json,application/json"
            onFiles={(f) => void bringIn(f)}
          />
          <Button tone="main" onClick={() => void add(NEW_SHEET)}>
            <Plus size={14} aria-hidden /> {msg('New spec sheet')}
          </Button>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the spec sheets')} />}
        {data?.map((sheet) => (
          <SheetSection key={sheet.id} sheet={sheet} onCopy={() => void copy(sheet.id)} />
        ))}
      </main>
    </>
  );
}

/** A marketplace with its slots, and what can be done with its sheet. */
function SheetSection({ sheet, onCopy }: { sheet: SpecSheet; onCopy(): void }) {
  return (
    <section className="mt-4" aria-label={sheet.marketplace}>
      <div className="bg-spruce flex items-center gap-3 px-3 py-1.5 text-white">
        <h2 className="font-semibold whitespace-nowrap">{sheet.marketplace}</h2>
        <p className="min-w-0 grow truncate text-white/80">{sheet.about}</p>
        <span className="measure text-white/80 whitespace-nowrap">
          {msg('version {version}', { version: sheet.version })}
        </span>
        <Link
          to={`/spec-sheets/${sheet.id}`}
          className={buttonClass()}
          aria-label={msg('Edit {marketplace}', { marketplace: sheet.marketplace })}
        >
          {msg('Edit')}
        </Link>
        <button
          type="button"
          title={msg('Copy and adapt')}
          aria-label={msg('Copy {marketplace}', { marketplace: sheet.marketplace })}
          onClick={onCopy}
          className="p-1 text-white/80 hover:text-white"
        >
          <Copy size={15} aria-hidden />
        </button>
        <a
          href={`/api/spec-sheets/${sheet.id}/sheet.json`}
          download
          title={msg('Export as JSON')}
          aria-label={msg('Export {marketplace} as JSON', { marketplace: sheet.marketplace })}
          className="p-1 text-white/80 hover:text-white"
        >
          <Download size={15} aria-hidden />
        </a>
      </div>
      <SlotTable sheet={sheet} />
    </section>
  );
}
