import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { PURPOSES, SEASONS } from '@scenograph/core/templates/template';
import type { ListedTemplate } from '../../api/brand';
import {
  refresh,
  request,
  useServer,
  type ListingSummary,
  type Product,
  type ShotRow,
  type Variant,
} from '../../api/client';
import { Button, IconButton, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { TemplateCard } from './template-card';
import { useTemplates } from './use-templates';

/** Laid-out pictures with places for products and data, shown with a product of one's own. */
export function TemplatesScreen() {
  const { data: templates, error } = useTemplates();
  const { data: products } = useServer<Product[]>('/api/products');
  const [purpose, setPurpose] = useState('all');
  const [season, setSeason] = useState('all');
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
  const remove = async (id: string) => {
    try {
      await request('DELETE', `/api/templates/${id}`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/templates');
  };
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">Templates</h1>
        <p className="text-ink-2">
          Any shot can be kept as one: open it on the stage and choose “Keep as a template” under Export.
        </p>
        <div className="mt-3 mb-3 flex items-center gap-2.5">
          <Select
            label="Purpose"
            value={purpose}
            onChange={setPurpose}
            options={[
              { value: 'all', title: 'Every purpose' },
              { value: 'own', title: 'Your own' },
              ...PURPOSES.map((p) => ({ value: p as string, title: p[0].toUpperCase() + p.slice(1) })),
            ]}
          />
          <Select
            label="Season"
            value={season}
            onChange={setSeason}
            options={[
              { value: 'all', title: 'Any season' },
              ...SEASONS.map((s) => ({ value: s as string, title: s[0].toUpperCase() + s.slice(1) })),
            ]}
          />
          {variant && (
            <Select
              label="Shown with"
              value={variant.id}
              onChange={setShown}
              options={variants.map((v) => ({ value: v.id, title: v.title }))}
            />
          )}
        </div>
        {error && <Trouble error={error} />}
        {!templates && !error && <Waiting what="the templates" />}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
          {list?.map((t) => (
            <TemplateCard key={t.id} template={t} variant={variant}>
              <p className="font-semibold">{t.title}</p>
              <div className="flex items-center gap-2">
                <span className="text-ink-2 grow text-[12px]">
                  {[t.own && 'your own', t.purpose, t.season].filter(Boolean).join(', ')}
                </span>
                {t.own && (
                  <IconButton label={`Remove ${t.title}`} onClick={() => void remove(t.id)}>
                    <Trash2 size={14} aria-hidden />
                  </IconButton>
                )}
                <Button onClick={() => setUsing(t)}>Use</Button>
              </div>
            </TemplateCard>
          ))}
        </ul>
      </main>
      {using && <UseDialog template={using} variant={variant} onClose={() => setUsing(null)} />}
    </>
  );
}

/** Which listing a template is filled for. */
function UseDialog({
  template,
  variant,
  onClose,
}: {
  template: ListedTemplate;
  variant: Variant | null;
  onClose(): void;
}) {
  const { data: listings } = useServer<ListingSummary[]>('/api/listings');
  const navigate = useNavigate();
  const own = listings?.filter((l) => l.variants.some((v) => v.data.cutout));
  const make = async (listing: ListingSummary) => {
    const first =
      listing.variants.find((v) => v.id === variant?.id) ?? listing.variants.find((v) => v.data.cutout)!;
    try {
      const [shot] = await request<ShotRow[]>('POST', `/api/listings/${listing.id}/shots/of-documents`, {
        shots: [
          {
            title: template.title,
            document: fillTemplate(template.document, first.data, first.pose, othersOf(listing, first)),
          },
        ],
      });
      refresh('/api/listings');
      void navigate(`/shots/${shot.id}`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Use “${template.title}”`}
      about="It becomes a shot of the listing, filled with its product and data."
    >
      {own?.length === 0 && <p>No listing has a product with a cutout yet.</p>}
      <ul className="grid gap-1.5">
        {own?.map((l) => (
          <li key={l.id}>
            <Button className="w-full !justify-start" onClick={() => void make(l)}>
              {l.title}
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

/** The other variants of a listing, for templates with several places. */
export function othersOf(listing: { variants: Variant[] }, first: Variant) {
  return listing.variants.filter((v) => v.id !== first.id && v.data.cutout).map((v) => v.data);
}
