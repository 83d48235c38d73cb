import { DropdownMenu } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { reducedUrl, type Picture } from '../../api/client';
import { buttonClass } from '../../ui/controls';
import { MenuItem } from '../../ui/menu-item';
import { STARTERS } from './kinds/index';
import type { Starter } from './kinds/kind-ui';
import { VariantSearch, type VariantChoice } from './variant-search';
import { msg } from '../../language/language';

const PANEL =
  'border-line bg-card z-50 max-h-[70vh] w-60 overflow-y-auto rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]';

/** Everything that can be put on the stage. */
export function AddMenu({
  pictures,
  onProduct,
  onOther,
  onOverlay,
  onPicture,
}: {
  pictures: Picture[];
  onProduct(): void;
  onOther(choice: VariantChoice): void;
  onOverlay(choice: Starter): void;
  onPicture(picture: Picture): void;
}) {
  const [searching, setSearching] = useState(false);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={buttonClass()}>
          {msg('Add to stage')} <ChevronDown size={14} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" sideOffset={4} className={PANEL}>
            <MenuItem onSelect={onProduct}>{msg('Product')}</MenuItem>
            <MenuItem onSelect={() => setSearching(true)}>{msg('Another product ...')}</MenuItem>
            <MenuItem onSelect={() => onOverlay(STARTERS[0].choices[0])}>{msg('Text')}</MenuItem>
            {STARTERS.map((group) => (
              <Group key={group.title} title={group.title}>
                {group.choices.map((c) => (
                  <MenuItem key={c.id} onSelect={() => onOverlay(c)}>
                    {c.title}
                  </MenuItem>
                ))}
              </Group>
            ))}
            <Group title={msg('Pictures')}>
              {pictures.map((p) => (
                <MenuItem key={p.id} onSelect={() => onPicture(p)}>
                  <span className="flex h-5 w-8 items-center justify-center bg-[#bdbdbd]">
                    <img src={reducedUrl(p.picture, 160)} alt="" className="max-h-4 max-w-7" />
                  </span>
                  <span className="truncate">{p.title}</span>
                </MenuItem>
              ))}
            </Group>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <VariantSearch
        title={msg('Add another product')}
        open={searching}
        onPick={onOther}
        onClose={() => setSearching(false)}
      />
    </>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className="data-[highlighted]:bg-spruce-tint flex h-8 cursor-pointer items-center justify-between rounded-sm px-2.5 outline-none">
        {title} <ChevronDown size={13} className="-rotate-90" aria-hidden />
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={PANEL}>{children}</DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}
