import type { CalloutElement } from '@scenograph/core/elements/callout/model';
import type { InsetElement } from '@scenograph/core/elements/inset/model';
import { productOf, spotAt } from '@scenograph/core/elements/spot';
import type { HandlesProps } from './kind-ui';

/** The spot that a close-up or a callout points at, to be dragged over the product. */
export function SpotHandle<E extends InsetElement | CalloutElement>({
  element,
  elements,
  frame,
  zoom,
  during,
  commit,
  label,
}: HandlesProps<E> & { label: string }) {
  if (!element.target) return null;
  const product = productOf(element.of, elements);
  if (!product) return null;
  const { target } = element;
  const at = 'width' in target ? { x: target.x + target.width / 2, y: target.y + target.height / 2 } : target;
  const moved = (e: React.PointerEvent): Partial<E> => {
    const r = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    const spot = spotAt(product, { x: (e.clientX - r.left) / zoom, y: (e.clientY - r.top) / zoom });
    const held = (v: number) => Math.round(Math.min(1.5, Math.max(-0.5, v)) * 1000) / 1000;
    return { spot: { x: held(spot.x), y: held(spot.y) } } as Partial<E>;
  };
  return (
    <svg className="absolute overflow-visible" width={frame.width * zoom} height={frame.height * zoom}>
      <circle
        role="button"
        tabIndex={0}
        aria-label={label}
        cx={at.x * zoom}
        cy={at.y * zoom}
        r="8"
        fill="#ffffffcc"
        stroke="#12463a"
        strokeWidth="2.5"
        className="pointer-events-auto cursor-grab"
        onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
        onPointerMove={(e) => e.buttons && during(moved(e))}
        onPointerUp={(e) => commit(label, moved(e))}
        onKeyDown={(e) => {
          const step = e.shiftKey ? 0.05 : 0.01;
          const by = {
            ArrowLeft: [-step, 0],
            ArrowRight: [step, 0],
            ArrowUp: [0, -step],
            ArrowDown: [0, step],
          }[e.key];
          if (!by) return;
          e.preventDefault();
          e.stopPropagation();
          commit(label, {
            spot: { x: element.spot.x + by[0], y: element.spot.y + by[1] },
          } as Partial<E>);
        }}
      />
    </svg>
  );
}
