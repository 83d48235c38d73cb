import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import { ALIGNMENTS } from '@scenograph/core/shot/align';
import { freelyPlaced } from '@scenograph/core/shot/free-place';
import { whatCastsOnWhat } from '@scenograph/core/elements/product/casts';
import { resolveBase, cellFitKey, resolveForSlot, swapProduct } from '@scenograph/core/shot/resolve';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { newPicture, newProduct } from '@scenograph/core/shot/starters';
import { slotKey } from '@scenograph/core/spec/slot';
import {
  refresh,
  request,
  useServer,
  type ListingDetail,
  type Picture,
  type Variant,
  useProducts,
} from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, IconButton, Select } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { FindAction, TopBar } from '../../ui/top-bar';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import { useChecks, useWatch } from '../listings/cell-picture';
import { useKnownSizes } from '../board/use-known-sizes';
import { AddMenu } from './add-menu';
import { DepthStrip } from './depth-strip';
import { Desk } from './desk';
import { moveDepth, newId, patchElement, type SlotTarget } from './editing';
import { FaultMarks, SafeZone } from './fault-marks';
import { SizesBoard } from './sizes-board';
import { ThumbnailPreview } from './thumbnail-preview';
import { GradientHandles } from './gradient-handles';
import { ExportDialogs, ExportMenu, type Export } from './export-menu';
import { isMockup } from './mockup/editing';
import { OptionsBoard } from './mockup/options-board';
import { useMockupTools } from './mockup/tools';
import { MockupLayer } from './mockup/mockup-layer';
import { MillimetreRule } from './millimetre-rule';
import { makeOverlay, OVERLAYS, type OverlayChoice } from './overlays/kinds';
import { SpotHandle } from './overlays/spot-handle';
import { useKit } from '../../api/brand';
import { SizeStrip, type FedSlot } from './size-strip';
import { StageCanvas } from './stage-canvas';
import { ConflictDialog, SavingNote } from './saving';
import { isSaved, openShot, saveNow, trySave, useStage, type StoredShot } from './store';
import { trueSize } from './true-size';
import { useEditing } from './use-editing';
import { ListingTrail } from '../listings/listing-trail';

type VariantChoice = Pick<Variant, 'id' | 'productId' | 'pose' | 'data'>;

export function StageScreen() {
  const { id } = useParams();
  const [stored, setStored] = useState<StoredShot | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const { data: detail, error: listingError } = useServer<ListingDetail>(
    stored ? `/api/listings/${stored.listingId}` : null,
  );
  useEffect(() => {
    let here = true;
    setStored(null);
    request<StoredShot>('GET', `/api/shots/${id}`)
      .then((shot) => {
        if (!here) return;
        openShot(shot);
        setStored(shot);
      })
      .catch((e: Error) => here && setError(e));
    return () => {
      here = false;
      void trySave().then(() => refresh('/api/listings'));
    };
  }, [id]);
  if (error || listingError)
    return (
      <>
        <TopBar />
        <Trouble error={(error ?? listingError)!} />
      </>
    );
  if (!stored || !detail)
    return (
      <>
        <TopBar />
        <Waiting what="the shot" />
      </>
    );
  return <Stage stored={stored} detail={detail} />;
}

