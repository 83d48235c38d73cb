import { useCallback, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, refreshBoards, type ListingDetail, useRoute, call } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, buttonClass, Select } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { UndoRedo } from '../../ui/undo-redo';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import { AddShot } from './add-shot';
import { BoardGrid } from './board-grid';
import type { BoardColumn } from './slot-head';
import { CellPanel } from './cell-panel';
import { FILTERS } from './cell-state';
import { cellAt, placeOf, type Choice } from './choice';
import { boardCounts, CountsRow } from './counts';
import { ShotsStrip } from './shots-strip';

export function BoardScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/listings/:id', { params: { id } });
  if (error || !data)
    return (
      <>
        <TopBar />
        {error ? <Trouble error={error} /> : <Waiting what="the listing" />}
      </>
    );
  return <ListingBoard key={data.listing.id} detail={data} />;
}

function ListingBoard({ detail }: { detail: ListingDetail }) {
  const { listing, variants: all, sheets, shots } = detail;
  const params = useMemo(() => ({ id: listing.id }), [listing.id]);
  const { data: board } = useRoute('GET /api/listings/:id/board', { params });
  const [only, setOnly] = useState('all');
  const [requiredOnly, setRequiredOnly] = useState(false);
  const [search, setSearch] = useState('');
  const [choice, setChoice] = useState<Choice>(new Set());
  const [delivering, setDelivering] = useState<'all' | 'chosen' | null>(null);
  const [adding, setAdding] = useState(false);
  const [showShots, setShowShots] = useState(true);

  const everySlot = useMemo<BoardColumn[]>(
    () =>
      sheets
        .flatMap((sheet) => sheet.slots.map((slot) => ({ sheet, slot, key: slotKey(sheet, slot) })))
        .map((c, index) => ({ ...c, index })),
    [sheets],
  );
  const columns = useMemo(
    () =>
      everySlot.filter(
        ({ sheet, slot }) => (only === 'all' || sheet.id === only) && (!requiredOnly || slot.required),
      ),
    [everySlot, only, requiredOnly],
  );
  const variants = useMemo(() => {
    const words = search.trim().toLowerCase();
    return words
      ? all.filter((v) => `${v.data.sku} ${v.data.variant} ${v.data.title}`.toLowerCase().includes(words))
      : all;
  }, [all, search]);
  const rowOf = useMemo(() => new Map(board?.rows.map((r, i) => [r.variantId, i])), [board]);

  const tell = useCallback(async <T extends object>(ask: () => Promise<T>): Promise<T | null> => {
    try {
      const answer = await ask();
      refresh('/api/listings');
      return answer;
    } catch (e) {
      say('stop', (e as Error).message);
      return null;
    }
  }, []);
  const feed = useCallback(
    (slot: string, shotId: string | null) =>
      void tell(() => call('PUT /api/listings/:id/feeds', { params, body: { slot, shotId } })),
    [tell, params],
  );
  const cells = useMemo(
    () =>
      [...choice].flatMap((id) => {
        const [r, c] = placeOf(id);
        return variants[r] && columns[c] ? [{ variantId: variants[r].id, slotKey: columns[c].key }] : [];
      }),
    [choice, variants, columns],
  );
  const assign = async (shotId: string | null) => {
    const done = await tell(() => call('PUT /api/listings/:id/cells', { params, body: { cells, shotId } }));
    if (done) say('pass', `${cells.length} cell${cells.length === 1 ? '' : 's'} assigned.`);
  };
  const fill = useCallback(async () => {
    const done = await tell(() => call('POST /api/listings/:id/fill', { params }));
    if (!done) return;
    const { filled, left } = done;
    say(
      left ? 'look' : 'pass',
      filled || left
        ? `${filled} slot${filled === 1 ? '' : 's'} filled by their rules${left ? `; ${left} that no shot suits` : ''}.`
        : 'Every slot has a shot already.',
    );
  }, [tell, params]);
  const turn = useCallback(
    async (way: 'undo' | 'redo') => {
      const done = await tell(() => call('POST /api/listings/:id/turn', { params, body: { way } }));
      if (done?.label) say('pass', `${way === 'undo' ? 'Undone' : 'Done again'}: ${done.label}.`);
    },
    [tell, params],
  );
  const chooseBy = (value: string) => {
    const filter = FILTERS.find((f) => f.value === value);
    if (!filter || !board) return setChoice(new Set());
    const found = new Set<string>();
    variants.forEach((v, r) => {
      const row = board.rows[rowOf.get(v.id) ?? -1];
      columns.forEach((column, c) => {
        const letter = row?.states[column.index] ?? ' ';
        const differs = row?.differs[column.index] ?? '.';
        if (filter.letters.includes(letter) || filter.differs?.includes(differs)) found.add(cellAt(r, c));
      });
    });
    setChoice(found);
    say('pass', `${found.size} cell${found.size === 1 ? '' : 's'} chosen: ${filter.title.toLowerCase()}.`);
  };
  // While the board is not known, nothing is counted.
  const counts = useMemo(
    () => (board ? boardCounts(board.rows, all.length, everySlot) : null),
    [board, all.length, everySlot],
  );

  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'deliver',
        title: 'Deliver pictures of this listing',
        group: 'Listing',
        run: () => setDelivering('all'),
      },
      { id: 'add-shot', title: 'Add a shot', group: 'Listing', run: () => setAdding(true) },
      { id: 'fill', title: 'Fill empty slots by their rules', group: 'Listing', run: () => void fill() },
      {
        id: 'undo-board',
        title: 'Undo the last change of the board',
        group: 'Listing',
        run: () => void turn('undo'),
      },
      { id: 'redo-board', title: 'Redo on the board', group: 'Listing', run: () => void turn('redo') },
      { id: 'refresh-board', title: 'Measure the board again', group: 'Listing', run: refreshBoards },
    ],
    [fill, turn],
  );
  useActions('listing', actions);
  const single = cells.length === 1 ? cells[0] : null;

  return (
    <>
      <TopBar />
      <div className="border-line bg-card flex h-17 shrink-0 items-center gap-6 border-b px-5">
        <h1 className="font-display truncate text-[22px] font-bold">{listing.title}</h1>
        <CountsRow counts={counts} />
        <div className="ml-auto flex gap-2">
          <Link to={`/products/${listing.productId}`} className={buttonClass()}>
            Data
          </Link>
          <Link to={`/listings/${listing.id}/checks`} className={buttonClass()}>
            Checks
          </Link>
          <Link to={`/listings/${listing.id}/ideas`} className={buttonClass()}>
            Ideas wall
          </Link>
          <Button tone="main" onClick={() => setDelivering('all')}>
            Deliver {counts && <span className="measure">{counts.filled}</span>}
          </Button>
        </div>
      </div>
      {showShots && <ShotsStrip detail={detail} onAdd={() => setAdding(true)} />}
      <div className="flex shrink-0 items-center gap-2.5 px-4.5 pb-2.5 pt-1">
        <Select
          label="Marketplace"
          value={only}
          onChange={(v) => {
            setOnly(v);
            setChoice(new Set());
          }}
          options={[
            { value: 'all', title: 'All marketplaces' },
            ...sheets.map((s) => ({ value: s.id, title: s.marketplace })),
          ]}
        />
        <input
          type="search"
          aria-label="Find variants"
          placeholder="Find variants"
          value={search}
          onChange={(e) => {
            setSearch(e.target.value);
            setChoice(new Set());
          }}
          className="border-line focus:border-spruce bg-card h-7 w-36 rounded-md border px-2 outline-none"
        />
        <label className="border-line bg-card flex h-7 items-center gap-2 rounded-md border px-2.5">
          <input
            type="checkbox"
            className="accent-spruce"
            checked={requiredOnly}
            onChange={(e) => {
              setRequiredOnly(e.target.checked);
              setChoice(new Set());
            }}
          />
          Required only
        </label>
        <Select
          label="Choose cells"
          value={''}
          onChange={chooseBy}
          options={FILTERS.map(({ value, title }) => ({ value, title }))}
        />
        <Button onClick={() => void fill()}>Fill empty slots</Button>
        <div className="ml-auto flex gap-1.5">
          <Button tone="quiet" onClick={() => setShowShots(!showShots)} aria-pressed={showShots}>
            {showShots ? 'Hide shots' : 'Show shots'}
          </Button>
          <UndoRedo edits={board?.edits} onTurn={(way) => void turn(way)} />
        </div>
      </div>
      <main className="flex min-h-0 grow">
        <BoardGrid
          detail={detail}
          board={board}
          columns={columns}
          variants={variants}
          rowOf={rowOf}
          choice={choice}
          onChoice={setChoice}
          onFeed={feed}
        />
        {single && <CellPanel key={`${single.variantId} ${single.slotKey}`} detail={detail} cell={single} />}
      </main>
      {cells.length > 0 && (
        <div
          role="toolbar"
          aria-label="Chosen cells"
          className="border-line bg-card flex h-12 shrink-0 items-center gap-2.5 border-t px-4.5"
        >
          <span className="mr-2">
            <span className="measure">{cells.length}</span> cell{cells.length === 1 ? '' : 's'} chosen
          </span>
          <Select
            label="Fill from"
            value={''}
            onChange={(v) => void assign(v === 'none' ? null : v)}
            options={[
              ...shots.map((s) => ({ value: s.id, title: s.title })),
              { value: 'slot', title: 'as their slot is filled' },
              { value: 'none', title: 'nothing: leave it missing' },
            ]}
          />
          <Button onClick={() => setDelivering('chosen')}>Deliver these</Button>
          <Button tone="quiet" onClick={() => setChoice(new Set())}>
            Choose none
          </Button>
          <span className="text-ink-2 ml-auto text-[12px]">
            Shift for a range, Ctrl for one more, Enter or a double click opens the stage
          </span>
        </div>
      )}
      {delivering && (
        <DeliverDialog
          detail={detail}
          chosen={delivering === 'chosen' ? cells : undefined}
          onClose={() => setDelivering(null)}
        />
      )}
      {adding && <AddShot detail={detail} onClose={() => setAdding(false)} />}
    </>
  );
}
