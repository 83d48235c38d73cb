import { useRef } from 'react';
import type { PairElement } from '@scenograph/core/elements/pair/model';
import type { Box } from '@scenograph/core/vector/box';
import { ContentLayer } from '../content-layer';
import type { HandlesProps } from '../kind-ui';
import { useRatio } from '../use-ratio';
import { msg } from '../../../../language/language';

type Side = 'before' | 'after';

/** The part of the element's box in which a side is seen, turned with it. */
export function halfBox({ box, split, at }: Pick<PairElement, 'box' | 'split' | 'at'>, side: Side): Box {
  const first = side === 'before';
  const level = split === 'horizontal';
  const share = first ? at : 1 - at;
  const width = level ? box.width : box.width * share;
  const height = level ? box.height * share : box.height;
  // From the element's middle to the half's, turned about it.
  const dx = level ? 0 : ((first ? -1 : 1) * (box.width - width)) / 2;
  const dy = level ? ((first ? -1 : 1) * (box.height - height)) / 2 : 0;
  const a = (box.rotation * Math.PI) / 180;
  const x = box.x + box.width / 2 + dx * Math.cos(a) - dy * Math.sin(a);
  const y = box.y + box.height / 2 + dx * Math.sin(a) + dy * Math.cos(a);
  return { x: x - width / 2, y: y - height / 2, width, height, rotation: box.rotation };
}

/**
 * Where a picture that covers a box is looked at after it was moved in it: never so far that the box shows beyond it.
 * @param ratio width against height of the picture
 * @param zoom how many times larger than needed to cover
 */
export function movedFocus(
  focus: { x: number; y: number },
  box: { width: number; height: number },
  ratio: number,
  zoom: number,
  [dx, dy]: readonly [number, number],
): { x: number; y: number } {
  const width = Math.max(box.width, box.height * ratio) * zoom;
  const height = width / ratio;
  const held = (v: number, part: number) => Math.min(1 - part / 2, Math.max(part / 2, v));
  return {
    x: held(held(focus.x, box.width / width) - dx / width, box.width / width),
    y: held(held(focus.y, box.height / height) - dy / height, box.height / height),
  };
}

/** The pictures of before and after, each moved and scaled within its half; cropped alike both follow the one after. */
export function PairInside(props: HandlesProps<PairElement> & { onLeave(): void }) {
  const { element } = props;
  const sides: Side[] = element.sameCrop ? ['after'] : ['before', 'after'];
  return sides.map((side) => <HalfInside key={side} {...props} side={side} />);
}

function HalfInside({
  element,
  zoom,
  during,
  commit,
  onLeave,
  side,
}: HandlesProps<PairElement> & { onLeave(): void; side: Side }) {
  const half = element[side];
  const ratio = useRatio(half.picture);
  const begun = useRef<PairElement['after']['focus'] | null>(null);
  if (!half.picture) return null;
  const change = (value: Partial<PairElement['after']>) =>
    ({ [side]: { ...half, ...value } }) as Partial<PairElement>;
  return (
    <ContentLayer
      label={msg('{part} of {element}', {
        part: side === 'before' ? msg('Before') : msg('After'),
        element: element.name,
      })}
      box={element.sameCrop ? element.box : halfBox(element, side)}
      zoom={zoom}
      onMove={(dx, dy, done) => {
        const from = (begun.current ??= half.focus);
        const focus = movedFocus(from, element.box, ratio, half.zoom, [dx, dy]);
        if (!done) return during(change({ focus }));
        begun.current = null;
        commit(msg('Move the picture'), change({ focus }));
      }}
      onScale={(times) =>
        commit(msg('Scale the picture'), change({ zoom: Math.min(8, Math.max(1, half.zoom * times)) }))
      }
      onLeave={onLeave}
    />
  );
}
