import type { Purpose, Season } from '@scenograph/core/templates/template';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, type ListingDetail, call, useRoute } from '../../api/client';
import { Button, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { paletteOfPicture } from '../../workers/painters';
import { useThumbnail } from '../listings/cell-picture';
import { useSeen } from '../listings/use-in-view';
import { useTemplates } from '../templates/use-templates';
import { candidatesFor, type Candidate } from './candidates';
import { PurposeSeason } from '../templates/purpose-season';
import { ListingTrail } from '../listings/listing-trail';

/** A wall of finished candidates for a product, painted live; several are kept and sent to slots. */
export function IdeasScreen() {
  const { id = '' } = useParams();
  const { data: detail, error } = useRoute('GET /api/listings/:id', { params: { id } });
  if (error)
    return (
      <>
        <TopBar />
        <Trouble error={error} />
      </>
    );
  if (!detail)
    return (
      <>
        <TopBar />
        <Waiting what="the listing" />
      </>
    );
  return <Wall detail={detail} />;
}

function Wall({ detail }: { detail: ListingDetail }) {
  const [params, setParams] = useSearchParams();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: templates } = useTemplates();
  const withCutout = detail.variants.filter((v) => v.data.cutout);
  const variant = withCutout.find((v) => v.id === params.get('variant')) ?? withCutout[0] ?? null;
  const palette = usePalette(variant?.data.cutout?.picture ?? null);
  const [kind, setKind] = useState('all');
  const [purpose, setPurpose] = useState<Purpose | 'all'>('all');
  const [season, setSeason] = useState<Season | 'all'>('all');
  const [kept, setKept] = useKept(detail.listing.id);
  const [sending, setSending] = useState(false);
  const all = useMemo(
    () =>
      variant && scenes && templates && palette
        ? candidatesFor(
            variant,
            withCutout.filter((v) => v.id !== variant.id),
            scenes,
            templates,
            palette,
          )
        : null,
    [variant, scenes, templates, palette],
  );
  const shown = all?.filter(
    (c) =>
      (kind === 'all' || c.kind === kind) &&
      (purpose === 'all' || c.purpose === purpose) &&
      (season === 'all' || c.season === season),
  );
  const chosen = (all ?? []).filter((c) => kept.includes(c.id));
  return (
    <>
      <TopBar trail={<ListingTrail listing={detail.listing} title="Ideas wall" />}>
        <span className="measure text-ink-2" role="status">
          {chosen.length} kept
        </span>
        <Button tone="main" disabled={!chosen.length} onClick={() => setSending(true)}>
          Make shots of what is kept
        </Button>
      </TopBar>
      <main className="grow overflow-y-auto px-5 pt-3 pb-10">
        <div className="mb-3 flex flex-wrap items-center gap-2.5">
          {withCutout.length > 1 && variant && (
            <Select
              label="Product"
              value={variant.id}
              onChange={(v) => setParams((p) => (p.set('variant', v), p), { replace: true })}
              options={withCutout.map((v) => ({ value: v.id, title: v.data.variant || v.data.sku }))}
            />
          )}
          <Select
            label="Kind"
            value={kind}
            onChange={setKind}
            options={[
              { value: 'all', title: 'Scenes, backdrops, templates' },
              { value: 'scene', title: 'Scenes' },
              { value: 'backdrop', title: 'Backdrops' },
              { value: 'template', title: 'Templates' },
            ]}
          />
          <PurposeSeason purpose={purpose} season={season} onPurpose={setPurpose} onSeason={setSeason} />
          <span className="measure text-ink-2">{shown ? `${shown.length} ideas` : 'looking'}</span>
        </div>
        {!variant && <p>No variant of this listing has a cutout yet. Open its photo and cut it out first.</p>}
        {shown?.length === 0 && (
          <p className="text-ink-2">No idea is for this purpose and season. Widen the filter.</p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-3">
          {variant &&
            shown?.map((c) => (
              <Idea
                key={c.id}
                candidate={c}
                data={variant.data}
                kept={kept.includes(c.id)}
                onKeep={() => setKept((k) => (k.includes(c.id) ? k.filter((x) => x !== c.id) : [...k, c.id]))}
              />
            ))}
        </ul>
      </main>
      {sending && (
        <SendDialog
          detail={detail}
          chosen={chosen}
          onMade={() => setKept([])}
          onClose={() => setSending(false)}
        />
      )}
    </>
  );
}

/** Ids of kept ideas: they stay with the listing in this browser until shots are made of them. */
function useKept(listing: string) {
  const place = `ideas-kept-${listing}`;
  const [kept, setKept] = useState<string[]>(() => {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(place) ?? '[]');
      return Array.isArray(stored) ? stored.filter((id): id is string => typeof id === 'string') : [];
    } catch {
      return [];
    }
  });
  useEffect(() => localStorage.setItem(place, JSON.stringify(kept)), [place, kept]);
  return [kept, setKept] as const;
}

