import { useMemo } from 'react';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { type Product, useProducts } from '../../api/client';
import { ConflictDialog, DocumentUndoRedo, SavingNote } from '../../documents/document-bar';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { useThumbnail } from '../listings/cell-picture';
import { DefaultEffects, Fonts, Logos, Name, Palette, Texts } from './kit-parts';
import { useBrand } from './use-brand';
import { msg } from '../../language/language';

/** Logos, palette, fonts, standing texts and default effects of the brand; what uses them follows. */
export function BrandScreen() {
  const { kit, error, change, state, save } = useBrand();
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center gap-3">
          <h1 className="font-display text-[22px] font-bold">{msg('Brand kit')}</h1>
          <DocumentUndoRedo of={state} />
          <SavingNote of={state} onTryAgain={() => void save()} />
        </div>
        <p className="text-ink-2">
          {msg('A change is stored at once, and every shot and template that uses the entry follows.')}
        </p>
        {error && <Trouble error={error} />}
        {!kit && !error && <Waiting what={msg('the brand kit')} />}
        <ConflictDialog of={state} word={msg('brand kit')} />
        {kit && (
          <div className="mt-3 grid grid-cols-[minmax(0,1fr)_330px] items-start gap-4">
            <div className="grid gap-3">
              <Name kit={kit} change={change} />
              <Palette kit={kit} change={change} />
              <Logos kit={kit} change={change} />
              <Fonts kit={kit} change={change} />
              <Texts kit={kit} change={change} />
              <DefaultEffects kit={kit} change={change} />
            </div>
            <Seen kit={kit} />
          </div>
        )}
      </main>
    </>
  );
}

/** Preview of the kit: a few designs with a product of one's own. */
function Seen({ kit }: { kit: BrandKit }) {
  const { data: products } = useProducts();
  const product = products?.find((p) => p.variants.some((v) => v.data.cutout));
  const variant = product?.variants.find((v) => v.data.cutout);
  return (
    <section aria-label={msg('Preview of the kit')} className="sticky top-0 grid gap-3">
      <h2 className="font-semibold">{msg('Preview')}</h2>
      {['sale-half', 'new-arrival', 'price-tag'].map((id) => (
        <Sample key={id} id={id} kit={kit} variant={variant ?? null} />
      ))}
    </section>
  );
}

function Sample({
  id,
  kit,
  variant,
}: {
  id: string;
  kit: BrandKit;
  variant: Product['variants'][number] | null;
}) {
  const resolved = useMemo(() => {
    if (!variant) return null;
    const data = { ...variant.data, brand: kit };
    const { document } = DESIGNS.find((d) => d.id === id)!;
    return resolveBase(fillTemplate(document, data, variant.pose), data);
  }, [id, kit, variant]);
  const { canvas, size } = useThumbnail(resolved, 320, 320, true);
  return (
    <canvas
      ref={canvas}
      style={size}
      className="border-line border"
      role="img"
      aria-label={msg('Sample {id}', { id })}
    />
  );
}
