import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import {
  mapRecipe,
  type CutoutRecipe,
  type OutlineStep,
  type Point,
  type Step,
} from '@scenograph/core/cutout/recipe';
import { tidyMap, type Tidy } from '@scenograph/core/retouch/tidy';
import {
  refresh,
  request,
  sendFile,
  useServer,
  type Outline,
  type Photo,
  type Scene,
} from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, ColourField, IconButton, Segmented, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { DeskView, MOST_ZOOM, type Camera, type Gesture } from './desk-view';
import { EdgeDesk } from './edge-desk';
import { EdgeLoupe } from './edge-loupe';
import { saveRecipe, useRecipe, type StoredDesk } from './recipe-store';
import { stepOf, thinned } from './step-of-gesture';
import { StepsPanel } from './steps-panel';
import { TidyDesk } from './tidy-desk';
import { ToolBar } from './tool-bar';
import { cutKeyOf, useDesk, useFringe, useScene } from './use-desk';
import { OTHER_KEYS, SIGHTS, TOOLS, type Sight, type ToolId, type ToolOptions } from './tools';

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
      void saveRecipe();
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

function Desk({ photo, all, first }: { photo: Photo; all: Photo[]; first: StoredDesk }) {
  const navigate = useNavigate();
  const store = useRecipe();
  const recipe = store.recipe ?? first.recipe;
  const { worker, opened, note, version, solvedRecipe, onSolved } = useDesk(photo, recipe);
  const fringe = useFringe(worker, recipe, version.full);
  const { data: scenes } = useServer<Scene[]>('/api/scenes');
  const [sceneId, setSceneId] = useState<string | null>(null);
  const { scene, bitmap: sceneBitmap } = useScene(scenes, sceneId, first.standsIn);
  const [outlines, setOutlines] = useState<Outline[]>(first.outlines);
  const [tidying, setTidying] = useState(false);
  const [help, setHelp] = useState(false);
  const [sight, setSight] = useState<Sight>('tint');
  const [ground, setGround] = useState('#ffffff');
  const [tint, setTint] = useState('#8a5bb0');
  const [edgeLine, setEdgeLine] = useState(false);
  const [tool, setTool] = useState<Gesture['tool']>('keep');
  const [camera, setCamera] = useState<Camera | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [draft, setDraft] = useState<Point[]>([]);
  const [shownMs, setShownMs] = useState(0);
  const [options, setOptions] = useState<ToolOptions>({
    radius: Math.max(3, Math.round(Math.max(photo.width, photo.height) / 160)),
    softness: 0.5,
    tolerance: 6,
    reach: 'touching',
    mode: 'take',
    shape: 'ellipse',
    snap: 12,
    piece: 'ellipse',
    fill: '#b98d5a',
  });
  const size = opened ?? { width: photo.width, height: photo.height };
  const at = all.findIndex((p) => p.id === photo.id);
  const next = all[at + 1];
  const previous = all[at - 1];
  const chosen = recipe.steps.find((s) => s.id === store.chosen) ?? null;

  const addStep = useCallback((label: string, step: Step) => {
    const { recipe: now } = useRecipe.getState();
    // Names count up, so that steps can be told apart.
    const same = now?.steps.filter((s) => s.name.startsWith(label)).length ?? 0;
    const named = { ...step, name: same ? `${label} ${same + 1}` : label };
    useRecipe.getState().edit(label, (r) => ({ ...r, steps: [...r.steps, named] }));
    return named;
  }, []);

  const closePath = useCallback(() => {
    if (draft.length > 2) {
      const base = { id: crypto.randomUUID(), name: '', on: true, mode: options.mode };
      const made =
        tool === 'trace'
          ? addStep('Edge traced', { ...base, kind: 'trace', points: draft })
          : addStep('Polygon', {
              ...base,
              kind: 'shape',
              shape: 'polygon',
              points: draft,
              snap: options.snap,
            });
      useRecipe.getState().choose(made.id);
    }
    setDraft([]);
  }, [draft, options.mode, options.snap, tool, addStep]);

  const tidyWith = (label: string, value: Partial<Tidy>) =>
    store.finish(label, (r) => withTidy(r, value, photo));
  const tidyDuring = (value: Partial<Tidy>) => store.during((r) => withTidy(r, value, photo));

  const onGesture = (gesture: Gesture) => {
    const { points } = gesture;
    const [start] = points;
    const end = points[points.length - 1];
    const id = crypto.randomUUID();
    if (gesture.tool === 'colour' && gesture.shift && chosen?.kind === 'colour') {
      store.edit('Pick another colour', (r) => ({
        ...r,
        steps: r.steps.map((s) => (s.id === chosen.id ? { ...chosen, seeds: [...chosen.seeds, start] } : s)),
      }));
      return;
    }
    const made = stepOf(gesture, options);
    if (made) {
      const step = addStep(made.label, made.step);
      // Shapes and colours are looked at and changed at once; strokes go on.
      if (step.kind === 'shape' || step.kind === 'colour') store.choose(step.id);
      return;
    }
    switch (gesture.tool) {
      case 'trace':
        setDraft((d) => [...d, end]);
        return;
      case 'shape':
        if (options.shape === 'polygon') setDraft((d) => [...d, end]);
        return;
      case 'repair': {
        if (points.length < 3 || Math.hypot(end[0] - start[0], end[1] - start[1]) < 2) {
          if (options.piece !== 'path' || points.length < 8) return;
        }
        store.edit('Draw a repair piece', (r) => ({
          ...r,
          repairs: [
            ...r.repairs,
            {
              id,
              shape: options.piece,
              points: options.piece === 'path' ? thinned(points, 1.5) : [start, end],
              corner: options.radius,
              fill: options.fill,
              outline: null,
              softness: 1,
              place: 'front',
              on: true,
            },
          ],
        }));
        return;
      }
      case 'neutral':
        void worker?.colourAt(...start).then((neutral) => {
          if (neutral) tidyWith('White balance', { neutral });
          setTool('keep');
        });
        return;
      case 'straighten': {
        // The nearer of level and upright is meant.
        const angle = (Math.atan2(end[1] - start[1], end[0] - start[0]) * 180) / Math.PI;
        const off = ((((angle + 45) % 90) + 90) % 90) - 45;
        if (Math.hypot(end[0] - start[0], end[1] - start[1]) > 8)
          tidyWith('Straighten', {
            straighten: Math.max(-45, Math.min(45, Math.round((recipe.tidy.straighten - off) * 10) / 10)),
          });
        setTool('keep');
        return;
      }
      case 'crop': {
        const before = recipe.tidy.crop;
        const x = Math.max(0, Math.round(Math.min(start[0], end[0]))) + (before?.x ?? 0);
        const y = Math.max(0, Math.round(Math.min(start[1], end[1]))) + (before?.y ?? 0);
        const width = Math.min(size.width, Math.round(Math.abs(end[0] - start[0])));
        const height = Math.min(size.height, Math.round(Math.abs(end[1] - start[1])));
        if (width >= 8 && height >= 8) tidyWith('Crop', { crop: { x, y, width, height } });
        setCamera(null);
        setTool('keep');
      }
    }
  };

  const movePoint = (id: string, index: number, to: Point, done: boolean) => {
    const moved = (points: Point[]) => points.map((p, i) => (i === index ? to : p));
    const change = (r: CutoutRecipe) => ({
      ...r,
      steps: r.steps.map((s) =>
        s.id === id && 'points' in s ? ({ ...s, points: moved(s.points) } as Step) : s,
      ),
      repairs: r.repairs.map((p) => (p.id === id ? { ...p, points: moved(p.points) } : p)),
    });
    if (done) store.finish('Move a point', change);
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
      await request('POST', '/api/photos/cutouts', { ids: [photo.id] });
      refresh('/api/photos');
      say('pass', 'A worker makes the full-size cutout; every shot that shows it follows.');
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
  const saveOutline = async (title: string) => {
    if (!worker) return;
    try {
      const png = await worker.matte(recipe);
      const query = new URLSearchParams({ name: 'outline.png', title });
      const kept = await sendFile<Outline>(`/api/photos/${photo.id}/outlines?${query}`, png, () => undefined);
      setOutlines((list) => [kept, ...list]);
      say('pass', `"${title}" is kept with the photo.`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const importOutline = async (file: File) => {
    try {
      const query = new URLSearchParams({ name: file.name, title: file.name.replace(/\.\w+$/, '') });
      const kept = await sendFile<Outline>(
        `/api/photos/${photo.id}/outlines?${query}`,
        file,
        () => undefined,
      );
      setOutlines((list) => [kept, ...list]);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const applyOutline = (outline: Outline, mode: OutlineStep['mode']) =>
    addStep(outline.title, {
      id: crypto.randomUUID(),
      name: '',
      on: true,
      kind: 'outline',
      mode,
      matte: outline.matte,
    });
  const removeOutline = async (outline: Outline) => {
    try {
      await request('DELETE', `/api/photos/${photo.id}/outlines/${outline.id}`);
      setOutlines((list) => list.filter((o) => o.id !== outline.id));
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const tidyAll = async () => {
    try {
      const { queued } = await request<{ queued: number }>('POST', '/api/photos/tidy', {
        ids: all.filter((p) => p.id !== photo.id).map((p) => p.id),
        tidy: recipe.tidy,
      });
      refresh('/api/photos');
      say('working', `${queued} photos take the same tidy and are cut out again.`);
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
      { id: 'tidy', title: 'Tidy the photo', group: 'Cutout', run: () => setTidying((t) => !t) },
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

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (
        (e.target as HTMLElement).closest('input, textarea, [role="dialog"], [role="menu"], [role="listbox"]')
      )
        return;
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === 'z') {
        e.preventDefault();
        if (e.shiftKey) useRecipe.getState().redo();
        else useRecipe.getState().undo();
        return;
      }
      if (ctrl || e.altKey) return;
      const named = actions.find((a) => a.keys?.length === 1 && a.keys.toLowerCase() === e.key.toLowerCase());
      if (named) named.run();
      else if (e.key === '+' || e.key === '=') zoomBy(1.5);
      else if (e.key === '-') zoomBy(1 / 1.5);
      else if (e.key === '.' || e.key === ',')
        setOptions((o) => ({
          ...o,
          radius: Math.max(0.5, Math.min(1000, o.radius * (e.key === '.' ? 1.25 : 0.8))),
        }));
      else if (e.key === 'Enter' && draft.length) closePath();
      else if (e.key === 'Escape') setDraft([]);
      else if (e.key === 'Delete' || e.key === 'Backspace') removeChosen();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions, zoomBy, draft, closePath, removeChosen]);

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
            <span className="text-ink-2 max-w-56 truncate">{photo.name}</span>
            <span className="text-ink-3">/</span>
            <h1 className="font-semibold">Cutout</h1>
            <span className="measure text-ink-2 whitespace-nowrap">
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
        <Button onClick={() => setHelp(true)}>Keys</Button>
        <Button aria-pressed={tidying} onClick={() => setTidying(!tidying)}>
          {tidying ? 'To the edge' : 'Tidy photo'}
        </Button>
        {previous && <Button onClick={() => void navigate(`/photos/${previous.id}/cutout`)}>Previous</Button>}
        {next && <Button onClick={() => void navigate(`/photos/${next.id}/cutout`)}>Next</Button>}
        <Button tone="main" onClick={() => void accept()}>
          {next ? 'Accept, next' : 'Accept'}
        </Button>
      </TopBar>
      <div className="flex min-h-0 grow">
        <StepsPanel
          recipe={recipe}
          confidence={note?.confidence ?? photo.cutout?.confidence ?? null}
          chosen={store.chosen}
          outlines={outlines}
          onChoose={store.choose}
          onEdit={store.edit}
          onSaveOutline={saveOutline}
          onUseOutline={applyOutline}
          onRemoveOutline={(o) => void removeOutline(o)}
          onImportOutline={(f) => void importOutline(f)}
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
              sight={sight}
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
              onApplyToAll={() => void tidyAll()}
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

/** A changed tidy; where it turns or crops the photo, every step keeps its place on the product. */
function withTidy(
  recipe: CutoutRecipe,
  value: Partial<Tidy>,
  photo: { width: number; height: number },
): CutoutRecipe {
  const tidy = { ...recipe.tidy, ...value };
  if (tidy.straighten === recipe.tidy.straighten && tidy.crop === recipe.tidy.crop)
    return { ...recipe, tidy };
  const from = tidyMap(photo.width, photo.height, recipe.tidy);
  const to = tidyMap(photo.width, photo.height, tidy);
  return { ...mapRecipe(recipe, (x, y) => to.toTidied(...from.toPhoto(x, y)), 1), tidy };
}
