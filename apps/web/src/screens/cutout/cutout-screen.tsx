import { useCallback, useEffect, useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { mutate } from 'swr';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, Point } from '@scenograph/core/cutout/recipe';
import { type CutoutDesk, type Photo, refresh, useRoute } from '../../api/client';
import { useDocument } from '../../documents/document-bar';
import { useActions } from '../../ui/actions';
import { NeedsRoom } from '../../ui/needs-room';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { useDeskActions, type DeskActionHandlers } from './desk-actions';
import type { Camera } from './desk-canvas';
import { AdjustAlikeDialog, CutoutConflict } from './desk-dialogs';
import { DeskHeader } from './desk-header';
import { DeskView } from './desk-view';
import { EdgeDesk } from './edge-desk';
import { EdgeLoupe } from './edge-loupe';
import { adjustAlike, putToUse, useAccept } from './photo-actions';
import { saveRecipe, useOpenedDesk, useRecipe } from './recipe-store';
import { SightBar } from './sight-bar';
import { StepsPanel } from './steps-panel';
import { TidyDesk } from './tidy-desk';
import { ToolBar } from './tool-bar';
import { ToolChoices } from './tool-choices';
import { TOOLS } from './tools';
import { cutKeyOf, useDesk, useFringe } from './use-desk';
import { useDeskKeys } from './use-desk-keys';
import { useLook } from './use-look';
import { useOutlines } from './use-outlines';
import { removeChosen, useToolInHand } from './use-tool-in-hand';
import { MOST_ZOOM } from './use-view-camera';
import { msg } from '../../language/language';

export function CutoutScreen() {
  const { id = '' } = useParams();
  const { data: photo, error } = useRoute('GET /api/photos/:id', { params: { id } });
  const { data: all } = useRoute('GET /api/photos');
  const { data: stored, error: trouble } = useRoute('GET /api/photos/:id/desk', { params: { id } });
  const opened = useOpenedDesk(id, stored);
  const working = photo?.working;
  useEffect(() => refresh(`/api/photos/${id}/desk`), [id, working]);
  useEffect(
    () => () => {
      void putToUse(id);
      // The next visit begins with what is there then.
      void mutate(`/api/photos/${id}/desk`, undefined, { revalidate: false });
    },
    [id],
  );
  if ((error && !photo) || (trouble && !stored))
    return (
      <>
        <TopBar />
        <Trouble error={(error ?? trouble)!} />
      </>
    );
  if (!photo || !stored || !opened)
    return (
      <>
        <TopBar />
        <Waiting what={msg('the photo')} />
      </>
    );
  return (
    <NeedsRoom what={msg('The cutout desk')}>
      <Desk key={`${photo.id}:${photo.working}`} photo={photo} all={all ?? [photo]} first={stored} />
    </NeedsRoom>
  );
}

const NO_DOUBTS: readonly Doubt[] = [];

