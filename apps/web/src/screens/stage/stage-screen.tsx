import { memo, useCallback, useEffect, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { ProductData } from '@scenograph/core/data/product-data';
import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import type { Shot } from '@scenograph/core/shot/document';
import { call, refresh, useRoute, type ListingDetail, type ShotWithHistory } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { useDocument } from '../../documents/document-bar';
import { NeedsRoom } from '../../ui/needs-room';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { useKnownSizes } from '../board/use-known-sizes';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import { ShotConflict } from './conflict';
import { useAlone } from './alone';
import { Desk } from './desk';
import { ExportDialogs, type Export } from './export-menu';
import { Middle, type View } from './middle';
import { useHeld, useIsMoving, useTellMoving } from './moving';
import { isMockup } from './mockup/editing';
import { ShotStrip } from './shot-strip';
import { SizeStrip, type FedSlot } from './size-strip';
import { StageBar } from './stage-bar';
import { saveNow, trySave, useOpenedShot, useStage } from './store';
import { useAdding } from './use-adding';
import { useEditing } from './use-editing';
import { useSeen } from './use-seen';
import { useSlots } from './use-slots';
import { useStageClipboard } from './use-stage-clipboard';
import { useStageCommands } from './use-stage-actions';
import { useStageKeys } from './use-stage-keys';
import { msg } from '../../language/language';

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
        <Waiting what={msg('the shot')} />
      </>
    );
  return (
    <NeedsRoom what={msg('The stage')}>
      <Stage stored={stored} detail={detail} />
    </NeedsRoom>
  );
}

function Stage({ stored, detail }: { stored: ShotWithHistory; detail: ListingDetail }) {
  const shot = useStage((s) => s.document);
  const activeKey = useStage((s) => s.slot);
  const [params] = useSearchParams();
  const [delivering, setDelivering] = useState(false);
  const [making, setMaking] = useState<Export | null>(null);
  const [showSafe, setShowSafe] = useState(true);
  const [view, setView] = useState<View>('stage');
  const [open, setOpen] = useState<string[]>(['place']);
  const known = useKnownSizes(detail);
  const variant = detail.variants.find((v) => v.id === params.get('variant')) ?? detail.variants[0];
  const data = variant?.data ?? null;
  const { allSlots, row, fed, active, edited, target, cell } = useSlots(stored.id, detail, variant);
  const { resolved, found } = useSeen(active, data, known, variant?.cutoutConfidence ?? null);
  const onAdded = useCallback(
    (made: ShotElement) => setOpen(elementKind(made.kind).role === 'overlay' ? ['overlays'] : ['place']),
    [],
  );
  const editing = useEditing(resolved, target, data, onAdded);
  const adding = useAdding(editing, resolved, data, detail);
  useDocument(useStage.getState, trySave);
  const { alone } = useAlone();
  useEffect(() => () => useAlone.setState({ alone: false }), []);
  useStageKeys(editing);
  useStageClipboard(editing.add, adding.addText);
  useStageCommands(editing, adding, variant, fed, {
    show: setView,
    make: setMaking,
    setShowSafe,
    setDelivering,
  });

  const moving = useIsMoving();
  useTellMoving(
    resolved,
    useStage((s) => s.selected),
    moving,
  );
  const still = useHeld({ shot, resolved, editing, adding, cell, results: found }, moving);
  const deliver = useCallback(() => setDelivering(true), []);

  if (!shot || !resolved || !still.shot || !still.resolved) return null;
  const title = row?.title ?? stored.title;
  const held = { shot: still.shot, resolved: still.resolved, editing: still.editing };
  return (
    <>
      {!alone && (
        <>
          <StageBar {...{ detail, title, variant }} onMake={setMaking} onDeliver={deliver} />
          <ShotStrip {...{ target, variant }} {...held} adding={still.adding} />
        </>
      )}
      <div className="flex min-h-0 grow">
        <main className="flex min-w-0 grow flex-col">
          <Middle
            {...{ stored, resolved, fed, active, data, known, found, editing, view, showSafe }}
            onView={setView}
            onOpen={setOpen}
          />
        </main>
        {!alone && (
          <Desk
            {...{ fed, open }}
            {...held}
            cell={still.cell}
            results={still.results}
            active={edited}
            onOpen={setOpen}
            onAddText={still.adding.addText}
            onSwap={still.adding.swap}
          />
        )}
      </div>
      {!alone && (
        <Sizes
          {...{ detail, data, fed, allSlots, known, view }}
          shot={still.shot}
          shotId={stored.id}
          onOpen={setOpen}
          onView={setView}
        />
      )}
      {making && (
        <ExportDialogs
          {...{ stored, shot, resolved, known }}
          what={making}
          options={shot.elements.find(isMockup)?.fill.item.options ?? []}
          slot={activeKey}
          variant={variant ?? null}
          onClose={() => setMaking(null)}
        />
      )}
      {delivering && <DeliverDialog detail={detail} before={saveNow} onClose={() => setDelivering(false)} />}
      <ShotConflict shotId={stored.id} title={title} />
    </>
  );
}

/** The shot in the slots that it feeds, and the others that it could. */
const Sizes = memo(function Sizes({
  shot,
  shotId,
  detail,
  data,
  fed,
  allSlots,
  known,
  view,
  onOpen,
  onView,
}: {
  shot: Shot;
  shotId: string;
  detail: ListingDetail;
  data: ProductData | null;
  fed: FedSlot[];
  allSlots: FedSlot[];
  known: ReturnType<typeof useKnownSizes>;
  view: View;
  /** Sections of the desk to open. */
  onOpen(sections: string[]): void;
  onView(view: View): void;
}) {
  const active = useStage((s) => s.slot);
  const showSlot = useStage((s) => s.showSlot);
  const fedBy = (key: string) =>
    detail.shots.find((x) => x.id !== shotId && x.feeds.includes(key))?.title ?? null;
  return (
    <SizeStrip
      {...{ shot, data, active, known }}
      slots={fed}
      others={allSlots.map((s) => ({ ...s, fedBy: fedBy(s.key) }))}
      onOpen={(key) => {
        showSlot(key);
        onOpen(key ? ['fit', 'checks'] : ['place']);
      }}
      onFeed={(key, on) => {
        const body = { slot: key, shotId: on ? shotId : null };
        const { id } = detail.listing;
        const ask = call('PUT /api/listings/:id/feeds', { params: { id }, body }, { of: boardOf(id) });
        void tried(ask, '/api/listings');
      }}
      paused={view === 'sizes'}
      onAll={() => onView(view === 'sizes' ? 'stage' : 'sizes')}
    />
  );
});
