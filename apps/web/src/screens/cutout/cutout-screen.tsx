import { ChevronLeft, ChevronRight, Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, Point } from '@scenograph/core/cutout/recipe';
import type { Tidy } from '@scenograph/core/retouch/tidy';
import { refresh, request, useServer, type Photo, type Scene } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, ColourField, IconButton, Segmented, Select } from '../../ui/controls';
import { CutoutFiles } from '../../ui/cutout-files';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { DeskView, MOST_ZOOM, type Camera, type Gesture } from './desk-view';
import { EdgeDesk } from './edge-desk';
import { EdgeLoupe } from './edge-loupe';
import { saveRecipe, useRecipe, type StoredDesk } from './recipe-store';
import { StepsPanel } from './steps-panel';
import { TidyDesk } from './tidy-desk';
import { ToolBar } from './tool-bar';
import { cutKeyOf, useDesk, useFringe, useScene } from './use-desk';
import { useGestures, withBaseMoved, withPointMoved } from './use-gestures';
import { useDeskKeys } from './use-desk-keys';
import { useOutlines } from './use-outlines';
import { useColourPreview, useFoundBase, useSnapped } from './use-pointer-help';
import {
  isBrush,
  OTHER_KEYS,
  SIGHTS,
  TOOLS,
  type BrushId,
  type Sight,
  type ToolId,
  type ToolOptions,
} from './tools';

export function CutoutScreen() {
  const { id } = useParams();
  const { data: photo, error } = useServer<Photo>(`/api/photos/${id}`);
  const { data: all } = useServer<Photo[]>('/api/photos');
  const [stored, setStored] = useState<StoredDesk | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const working = photo?.working;
  useEffect(() => {
    let here = true;
    setStored(null);
    request<StoredDesk>('GET', `/api/photos/${id}/desk`)
      .then((desk) => {
        if (!here) return;
        useRecipe.getState().open(id!, desk);
        setStored(desk);
      })
      .catch((e: Error) => here && setTrouble(e));
    return () => {
      here = false;
      void putToUse(id!);
    };
  }, [id, working]);
  if (error || trouble)
    return (
      <>
        <TopBar />
        <Trouble error={(error ?? trouble)!} />
      </>
    );
  if (!photo || !stored)
    return (
      <>
        <TopBar />
        <Waiting what="the photo" />
      </>
    );
  return <Desk key={`${photo.id}:${photo.working}`} photo={photo} all={all ?? [photo]} first={stored} />;
}

