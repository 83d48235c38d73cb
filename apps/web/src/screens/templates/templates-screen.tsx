import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import { call, reducedUrl, useProducts, useRoute, type ListedTemplate, type Variant } from '../../api/client';
import { Button, IconButton } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { removing } from '../../ui/removing';
import { makeShot } from './make-shot';
import { PurposeSeason } from './purpose-season';
import { PRODUCT, TemplateCard } from './template-card';
import { UseDialog } from './use-dialog';
import { useTemplates } from './use-templates';
import { msg } from '../../language/language';

/** Laid-out pictures with places for products and data, shown with a product of one's own. */
export function TemplatesScreen() {
  const { data: templates, error } = useTemplates();
  const { data: products } = useProducts();
  const { data: listings } = useRoute('GET /api/listings');
  const [purpose, setPurpose] = useState<Purpose | 'all' | 'own'>('all');
  const [season, setSeason] = useState<Season | 'all'>('all');
  const [shown, setShown] = useState<string | null>(null);
  const [using, setUsing] = useState<ListedTemplate | null>(null);
  const variants = (products ?? []).flatMap((p) =>
    p.variants
      .filter((v) => v.data.cutout)
      .map((v) => ({ ...v, title: [p.title, v.data.variant].filter(Boolean).join(', ') })),
  );
  const variant = variants.find((v) => v.id === shown) ?? variants[0] ?? null;
  const list = templates?.filter(
    (t) =>
      (purpose === 'all' || t.purpose === purpose || (purpose === 'own' && t.own)) &&
      (season === 'all' || t.season === season),
  );
  const navigate = useNavigate();
  const open = (shot: string | null) => shot && void navigate(`/shots/${shot}`);
  const drop = async (template: ListedTemplate, id: string) => {
    const listing = listings?.find(
      (l) => l.productId === products?.find((p) => p.variants.some((v) => v.id === id))?.id,
    );
    if (!listing)
      return say('stop', msg('This product is in no listing yet. Start one from its photo first.'));
    open(await makeShot(template, listing.id, id));
  };
  const remove = ({ id, title }: ListedTemplate) =>
    void removing(call('DELETE /api/templates/:id', { params: { id } }), `"${title}"`, '/api/templates');
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">{msg('Templates')}</h1>
        <p className="text-ink-2">
          {msg(
            'Any shot can be kept as one: open it on the stage and choose “Keep as a template” under Export.',
          )}
        </p>
        <div className="mt-3 mb-3 flex flex-wrap items-center gap-2.5">
          <PurposeSeason
            purpose={purpose}
            season={season}
            onPurpose={setPurpose}
            onSeason={setSeason}
            more={[{ value: 'own', title: msg('Your own') }]}
          />
        </div>
        <ProductShelf variants={variants} shown={variant?.id} onShow={setShown} />
        {error && <Trouble error={error} />}
        {!templates && !error && <Waiting what={msg('the templates')} />}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
          {list?.map((t) => (
            <TemplateCard key={t.id} template={t} variant={variant} onProduct={(id) => void drop(t, id)}>
              <p className="font-semibold">{t.title}</p>
              <div className="flex items-center gap-2">
                <span className="text-ink-2 grow text-[12px]">
                  {[t.own && msg('your own'), t.purpose, t.season].filter(Boolean).join(', ')}
                </span>
                {t.own && (
                  <IconButton label={msg('Remove {t}', { t: t.title })} onClick={() => remove(t)}>
                    <Trash2 size={14} aria-hidden />
                  </IconButton>
                )}
                <Button onClick={() => setUsing(t)}>{msg('Use')}</Button>
              </div>
            </TemplateCard>
          ))}
        </ul>
      </main>
      {using && <UseDialog template={using} variant={variant} onClose={() => setUsing(null)} />}
    </>
  );
}

/** Products with a cutout: one is shown in all templates, or dropped on one. */
function ProductShelf({
  variants,
  shown,
  onShow,
}: {
  variants: (Variant & { title: string })[];
  shown: string | undefined;
  onShow(id: string): void;
}) {
  return (
    <div
      role="group"
      aria-label={msg('Products, to be dropped on a template')}
      className="mb-3 flex items-center gap-1.5 overflow-x-auto pb-1"
    >
      {variants.map((v) => (
        <button
          key={v.id}
          type="button"
          draggable
          title={msg('{v}: drop it on a template, or click to see all templates with it', { v: v.title })}
          aria-label={msg('Show all with {v}', { v: v.title })}
          aria-pressed={v.id === shown}
          onDragStart={(e) => {
            e.dataTransfer.setData(PRODUCT, v.id);
            e.dataTransfer.effectAllowed = 'copy';
          }}
          onClick={() => onShow(v.id)}
          className={`flex h-14 w-14 shrink-0 cursor-grab items-center justify-center rounded-md border bg-white p-1 ${v.id === shown ? 'border-spruce outline-spruce outline-1' : 'border-line hover:border-ink-3'}`}
        >
          <img
            src={reducedUrl(v.data.cutout!.picture, 160)}
            alt=""
            draggable={false}
            className="max-h-full max-w-full"
          />
        </button>
      ))}
      <span className="text-ink-2 pl-2 text-[12px]">{msg('Drop a product on a template to fill it.')}</span>
    </div>
  );
}