function Desk({ photo, all, first }: { photo: Photo; all: Photo[]; first: CutoutDesk }) {
  const recipe = useRecipe((s) => s.document) ?? first.recipe;
  const desk = useDesk(photo, recipe);
  const { worker, opened, note, version, solvedRecipe } = desk;
  const size = opened ?? { width: photo.width, height: photo.height };
  const { look, scene, bar, setSight, setEdgeLine } = useLook(first.standsIn);
  const outlines = useOutlines(photo.id, first.outlines);
  const [tidying, setTidying] = useState(false);
  const [askingAll, setAskingAll] = useState(false);
  const [doubtsShown, setDoubtsShown] = useState(!photo.accepted);
  const { camera, setCamera, zoomBy } = useCamera(size);
  const [shownMs, setShownMs] = useState(0);
  const hand = useToolInHand({
    ...{ worker, photo, size, recipe },
    solved: version.solved,
    onCropped: () => setCamera(null),
  });
  const { choose, pointer } = hand;
  const { tool } = hand.inView;
  const others = all.filter((p) => p.id !== photo.id);

  const accept = useAccept(photo, all[all.findIndex((p) => p.id === photo.id) + 1]);
  const handlers = useMemo<DeskActionHandlers>(
    () => ({
      choose,
      lookAs: setSight,
      fit: () => setCamera(null),
      actualPixels: () => setCamera({ zoom: 1, x: size.width / 2, y: size.height / 2 }),
      toggleEdgeLine: () => setEdgeLine((on) => !on),
      toggleDoubts: () => setDoubtsShown((on) => !on),
      toggleTidying: () => setTidying((on) => !on),
      accept: () => void accept(),
    }),
    [choose, setSight, setEdgeLine, accept, size.width, size.height],
  );
  const actions = useDeskActions(handlers);
  useActions('cutout', actions);
  useDocument(useRecipe.getState, saveRecipe);
  useDeskKeys(actions, {
    zoomBy,
    brushBy: hand.brushBy,
    closePath: () => hand.draft.length > 0 && hand.closePath(),
    giveUp: () => hand.setDraft([]),
    remove: () => removeChosen(pointer, camera?.zoom ?? 0.5),
  });
  const shownRecipe = useShownRecipe(recipe, solvedRecipe);

  return (
    <>
      <DeskHeader {...{ photo, all, tidying }} onTidying={setTidying} onAccept={() => void accept()} />
      <div className="flex min-h-0 grow">
        <Steps {...{ photo, recipe, worker }} outlines={outlines} found={note?.confidence ?? null} />
        <main className="relative min-w-0 grow">
          {worker && opened ? (
            <DeskView
              {...hand.inView}
              {...{ worker, size, version, camera, setCamera }}
              recipe={shownRecipe}
              onSolved={desk.onSolved}
              // While the photo is tidied it is seen as it is, with no tint over it.
              look={tidying ? { ...look, sight: 'photo' } : look}
              paths={note?.paths ?? {}}
              onShown={setShownMs}
              doubts={doubtsShown ? (note?.doubts ?? NO_DOUBTS) : NO_DOUBTS}
            />
          ) : (
            <NotYet trouble={desk.trouble} onTryAgain={desk.tryAgain} />
          )}
          <SightBar {...bar} />
          <CutNote note={note} failed={desk.trouble !== null} shownMs={shownMs} />
          {(!tidying || TOOLS.some((t) => t.id === tool)) && <Tools {...{ hand, recipe }} />}
        </main>
        <aside
          aria-label={msg('Cutout desk')}
          tabIndex={0}
          className="border-line bg-card w-76 shrink-0 overflow-y-auto border-l"
        >
          {tidying ? (
            <TidySide {...{ recipe, hand, opened, others }} onApplyToAll={() => setAskingAll(true)} />
          ) : (
            <EdgeSide
              {...{ photo, desk, recipe, size, pointer }}
              scene={look.scene}
              sceneTitle={scene?.title.split(' ')[0].toLowerCase() ?? 'wood'}
              onShow={(p) => setCamera({ zoom: 4, x: p.x, y: p.y })}
            />
          )}
        </aside>
      </div>
      {askingAll && (
        <AdjustAlikeDialog
          count={others.length}
          onClose={() => setAskingAll(false)}
          onAdjust={() => {
            setAskingAll(false);
            void adjustAlike(others, recipe.tidy);
          }}
        />
      )}
      <CutoutConflict />
    </>
  );
}

/** What of the photo is in view; null is all of it. */
function useCamera(size: { width: number; height: number }) {
  const [camera, setCamera] = useState<Camera | null>(null);
  const zoomBy = useCallback(
    (factor: number) =>
      setCamera((c) => {
        const from = c ?? { zoom: 0.4, x: size.width / 2, y: size.height / 2 };
        return { ...from, zoom: Math.min(MOST_ZOOM, from.zoom * factor) };
      }),
    [size.width, size.height],
  );
  return { camera, setCamera, zoomBy };
}

function NotYet({ trouble, onTryAgain }: { trouble: Error | null; onTryAgain(): void }) {
  if (!trouble) return <Waiting what={msg('the photo')} />;
  return (
    <div className="absolute inset-0 pt-10 pl-32">
      <Trouble error={trouble} onTryAgain={onTryAgain} />
    </div>
  );
}

/** The recipe's steps and the photo's saved outlines. */
function Steps({
  photo,
  recipe,
  worker,
  outlines,
  found,
}: {
  photo: Photo;
  recipe: CutoutRecipe;
  worker: ReturnType<typeof useDesk>['worker'];
  outlines: ReturnType<typeof useOutlines>;
  /** Confidence of the cut that is shown, before the server knows it. */
  found: number | null;
}) {
  const store = useRecipe();
  return (
    <StepsPanel
      recipe={recipe}
      confidence={found ?? photo.cutout?.confidence ?? null}
      accepted={photo.accepted}
      chosen={store.chosen}
      outlines={outlines.list}
      onChoose={store.choose}
      onEdit={store.edit}
      onSaveOutline={async (title) => !!worker && outlines.save(title, worker.matte(recipe))}
      onUseOutline={outlines.use}
      onRemoveOutline={(o) => void outlines.remove(o)}
      onImportOutline={(f) => void outlines.take(f)}
      svgUrl={(o) => `/api/photos/${photo.id}/outlines/${o.id}/svg`}
    />
  );
}

