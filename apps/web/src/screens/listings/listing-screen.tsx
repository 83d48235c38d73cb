import { Copy, Pencil, Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { slotKey } from '@scenograph/core/spec/slot';
import {
  refresh,
  request,
  useServer,
  reducedUrl,
  type ListingDetail,
  type Scene,
  type ShotRow,
} from '../../api/client';
import { Button, buttonClass, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { useActions, type Action } from '../../ui/actions';
import { TopBar } from '../../ui/top-bar';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import type { ListedTemplate } from '../../api/brand';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { TemplateCard } from '../templates/template-card';
import { othersOf } from '../templates/templates-screen';
import { useTemplates } from '../templates/use-templates';
import { CellPicture, useThumbnail } from './cell-picture';
import { useInView } from './use-in-view';

export function ListingScreen() {
  const { id } = useParams();
  const { data, error } = useServer<ListingDetail>(`/api/listings/${id}`);
  if (error)
    return (
      <>
        <TopBar />
        <Trouble error={error} />
      </>
    );
  if (!data)
    return (
      <>
        <TopBar />
        <Waiting what="the listing" />
      </>
    );
  return <Board detail={data} />;
}

function Board({ detail }: { detail: ListingDetail }) {
  const { listing, variants, sheets, shots } = detail;
  const [only, setOnly] = useState('all');
  const [requiredOnly, setRequiredOnly] = useState(false);
  const [delivering, setDelivering] = useState(false);
  const [adding, setAdding] = useState(false);
  const known = useKnownSizes(detail);
  const shown = sheets
    .filter((s) => only === 'all' || s.id === only)
    .map((sheet) => ({ sheet, slots: sheet.slots.filter((slot) => !requiredOnly || slot.required) }))
    .filter((g) => g.slots.length);
  const all = sheets.flatMap((sheet) => sheet.slots.map((slot) => slotKey(sheet, slot)));
  const fedBy = (key: string) => shots.find((s) => s.feeds.includes(key));
  const fed = all.filter((key) => fedBy(key)).length;
  const cells = fed * variants.length;
  const total = all.length * variants.length;

  const feed = async (key: string, shotId: string | null) => {
    try {
      await request('PUT', `/api/listings/${listing.id}/feeds`, { slot: key, shotId });
      refresh(`/api/listings`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'deliver',
        title: 'Deliver pictures of this listing',
        group: 'Listing',
        run: () => setDelivering(true),
      },
      { id: 'add-shot', title: 'Add a shot', group: 'Listing', run: () => setAdding(true) },
    ],
    [],
  );
  useActions('listing', actions);

  return (
    <>
      <TopBar />
      <div className="border-line bg-card flex h-19 shrink-0 items-center gap-7 border-b px-5">
        <h1 className="font-display text-[22px] font-bold">{listing.title}</h1>
        <Figure n={`${cells} / ${total}`} what="pictures fed" />
        <Figure n={String(total - cells)} what="owed" />
        <div className="w-52">
          <div className="bg-line flex h-2.5 overflow-hidden rounded-[2px]">
            <div className="bg-spruce" style={{ width: `${total ? (cells / total) * 100 : 0}%` }} />
          </div>
          <p className="text-ink-2 mt-1 text-[12px]">fed, owed</p>
        </div>
        <div className="ml-auto flex gap-2.5">
          <Link to={`/listings/${listing.id}/ideas`} className={buttonClass()}>
            Ideas wall
          </Link>
          <Button tone="main" onClick={() => setDelivering(true)}>
            Deliver <span className="measure">{cells}</span>
          </Button>
        </div>
      </div>
      <main className="grow overflow-auto px-4.5 pt-3 pb-10">
        <section aria-label="Shots" className="flex items-stretch gap-3 overflow-x-auto pb-3">
          {shots.map((shot) => (
            <ShotCard key={shot.id} shot={shot} detail={detail} />
          ))}
          <button
            type="button"
            onClick={() => setAdding(true)}
            className="border-ink-3 text-ink-2 hover:border-spruce hover:text-ink flex w-28 shrink-0 flex-col items-center justify-center gap-1 rounded-lg border border-dashed"
          >
            <Plus size={16} aria-hidden /> Add a shot
          </button>
        </section>
        <div className="flex items-center gap-2.5 pb-2.5">
          <Select
            label="Marketplace"
            value={only}
            onChange={setOnly}
            options={[
              { value: 'all', title: 'All marketplaces' },
              ...sheets.map((s) => ({ value: s.id, title: s.marketplace })),
            ]}
          />
          <label className="border-line bg-card flex h-7 items-center gap-2 rounded-md border px-2.5">
            <input
              type="checkbox"
              className="accent-spruce"
              checked={requiredOnly}
              onChange={(e) => setRequiredOnly(e.target.checked)}
            />
            Required only
          </label>
        </div>
        <table className="border-line bg-card border-separate border-spacing-0 border-t border-l">
          <thead>
            <tr>
              <th
                className="border-line bg-card sticky left-0 z-10 min-w-48 border-r border-b"
                aria-label="Variant"
              />
              {shown.map(({ sheet, slots }) => (
                <th
                  key={sheet.id}
                  colSpan={slots.length}
                  className="bg-spruce border-r border-b border-white/70 px-2.5 py-1.5 text-left text-[12px] font-semibold text-white"
                >
                  {sheet.marketplace}{' '}
                  <span className="measure float-right text-white/80">{slots.length}</span>
                </th>
              ))}
            </tr>
            <tr>
              <th className="border-line bg-card sticky left-0 z-10 border-r border-b" aria-label="Variant" />
              {shown.flatMap(({ sheet, slots }) =>
                slots.map((slot) => {
                  const key = slotKey(sheet, slot);
                  return (
                    <th
                      key={key}
                      className="border-line min-w-33 border-r border-b px-2.5 py-2 text-left font-normal"
                    >
                      <span className="block text-[12.5px] font-semibold">
                        {slot.title}
                        {!slot.required && <span className="text-ink-2 font-normal"> optional</span>}
                      </span>
                      <span className="measure text-ink-2 block">
                        {slot.width} x {slot.height}
                      </span>
                      <Select
                        label={`Shot for ${sheet.marketplace} ${slot.title}`}
                        className="mt-1 w-full !text-[12px]"
                        value={fedBy(key)?.id ?? 'none'}
                        onChange={(v) => void feed(key, v === 'none' ? null : v)}
                        options={[
                          { value: 'none', title: 'owed' },
                          ...shots.map((s) => ({ value: s.id, title: s.title })),
                        ]}
                      />
                    </th>
                  );
                }),
              )}
            </tr>
          </thead>
          <tbody>
            {variants.map((variant) => (
              <tr key={variant.id}>
                <th className="border-line bg-card sticky left-0 z-10 border-r border-b px-2.5 text-left font-normal">
                  <span className="flex items-center gap-2.5">
                    <span className="border-line flex h-11 w-11 items-center justify-center border bg-white p-0.5">
                      {variant.data.cutout && (
                        <img
                          src={reducedUrl(variant.data.cutout.picture, 160)}
                          alt=""
                          className="max-h-full max-w-full"
                        />
                      )}
                    </span>
                    <span>
                      <span className="block text-[13px] font-semibold">
                        {variant.data.variant || variant.data.title}
                      </span>
                      <span className="measure text-ink-2">{variant.data.sku}</span>
                    </span>
                  </span>
                </th>
                {shown.flatMap(({ sheet, slots }) =>
                  slots.map((slot) => {
                    const key = slotKey(sheet, slot);
                    const shot = fedBy(key);
                    return (
                      <td key={key} className="border-line h-26 border-r border-b p-0 text-center">
                        {shot && (variant.data.cutout || !followsVariant(shot)) ? (
                          <Link
                            to={`/shots/${shot.id}?slot=${encodeURIComponent(key)}&variant=${variant.id}`}
                            aria-label={`Open ${variant.data.variant || variant.data.title}, ${slot.title}`}
                            className="hover:bg-spruce-tint/60 flex h-full items-center justify-center px-2 focus-visible:outline-offset-[-2px]"
                          >
                            <CellPicture
                              shot={shot.document}
                              data={variant.data}
                              slot={slot}
                              slotKey={key}
                              known={known}
                            />
                          </Link>
                        ) : (
                          <span className="flex flex-col items-center gap-2">
                            <span
                              className="border-ink-3 block border border-dashed"
                              style={{
                                width: Math.min(104, (62 * slot.width) / slot.height),
                                height: Math.min(62, (104 * slot.height) / slot.width),
                              }}
                            />
                            <span className="text-ink-2 flex items-center gap-1.5 text-[11.5px]">
                              <StatusMark mark="owed" size={9} /> owed
                            </span>
                          </span>
                        )}
                      </td>
                    );
                  }),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </main>
      {delivering && <DeliverDialog detail={detail} onClose={() => setDelivering(false)} />}
      {adding && <AddShot detail={detail} onClose={() => setAdding(false)} />}
    </>
  );
}

/** Pixel sizes of the listing's cutouts and of the library's pictures, by hash. */
export function useKnownSizes(detail: ListingDetail): ReadonlyMap<string, { width: number; height: number }> {
  const { data: pictures } = useServer<{ picture: string; width: number; height: number }[]>('/api/pictures');
  return useMemo(() => {
    const map = new Map<string, { width: number; height: number }>();
    for (const { data } of detail.variants) {
      if (data.cutout) map.set(data.cutout.picture, data.cutout);
      if (data.photo) map.set(data.photo.picture, data.photo);
    }
    for (const p of pictures ?? []) map.set(p.picture, p);
    return map;
  }, [detail.variants, pictures]);
}

function Figure({ n, what }: { n: string; what: string }) {
  return (
    <div>
      <p className="font-mono text-[16px]">{n}</p>
      <p className="text-ink-2 text-[12px]">{what}</p>
    </div>
  );
}

function ShotCard({ shot, detail }: { shot: ShotRow; detail: ListingDetail }) {
  const { ref, inView } = useInView();
  const data = detail.variants[0]?.data ?? null;
  const resolved = useMemo(() => resolveBase(shot.document, data), [shot.document, data]);
  const { canvas, size } = useThumbnail(resolved, 150, 92, inView);
  const act = async (method: string, path: string, body?: unknown) => {
    try {
      await request(method, path, body);
      refresh('/api/listings');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <article className="border-line bg-card flex shrink-0 gap-3 rounded-lg border p-2">
      <span ref={ref} className="flex h-[92px] w-[150px] items-center justify-center bg-[#ececeb]">
        <canvas ref={canvas} style={size} aria-hidden />
      </span>
      <div className="flex w-32 flex-col">
        <h3 className="truncate font-semibold">{shot.title}</h3>
        <p className="text-ink-2 text-[12px]">
          {shot.feeds.length
            ? `feeds ${shot.feeds.length} slot${shot.feeds.length > 1 ? 's' : ''}`
            : 'feeds no slot yet'}
        </p>
        <div className="mt-auto flex items-center gap-1">
          <Link
            to={`/shots/${shot.id}`}
            aria-label={`Open ${shot.title} on the stage`}
            className="border-line hover:border-ink-3 inline-flex h-7 items-center gap-1.5 rounded-md border px-2.5 font-medium"
          >
            <Pencil size={13} aria-hidden /> Stage
          </Link>
          <button
            type="button"
            title="Copy this shot"
            aria-label={`Copy ${shot.title}`}
            className="text-ink-2 hover:text-ink p-1"
            onClick={() => void act('POST', `/api/shots/${shot.id}/copy`, {})}
          >
            <Copy size={14} aria-hidden />
          </button>
          <button
            type="button"
            title={shot.feeds.length ? 'Take its slots away first' : 'Remove this shot'}
            aria-label={`Remove ${shot.title}`}
            disabled={shot.feeds.length > 0}
            className="text-ink-2 hover:text-ink p-1 disabled:opacity-40"
            onClick={() => void act('DELETE', `/api/shots/${shot.id}`)}
          >
            <Trash2 size={14} aria-hidden />
          </button>
        </div>
      </div>
    </article>
  );
}

/** Whether a shot shows the variant's own cutout. */
function followsVariant({ document }: ShotRow): boolean {
  return document.elements.some((e) => e.kind === 'product' && e.followsVariant);
}

function AddShot({ detail, onClose }: { detail: ListingDetail; onClose(): void }) {
  const listingId = detail.listing.id;
  const { data: templates } = useTemplates();
  const first = detail.variants.find((v) => v.data.cutout) ?? null;
  const use = async (t: ListedTemplate) => {
    try {
      await request('POST', `/api/listings/${listingId}/shots/of-documents`, {
        shots: [
          {
            title: t.title,
            document: fillTemplate(t.document, first!.data, first!.pose, othersOf(detail, first!)),
          },
        ],
      });
      refresh('/api/listings');
      onClose();
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const { data: scenes } = useServer<Scene[]>('/api/scenes');
  const add = async (body: { kind: 'white' | 'scene'; sceneId?: string }) => {
    try {
      await request('POST', `/api/listings/${listingId}/shots`, body);
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
