import type { ShotWithHistory } from '../../api/client';
import { DropdownMenu } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { bindText, type ProductData } from '@scenograph/core/data/product-data';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { buttonClass } from '../../ui/controls';
import { MenuItem } from '../../ui/menu-item';
import { ExportDialog } from './export-dialog';
import { LayersDialog } from './layers-dialog';
import { ProofDialog } from './proof-dialog';
import type { Shot } from '@scenograph/core/shot/document';
import { TemplateDialog } from './template-dialog';
import { saveNow } from './store';
import { msg } from '../../language/language';

/** What can be made of one shot besides a delivery. */
export type Export = 'picture' | 'layers' | 'proof' | 'template';

export function ExportMenu({ onMake }: { onMake(what: Export): void }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={buttonClass()}>
        {msg('Export')} <ChevronDown size={14} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="border-line bg-card z-50 w-52 rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          <MenuItem onSelect={() => onMake('picture')}>{msg('One picture')}</MenuItem>
          <MenuItem onSelect={() => onMake('layers')}>{msg('Layers as OpenRaster')}</MenuItem>
          <MenuItem onSelect={() => onMake('proof')}>{msg('Proof sheet')}</MenuItem>
          <MenuItem onSelect={() => onMake('template')}>{msg('Keep as a template')}</MenuItem>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function ExportDialogs({
  what,
  stored,
  shot,
  resolved,
  options,
  slot,
  variant,
  known,
  onClose,
}: {
  what: Export;
  stored: ShotWithHistory;
  shot: Shot;
  resolved: ResolvedShot;
  options: ItemOption[];
  slot: string | null;
  variant: { id: string; data: ProductData } | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  onClose(): void;
}) {
  if (what === 'picture')
    return (
      <ExportDialog
        shotId={stored.id}
        title={stored.title}
        trim={(!slot && shot.trim) || null}
        resolved={resolved}
        slot={slot}
        variant={variant?.id ?? null}
        known={known}
        before={saveNow}
        onClose={onClose}
      />
    );
  if (what === 'layers')
    return <LayersDialog shotId={stored.id} slot={slot} variant={variant?.id ?? null} onClose={onClose} />;
  if (what === 'template') return <TemplateDialog shot={shot} title={stored.title} onClose={onClose} />;
  const price = variant && bindText('{price}', variant.data);
  return (
    <ProofDialog
      shotId={stored.id}
      title={variant?.data.title ?? stored.title}
      options={options}
      price={price && !price.missing.length ? price.text : null}
      before={saveNow}
      onClose={onClose}
    />
  );
}
