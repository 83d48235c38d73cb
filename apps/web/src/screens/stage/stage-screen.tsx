import { useCallback, useEffect, useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import { whatCastsOnWhat } from '@scenograph/core/elements/product/casts';
import { resolveBase, cellFitKey, resolveForSlot } from '@scenograph/core/shot/resolve';
import { newPicture } from '@scenograph/core/shot/starters';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, type ListingDetail, call, useRoute, type ShotWithHistory } from '../../api/client';
import { useActions } from '../../ui/actions';
import { Button, Select } from '../../ui/controls';
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
import { kindUi } from './kinds/index';
import { ExportDialogs, ExportMenu, type Export } from './export-menu';
import { isMockup } from './mockup/editing';
import { OptionsBoard } from './mockup/options-board';
import { useMockupTools } from './mockup/tools';
import { MockupLayer } from './mockup/mockup-layer';
import { MillimetreRule } from './millimetre-rule';
import { SizeStrip, type FedSlot } from './size-strip';
import { StageCanvas } from './stage-canvas';
import { DocumentUndoRedo, SavingNote, useDocument } from '../../documents/document-bar';
import { ShotConflict } from './conflict';
import { saveNow, trySave, useOpenedShot, useStage } from './store';
import { trueSize } from './true-size';
import { useAdding } from './use-adding';
import { useEditing } from './use-editing';
import { useStageActions, type StageActionHandlers } from './use-stage-actions';
import { useStageKeys } from './use-stage-keys';
import { ListingTrail } from '../listings/listing-trail';

export function StageScreen() {
  const { id = '' } = useParams();
  const { data: stored, error } = useRoute('GET /api/shots/:id', { params: { id } });
  const opened = useOpenedShot(id, stored);
  const { data: detail, error: listingError } = useRoute(
    'GET /api/listings/:id',
    stored ? { params: { id: stored.listingId } } : null,
  );
  // What was changed here shows on boards too.
  useEffect(() => () => void trySave().then(() => refresh('/api/listings')), [id]);
  if ((error && !opened) || listingError)
    return (
      <>
        <TopBar />
        <Trouble error={(error ?? listingError)!} />
      </>
    );
  if (!stored || !opened || !detail)
    return (
      <>
        <TopBar />
        <Waiting what="the shot" />
      </>
    );
  return <Stage stored={stored} detail={detail} />;
}

function Stage({ stored, detail }: { stored: ShotWithHistory; detail: ListingDetail }) {
  const stage = useStage();
  const { document: shot, selected, slot: activeKey } = stage;
  const [params, setParams] = useSearchParams();
  const [delivering, setDelivering] = useState(false);
  const [making, setMaking] = useState<Export | null>(null);
  const [showSafe, setShowSafe] = useState(true);
  const [view, setView] = useState<'stage' | 'sizes' | 'thumbnail'>('stage');
  const tool = useMockupTools((s) => s.tool);
  const [open, setOpen] = useState<string[]>(['place']);
  const { data: pictures } = useRoute('GET /api/pictures');
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
  const { add, remove, depth, duplicate, align, distribute, link, trueSize: toTrueSize } = editing;
  const { addOverlay, addText, addProduct, choices, swap } = useAdding(editing, resolved, data, detail);

  useDocument(useStage.getState, trySave);
  useStageKeys(editing);

  const feed = async (key: string, on: boolean) => {
    try {
      await call('PUT /api/listings/:id/feeds', {
        params: { id: detail.listing.id },
        body: {
          slot: key,
          shotId: on ? stored.id : null,
        },
      });
      refresh('/api/listings');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const handlers = useMemo<StageActionHandlers>(
    () => ({
      addOverlay,
      addProduct: () => addProduct(variant),
      show: setView,
      toggleSafeZone: () => setShowSafe((on) => !on),
      make: setMaking,
      deliver: () => setDelivering(true),
      remove,
      duplicate,
      depth,
      align,
      distribute,
      link,
      trueSize: toTrueSize,
    }),
    [addOverlay, addProduct, variant, remove, duplicate, depth, align, distribute, link, toTrueSize],
  );
  const actions = useStageActions(handlers, fed);
  useActions('stage', actions);

  if (!shot || !resolved) return null;
  const element = resolved.elements.find((e) => e.id === selected) ?? null;
  const OwnHandles = element && kindUi(element).Handles;
  const size = element ? trueSize(resolved, element) : null;
  const casts = whatCastsOnWhat(resolved);

  return (
    <>
      <TopBar
        trail={
          <ListingTrail listing={detail.listing} title={row?.title ?? stored.title}>
            <SavingNote of={stage} onTryAgain={() => void trySave()} />
          </ListingTrail>
        }
      >
        <DocumentUndoRedo of={stage} />
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
          stage.edit(hidden ? 'Hide' : 'Show', (s) => patchElement(s, id, { hidden }, target))
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
                  {element && OwnHandles && (
                    <OwnHandles
                      element={element}
                      elements={resolved.elements}
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
          swaps={{ choices, onSwap: swap }}
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
      <ShotConflict shotId={stored.id} title={row?.title ?? stored.title} />
    </>
  );
}
