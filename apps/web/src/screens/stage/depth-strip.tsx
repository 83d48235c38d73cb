import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  horizontalListSortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Eye, EyeOff, Lock } from 'lucide-react';
import type { ReactNode } from 'react';
import type { ShotElement } from '@scenograph/core/elements/index';
import { reducedUrl } from '../../api/client';

/** The shot seen from the side: slats from the back wall to the front. */
export function DepthStrip({
  elements,
  selected,
  onSelect,
  onMove,
  onHide,
  children,
}: {
  elements: ShotElement[];
  selected: string | null;
  onSelect(id: string): void;
  onMove(id: string, to: number): void;
  onHide(id: string, hidden: boolean): void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <section
      aria-label="Depth, from back to front"
      className="border-line bg-card flex h-[66px] shrink-0 items-center gap-2 border-b px-3.5"
    >
      <span className="measure text-ink-2 rotate-180 text-[10px] [writing-mode:vertical-rl]">BACK</span>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
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
            {elements.map((e) => (
              <Slat
                key={e.id}
                element={e}
                selected={e.id === selected}
                onSelect={() => onSelect(e.id)}
                onHide={() => onHide(e.id, !e.hidden)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <span className="measure text-ink-2 rotate-180 text-[10px] [writing-mode:vertical-rl]">FRONT</span>
      <div className="ml-auto flex gap-2">{children}</div>
    </section>
  );
}

function Slat({
  element,
  selected,
  onSelect,
  onHide,
}: {
  element: ShotElement;
  selected: boolean;
  onSelect(): void;
  onHide(): void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: element.id });
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
        onClick={onSelect}
        aria-pressed={selected}
        aria-label={`${element.name || element.kind}${element.hidden ? ', hidden' : ''}`}
        className={`bg-card relative block h-12 w-[92px] -skew-y-6 overflow-hidden border text-left ${
          selected
            ? 'border-spruce z-10 shadow-[inset_0_3px_0_var(--color-limelight),0_0_0_1px_var(--color-spruce)]'
            : 'border-line shadow-[1px_2px_3px_#0000000f]'
        }`}
      >
        <span className="absolute inset-x-0 top-0 flex h-[30px] items-center justify-center overflow-hidden">
          <SlatPicture element={element} />
        </span>
        <span className="bg-card/95 absolute inset-x-0 bottom-0 truncate px-1.5 text-[11px] leading-[16px]">
          {element.name || element.kind}
        </span>
      </button>
      {element.locked && <Lock size={10} aria-label="locked" className="absolute top-1 left-1" />}
      <button
        type="button"
        onClick={onHide}
        aria-label={element.hidden ? `Show ${element.name}` : `Hide ${element.name}`}
        className="bg-card border-line absolute -top-1 right-1 z-20 rounded-sm border p-0.5 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
      >
        {element.hidden ? <EyeOff size={11} aria-hidden /> : <Eye size={11} aria-hidden />}
      </button>
    </li>
  );
}

function SlatPicture({ element }: { element: ShotElement }) {
  if (element.kind === 'text')
    return (
      <span
        className="font-display truncate px-1 text-[13px] font-bold"
        style={{ color: darkEnough(element.colour) }}
      >
        {element.text.split('\n')[0]}
      </span>
    );
  if (element.kind === 'backdrop') {
    const { fill } = element;
    if (fill.type === 'scene')
      return <img src={reducedUrl(fill.picture, 160)} alt="" className="h-full w-full object-cover" />;
    const stops = fill.type === 'colour' ? [fill.colour, fill.colour] : fill.stops.map((s) => s.colour);
    return (
      <span className="h-full w-full" style={{ background: `linear-gradient(90deg, ${stops.join(', ')})` }} />
    );
  }
  return <img src={reducedUrl(element.picture, 160)} alt="" className="max-h-full max-w-full" />;
}

/** Light words are shown in ink on the white slat. */
function darkEnough(colour: string): string {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  return 0.3 * r + 0.59 * g + 0.11 * b > 150 ? '#171b19' : colour;
}
