import { fillTemplate } from '@scenograph/core/templates/fill';
import type { ListedTemplate } from '../../api/client';
import { reducedUrl, refresh, type ListingDetail, call, useRoute } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { TemplateCard } from '../templates/template-card';
import { othersOf } from '../templates/templates-screen';
import { useTemplates } from '../templates/use-templates';

export function AddShot({ detail, onClose }: { detail: ListingDetail; onClose(): void }) {
  const listingId = detail.listing.id;
  const { data: templates } = useTemplates();
  const first = detail.variants.find((v) => v.data.cutout) ?? null;
  const use = async (t: ListedTemplate) => {
    try {
      await call('POST /api/listings/:id/shots/of-documents', {
        params: { id: listingId },
        body: {
          shots: [
            {
              title: t.title,
              document: fillTemplate(t.document, first!.data, first!.pose, othersOf(detail, first!)),
            },
          ],
        },
      });
      refresh('/api/listings');
      onClose();
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const { data: scenes } = useRoute('GET /api/scenes');
  const add = async (body: { kind: 'white' | 'scene'; sceneId?: string }) => {
    try {
      await call('POST /api/listings/:id/shots', { params: { id: listingId }, body });
      refresh('/api/listings');
      onClose();
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Add a shot"
      about="Choose what the product stands on or in, a mockup to print on, or a template to fill."
    >
      <div className="grid grid-cols-4 gap-3">
        <button
          type="button"
          onClick={() => void add({ kind: 'white' })}
          className="border-line hover:border-spruce overflow-hidden rounded-md border text-left"
        >
          <span className="block aspect-[4/3] bg-white" />
          <span className="border-line block border-t px-2 py-1.5">Pure white</span>
        </button>
        {scenes?.map((s) => (
          <button
            key={s.id}
            type="button"
            onClick={() => void add({ kind: 'scene', sceneId: s.id })}
            className="border-line hover:border-spruce overflow-hidden rounded-md border text-left"
          >
            <img src={reducedUrl(s.picture, 320)} alt="" className="aspect-[4/3] w-full object-cover" />
            <span className="border-line block truncate border-t px-2 py-1.5">
              {s.title}
              {s.survey.areas.length > 0 && <span className="text-ink-2"> mockup</span>}
            </span>
          </button>
        ))}
      </div>
      {first && (
        <>
          <h3 className="mt-4 mb-2 font-semibold">Templates</h3>
          <ul className="grid grid-cols-4 gap-3">
            {templates?.map((t) => (
              <TemplateCard key={t.id} template={t} variant={first} side={180}>
                <div className="flex items-center gap-2">
                  <span className="min-w-0 grow truncate">{t.title}</span>
                  <Button onClick={() => void use(t)} aria-label={`Use ${t.title}`}>
                    Use
                  </Button>
                </div>
              </TemplateCard>
            ))}
          </ul>
        </>
      )}
    </Dialog>
  );
}
