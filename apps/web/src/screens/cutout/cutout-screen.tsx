import { useCallback, useEffect, useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { mutate } from 'swr';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, Point } from '@scenograph/core/cutout/recipe';
import { type CutoutDesk, type Photo, refresh, useRoute } from '../../api/client';
import { useActions } from '../../ui/actions';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { useDeskActions, type DeskActionHandlers } from './desk-actions';
import { AdjustAlikeDialog, CutoutConflict, KeysDialog } from './desk-dialogs';
import { DeskHeader } from './desk-header';
import type { Camera } from './desk-canvas';
import type { Gesture } from './desk-traces';
import { DeskView, MOST_ZOOM } from './desk-view';
import { EdgeDesk } from './edge-desk';
import { EdgeLoupe } from './edge-loupe';
import { adjustAlike, putToUse, useAccept } from './photo-actions';
import { useDocument } from '../../documents/document-bar';
import { saveRecipe, useOpenedDesk, useRecipe } from './recipe-store';
import { SightBar } from './sight-bar';
import { StepsPanel } from './steps-panel';
import { TidyDesk } from './tidy-desk';
import { ToolBar } from './tool-bar';
import { cutKeyOf, useDesk, useFringe, useScene } from './use-desk';
import { useGestures, withBaseMoved, withPointMoved } from './use-gestures';
import { useDeskKeys } from './use-desk-keys';
import { useOutlines } from './use-outlines';
import { useColourPreview, useFoundBase, useSnapped } from './use-pointer-help';
import { isBrush, TOOLS, type BrushId, type Sight, type ToolId, type ToolOptions } from './tools';

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
        <Waiting what="the photo" />
      </>
    );
  return <Desk key={`${photo.id}:${photo.working}`} photo={photo} all={all ?? [photo]} first={stored} />;
}

const NO_DOUBTS: readonly Doubt[] = [];

/** Brushes begin at a width that suits the photo. */
function firstRadii(photo: { width: number; height: number }): Record<BrushId, number> {
  const usual = Math.max(3, Math.round(Math.max(photo.width, photo.height) / 160));
  return { keep: usual, drop: usual, 'paint-keep': usual, 'paint-drop': usual, fibre: usual * 2 };
}

function withRadius(options: ToolOptions, tool: BrushId, factor: number): ToolOptions {
  const radius = Math.max(0.5, Math.min(1000, options.radii[tool] * factor));
  return { ...options, radii: { ...options.radii, [tool]: radius } };
}