function usePalette(picture: string | null): string[] | null {
  const [palette, setPalette] = useState<string[] | null>(null);
  useEffect(() => {
    if (!picture) return;
    let here = true;
    paletteOfPicture(picture)
      .then((p) => here && setPalette(p))
      .catch(() => here && setPalette([]));
    return () => {
      here = false;
    };
  }, [picture]);
  return palette;
}

function Idea({
  candidate,
  data,
  kept,
  onKeep,
}: {
  candidate: Candidate;
  data: ListingDetail['variants'][number]['data'];
  kept: boolean;
  onKeep(): void;
}) {
  const { ref, seen } = useSeen<HTMLLIElement>();
  const key = JSON.stringify(candidate.shot.elements.map((e) => e.brand));
  const resolved = useMemo(() => resolveBase(candidate.shot, data), [candidate.id, key, data]);
  const { canvas, size } = useThumbnail(resolved, 198, 198, true, seen ? 'seen' : 'unseen');
  return (
    <li ref={ref}>
      <button
        type="button"
        aria-pressed={kept}
        aria-label={`${kept ? 'Kept' : 'Keep'}: ${candidate.title}`}
        onClick={onKeep}
        className={`block w-full overflow-hidden rounded-lg border text-left ${kept ? 'border-spruce ring-limelight ring-3' : 'border-line hover:border-ink-3'}`}
      >
        <span className="flex h-50 items-center justify-center bg-[#e4e5e2]">
          <canvas ref={canvas} style={size} aria-hidden data-idea />
        </span>
        <span className="bg-card block px-2.5 py-1.5">
          <span className="block truncate text-[12.5px] font-medium">{candidate.title}</span>
          <span className="text-ink-2 block text-[11.5px]">
            {[candidate.kind, candidate.purpose, candidate.season].filter(Boolean).join(', ')}
          </span>
        </span>
      </button>
    </li>
  );
}

/** Which slot each kept idea fills. */
function SendDialog({
  detail,
  chosen,
  onMade,
  onClose,
}: {
  detail: ListingDetail;
  chosen: Candidate[];
  onMade(): void;
  onClose(): void;
}) {
  const navigate = useNavigate();
  const [feeds, setFeeds] = useState<Record<string, string>>({});
  const slots = detail.sheets.flatMap((sheet) =>
    sheet.slots
      .filter((slot) => slot.background.kind !== 'white')
      .map((slot) => ({ key: slotKey(sheet, slot), title: `${sheet.marketplace}, ${slot.title}` })),
  );
  const send = async () => {
    try {
      await call('POST /api/listings/:id/shots/of-documents', {
        params: { id: detail.listing.id },
        body: {
          shots: chosen.map((c) => ({
            title: c.title,
            document: c.shot,
            feeds: feeds[c.id] ? [feeds[c.id]] : [],
          })),
        },
      });
      refresh('/api/listings');
      onMade();
      say('pass', `${chosen.length} ${chosen.length === 1 ? 'shot is' : 'shots are'} in the listing.`);
      void navigate(`/listings/${detail.listing.id}`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const fedBy = (key: string) => detail.shots.find((s) => s.feeds.includes(key))?.title;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Make shots of what is kept"
      about="Each becomes a shot of the listing. A slot that is chosen here is taken from the shot that fills it now."
      footer={
        <>
          <Button onClick={onClose}>Back to the wall</Button>
          <Button tone="main" onClick={() => void send()}>
            Make {chosen.length} {chosen.length === 1 ? 'shot' : 'shots'}
          </Button>
        </>
      }
    >
      <ul className="grid gap-2">
        {chosen.map((c) => (
          <li key={c.id} className="flex items-center gap-3">
            <span className="min-w-0 grow truncate">{c.title}</span>
            <Select
              label={`Slot for ${c.title}`}
              className="w-64"
              value={feeds[c.id] ?? 'none'}
              onChange={(v) => setFeeds((f) => ({ ...f, [c.id]: v === 'none' ? '' : v }))}
              options={[
                { value: 'none', title: 'no slot yet' },
                ...slots
                  .filter((s) => feeds[c.id] === s.key || !Object.values(feeds).includes(s.key))
                  .map((s) => ({
                    value: s.key,
                    title: fedBy(s.key) ? `${s.title} (now ${fedBy(s.key)})` : s.title,
                  })),
              ]}
            />
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
