import { RadioGroup } from 'radix-ui';
import { Lock, LockOpen } from 'lucide-react';
import { create } from 'zustand';
import { isProduct } from '@scenograph/core/elements/product/model';
import type { ShotElement } from '@scenograph/core/elements/index';
import { scaledOnBase } from '@scenograph/core/stage/stand';
import { resizedBox, type Box } from '@scenograph/core/vector/box';
import { msg } from '../../language/language';

/** Points that can keep their place, in rows. */
const POINTS = [
  msg('top left'),
  'top',
  msg('top right'),
  'left',
  'middle',
  'right',
  msg('bottom left'),
  'bottom',
  msg('bottom right'),
] as const;
type Point = (typeof POINTS)[number];

/** How sizes that are typed are taken: kept until the page is left. */
const useSizing = create<{ still: Point; keeps: boolean }>(() => ({ still: 'bottom', keeps: true }));

const shares = (point: Point) => {
  const i = POINTS.indexOf(point);
  return { x: (i % 3) / 2, y: Math.floor(i / 3) / 2 };
};

/**
 * Boxes of an element by a width or a height that is typed. A product keeps its shape and its base whatever is chosen.
 * @param free whether its kind may change its proportions
 */
export function useTypedSize(element: ShotElement, free: boolean) {
  const { still, keeps } = useSizing();
  const { box } = element;
  const inShape = keeps || !free;
  const scaled = (factor: number): Box =>
    isProduct(element)
      ? scaledOnBase(element, factor)
      : resizedBox(box, box.width * factor, box.height * factor, shares(still));
  return {
    inShape,
    byWidth: (width: number) =>
      inShape ? scaled(width / box.width) : resizedBox(box, width, box.height, shares(still)),
    byHeight: (height: number) =>
      inShape ? scaled(height / box.height) : resizedBox(box, box.width, height, shares(still)),
  };
}

/** Which point keeps its place when a size is typed, and whether width and height keep their proportion. */
export function SizingControl({ element, free }: { element: ShotElement; free: boolean }) {
  const { still, keeps } = useSizing();
  const inShape = keeps || !free;
  return (
    <div className="flex items-center gap-3">
      {isProduct(element) ? (
        <span className="text-ink-2 text-[12px]">{msg('Sized on its base')}</span>
      ) : (
        <>
          <span className="text-ink-2 text-[12px]">{msg('Stays put')}</span>
          <RadioGroup.Root
            aria-label={msg('Point that stays put when a size is typed')}
            className="grid grid-cols-3"
            value={still}
            onValueChange={(point) => useSizing.setState({ still: point })}
          >
            {POINTS.map((point) => (
              <RadioGroup.Item
                key={point}
                value={point}
                aria-label={point}
                title={point}
                className="group grid h-4 w-4 place-items-center"
              >
                <span className="border-ink-3 group-data-[state=checked]:border-spruce group-data-[state=checked]:bg-spruce h-2.5 w-2.5 rounded-full border" />
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
        </>
      )}
      <button
        type="button"
        aria-pressed={inShape}
        disabled={!free}
        title={free ? msg('Width and height keep their proportion') : msg('This keeps its shape')}
        className="hover:bg-spruce-tint flex h-7 items-center gap-1.5 rounded-md px-1.5 text-[12px] disabled:opacity-60"
        onClick={() => useSizing.setState({ keeps: !keeps })}
      >
        {inShape ? <Lock size={13} aria-hidden /> : <LockOpen size={13} aria-hidden />}
        {msg('Keep proportions')}
      </button>
    </div>
  );
}
