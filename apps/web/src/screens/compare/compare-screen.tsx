import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { worst } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { type ShotRow, call } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { Button, buttonClass, Segmented } from '../../ui/controls';
import { say } from '../../ui/notices';
import { SharedView, WHOLE, ZOOMS, zoomValue, type View } from '../../ui/shared-view';
import { Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { useSize } from '../../ui/use-size';
import { CellChoice } from '../board/cell-choice';
import { useCell, type OpenCell } from '../board/use-cell';
import { useKnownSizes } from '../board/use-known-sizes';
import { useChecks, useThumbnail } from '../listings/cell-picture';
import { PaintedShot } from '../listings/painted-shot';
import { ListingTrail } from '../listings/listing-trail';
import { msg } from '../../language/language';

const MOST = 4;

export function CompareScreen() {
  const { cell, error } = useCell();
  return (
    <>
      <TopBar trail={cell && <ListingTrail listing={cell.detail.listing} title={msg('Compare shots')} />}>
        {cell && <CellChoice cell={cell} />}
      </TopBar>
      {error && <Trouble error={error} />}
      {!cell && !error && <Waiting what={msg('the slot')} />}
      {cell && <Candidates cell={cell} />}
    </>
  );
}

/** Shots that could fill a slot, side by side through one window; one is made the winner, the others are kept. */
function Candidates({ cell }: { cell: OpenCell }) {
  const { detail, slot, slotKey, variant } = cell;
  const [chosen, setChosen] = useState<string[]>(() => {
    const first = cell.shot ? [cell.shot.id] : [];
    return [...first, ...detail.shots.map((s) => s.id).filter((id) => !first.includes(id))].slice(0, 2);
  });
  const [view, setView] = useState<View>(WHOLE);
  const [whole, setWhole] = useState(true);
  const pane = useSize();
  const shown = chosen.flatMap((id) => detail.shots.filter((s) => s.id === id));
  const win = async (shot: ShotRow) => {
    const params = { id: detail.listing.id };
    const based = { of: boardOf(params.id) };
    const cells = [{ slotKey, variantId: variant.id }];
    const ask: Promise<object> = whole
      ? call('PUT /api/listings/:id/feeds', { params, body: { slot: slotKey, shotId: shot.id } }, based)
      : call('PUT /api/listings/:id/cells', { params, body: { cells, shotId: shot.id } }, based);
    if (!(await tried(ask, '/api/listings'))) return;
    const where = whole ? '' : msg(' of {variant}', { variant: variant.data.variant || variant.data.sku });
    say(
      'pass',
      msg('"{shot}" fills {slot}{where}. The others are kept.', {
        shot: shot.title,
        slot: slot.title,
        where,
      }),
    );
  };
  return (
    <main className="flex min-h-0 grow flex-col">
      <div className="border-line bg-card flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b px-4 py-1">
        <Segmented
          label={msg('Zoom')}
          value={zoomValue(view)}
          onChange={(v) => setView({ ...view, zoom: ZOOMS.find((z) => z.value === v)!.zoom })}
          options={ZOOMS}
        />
        <p className="text-ink-2 max-md:hidden">
          {msg('Drag to move all of them, turn the wheel to zoom, double click for the whole.')}
        </p>
        <div className="ml-auto">
          <Segmented
            label={msg('The winner fills')}
            value={whole ? 'slot' : 'cell'}
            onChange={(v) => setWhole(v === 'slot')}
            options={[
              { value: 'slot', title: msg('For every variant') },
              { value: 'cell', title: msg('For this variant only') },
            ]}
          />
        </div>
      </div>
      <div ref={pane.ref} className="flex min-h-0 grow gap-2 overflow-hidden p-2">
        {pane.width > 0 &&
          shown.map((shot) => (
            <Candidate
              key={shot.id}
              shot={shot}
              cell={cell}
              view={view}
              onView={setView}
              frame={{
                width: Math.floor((pane.width - 8 * (shown.length - 1)) / shown.length),
                height: Math.max(140, pane.height - 150),
              }}
              wins={cell.shot?.id === shot.id}
              onWin={() => void win(shot)}
            />
          ))}
        {!shown.length && (
          <p className="text-ink-2 m-auto">{msg('Choose shots below to see them side by side.')}</p>
        )}
      </div>
      <Choices cell={cell} chosen={chosen} onChoose={setChosen} />
    </main>
  );
}

/** The listing's shots; those that are chosen are shown side by side, at most so many as fit. */
function Choices({
  cell,
  chosen,
  onChoose,
}: {
  cell: OpenCell;
  chosen: string[];
  onChoose(ids: string[]): void;
}) {
  return (
    <ul
      aria-label={msg('Shots of this listing')}
      className="border-line bg-card flex shrink-0 gap-2 overflow-x-auto border-t p-2"
    >
      {cell.detail.shots.map((shot) => {
        const on = chosen.includes(shot.id);
        return (
          <li key={shot.id}>
            <button
              type="button"
              aria-pressed={on}
              onClick={() =>
                onChoose(on ? chosen.filter((x) => x !== shot.id) : [...chosen, shot.id].slice(-MOST))
              }
              className={`flex items-center gap-2 rounded-md border p-1 pr-3 ${on ? 'border-spruce bg-spruce-tint' : 'border-line hover:border-ink-3'}`}
            >
              <Small shot={shot} cell={cell} />
              <span className="max-w-36 truncate">{shot.title}</span>
              {cell.shot?.id === shot.id && (
                <span className="text-spruce text-[12px]">{msg('fills it')}</span>
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

function useResolved(shot: ShotRow, { slotKey, slot, variant }: OpenCell): ResolvedShot {
  return useMemo(
    () => resolveForSlot(shot.document, slotKey, slot, variant.data),
    [shot.document, slotKey, slot, variant.data],
  );
}

function Small({ shot, cell }: { shot: ShotRow; cell: OpenCell }) {
  const { canvas, size } = useThumbnail(useResolved(shot, cell), 64, 40, true);
  return <canvas ref={canvas} style={size} aria-hidden />;
}

function Candidate({
  shot,
  cell,
  view,
  onView,
  frame,
  wins,
  onWin,
}: {
  shot: ShotRow;
  cell: OpenCell;
  view: View;
  onView(view: View): void;
  frame: { width: number; height: number };
  wins: boolean;
  onWin(): void;
}) {
  const { slot, slotKey, variant, detail } = cell;
  const resolved = useResolved(shot, cell);
  const known = useKnownSizes(detail);
  const results = useChecks(resolved, slot, slotKey, known, true);
  const state = results ? worst(results) : null;
  return (
    <section aria-label={shot.title} className="flex min-w-0 flex-col" style={{ width: frame.width }}>
      <SharedView
        label={msg('{shot} in {slot}', { shot: shot.title, slot: slot.title })}
        width={slot.width}
        height={slot.height}
        view={view}
        onView={onView}
        frame={frame}
      >
        <PaintedShot resolved={resolved} scale={1} />
      </SharedView>
      <div className="flex flex-wrap items-center gap-2 pt-2">
        <StatusMark mark={state ?? 'working'} />
        <h2 className="truncate font-semibold">{shot.title}</h2>
        <div className="ml-auto flex flex-wrap justify-end gap-1.5">
          <Link
            to={`/shots/${shot.id}?slot=${encodeURIComponent(slotKey)}&variant=${variant.id}`}
            className={buttonClass()}
          >
            {msg('Stage')}
          </Link>
          <Button tone={wins ? 'quiet' : 'main'} disabled={wins} onClick={onWin}>
            {wins ? msg('Fills this slot') : msg('Make it the winner')}
          </Button>
        </div>
      </div>
      <Measures results={results} />
    </section>
  );
}

/** What was measured, the worst first. */
function Measures({ results }: { results: CheckResult[] | null }) {
  if (!results) return <p className="text-ink-2 pt-1">{msg('Measuring ...')}</p>;
  const order = { stop: 0, look: 1, pass: 2 };
  const sorted = [...results].sort((a, b) => order[a.verdict] - order[b.verdict]);
  return (
    <ul
      className="grid max-h-24 grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-4 overflow-y-auto pt-1 text-[12px]"
      tabIndex={0}
      aria-label={msg('Measures')}
    >
      {sorted.map((r, i) => (
        <li key={i} className="flex items-center gap-1.5" title={r.sentence}>
          <StatusMark mark={r.verdict} size={8} />
          <span className="truncate">{r.title}</span>
          <span className="measure text-ink-2 ml-auto truncate">{r.measured}</span>
        </li>
      ))}
    </ul>
  );
}