function Desk({ photo, all, first }: { photo: Photo; all: Photo[]; first: CutoutDesk }) {
  const store = useRecipe();
  const recipe = store.document ?? first.recipe;
  const { worker, opened, note, version, solvedRecipe, onSolved } = useDesk(photo, recipe);
  const fringe = useFringe(worker, recipe, version.full);
  const { data: scenes } = useRoute('GET /api/scenes');
  const [sceneId, setSceneId] = useState<string | null>(null);
  const { scene, bitmap: sceneBitmap } = useScene(scenes, sceneId, first.standsIn);
  const outlines = useOutlines(photo.id, first.outlines);
  const [tidying, setTidying] = useState(false);
  const [help, setHelp] = useState(false);
  const [askingAll, setAskingAll] = useState(false);
  const [sight, setSight] = useState<Sight>('tint');
  const [ground, setGround] = useState('#ffffff');
  const [tint, setTint] = useState('#8a5bb0');
  const [edgeLine, setEdgeLine] = useState(false);
  const [doubtsShown, setDoubtsShown] = useState(!photo.accepted);
  const [tool, setTool] = useState<Gesture['tool']>('keep');
  const [camera, setCamera] = useState<Camera | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [shownMs, setShownMs] = useState(0);
  const [options, setOptions] = useState<ToolOptions>({
    radii: firstRadii(photo),
    softness: 0.5,
    tolerance: 6,
    reach: 'touching',
    mode: 'auto',
    shape: 'ellipse',
    snap: 12,
    piece: 'ellipse',
    fill: null,
    corner: Math.round(Math.max(photo.width, photo.height) / 160),
  });
  const size = opened ?? { width: photo.width, height: photo.height };
  const chosen = recipe.steps.find((s) => s.id === store.chosen) ?? null;

  const { draft, setDraft, closePath, onGesture, tidyWith, tidyDuring } = useGestures({
    worker,
    photo,
    size,
    options,
    tool,
    onToolDone(cropped) {
      if (cropped) setCamera(null);
      setTool('keep');
    },
  });
  const snapped = useSnapped(worker, tool, draft, pointer);
  const preview = useColourPreview(worker, tool, options, pointer, chosen);
  const base = useFoundBase(worker, tool, recipe, version.solved);
  const movePoint = (id: string, index: number, to: Point, done: boolean) => {
    const change = (r: CutoutRecipe) =>
      id === 'base' && base
        ? { ...r, base: withBaseMoved(r.base ?? base, index, to) }
        : withPointMoved(r, id, index, to);
    if (done) store.finish(id === 'base' ? 'Set the base' : 'Move a point', change);
    else store.during(change);
  };

  const removeChosen = useCallback(() => {
    const { document: now, chosen: id } = useRecipe.getState();
    const step = now?.steps.find((s) => s.id === id);
    if (!step) return;
    const zoom = camera?.zoom ?? 0.5;
    const near =
      step.kind === 'trace' && pointer && step.points.length > 3
        ? step.points.findIndex((p) => Math.hypot(p[0] - pointer[0], p[1] - pointer[1]) * zoom < 10)
        : -1;
    useRecipe.getState().edit(near >= 0 ? 'Remove a point' : `Delete ${step.name}`, (r) => ({
      ...r,
      steps:
        near >= 0
          ? r.steps.map((s) =>
              s.id === id && s.kind === 'trace' ? { ...s, points: s.points.filter((_, i) => i !== near) } : s,
            )
          : r.steps.filter((s) => s.id !== id),
    }));
  }, [camera, pointer]);

  const accept = useAccept(photo, all[all.findIndex((p) => p.id === photo.id) + 1]);
  const zoomBy = useCallback(
    (factor: number) =>
      setCamera((c) => {
        const from = c ?? { zoom: 0.4, x: size.width / 2, y: size.height / 2 };
        return { ...from, zoom: Math.min(MOST_ZOOM, from.zoom * factor) };
      }),
    [size.width, size.height],
  );
  const choose = useCallback((id: ToolId) => {
    setTool(id);
    setDraft([]);
    // A new tool begins something new: what was chosen lets go of the pointer.
    useRecipe.getState().choose(null);
  }, []);
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
      help: () => setHelp(true),
    }),
    [choose, accept, size.width, size.height],
  );
  const actions = useDeskActions(handlers);
  useActions('cutout', actions);

  useDocument(useRecipe.getState, saveRecipe);
  useDeskKeys(actions, {
    zoomBy,
    brushBy: (factor) => setOptions((o) => (isBrush(tool) ? withRadius(o, tool, factor) : o)),
    closePath: () => draft.length > 0 && closePath(),
    giveUp: () => setDraft([]),
    remove: removeChosen,
  });

  const loupeAt = useMemo(() => {
    if (pointer) return { x: pointer[0], y: pointer[1] };
    if (fringe?.worstAt) return fringe.worstAt;
    return photo.cutout
      ? { x: photo.cutout.bounds.x, y: photo.cutout.bounds.y + photo.cutout.bounds.height / 2 }
      : null;
  }, [pointer, fringe, photo.cutout]);
  const onPoint = useCallback((p: Point | null) => setPointer(p), []);
  // Until a new cut is there, the view keeps the old one, with edge and repairs as they are while dragging.
  const shownRecipe = useMemo(
    () =>
      !solvedRecipe || cutKeyOf(solvedRecipe) === cutKeyOf(recipe)
        ? recipe
        : { ...solvedRecipe, edge: recipe.edge, repairs: recipe.repairs },
    [recipe, solvedRecipe],
  );

  return (
    <>
      <DeskHeader
        photo={photo}
        all={all}
        tidying={tidying}
        onTidying={setTidying}
        onAccept={() => void accept()}
      />
      <div className="flex min-h-0 grow">
        <StepsPanel
          recipe={recipe}
          confidence={note?.confidence ?? photo.cutout?.confidence ?? null}
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
        <main className="relative min-w-0 grow">
          {worker && opened ? (
            <DeskView
              worker={worker}
              size={size}
              recipe={shownRecipe}
              version={version}
              onSolved={onSolved}
              // While the photo is tidied it is seen as it is, with no tint over it.
              sight={tidying ? 'photo' : sight}
              ground={ground}
              tint={tint}
              scene={sceneBitmap}
              edgeLine={edgeLine}
              tool={tool}
              options={options}
              chosen={chosen}
              paths={note?.paths ?? {}}
              camera={camera}
              setCamera={setCamera}
              onGesture={onGesture}
              onPoint={onPoint}
              onMovePoint={movePoint}
              onShown={setShownMs}
              draft={draft}
              snapped={snapped}
              preview={preview}
              base={base}
              doubts={doubtsShown ? (note?.doubts ?? NO_DOUBTS) : NO_DOUBTS}
            />
          ) : (
            <Waiting what="the photo" />
          )}
          <SightBar
            sight={sight}
            onSight={setSight}
            tint={tint}
            onTint={setTint}
            ground={ground}
            onGround={setGround}
            scenes={scenes}
            scene={scene}
            onScene={setSceneId}
          />
          <p
            className="measure bg-card/95 absolute top-3 left-20 rounded-sm px-2 py-1"
            data-testid="desk-timing"
          >
            {note ? `${Math.round(note.milliseconds + shownMs)} ms` : 'cutting out'}
          </p>
          {note?.empty && (
            <p role="status" className="bg-card absolute inset-x-0 top-14 mx-auto w-fit rounded-md px-4 py-2">
              Nothing stands off the background here. Draw a keep stroke over the product.
            </p>
          )}
          {!tidying || TOOLS.some((t) => t.id === tool) ? (
            <ToolBar
              tool={tool}
              options={options}
              onTool={choose}
              onOptions={(value) => setOptions((o) => ({ ...o, ...value }))}
              drafting={draft.length}
              onClosePath={closePath}
              baseDrawn={recipe.base !== null}
              onBaseFound={() => store.edit('Base as found', (r) => ({ ...r, base: null }))}
            />
          ) : null}
        </main>
        <aside
          aria-label="Cutout desk"
          tabIndex={0}
          className="border-line bg-card w-76 shrink-0 overflow-y-auto border-l"
        >
          {tidying ? (
            <TidyDesk
              tidy={recipe.tidy}
              histogram={opened?.histogram ?? null}
              tool={tool}
              onTool={setTool}
              during={tidyDuring}
              finish={tidyWith}
              onApplyToAll={() => setAskingAll(true)}
              others={all.length - 1}
            />
          ) : (
            <>
              <section aria-label="Edge loupe" className="border-line border-b p-3.5">
                <EdgeLoupe
                  worker={worker}
                  recipe={recipe}
                  version={version.solved}
                  size={size}
                  at={loupeAt}
                  scene={sceneBitmap}
                  sceneTitle={scene?.title.split(' ')[0].toLowerCase() ?? 'wood'}
                />
              </section>
              <EdgeDesk
                recipe={recipe}
                fringe={fringe}
                during={store.during}
                finish={store.finish}
                onShowWorst={(p) => setCamera({ zoom: 4, x: p.x, y: p.y })}
              />
            </>
          )}
        </aside>
      </div>
      {help && <KeysDialog onClose={() => setHelp(false)} />}
      {askingAll && (
        <AdjustAlikeDialog
          count={all.length - 1}
          onClose={() => setAskingAll(false)}
          onAdjust={() => {
            setAskingAll(false);
            void adjustAlike(
              all.filter((p) => p.id !== photo.id),
              recipe.tidy,
            );
          }}
        />
      )}
      <CutoutConflict />
    </>
  );
}