function Stage({ stored, detail }: { stored: StoredShot; detail: ListingDetail }) {
  const stage = useStage();
  const { document: shot, selected, slot: activeKey } = stage;
  const [params, setParams] = useSearchParams();
  const [delivering, setDelivering] = useState(false);
  const [making, setMaking] = useState<Export | null>(null);
  const [showSafe, setShowSafe] = useState(true);
  const [view, setView] = useState<'stage' | 'sizes' | 'thumbnail'>('stage');
  const tool = useMockupTools((s) => s.tool);
  const [open, setOpen] = useState<string[]>(['place']);
  const { data: pictures } = useServer<Picture[]>('/api/pictures');
  const known = useKnownSizes(detail);
  const variant = detail.variants.find((v) => v.id === params.get('variant')) ?? detail.variants[0];
  const data = variant?.data ?? null;

  const allSlots = useMemo<FedSlot[]>(
    () =>
      detail.sheets.flatMap((sheet) =>
        sheet.slots.map((slot) => ({ key: slotKey(sheet, slot), slot, marketplace: sheet.marketplace })),
      ),
    [detail.sheets],
  );
  const row = detail.shots.find((s) => s.id === stored.id);
  const fed = useMemo(() => allSlots.filter((s) => row?.feeds.includes(s.key)), [allSlots, row]);
  const active = allSlots.find((s) => s.key === activeKey) ?? null;
  // Changes go to the slot, or to the one cell of it that is on the stage.
  const [ownCell, setOwnCell] = useState<boolean | null>(null);
  const cellKey = active && variant ? cellFitKey(active.key, variant.id) : null;
  const inCell = !!cellKey && (ownCell ?? !!shot?.fits[cellKey]);
  const edited = useMemo<FedSlot | null>(
    () => (active && inCell && cellKey ? { ...active, key: cellKey } : active),
    [active, inCell, cellKey],
  );
  const target: SlotTarget | null = useMemo(() => edited && { key: edited.key, slot: edited.slot }, [edited]);

  const wantedSlot = params.get('slot');
  useEffect(() => {
    if (wantedSlot && allSlots.some((s) => s.key === wantedSlot)) useStage.getState().showSlot(wantedSlot);
  }, [wantedSlot, allSlots]);

  const resolved = useMemo(
    () =>
      shot ? (active ? resolveForSlot(shot, active.key, active.slot, data) : resolveBase(shot, data)) : null,
    [shot, active, data],
  );
  const results = useChecks(
    active ? resolved : null,
    active?.slot ?? allSlots[0]?.slot,
    active?.key ?? '',
    known,
    !!active,
  );
  const watched = useWatch(active ? null : resolved, known);
  const found = active ? results : watched;
  const onAdded = useCallback(
    (made: ShotElement) => setOpen(elementKind(made.kind).role === 'overlay' ? ['overlays'] : ['place']),
    [],
  );
  const editing = useEditing(resolved, target, data, onAdded);
  const { add, remove, nudge, depth, duplicate, align, distribute, link, trueSize: toTrueSize } = editing;
  const kit = useKit();
  const addOverlay = useCallback(
    (choice: OverlayChoice) =>
      add((now) => {
        const id = newId(choice.make('', now.frame, kit).kind, now);
        return freelyPlaced(
          makeOverlay(choice, id, now.frame, kit),
          resolveBase(now, data).elements,
          now.frame,
        );
      }),
    [add, kit, data],
  );
  const addText = useCallback(() => addOverlay(OVERLAYS[0].choices[0]), [addOverlay]);
  const addProduct = useCallback(
    (of: VariantChoice | undefined) => {
      if (!of?.data.cutout)
        return say('stop', 'This variant has no cutout yet. Open its photo and cut it out.');
      const other = of.productId !== detail.listing.productId;
      add((now) => ({
        ...newProduct(newId('product', now), of.data, now.frame, of.pose, resolveBase(now, data).elements),
        // A product of another listing stays itself whatever variant is on the stage.
        followsVariant: !other,
      }));
    },
    [add, data, detail.listing.productId],
  );
  const { data: allProducts } = useProducts();
  const choices = useMemo<(VariantChoice & { title: string })[]>(
    () =>
      (allProducts ?? []).flatMap((p) =>
        p.variants.map((v) => ({
          id: v.id,
          productId: p.id,
          pose: p.pose,
          data: v.data,
          title: p.variants.length > 1 ? `${p.title}, ${v.data.variant}` : p.title,
        })),
      ),
    [allProducts],
  );
  const swap = (id: string) => {
    const { selected: chosen } = useStage.getState();
    const choice = choices.find((c) => c.id === id);
    const from = resolved?.elements.find((e) => e.id === chosen);
    if (!choice?.data.cutout || from?.kind !== 'product')
      return say('stop', 'That product has no cutout yet. Open its photo and cut it out.');
    const next = swapProduct(from, choice.data, groundOf(resolved!.elements), resolved!);
    const {
      id: _,
      kind: __,
      ...value
    } = {
      ...next,
      name: choice.title,
      pose: choice.pose,
      followsVariant: choice.productId === detail.listing.productId,
    };
    editing.patch(`Swap for ${choice.title}`, value);
  };

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest(
        'input, textarea, [role="slider"], [role="dialog"], [role="menu"], [role="listbox"]',
      );
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === 'z' && !typing) {
        e.preventDefault();
        if (e.shiftKey) useStage.getState().redo();
        else useStage.getState().undo();
        return;
      }
      if (ctrl && e.key.toLowerCase() === 'd' && !typing) {
        e.preventDefault();
        duplicate();
        return;
      }
      if (typing || ctrl || e.altKey) return;
      const step = e.shiftKey ? 10 : 1;
      const arrows: Record<string, [number, number]> = {
        ArrowLeft: [-step, 0],
        ArrowRight: [step, 0],
        ArrowUp: [0, -step],
        ArrowDown: [0, step],
      };
      const inStrip = (e.target as HTMLElement).closest(
        '[data-radix-collection-item], [aria-roledescription="sortable"]',
      );
      if (arrows[e.key] && !inStrip) {
        e.preventDefault();
        nudge(...arrows[e.key]);
      }
      if (e.key === 'Delete' || e.key === 'Backspace') remove();
      if (e.key === 'Escape') useStage.getState().select(null);
    };
    window.addEventListener('keydown', onKey);
    const onLeave = (e: BeforeUnloadEvent) => {
      if (isSaved()) return;
      void trySave();
      e.preventDefault();
    };
    window.addEventListener('beforeunload', onLeave);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('beforeunload', onLeave);
    };
  }, [nudge, remove, duplicate]);

  const feed = async (key: string, on: boolean) => {
    try {
      await request('PUT', `/api/listings/${detail.listing.id}/feeds`, {
        slot: key,
        shotId: on ? stored.id : null,
      });
      refresh('/api/listings');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const actions = useMemo<Action[]>(
    () => [
      { id: 'undo', title: 'Undo', group: 'Stage', keys: 'Ctrl Z', run: () => useStage.getState().undo() },
      {
        id: 'redo',
        title: 'Redo',
        group: 'Stage',
        keys: 'Ctrl Shift Z',
        run: () => useStage.getState().redo(),
      },
      ...OVERLAYS.flatMap((g) =>
        g.choices.map((c) => ({
          id: `add-${c.id}`,
          title: c.id === 'text' ? 'Add a text' : `Add to stage: ${c.title}`,
          group: 'Overlays',
          run: () => addOverlay(c),
        })),
      ),
      { id: 'product', title: 'Add the product', group: 'Stage', run: () => addProduct(variant) },
      { id: 'duplicate', title: 'Duplicate what is chosen', group: 'Stage', keys: 'Ctrl D', run: duplicate },
      { id: 'true-size', title: 'Back to true size', group: 'Stage', run: toTrueSize },
      { id: 'link', title: 'Link what is chosen, to move as one', group: 'Stage', run: () => link(true) },
      { id: 'unlink', title: 'Unlink', group: 'Stage', run: () => link(false) },
      ...ALIGNMENTS.map((how) => ({
        id: `align-${how}`,
        title: how === 'bases' ? 'Align the bases of what is chosen' : `Align what is chosen: ${how}`,
        group: 'Stage',
        run: () => align(how),
      })),
      { id: 'across', title: 'Distribute across', group: 'Stage', run: () => distribute('x') },
      { id: 'down', title: 'Distribute down', group: 'Stage', run: () => distribute('y') },
      { id: 'remove', title: 'Remove what is chosen', group: 'Stage', keys: 'Delete', run: remove },
      { id: 'forward', title: 'Bring forward', group: 'Stage', run: () => depth(1) },
      { id: 'back', title: 'Send back', group: 'Stage', run: () => depth(-1) },
      { id: 'base', title: 'Show the base', group: 'Sizes', run: () => useStage.getState().showSlot(null) },
      { id: 'all-sizes', title: 'Show all sizes on one sheet', group: 'Sizes', run: () => setView('sizes') },
      { id: 'safe', title: 'Show or hide the safe zone', group: 'Sizes', run: () => setShowSafe((s) => !s) },
      {
        id: 'thumbnail',
        title: 'Preview as a search-result thumbnail',
        group: 'Sizes',
        run: () => setView('thumbnail'),
      },
      ...fed.map((s) => ({
        id: s.key,
        title: `Show ${s.slot.title} of ${s.marketplace}`,
        group: 'Sizes',
        run: () => useStage.getState().showSlot(s.key),
      })),
      ...[
        ['darker', '#8c8c8c'],
        ['as usual', '#bdbdbd'],
        ['lighter', '#e6e6e6'],
      ].map(([name, value]) => ({
        id: `surround-${name}`,
        title: `Surround of the picture ${name}`,
        group: 'Look',
        run: () => document.documentElement.style.setProperty('--stage', value),
      })),
      { id: 'export', title: 'Export one picture', group: 'Listing', run: () => setMaking('picture') },
      {
        id: 'template',
        title: 'Keep this shot as a template',
        group: 'Listing',
        run: () => setMaking('template'),
      },
      { id: 'proof', title: 'Make a proof sheet', group: 'Listing', run: () => setMaking('proof') },
      {
        id: 'deliver',
        title: 'Deliver pictures of this listing',
        group: 'Listing',
        run: () => setDelivering(true),
      },
    ],
    [addOverlay, addProduct, variant, remove, depth, duplicate, toTrueSize, link, align, distribute, fed],
  );
  useActions('stage', actions);

  if (!shot || !resolved) return null;
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  const size = element ? trueSize(resolved, element) : null;
  const casts = whatCastsOnWhat(resolved);

  return (
    <>
      <TopBar
        trail={
          <ListingTrail listing={detail.listing} title={row?.title ?? stored.title}>
            <SavingNote saving={stage.saving} at={stage.savedAt} />
          </ListingTrail>
        }
      >
        <IconButton
          label={stage.past.length ? `Undo: ${stage.past[stage.past.length - 1].label}` : 'Nothing to undo'}
          disabled={!stage.past.length}
          onClick={stage.undo}
        >
          <Undo2 size={15} aria-hidden />
        </IconButton>
        <IconButton
          label={stage.future.length ? `Redo: ${stage.future[0].label}` : 'Nothing to redo'}
          disabled={!stage.future.length}
          onClick={stage.redo}
        >
          <Redo2 size={15} aria-hidden />
        </IconButton>
        <FindAction />
        {detail.variants.length > 1 && (
          <Select
            label="Variant on the stage"
            className="w-34"
            value={variant.id}
            onChange={(v) => setParams((p) => (p.set('variant', v), p), { replace: true })}
            options={detail.variants.map((v) => ({ value: v.id, title: v.data.variant || v.data.sku }))}
          />
        )}
        <ExportMenu onMake={setMaking} />
        <Button tone="main" onClick={() => setDelivering(true)}>
          Deliver
        </Button>
      </TopBar>

      <DepthStrip
        elements={shot.elements}
        looks={resolved.elements}
        selected={selected}
        onSelect={stage.select}
        onMove={(id, to) => stage.edit('Change depth', (s) => moveDepth(s, id, to))}
        onHide={(id, hidden) =>
          stage.edit(hidden ? 'Hide' : 'Show', (s) =>
            patchElement(s, id, { hidden } as Partial<ShotElement>, target),
          )
        }
        also={stage.also}
        onChoose={stage.choose}
        onLock={(id, locked) =>
          stage.edit(locked ? 'Lock' : 'Unlock', (s) => patchElement(s, id, { locked }, null))
        }
        onRename={(id, name) => stage.edit('Rename', (s) => patchElement(s, id, { name }, null))}
        casts={casts}
      >
        <AddMenu
          products={choices}
          pictures={pictures ?? []}
          onProduct={() => addProduct(variant)}
          onOther={(id) => addProduct(choices.find((c) => c.id === id))}
          onOverlay={addOverlay}
          onPicture={(p) => add((now) => newPicture(newId('picture', now), p.title, p, now.frame))}
        />
      </DepthStrip>

      <div className="flex min-h-0 grow">
        <main className="flex min-w-0 grow flex-col">
          {isMockup(element) && tool === 'compare' ? (
            <OptionsBoard
              shotId={stored.id}
              element={element}
              resolved={resolved}
              commit={editing.patch}
              before={saveNow}
            />
          ) : view === 'sizes' ? (
            <SizesBoard
              shot={shot}
              data={data}
              slots={fed}
              known={known}
              onOpen={(key) => {
                stage.showSlot(key);
                setView('stage');
                setOpen(['fit', 'checks']);
              }}
              onClose={() => setView('stage')}
            />
          ) : view === 'thumbnail' ? (
            <ThumbnailPreview resolved={resolved} onClose={() => setView('stage')} />
          ) : (
            <StageCanvas
              resolved={resolved}
              selected={selected}
              also={stage.also}
              guides={editing.guides}
              draft={stage.gestureBase !== null}
              onSelect={stage.select}
              onChoose={stage.choose}
              onDrag={editing.drag}
              onTransform={editing.transform}
              overlay={(zoom) => (
                <>
                  {size && element && <MillimetreRule element={element} size={size} zoom={zoom} />}
                  {isMockup(element) && (
                    <MockupLayer
                      element={element}
                      frame={resolved}
                      zoom={zoom}
                      during={editing.during}
                      commit={editing.patch}
                    />
                  )}
                  <FaultMarks results={found} frame={resolved} zoom={zoom} />
                  {active && showSafe && <SafeZone slot={active.slot} zoom={zoom} />}
                  {element && (
                    <SpotHandle
                      element={element}
                      elements={resolved.elements}
                      frame={resolved}
                      zoom={zoom}
                      during={editing.during}
                      commit={editing.patch}
                    />
                  )}
                  {element?.kind === 'backdrop' && (
                    <GradientHandles
                      element={element}
                      frame={resolved}
                      zoom={zoom}
                      during={editing.during}
                      commit={editing.patch}
                    />
                  )}
                </>
              )}
            />
          )}
        </main>
        <Desk
          resolved={resolved}
          active={edited}
          cell={
            active && detail.variants.length > 1 && variant
              ? { title: variant.data.variant || variant.data.sku, on: inCell, onChange: setOwnCell }
              : null
          }
          fed={fed}
          results={found}
          editing={editing}
          open={open}
          onOpen={setOpen}
          onAddText={addText}
          swaps={choices}
          onSwap={swap}
        />
      </div>

      <SizeStrip
        shot={shot}
        data={data}
        slots={fed}
        others={allSlots.map((s) => ({
          ...s,
          fedBy: detail.shots.find((x) => x.id !== stored.id && x.feeds.includes(s.key))?.title ?? null,
        }))}
        active={activeKey}
        known={known}
        onOpen={(key) => {
          stage.showSlot(key);
          setOpen(key ? ['fit', 'checks'] : ['place']);
        }}
        onFeed={feed}
        paused={view === 'sizes'}
        onAll={() => setView((v) => (v === 'sizes' ? 'stage' : 'sizes'))}
      />

      {making && (
        <ExportDialogs
          what={making}
          stored={stored}
          shot={shot}
          resolved={resolved}
          options={shot.elements.find(isMockup)?.fill.item.options ?? []}
          slot={activeKey}
          variant={variant ?? null}
          known={known}
          onClose={() => setMaking(null)}
        />
      )}
      {delivering && <DeliverDialog detail={detail} before={saveNow} onClose={() => setDelivering(false)} />}
      <ConflictDialog shotId={stored.id} title={row?.title ?? stored.title} />
    </>
  );
}
