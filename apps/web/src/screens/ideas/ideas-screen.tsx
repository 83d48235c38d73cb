import type { Purpose, Season } from '@scenograph/core/templates/template';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { useRoute, type ListingDetail } from '../../api/client';
import { Button, Select } from '../../ui/controls';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { useThumbnail } from '../listings/cell-picture';
import { ListingTrail } from '../listings/listing-trail';
import { useSeen } from '../listings/use-in-view';
import { PurposeSeason } from '../templates/purpose-season';
import type { Candidate } from './candidates';
import { SendDialog } from './send-dialog';
import { useCandidates } from './use-candidates';
import { useKept } from './use-kept';
import { msg } from '../../language/language';

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
        <Waiting what={msg('the listing')} />
      </>
    );
  return <Wall detail={detail} />;
}

function Wall({ detail }: { detail: ListingDetail }) {
  const { withCutout, variant, choose, all } = useCandidates(detail);
  const [kind, setKind] = useState('all');
  const [purpose, setPurpose] = useState<Purpose | 'all'>('all');
  const [season, setSeason] = useState<Season | 'all'>('all');
  const [kept, setKept] = useKept(detail.listing.id);
  const [sending, setSending] = useState(false);
  const shown = all?.filter(
    (c) =>
      (kind === 'all' || c.kind === kind) &&
      (purpose === 'all' || c.purpose === purpose) &&
      (season === 'all' || c.season === season),
  );
  const chosen = (all ?? []).filter((c) => kept.includes(c.id));
  return (
    <>
      <TopBar trail={<ListingTrail listing={detail.listing} title={msg('Ideas wall')} />}>
        <span className="measure text-ink-2" role="status">
          {msg('{chosen} kept', { chosen: chosen.length })}
        </span>
        <Button tone="main" disabled={!chosen.length} onClick={() => setSending(true)}>
          {msg('Make shots of what is kept')}
        </Button>
      </TopBar>
      <main className="grow overflow-y-auto px-5 pt-3 pb-10">
        <div className="mb-3 flex flex-wrap items-center gap-2.5">
          {withCutout.length > 1 && variant && (
            <Select
              label={msg('Product')}
              value={variant.id}
              onChange={choose}
              options={withCutout.map((v) => ({ value: v.id, title: v.data.variant || v.data.sku }))}
            />
          )}
          <Select
            label={msg('Kind')}
            value={kind}
            onChange={setKind}
            options={[
              { value: 'all', title: msg('Scenes, backdrops, templates') },
              { value: 'scene', title: msg('Scenes') },
              { value: 'backdrop', title: msg('Backdrops') },
              { value: 'template', title: msg('Templates') },
            ]}
          />
          <PurposeSeason purpose={purpose} season={season} onPurpose={setPurpose} onSeason={setSeason} />
          <span className="measure text-ink-2">
            {shown
              ? msg('{shown, plural, one {# idea} other {# ideas}}', { shown: shown.length })
              : msg('looking')}
          </span>
        </div>
        {!variant && (
          <p>{msg('No variant of this listing has a cutout yet. Open its photo and cut it out first.')}</p>
        )}
        {shown?.length === 0 && (
          <p className="text-ink-2">{msg('No idea is for this purpose and season. Widen the filter.')}</p>
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
        aria-label={`${kept ? msg('Kept') : msg('Keep')}: ${candidate.title}`}
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
