import { Copy, Pencil, Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { type ListingDetail, type ShotRow, call } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { removing } from '../../ui/removing';
import { tried } from '../../ui/tried';
import { useThumbnail } from '../listings/cell-picture';
import { useInView } from '../listings/use-in-view';
import { msg } from '../../language/language';

/** The listing's shots, which fill its slots. */
export function ShotsStrip({ detail, onAdd }: { detail: ListingDetail; onAdd(): void }) {
  return (
    <section
      aria-label={msg('Shots')}
      className="flex shrink-0 items-stretch gap-3 overflow-x-auto px-4.5 py-2.5"
    >
      {detail.shots.map((shot) => (
        <ShotCard key={shot.id} shot={shot} detail={detail} />
      ))}
      <button
        type="button"
        onClick={onAdd}
        className="border-ink-3 text-ink-2 hover:border-spruce hover:text-ink flex w-28 shrink-0 flex-col items-center justify-center gap-1 rounded-lg border border-dashed"
      >
        <Plus size={16} aria-hidden /> {msg('Add a shot')}
      </button>
    </section>
  );
}

function ShotCard({ shot, detail }: { shot: ShotRow; detail: ListingDetail }) {
  const { ref, inView } = useInView();
  const data = detail.variants[0]?.data ?? null;
  const resolved = useMemo(() => resolveBase(shot.document, data), [shot.document, data]);
  const { canvas, size } = useThumbnail(resolved, 112, 70, inView);
  const [describing, setDescribing] = useState(false);
  const params = { id: shot.id };
  return (
    <article className="border-line bg-card flex shrink-0 gap-3 rounded-lg border p-2">
      <span ref={ref} className="flex h-[70px] w-[112px] shrink-0 items-center justify-center bg-[#ececeb]">
        <canvas ref={canvas} style={size} aria-hidden />
      </span>
      <div className="flex w-32 flex-col">
        <button
          type="button"
          title={msg('Name and alternative text: {alt}', { alt: shot.alt || msg('none written') })}
          aria-label={msg('Describe {shot}', { shot: shot.title })}
          className="truncate text-left font-semibold hover:underline"
          onClick={() => setDescribing(true)}
        >
          {shot.title}
        </button>
        <p className="text-ink-2 text-[12px]">
          {shot.feeds.length
            ? msg('used in {feeds} {feeds, plural, one {slot} other {slots}}', { feeds: shot.feeds.length })
            : msg('used in no slot yet')}
        </p>
        <div className="mt-auto flex items-center gap-1">
          <Link
            to={`/shots/${shot.id}`}
            aria-label={msg('Open {shot} on the stage', { shot: shot.title })}
            className="border-line hover:border-ink-3 inline-flex h-7 items-center gap-1.5 rounded-md border px-2.5 font-medium"
          >
            <Pencil size={13} aria-hidden /> {msg('Stage')}
          </Link>
          <button
            type="button"
            title={msg('Copy this shot')}
            aria-label={msg('Copy {shot}', { shot: shot.title })}
            className="text-ink-2 hover:text-ink p-1"
            onClick={() =>
              void tried(call('POST /api/shots/:id/copy', { params, body: {} }), '/api/listings')
            }
          >
            <Copy size={14} aria-hidden />
          </button>
          <button
            type="button"
            title={shot.feeds.length ? msg('Take its slots away first') : msg('Remove this shot')}
            aria-label={msg('Remove {shot}', { shot: shot.title })}
            disabled={shot.feeds.length > 0}
            className="text-ink-2 hover:text-ink p-1 disabled:opacity-40"
            onClick={() =>
              void removing(
                call('DELETE /api/shots/:id', { params }, { revision: shot.revision }),
                `"${shot.title}"`,
                '/api/listings',
              )
            }
          >
            <Trash2 size={14} aria-hidden />
          </button>
        </div>
      </div>
      {describing && <DescribeDialog shot={shot} onClose={() => setDescribing(false)} />}
    </article>
  );
}

/** A shot's name and its alternative text. */
function DescribeDialog({ shot, onClose }: { shot: ShotRow; onClose(): void }) {
  const change = (body: { title: string } | { alt: string }) =>
    tried(
      call('PATCH /api/shots/:id', { params: { id: shot.id }, body }, { of: boardOf(shot.listingId) }),
      '/api/listings',
    );
  return (
    <Dialog
      open
      title={shot.title}
      about={msg(
        "What its pictures say to those who cannot see them. Values of the product such as '{'title'}', '{'variant'}' or '{'material'}' are filled in; the text is written into every file and the manifest.",
      )}
      onClose={onClose}
    >
      <div className="grid gap-3">
        <TextField
          label={msg('Name of the shot')}
          value={shot.title}
          onCommit={(title) => title.trim() && change({ title: title.trim() })}
        />
        <TextField
          label={msg('Alternative text')}
          multiline
          value={shot.alt}
          onCommit={(alt) => change({ alt })}
        />
      </div>
    </Dialog>
  );
}