function TidySide({
  recipe,
  hand,
  opened,
  others,
  onApplyToAll,
}: {
  recipe: CutoutRecipe;
  hand: ReturnType<typeof useToolInHand>;
  opened: ReturnType<typeof useDesk>['opened'];
  others: Photo[];
  onApplyToAll(): void;
}) {
  return (
    <TidyDesk
      tidy={recipe.tidy}
      histogram={opened?.histogram ?? null}
      tool={hand.inView.tool}
      onTool={hand.setTool}
      during={hand.tidyDuring}
      finish={hand.tidyWith}
      onApplyToAll={onApplyToAll}
      others={others.length}
    />
  );
}

/** What is shown while a new cut is made. */
function useShownRecipe(recipe: CutoutRecipe, solvedRecipe: CutoutRecipe | null): CutoutRecipe {
  // Until a new cut is there, the view keeps the old one, with edge and repairs as they are while dragging.
  return useMemo(
    () =>
      !solvedRecipe || cutKeyOf(solvedRecipe) === cutKeyOf(recipe)
        ? recipe
        : { ...solvedRecipe, edge: recipe.edge, repairs: recipe.repairs },
    [recipe, solvedRecipe],
  );
}

/** How long the cut took, and what to do where nothing was found. */
function CutNote({
  note,
  failed,
  shownMs,
}: {
  note: ReturnType<typeof useDesk>['note'];
  failed: boolean;
  shownMs: number;
}) {
  return (
    <>
      <p className="measure bg-card/95 absolute top-3 left-20 rounded-sm px-2 py-1" data-testid="desk-timing">
        {note
          ? msg('{milliseconds} ms', { milliseconds: Math.round(note.milliseconds + shownMs) })
          : failed
            ? msg('not cut out')
            : msg('cutting out')}
      </p>
      {note?.empty && (
        <p role="status" className="bg-card absolute inset-x-0 top-14 mx-auto w-fit rounded-md px-4 py-2">
          {msg('Nothing stands off the background here. Draw a keep stroke over the product.')}
        </p>
      )}
    </>
  );
}

/** The tools, and the choices of the one in hand. */
function Tools({ hand, recipe }: { hand: ReturnType<typeof useToolInHand>; recipe: CutoutRecipe }) {
  return (
    <>
      <ToolChoices
        tool={hand.inView.tool}
        options={hand.inView.options}
        onOptions={hand.change}
        drafting={hand.draft.length}
        onClosePath={hand.closePath}
        baseDrawn={recipe.base !== null}
        onBaseFound={() => useRecipe.getState().edit(msg('Base as found'), (r) => ({ ...r, base: null }))}
      />
      <ToolBar tool={hand.inView.tool} onTool={hand.choose} />
    </>
  );
}

/** The edge under a loupe, at the pointer or where its fringe is worst, and all that changes it. */
function EdgeSide({
  photo,
  desk: { worker, version },
  recipe,
  size,
  pointer,
  scene,
  sceneTitle,
  onShow,
}: {
  photo: Photo;
  desk: ReturnType<typeof useDesk>;
  recipe: CutoutRecipe;
  size: { width: number; height: number };
  pointer: Point | null;
  scene: ImageBitmap | null;
  sceneTitle: string;
  onShow(at: { x: number; y: number }): void;
}) {
  const { during, finish } = useRecipe.getState();
  const fringe = useFringe(worker, recipe, version.full);
  const loupeAt = useMemo(() => {
    if (pointer) return { x: pointer[0], y: pointer[1] };
    if (fringe?.worstAt) return fringe.worstAt;
    return photo.cutout
      ? { x: photo.cutout.bounds.x, y: photo.cutout.bounds.y + photo.cutout.bounds.height / 2 }
      : null;
  }, [pointer, fringe, photo.cutout]);
  return (
    <>
      <section aria-label={msg('Edge loupe')} className="border-line border-b p-3.5">
        <EdgeLoupe {...{ worker, recipe, size, scene, sceneTitle }} version={version.solved} at={loupeAt} />
      </section>
      <EdgeDesk {...{ recipe, fringe, during, finish }} onShowWorst={onShow} />
    </>
  );
}
