import { DndContext, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, horizontalListSortingStrategy, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Eye, EyeOff, Lock, LockOpen } from 'lucide-react';
import { useMemo, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { ShotElement } from '@scenograph/core/elements/index';
import { kindUi } from './kinds/index';
import { useThumbnail } from '../listings/cell-picture';
import { msg, listText } from '../../language/language';

/** The shot seen from the side: slats from the back wall to the front. */
export function DepthStrip({
  elements,
  looks,
  selected,
  onSelect,
  onMove,
  onHide,
  also,
  onChoose,
  onLock,
  onRename,
  casts,
  children,
}: {
  elements: ShotElement[];
  /** The same as they are painted. */
  looks: ShotElement[];
  selected: string | null;
  onSelect(id: string): void;
  onMove(id: string, to: number): void;
  onHide(id: string, hidden: boolean): void;
  also: string[];
  onChoose(id: string): void;
  onLock(id: string, locked: boolean): void;
  onRename(id: string, name: string): void;
  /** By an element's id: the names of those its shadow falls on. */
  casts: Map<string, string[]>;
  children: ReactNode;
}) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  return (
    <section
      aria-label={msg('Depth, from back to front')}
      className="border-line bg-card flex h-[66px] shrink-0 items-center gap-2 border-b px-3.5"
    >
      <span className="measure text-ink-2 rotate-180 text-[10px] [writing-mode:vertical-rl]">
        {msg('BACK')}
      </span>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ screenReaderInstructions: { draggable: SLAT_KEYS } }}
        onDragEnd={({ active, over }) => {
          if (over && active.id !== over.id)
            onMove(
              String(active.id),
              elements.findIndex((e) => e.id === over.id),
            );
        }}
      >
        <SortableContext items={elements.map((e) => e.id)} strategy={horizontalListSortingStrategy}>
          <ol className="flex min-w-0 overflow-x-auto px-2 py-2">
            {elements.map((e, i) => (
              <Slat
                key={e.id}
                element={e}
                look={looks.find((l) => l.id === e.id) ?? e}
                selected={e.id === selected}
                also={also.includes(e.id)}
                casts={casts.get(e.id) ?? []}
                onStep={(by) => onMove(e.id, Math.min(elements.length - 1, Math.max(0, i + by)))}
                onSelect={(more) => (more ? onChoose(e.id) : onSelect(e.id))}
                onHide={() => onHide(e.id, !e.hidden)}
                onLock={() => onLock(e.id, !e.locked)}
                onRename={(name) => onRename(e.id, name)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <span className="measure text-ink-2 rotate-180 text-[10px] [writing-mode:vertical-rl]">
        {msg('FRONT')}
      </span>
      <div className="ml-auto flex gap-2">{children}</div>
    </section>
  );
}

/** What can be done on a slat with the keyboard, for those who hear it. */
const SLAT_KEYS = msg(
  'Enter selects it. The left and right arrows go to its neighbours; with Alt they move it toward the back or the front. F2 renames it. Delete removes it.',
);

/** A colour for each group of linked elements, so that they are seen to belong together. */
const LINK_COLOURS = ['#8a5bb0', '#b87503', '#2f6fa8', '#a34a66'];

/** The slat beside one, where there is one. */
function neighbour(slat: HTMLElement, by: number): HTMLElement | undefined {
  const all = [...(slat.closest('ol')?.querySelectorAll<HTMLElement>('[data-slat]') ?? [])];
  return all[all.indexOf(slat) + by];
}

function Slat({
  element,
  look,
  selected,
  also,
  casts,
  onStep,
  onSelect,
  onHide,
  onLock,
  onRename,
}: {
  element: ShotElement;
  look: ShotElement;
  selected: boolean;
  also: boolean;
  casts: string[];
  /** Moves it by so many places to the front. */
  onStep(by: number): void;
  onSelect(more: boolean): void;
  onHide(): void;
  onLock(): void;
  onRename(name: string): void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: element.id });
  const [renaming, setRenaming] = useState(false);
  const name = element.name || element.kind;
  const told = [
    element.hidden && msg('hidden'),
    element.locked && msg('locked'),
    element.link && msg('linked'),
    casts.length && msg('casts on {casts}', { casts: listText(casts) }),
  ].filter(Boolean);
  const onKeyDown = (e: KeyboardEvent<HTMLButtonElement>) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (by && e.altKey) onStep(by);
    else if (by) neighbour(e.currentTarget, by)?.focus();
    else if (e.key === 'F2') setRenaming(true);
    else return;
    e.preventDefault();
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`group relative shrink-0 ${element.hidden ? 'opacity-45' : ''}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        onClick={(e) => onSelect(e.shiftKey)}
        onDoubleClick={() => setRenaming(true)}
        onKeyDown={onKeyDown}
        data-slat={element.id}
        aria-pressed={selected || also}
        aria-label={[name, ...told].join(', ')}
        title={[name, ...told].join(', ')}
        className={`bg-card relative block h-12 w-[92px] -skew-y-6 overflow-hidden border text-left ${
          selected
            ? 'border-spruce z-10 shadow-[inset_0_3px_0_var(--color-limelight),0_0_0_1px_var(--color-spruce)]'
            : also
              ? 'border-spruce border-dashed'
              : 'border-line shadow-[1px_2px_3px_#0000000f]'
        }`}
      >
        <span className="absolute inset-x-0 top-0 flex h-[30px] items-center justify-center overflow-hidden">
          <SlatPicture element={look} />
        </span>
        <span className="bg-card/95 absolute inset-x-0 bottom-0 truncate px-1.5 text-[11px] leading-[16px]">
          {name}
        </span>
      </button>
      {renaming && (
        <NewName
          name={element.name}
          onEnd={(name) => {
            setRenaming(false);
            if (name !== element.name) onRename(name);
          }}
        />
      )}
      <SlatMarks {...{ element }} casting={casts.length > 0} />
      <SlatButtons element={element} name={name} onLock={onLock} onHide={onHide} />
    </li>
  );
}

/** That it is linked, casts a shadow on something, or is locked. */
function SlatMarks({ element, casting }: { element: ShotElement; casting: boolean }) {
  return (
    <>
      {element.link && (
        <span
          aria-hidden
          className="absolute bottom-0 left-0 z-20 h-1.5 w-full"
          style={{ background: linkColour(element.link) }}
        />
      )}
      {casting && (
        <span
          aria-hidden
          className="measure absolute -right-1 bottom-4 z-20 rounded-sm bg-[#171b19] px-1 text-[9px] text-white"
        >
          {msg('casts')}
        </span>
      )}
      {element.locked && <Lock size={10} aria-hidden className="absolute top-1 left-1 z-20" />}
    </>
  );
}

/** Asks for a new name in place of the slat's; Escape keeps the old one. */
function NewName({ name, onEnd }: { name: string; onEnd(name: string): void }) {
  return (
    <input
      // The slat asked for a new name: typing begins at once.
      autoFocus
      aria-label={msg('New name')}
      defaultValue={name}
      className="border-spruce absolute inset-x-0 bottom-0 z-30 h-6 border bg-white px-1 text-[11px]"
      onBlur={(e) => onEnd(e.target.value)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') {
          e.currentTarget.value = name;
          e.currentTarget.blur();
        }
      }}
    />
  );
}

/** Lock and eye, shown when the pointer or the focus is there. */
function SlatButtons({
  element,
  name,
  onLock,
  onHide,
}: {
  element: ShotElement;
  name: string;
  onLock(): void;
  onHide(): void;
}) {
  const small =
    'bg-card border-line rounded-sm border p-0.5 opacity-0 group-hover:opacity-100 focus-visible:opacity-100';
  return (
    <div className="absolute -top-1 right-1 z-20 flex gap-0.5">
      <button
        type="button"
        onClick={onLock}
        aria-label={element.locked ? msg('Unlock {name}', { name }) : msg('Lock {name}', { name })}
        className={small}
      >
        {element.locked ? <LockOpen size={11} aria-hidden /> : <Lock size={11} aria-hidden />}
      </button>
      <button
        type="button"
        onClick={onHide}
        aria-label={element.hidden ? msg('Show {name}', { name }) : msg('Hide {name}', { name })}
        className={small}
      >
        {element.hidden ? <EyeOff size={11} aria-hidden /> : <Eye size={11} aria-hidden />}
      </button>
    </div>
  );
}

function linkColour(link: string): string {
  let sum = 0;
  for (let i = 0; i < link.length; i++) sum += link.charCodeAt(i);
  return LINK_COLOURS[sum % LINK_COLOURS.length];
}

function SlatPicture({ element }: { element: ShotElement }) {
  return kindUi(element).slat?.(element) ?? <SlatPainting element={element} />;
}

/** An overlay by itself, painted as it is. */
function SlatPainting({ element }: { element: ShotElement }) {
  // Resolving makes every element anew: what is painted changes only with what is in it.
  const key = JSON.stringify(element);
  const alone = useMemo(() => {
    const { box } = element;
    const elements = [{ ...element, hidden: false, opacity: 1, box: { ...box, x: 0, y: 0, rotation: 0 } }];
    return { width: box.width, height: box.height, elements: elements, missing: [] };
  }, [key]);
  const { canvas, size } = useThumbnail(alone, 72, 36, true);
  return <canvas ref={canvas} style={size} aria-hidden />;
}