/** Stores what is on the desk and, where it has changed, has the full-size cutout made: every shot with it follows. */
async function putToUse(photoId: string): Promise<void> {
  const { photoId: open, saving, inUse } = useRecipe.getState();
  if (open !== photoId || (saving === 'saved' && inUse)) return;
  await saveRecipe();
  try {
    const { queued } = await request<{ queued: number }>('POST', '/api/photos/cutouts', {
      ids: [photoId],
      changedOnly: true,
    });
    if (useRecipe.getState().photoId === photoId) useRecipe.setState({ inUse: true });
    refresh('/api/photos');
    if (!queued) return;
    say('working', 'The corrected cutout is made at full size; every shot with it follows.');
  } catch (e) {
    say('stop', (e as Error).message);
  }
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

function Desk({ photo, all, first }: { photo: Photo; all: Photo[]; first: StoredDesk }) {
  const navigate = useNavigate();
  const store = useRecipe();
  const recipe = store.recipe ?? first.recipe;
  const { worker, opened, note, version, solvedRecipe, onSolved } = useDesk(photo, recipe);
  const fringe = useFringe(worker, recipe, version.full);
  const { data: scenes } = useServer<Scene[]>('/api/scenes');
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
  const [doubtsShown, setDoubtsShown] = useState(true);
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
  const at = all.findIndex((p) => p.id === photo.id);
  const next = all[at + 1];
  const previous = all[at - 1];
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
    const { recipe: now, chosen: id } = useRecipe.getState();
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

  const accept = useCallback(async () => {
    if (!(await saveRecipe()))
      return say('stop', 'The steps could not be stored yet; try again in a moment.');
    try {
      await request('POST', '/api/photos/accepted', { ids: [photo.id], accepted: true });
      await request('POST', '/api/photos/cutouts', { ids: [photo.id], changedOnly: true });
      refresh('/api/photos');
      say('pass', 'Accepted. What was corrected is made at full size; every shot that shows it follows.');
      void navigate(next ? `/photos/${next.id}/cutout` : '/photos/review');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  }, [photo.id, next, navigate]);

  const zoomBy = useCallback(
    (factor: number) =>
      setCamera((c) => {
        const from = c ?? { zoom: 0.4, x: size.width / 2, y: size.height / 2 };
        return { ...from, zoom: Math.min(MOST_ZOOM, from.zoom * factor) };
      }),
    [size.width, size.height],
  );
  const adjustAll = async () => {
    setAskingAll(false);
    try {
      const { queued, before } = await request<{ queued: number; before: { id: string; tidy: Tidy }[] }>(
        'POST',
        '/api/photos/tidy',
        { ids: all.filter((p) => p.id !== photo.id).map((p) => p.id), tidy: recipe.tidy },
      );
      refresh('/api/photos');
      say('working', `${queued} photos take the same adjustments and are cut out again.`, {
        title: 'Undo',
        run: () =>
          void request('POST', '/api/photos/tidy/restore', { photos: before })
            .then(() => {
              refresh('/api/photos');
              say('pass', `${before.length} photos have the adjustments back that they had.`);
            })
            .catch((e: Error) => say('stop', e.message)),
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const choose = useCallback((id: ToolId) => {
    setTool(id);
    setDraft([]);
    // A new tool begins something new: what was chosen lets go of the pointer.
    useRecipe.getState().choose(null);
  }, []);
  const actions = useMemo<Action[]>(
    () => [
      ...TOOLS.map((t) => ({
        id: `tool-${t.id}`,
        title: `${t.title}: ${t.about.toLowerCase()}`,
        group: 'Cutout tools',
        keys: t.key.toUpperCase(),
        run: () => choose(t.id),
      })),
      ...SIGHTS.map((s) => ({
        id: `sight-${s.id}`,
        title: `Look at it: ${s.title.toLowerCase()}`,
        group: 'Cutout view',
        keys: s.key,
        run: () => setSight(s.id),
      })),
      {
        id: 'fit',
        title: 'Fit the photo to the view',
        group: 'Cutout view',
        keys: 'F',
        run: () => setCamera(null),
      },
      {
        id: 'actual',
        title: 'Actual pixels, 100 %',
        group: 'Cutout view',
        keys: 'A',
        run: () => setCamera({ zoom: 1, x: size.width / 2, y: size.height / 2 }),
      },
      {
        id: 'edge',
        title: 'Edge line on and off',
        group: 'Cutout view',
        keys: 'E',
        run: () => setEdgeLine((e) => !e),
      },
      {
        id: 'doubts',
        title: 'Places in doubt: show or hide',
        group: 'Cutout view',
        keys: 'Q',
        run: () => setDoubtsShown((d) => !d),
      },
      { id: 'tidy', title: 'Adjust the photo', group: 'Cutout', run: () => setTidying((t) => !t) },
      { id: 'accept', title: 'Accept and go on', group: 'Cutout', keys: 'N', run: () => void accept() },
      { id: 'undo', title: 'Undo', group: 'Cutout', keys: 'Ctrl Z', run: () => useRecipe.getState().undo() },
      {
        id: 'redo',
        title: 'Redo',
        group: 'Cutout',
        keys: 'Ctrl Shift Z',
        run: () => useRecipe.getState().redo(),
      },
      { id: 'help', title: 'Keys of the cutout desk', group: 'Cutout', keys: '?', run: () => setHelp(true) },
    ],
    [choose, accept, size.width, size.height],
  );
  useActions('cutout', actions);

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
  // Until a new cut is there, the view keeps the old one, with edge and repairs as they are under the hand.
  const shownRecipe = useMemo(
    () =>
      !solvedRecipe || cutKeyOf(solvedRecipe) === cutKeyOf(recipe)
        ? recipe
        : { ...solvedRecipe, edge: recipe.edge, repairs: recipe.repairs },
    [recipe, solvedRecipe],
  );

  return (
    <>
      <TopBar
        trail={
          <nav aria-label="Where you are" className="flex min-w-0 items-center gap-2">
            <Link to="/photos" className="text-ink-2 hover:text-ink">
              Photos
            </Link>
            <span className="text-ink-3">/</span>
            <span className="text-ink-2 max-w-56 min-w-8 shrink truncate" title={photo.name}>
              {photo.name}
            </span>
            <span className="text-ink-3">/</span>
            <h1 className="font-semibold">Cutout</h1>
            <span className="measure text-ink-2 hidden whitespace-nowrap min-[1200px]:inline">
              photo {at + 1} of {all.length}
            </span>
            <span role="status" data-testid="saving" className="measure text-ink-2 whitespace-nowrap">
              {
                {
                  saved: 'saved',
                  waiting: 'saving',
                  saving: 'saving',
                  offline: 'not saved yet, trying again',
                }[store.saving]
              }
            </span>
          </nav>
        }
      >
        <IconButton
          label={store.past.length ? `Undo: ${store.past[store.past.length - 1].label}` : 'Nothing to undo'}
          disabled={!store.past.length}
          onClick={store.undo}
        >
          <Undo2 size={15} aria-hidden />
        </IconButton>
        <IconButton
          label={store.future.length ? `Redo: ${store.future[0].label}` : 'Nothing to redo'}
          disabled={!store.future.length}
          onClick={store.redo}
        >
          <Redo2 size={15} aria-hidden />
        </IconButton>
        {!store.inUse && store.saving === 'saved' && (
          <>
            <span role="status" className="text-amber-ink whitespace-nowrap">
              not in use yet
            </span>
            <Button onClick={() => void putToUse(photo.id)}>Use it now</Button>
          </>
        )}
        <CutoutFiles ids={photo.cutout ? [photo.id] : []} title="Save as" />
        <Button aria-pressed={tidying} onClick={() => setTidying(!tidying)}>
          {tidying ? 'To the edge' : 'Adjust photo'}
        </Button>
        <IconButton
          label={previous ? `Previous photo: ${previous.name}` : 'This is the first photo'}
          disabled={!previous}
          onClick={() => void navigate(`/photos/${previous.id}/cutout`)}
        >
          <ChevronLeft size={15} aria-hidden />
        </IconButton>
        <IconButton
          label={next ? `Next photo: ${next.name}` : 'This is the last photo'}
          disabled={!next}
          onClick={() => void navigate(`/photos/${next.id}/cutout`)}
        >
          <ChevronRight size={15} aria-hidden />
        </IconButton>
        <Button tone="main" onClick={() => void accept()}>
          {next ? 'Accept, next' : 'Accept'}
        </Button>
      </TopBar>
      <div className="flex min-h-0 grow">
        <StepsPanel
          recipe={recipe}
          confidence={note?.confidence ?? photo.cutout?.confidence ?? null}
          chosen={store.chosen}
          outlines={outlines.list}
          onChoose={store.choose}
          onEdit={store.edit}
          onSaveOutline={async (title) => {
            if (worker) await outlines.save(title, worker.matte(recipe));
          }}
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
          <div className="absolute top-3 right-3 flex items-center gap-2">
            {sight === 'tint' && (
              <input
                type="color"
                aria-label="Tint of what is dropped"
                value={tint}
                onChange={(e) => setTint(e.target.value)}
                className="border-line h-7 w-8 rounded-md border bg-white p-0.5"
              />
            )}
            {sight === 'colour' && (
              <div className="bg-card flex items-center gap-1 rounded-md p-0.5">
                {['#ffffff', '#000000'].map((c) => (
                  <button
                    key={c}
                    type="button"
                    aria-label={c === '#ffffff' ? 'On white' : 'On black'}
                    onClick={() => setGround(c)}
                    className="border-line h-6 w-6 rounded-sm border"
                    style={{ background: c }}
                  />
                ))}
                <ColourField label="Ground" value={ground} onChange={setGround} onCommit={setGround} />
              </div>
            )}
            {sight === 'scene' && scenes && scene && (
              <Select
                label="Scene behind the cutout"
                className="w-44"
                value={scene.id}
                onChange={setSceneId}
                options={scenes.map((s) => ({ value: s.id, title: s.title }))}
              />
            )}
            <Segmented<Sight>
              label="Seen as"
              value={sight}
              onChange={setSight}
              options={SIGHTS.map((s) => ({ value: s.id, title: s.title }))}
            />
          </div>
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
      <Dialog open={help} onClose={() => setHelp(false)} title="Keys of the cutout desk" wide>
        <div className="grid grid-cols-2 gap-x-8">
          {[
            ...TOOLS.map((t): [string, string] => [
              t.key.toUpperCase(),
              `${t.title}: ${t.about.toLowerCase()}`,
            ]),
            ...SIGHTS.map((s): [string, string] => [s.key, `Look at it: ${s.title.toLowerCase()}`]),
            ...OTHER_KEYS,
          ].map(([keys, what]) => (
            <p key={keys + what} className="border-line flex h-8 items-center justify-between gap-4 border-b">
              <span>{what}</span>
              <kbd className="measure text-ink-2">{keys}</kbd>
            </p>
          ))}
        </div>
      </Dialog>
      <Dialog
        open={askingAll}
        onClose={() => setAskingAll(false)}
        title={`Adjust ${all.length - 1} other photos the same way?`}
        footer={
          <>
            <Button onClick={() => setAskingAll(false)}>Cancel</Button>
            <Button tone="main" onClick={() => void adjustAll()}>
              Adjust {all.length - 1} photos
            </Button>
          </>
        }
      >
        <p>
          Exposure, contrast, local contrast, saturation and white balance of this photo go to{' '}
          {all.length - 1} others, which are cut out again. Their crops and straightening stay. It can be
          undone from the notice that follows.
        </p>
      </Dialog>
      {store.conflict && (
        <Dialog
          open
          onClose={() => undefined}
          title="This cutout was changed in another window"
          footer={
            <>
              <Button onClick={() => store.settle(false)}>Take theirs</Button>
              <Button tone="main" onClick={() => store.settle(true)}>
                Keep mine
              </Button>
            </>
          }
        >
          <p>
            There it has {store.conflict.recipe.steps.length} steps, here {recipe.steps.length}. Nothing was
            saved over it.
          </p>
        </Dialog>
      )}
    </>
  );
}
