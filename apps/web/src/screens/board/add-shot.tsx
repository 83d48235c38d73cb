import { fillTemplate } from '@scenograph/core/templates/fill';
import type { ListedTemplate } from '../../api/client';
import { type ListingDetail, call, useRoute } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { PictureList } from '../../ui/picture-list';
import { tried } from '../../ui/tried';
import { TemplateCard } from '../templates/template-card';
import { othersOf } from '../templates/make-shot';
import { useTemplates } from '../templates/use-templates';
import { msg } from '../../language/language';

/** A new shot: on white, in a scene or mockup, or by a template. */
export function AddShot({ detail, onClose }: { detail: ListingDetail; onClose(): void }) {
  const listingId = detail.listing.id;
  const { data: templates } = useTemplates();
  const first = detail.variants.find((v) => v.data.cutout) ?? null;
  const { data: scenes } = useRoute('GET /api/scenes');
  const params = { id: listingId };
  const closeAfter = async (ask: Promise<object>) => {
    if (await tried(ask, '/api/listings')) onClose();
  };
  const add = (body: { kind: 'white' | 'scene'; sceneId?: string }) =>
    void closeAfter(call('POST /api/listings/:id/shots', { params, body }));
  const use = ({ title, document: template }: ListedTemplate) => {
    const document = fillTemplate(template, first!.data, first!.pose, othersOf(detail, first!));
    const body = { shots: [{ title, document }] };
    void closeAfter(call('POST /api/listings/:id/shots/of-documents', { params, body }));
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={msg('Add a shot')}
      about={msg('Choose what the product stands on or in, a mockup to print on, or a template to fill.')}
    >
      <PictureList
        label={msg('Scenes and mockups')}
        look="cards"
        items={scenes?.map((s) => ({ ...s, note: s.survey.areas.length ? msg('mockup') : undefined }))}
        onPick={({ id }) => add({ kind: 'scene', sceneId: id })}
        first={
          <button
            type="button"
            onClick={() => add({ kind: 'white' })}
            className="border-line hover:border-spruce overflow-hidden rounded-md border text-left"
          >
            <span className="block aspect-[4/3] bg-white" />
            <span className="border-line block border-t px-2 py-1.5">{msg('Pure white')}</span>
          </button>
        }
      />
      {first && (
        <>
          <h3 className="mt-4 mb-2 font-semibold">{msg('Templates')}</h3>
          <ul className="grid grid-cols-4 gap-3">
            {templates?.map((t) => (
              <TemplateCard key={t.id} template={t} variant={first} side={180}>
                <div className="flex items-center gap-2">
                  <span className="min-w-0 grow truncate">{t.title}</span>
                  <Button onClick={() => use(t)} aria-label={msg('Use {t}', { t: t.title })}>
                    {msg('Use')}
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
