import { Accordion, DropdownMenu } from 'radix-ui';
import { ChevronDown, Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { elementKind, type ShotElement } from '@scenograph/core/elements/index';
import type { Box } from '@scenograph/core/elements/element';
import { resetFit } from '@scenograph/core/shot/edit';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { newPicture, newProduct, newText } from '@scenograph/core/shot/starters';
import { applyFix } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, reducedUrl, request, useServer, type ListingDetail, type Picture } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, IconButton, Select, buttonClass } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { FindAction, TopBar } from '../../ui/top-bar';
import { DeliverDialog } from '../deliveries/deliver-dialog';
import { useChecks } from '../listings/cell-picture';
import { useKnownSizes } from '../listings/listing-screen';
import { DepthStrip } from './depth-strip';
import {
  addElement,
  moveDepth,
  newId,
  patchElement,
  placeElement,
  removeElement,
  type SlotTarget,
} from './editing';
import { BackdropDesk } from './kinds/backdrop-desk';
import { ProductLightDesk, ProductPlaceDesk } from './kinds/product-desk';
import { TextDesk } from './kinds/text-desk';
import { PlaceDesk } from './place-desk';
import { Section } from './section';
import { SizeStrip, type FedSlot } from './size-strip';
import { StageCanvas } from './stage-canvas';
import { isSaved, saveNow, useStage, type Saving, type StoredShot } from './store';
import { trueSize } from './true-size';

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
        useStage.getState().open(shot);
        setStored(shot);
      })
      .catch((e: Error) => here && setError(e));
    return () => {
      here = false;
      void saveNow().then(() => refresh('/api/listings'));
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
  const target: SlotTarget | null = useMemo(() => active && { key: active.key, slot: active.slot }, [active]);

  const wantedSlot = params.get('slot');
  useEffect(() => {
    if (wantedSlot && allSlots.some((s) => s.key === wantedSlot)) useStage.getState().showSlot(wantedSlot);
  }, [wantedSlot, allSlots]);

  const resolved = useMemo(
    () =>
      shot ? (active ? resolveForSlot(shot, active.key, active.slot, data) : resolveBase(shot, data)) : null,
    [shot, active, data],
  );
  const element = resolved?.elements.find((e) => e.id === selected) ?? null;
  const written = shot?.elements.find((e) => e.id === selected) ?? null;
  const results = useChecks(
    active ? resolved : null,
    active?.slot ?? allSlots[0]?.slot,
    active?.key ?? '',
    known,
    !!active,
  );

  const patch = useCallback(
    (label: string, value: Partial<ShotElement>) => {
      const { selected: id } = useStage.getState();
      if (id) useStage.getState().finish(label, (s) => patchElement(s, id, value, target));
    },
    [target],
  );
  const during = useCallback(
    (value: Partial<ShotElement>) => {
      const { selected: id } = useStage.getState();
      if (id) useStage.getState().during((s) => patchElement(s, id, value, target));
    },
    [target],
  );

  // A gesture scales from where the element was when it began.
  const begun = useRef<ShotElement | null>(null);
  const place = (id: string, box: Box, proportional: boolean) => {
    begun.current ??= resolved?.elements.find((e) => e.id === id) ?? null;
    const from = begun.current;
    if (from)
      useStage
        .getState()
        .during((s) => placeElement(s, baseLike(s, from, target), box, target, proportional));
  };
  const placed = (id: string, box: Box, proportional: boolean) => {
    const from = begun.current ?? resolved?.elements.find((e) => e.id === id);
    begun.current = null;
    if (!from) return;
    const moved = Math.abs(from.box.width - box.width) < 0.01;
    useStage
      .getState()
      .finish(
        `${moved ? (from.box.rotation !== box.rotation ? 'Turn' : 'Move') : 'Scale'} ${from.name}`,
        (s) => placeElement(s, baseLike(s, from, target), box, target, proportional),
      );
  };

  const add = useCallback((make: () => ShotElement) => {
    const made = make();
    useStage.getState().edit(`Add ${made.name}`, (s) => addElement(s, made));
    useStage.getState().select(made.id);
    setOpen((o) => [...new Set([...o, made.kind === 'text' ? 'overlays' : 'place'])]);
  }, []);
  const addText = useCallback(() => {
    const now = useStage.getState().document!;
    add(() => ({ ...newText(newId('text', now), 'New words', now.frame), name: 'Text' }));
  }, [add]);
  const addProduct = useCallback(() => {
    const now = useStage.getState().document!;
    if (!data?.cutout) return say('stop', 'This variant has no cutout yet. Open its photo and cut it out.');
    const ground = now.elements.find((e) => e.kind === 'backdrop');
    const survey = ground?.kind === 'backdrop' && ground.fill.type === 'scene' ? ground.fill.survey : null;
    add(() => newProduct(newId('product', now), data, now.frame, variant.pose, survey));
  }, [add, data, variant]);
  const remove = useCallback(() => {
    const { selected: id, document: now } = useStage.getState();
    const gone = now?.elements.find((e) => e.id === id);
    if (!gone || gone.locked) return;
    useStage.getState().edit(`Remove ${gone.name}`, (s) => removeElement(s, gone.id));
    useStage.getState().select(null);
  }, []);
  const nudge = useCallback(
    (dx: number, dy: number) => {
      const { selected: id, document: now } = useStage.getState();
      if (!id || !now) return;
      const at = (
        target ? resolveForSlot(now, target.key, target.slot, data) : resolveBase(now, data)
      ).elements.find((e) => e.id === id);
      if (!at || at.locked || at.kind === 'backdrop') return;
      const box = { ...at.box, x: at.box.x + dx, y: at.box.y + dy };
      useStage
        .getState()
        .edit(`Nudge ${at.name}`, (s) => placeElement(s, baseLike(s, at, target), box, target, false));
    },
    [target, data],
  );
  const depth = useCallback((by: number) => {
    const { selected: id, document: now } = useStage.getState();
    if (!id || !now) return;
    const from = now.elements.findIndex((e) => e.id === id);
    useStage.getState().edit(by > 0 ? 'Bring forward' : 'Send back', (s) => moveDepth(s, id, from + by));
  }, []);

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
      void saveNow();
      e.preventDefault();
    };
    window.addEventListener('beforeunload', onLeave);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('beforeunload', onLeave);
    };
  }, [nudge, remove]);

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
      { id: 'text', title: 'Add a text', group: 'Stage', run: addText },
      { id: 'product', title: 'Add the product', group: 'Stage', run: addProduct },
      { id: 'remove', title: 'Remove what is chosen', group: 'Stage', keys: 'Delete', run: remove },
      { id: 'forward', title: 'Bring forward', group: 'Stage', run: () => depth(1) },
      { id: 'back', title: 'Send back', group: 'Stage', run: () => depth(-1) },
      { id: 'base', title: 'Show the base', group: 'Sizes', run: () => useStage.getState().showSlot(null) },
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
      {
        id: 'deliver',
        title: 'Deliver pictures of this listing',
        group: 'Listing',
        run: () => setDelivering(true),
      },
    ],
    [addText, addProduct, remove, depth, fed],
  );
  useActions('stage', actions);

  if (!shot || !resolved) return null;
  const size = element ? trueSize(resolved, element) : null;
  const stops = results?.filter((r) => r.verdict === 'stop').length ?? 0;
  const looks = results?.filter((r) => r.verdict === 'look').length ?? 0;
  const differing = fed.filter((s) => shot.fits[s.key]).length;
  const differences = active ? shot.fits[active.key] : undefined;

  return (
    <>
      <TopBar
        trail={
          <nav aria-label="Where you are" className="flex min-w-0 items-center gap-2">
            <Link to="/listings" className="text-ink-2 hover:text-ink">
              Listings
            </Link>
            <span className="text-ink-3">/</span>
            <Link to={`/listings/${detail.listing.id}`} className="text-ink-2 hover:text-ink truncate">
              {detail.listing.title}
            </Link>
            <span className="text-ink-3">/</span>
            <h1 className="truncate font-semibold">{row?.title ?? stored.title}</h1>
            <SavingNote saving={stage.saving} at={stage.savedAt} />
          </nav>
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
        <Button tone="main" onClick={() => setDelivering(true)}>
          Deliver
        </Button>
      </TopBar>

      <DepthStrip
        elements={shot.elements}
        selected={selected}
        onSelect={stage.select}
        onMove={(id, to) => stage.edit('Change depth', (s) => moveDepth(s, id, to))}
        onHide={(id, hidden) =>
          stage.edit(hidden ? 'Hide' : 'Show', (s) =>
            patchElement(s, id, { hidden } as Partial<ShotElement>, target),
          )
        }
      >
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={buttonClass()}>
            Add to stage <ChevronDown size={14} aria-hidden />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              sideOffset={4}
              className="border-line bg-card z-50 w-56 rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
            >
              <MenuItem onSelect={addText}>Text</MenuItem>
              <MenuItem onSelect={addProduct}>Product</MenuItem>
              <DropdownMenu.Label className="text-ink-2 px-2.5 pt-2 pb-1 text-[11px]">
                Logos and pictures
              </DropdownMenu.Label>
              {pictures?.map((p) => (
                <MenuItem
                  key={p.id}
                  onSelect={() => add(() => newPicture(newId('picture', shot), p.title, p, shot.frame))}
                >
                  <span className="flex h-5 w-8 items-center justify-center bg-[#bdbdbd]">
                    <img src={reducedUrl(p.picture, 160)} alt="" className="max-h-4 max-w-7" />
                  </span>
                  <span className="truncate">{p.title}</span>
                </MenuItem>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </DepthStrip>

      <div className="flex min-h-0 grow">
        <main className="flex min-w-0 grow flex-col">
          <StageCanvas
            resolved={resolved}
            selected={selected}
            onSelect={stage.select}
            onPlace={place}
            onPlaced={placed}
            overlay={(zoom) =>
              size && element && <MillimetreRule element={element} size={size.pxPerMm} zoom={zoom} />
            }
          />
        </main>
        <aside aria-label="Desk" className="border-line bg-card w-78 shrink-0 overflow-y-auto border-l">
          {active && (
            <p className="bg-spruce px-3.5 py-1.5 text-[12.5px] text-white">
              You are on <b>{active.slot.title}</b>, {active.marketplace}. Changes stay in this slot.{' '}
              <button type="button" className="underline" onClick={() => stage.showSlot(null)}>
                Back to the base
              </button>
            </p>
          )}
          <Accordion.Root type="multiple" value={open} onValueChange={setOpen}>
            <Section
              n={1}
              id="place"
              title="Place"
              summary={
                size
                  ? `${Math.round(size.ratio * 100)} % of true size`
                  : element
                    ? element.name
                    : 'nothing chosen'
              }
            >
              {element && written ? (
                <>
                  <PlaceDesk
                    element={element}
                    size={size}
                    onPlace={(label, box, proportional) =>
                      stage.edit(`${label} ${element.name}`, (s) =>
                        placeElement(s, baseLike(s, element, target), box, target, proportional),
                      )
                    }
                    onChange={patch}
                    onDuring={during}
                    onRemove={remove}
                    onDepth={depth}
                  />
                  {element.kind === 'product' && (
                    <ProductPlaceDesk element={element} during={during} commit={patch} />
                  )}
                  {element.kind === 'backdrop' && written.kind === 'backdrop' && (
                    <div className="mt-2.5">
                      <BackdropDesk element={element} during={during} commit={patch} />
                    </div>
                  )}
                </>
              ) : (
                <p className="text-ink-2">Choose something on the stage or in the depth strip.</p>
              )}
            </Section>
            <Section
              n={2}
              id="light"
              title="Light"
              summary={
                element?.kind === 'product'
                  ? `${Math.round(element.shadow.light.azimuthDeg)}°, ${Math.round(element.shadow.light.elevationDeg)}° up`
                  : ''
              }
            >
              {element?.kind === 'product' ? (
                <ProductLightDesk element={element} during={during} commit={patch} />
              ) : (
                <p className="text-ink-2">Choose a product to light it.</p>
              )}
            </Section>
            <Section
              n={3}
              id="overlays"
              title="Overlays"
              summary={String(
                shot.elements.filter((e) => elementKind(e.kind).role === 'overlay' && !e.hidden).length,
              )}
            >
              {element?.kind === 'text' && written?.kind === 'text' ? (
                <TextDesk
                  element={{ ...element, text: differencesOf(differences, written).text }}
                  during={during}
                  commit={patch}
                />
              ) : (
                <div className="grid gap-2">
                  <p className="text-ink-2">Choose a text to change its words, or add one.</p>
                  <Button onClick={addText}>Add a text</Button>
                </div>
              )}
            </Section>
            <Section n={4} id="fit" title="Fit" summary={`${differing} of ${fed.length} differ`}>
              {active ? (
                differences ? (
                  <ul className="grid gap-1.5">
                    {Object.entries(differences.elements).map(([id, d]) => (
                      <li key={id} className="flex items-center gap-2">
                        <span className="border-spruce h-2 w-2 border-[1.5px]" aria-hidden />
                        <span className="truncate">
                          {shot.elements.find((e) => e.id === id)?.name ?? 'removed element'}
                        </span>
                        <span className="text-ink-2 text-[12px]">
                          {Object.keys(d).map(keyTitle).join(', ')}
                        </span>
                        <Button
                          tone="quiet"
                          className="ml-auto"
                          onClick={() => stage.edit('Reset a difference', (s) => resetFit(s, active.key, id))}
                        >
                          Reset
                        </Button>
                      </li>
                    ))}
                    <li>
                      <Button onClick={() => stage.edit('Reset this slot', (s) => resetFit(s, active.key))}>
                        Reset all of this slot
                      </Button>
                    </li>
                  </ul>
                ) : (
                  <p className="text-ink-2">
                    This slot follows the base by rule. Move something here and it stays a difference of this
                    slot.
                  </p>
                )
              ) : (
                <p className="text-ink-2">Choose a size below the stage to see and change its fit.</p>
              )}
            </Section>
            <Section
              n={5}
              id="checks"
              title="Checks"
              tone={stops ? 'text-coral-ink' : looks ? 'text-amber-ink' : undefined}
              summary={
                !active
                  ? 'per size'
                  : !results
                    ? 'measuring'
                    : stops || looks
                      ? [looks && `${looks} look`, stops && `${stops} stop`].filter(Boolean).join(', ')
                      : 'all pass'
              }
            >
              {active && results ? (
                <ul className="grid gap-2.5">
                  {results.map((r) => (
                    <CheckRow
                      key={r.check}
                      result={r}
                      onFix={() =>
                        stage.edit(r.fix!.title, (s) =>
                          applyFix(r.check, s, resolved, active.key, active.slot),
                        )
                      }
                    />
                  ))}
                </ul>
              ) : (
                <p className="text-ink-2">
                  Choose a size below the stage to measure it against its specification.
                </p>
              )}
            </Section>
          </Accordion.Root>
        </aside>
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
      />

      {delivering && <DeliverDialog detail={detail} before={saveNow} onClose={() => setDelivering(false)} />}
      {stage.conflict && (
        <Dialog
          open
          onClose={() => undefined}
          title="This shot was changed elsewhere"
          footer={
            <>
              <Button
                onClick={async () => {
                  try {
                    await request('POST', `/api/shots/${stored.id}/copy`, {
                      title: `${row?.title ?? stored.title}, mine`,
                      document: stage.document,
                    });
                    stage.takeTheirs();
                    refresh('/api/listings');
                    say('pass', 'Your version is kept as a copy of its own.');
                  } catch (e) {
                    say('stop', (e as Error).message);
                  }
                }}
              >
                Keep mine as a copy
              </Button>
              <Button onClick={stage.takeTheirs}>Take theirs</Button>
              <Button tone="main" onClick={stage.keepMine}>
                Keep mine
              </Button>
            </>
          }
        >
          <p>{stage.conflict.message}</p>
        </Dialog>
      )}
    </>
  );
}

/** The element to scale from: in the base as it is written, in a slot as it is placed there. */
function baseLike(
  shot: { elements: ShotElement[] },
  at: ShotElement,
  target: SlotTarget | null,
): ShotElement {
  if (target) return at;
  return shot.elements.find((e) => e.id === at.id) ?? at;
}

function differencesOf<E extends ShotElement>(
  fit: { elements: Record<string, Partial<ShotElement>> } | undefined,
  element: E,
): E {
  return { ...element, ...(fit?.elements[element.id] as Partial<E> | undefined) };
}

function keyTitle(key: string): string {
  return (
    { box: 'place', hidden: 'shown or hidden', fill: 'backdrop', shadow: 'shadow', text: 'words' }[key] ?? key
  );
}

function MenuItem({ onSelect, children }: { onSelect(): void; children: React.ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="data-[highlighted]:bg-spruce-tint flex h-8 cursor-pointer items-center gap-2 rounded-sm px-2.5 outline-none"
    >
      {children}
    </DropdownMenu.Item>
  );
}

function SavingNote({ saving, at }: { saving: Saving; at: Date | null }) {
  const text = {
    saved: at ? `saved ${at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}` : 'saved',
    waiting: 'saving',
    saving: 'saving',
    offline: 'not saved yet, trying again',
    conflict: 'changed elsewhere',
  }[saving];
  return (
    <span
      role="status"
      data-testid="saving"
      className={`measure whitespace-nowrap ${saving === 'offline' || saving === 'conflict' ? 'text-coral-ink' : 'text-ink-2'}`}
    >
      {text}
    </span>
  );
}

function CheckRow({ result, onFix }: { result: CheckResult; onFix(): void }) {
  return (
    <li className="flex gap-2">
      <span className="pt-1">
        <StatusMark mark={result.verdict} />
      </span>
      <div className="min-w-0 grow">
        <p className="flex justify-between gap-2">
          <span className="font-medium">{result.title}</span>
          <span className="measure text-right">{result.measured}</span>
        </p>
        <p className="text-ink-2 flex justify-between gap-2 text-[12px]">
          <span>limit</span> <span className="measure text-right">{result.limit}</span>
        </p>
        {result.verdict !== 'pass' && <p className="mt-0.5 text-[12.5px]">{result.sentence}</p>}
        {result.fix && (
          <Button className="mt-1.5" onClick={onFix}>
            {result.fix.title}
          </Button>
        )}
      </div>
    </li>
  );
}

/** Real millimetres beside the product, every 50 marked. */
function MillimetreRule({ element, size, zoom }: { element: ShotElement; size: number; zoom: number }) {
  const { box } = element;
  const tall = box.height * zoom;
  const mm = box.height / size;
  const ticks = Array.from({ length: Math.floor(mm / 50) + 1 }, (_, i) => i * 50);
  return (
    <svg
      className="absolute overflow-visible"
      style={{ left: (box.x + box.width) * zoom + 22, top: box.y * zoom }}
      width="60"
      height={tall}
      aria-hidden
    >
      <g stroke="#00000088" strokeWidth="3">
        <path d={`M0.5 0V${tall}M0 .5h9M0 ${tall - 0.5}h9`} fill="none" />
      </g>
      <g stroke="#fff" strokeWidth="1">
        <path d={`M0.5 0V${tall}M0 .5h9M0 ${tall - 0.5}h9`} fill="none" />
        {ticks.slice(1).map((t) => (
          <path key={t} d={`M0 ${tall - t * size * zoom}h5`} />
        ))}
      </g>
      <g className="measure" fill="#fff" stroke="#000000aa" strokeWidth="3" paintOrder="stroke">
        <text x="13" y="5">
          {Math.round(mm)} mm
        </text>
        <text x="13" y={tall + 1}>
          0
        </text>
      </g>
    </svg>
  );
}
