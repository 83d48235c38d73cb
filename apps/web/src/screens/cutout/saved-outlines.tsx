import { DropdownMenu } from 'radix-ui';
import { Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import type { OutlineStep } from '@scenograph/core/cutout/recipe';
import { blobUrl, type Outline } from '../../api/client';
import { Button, TextField } from '../../ui/controls';
import { msg, rich } from '../../language/language';

/** The outlines that are kept with the photo: use, save, import, remove. */
export function SavedOutlines({
  outlines,
  onSave,
  onUse,
  onRemove,
  onImport,
  svgUrl,
}: {
  outlines: Outline[];
  /** Whether it was kept. */
  onSave(title: string): Promise<boolean>;
  onUse(outline: Outline, mode: OutlineStep['mode']): void;
  onRemove(outline: Outline): void;
  onImport(file: File): void;
  svgUrl(outline: Outline): string;
}) {
  const [title, setTitle] = useState('');
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <h2 className="border-line mt-3 flex h-9.5 shrink-0 items-center justify-between border-b px-3.5 font-semibold">
        {rich('Saved outlines <measure>{outlines}</measure>', {
          measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
          outlines: outlines.length,
        })}
      </h2>
      <ul>
        {outlines.map((o) => (
          <li key={o.id} className="border-line flex h-9.5 items-center gap-2 border-b pr-1.5 pl-3.5">
            <img src={`${blobUrl(o.matte)}/reduced/160`} alt="" className="h-6 w-7 bg-black object-contain" />
            <span className="min-w-0 grow truncate" title={o.title}>
              {o.title}
            </span>
            <OutlineMenu outline={o} onUse={onUse} onRemove={onRemove} svgUrl={svgUrl} />
          </li>
        ))}
      </ul>
      <div className="grid gap-2 px-3.5 py-2.5">
        <div className="flex items-end gap-2">
          <div className="grow">
            <TextField
              label={msg('Save the present outline as')}
              value={title}
              onCommit={setTitle}
              placeholder={msg('Before the handle')}
            />
          </div>
          <Button
            onClick={() => {
              void onSave(title.trim() || msg('Outline {outlines}', { outlines: outlines.length + 1 })).then(
                (kept) => kept && setTitle(''),
              );
            }}
          >
            {msg('Save')}
          </Button>
        </div>
        <input
          ref={file}
          type="file"
          accept=".png,.svg"
          aria-label={msg('Outline to import')}
          className="hidden"
          onChange={(e) => {
            if (e.target.files?.[0]) onImport(e.target.files[0]);
            e.target.value = '';
          }}
        />
        <Button tone="quiet" onClick={() => file.current?.click()}>
          <Upload size={13} aria-hidden /> {msg('Import SVG or PNG')}
        </Button>
      </div>
    </>
  );
}

const MODES = [
  ['replace', msg('Load it')],
  ['add', msg('Add it')],
  ['take', msg('Subtract it')],
  ['overlap', msg('Keep only the overlap')],
] as const;

/** What can be done with a kept outline. */
function OutlineMenu({
  outline: o,
  onUse,
  onRemove,
  svgUrl,
}: {
  outline: Outline;
  onUse(outline: Outline, mode: OutlineStep['mode']): void;
  onRemove(outline: Outline): void;
  svgUrl(outline: Outline): string;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="text-spruce rounded-sm px-1.5 py-1 text-[12px] underline">
        {msg('Use')}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="border-line bg-card z-50 w-48 rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          {MODES.map(([mode, words]) => (
            <Item key={mode} onSelect={() => onUse(o, mode)}>
              {words}
            </Item>
          ))}
          <DropdownMenu.Separator className="bg-line my-1 h-px" />
          <Item>
            <a href={svgUrl(o)} download={msg('{o}.svg', { o: o.title })}>
              {msg('Save as SVG path')}
            </a>
          </Item>
          <Item>
            <a href={blobUrl(o.matte)} download={msg('{o}.png', { o: o.title })}>
              {msg('Save as PNG matte')}
            </a>
          </Item>
          <Item onSelect={() => onRemove(o)}>{msg('Remove')}</Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ onSelect, children }: { onSelect?(): void; children: React.ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="data-[highlighted]:bg-spruce-tint flex h-7.5 cursor-pointer items-center rounded-sm px-2.5 outline-none"
    >
      {children}
    </DropdownMenu.Item>
  );
}
