import { Download } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { buttonClass } from './controls';
import { msg } from '../language/language';

const FORMATS = [
  ['png', 'PNG, transparent'],
  ['webp', msg('WebP, transparent')],
  ['svg', msg('Outline as SVG path')],
  ['matte', msg('Matte, grey PNG')],
] as const;

/** Saves full-size cutouts as files: one as it is, several in a ZIP. */
export function CutoutFiles({ ids, title }: { ids: readonly string[]; title: string }) {
  const url = (format: string) =>
    ids.length === 1
      ? `/api/photos/${ids[0]}/file?format=${format}`
      : `/api/photos/files?format=${format}&ids=${ids.join(',')}`;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={buttonClass()} disabled={!ids.length}>
        <Download size={14} aria-hidden /> {title}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="border-line bg-card z-50 w-52 rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          {FORMATS.map(([format, words]) => (
            <DropdownMenu.Item key={format} asChild>
              <a
                href={url(format)}
                download
                className="data-[highlighted]:bg-spruce-tint flex h-7.5 items-center rounded-sm px-2.5 outline-none"
              >
                {words}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
