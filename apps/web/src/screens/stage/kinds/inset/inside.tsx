import { useRef } from 'react';
import type { InsetElement } from '@scenograph/core/elements/inset/model';
import { productOf } from '@scenograph/core/elements/spot';
import { ContentLayer } from '../content-layer';
import type { HandlesProps } from '../kind-ui';
import { useRatio } from '../use-ratio';
import { msg } from '../../../../language/language';

const held = (v: number) => Math.round(Math.min(1.5, Math.max(-0.5, v)) * 10_000) / 10_000;

/** What a close-up shows, moved and scaled within its lens. */
export function InsetInside({
  element,
  elements,
  zoom,
  during,
  commit,
  onLeave,
}: HandlesProps<InsetElement> & { onLeave(): void }) {
  const begun = useRef<InsetElement['spot'] | null>(null);
  const product = element.source === 'picture' ? null : productOf(element.of, elements);
  const own = useRatio(element.source === 'picture' ? element.picture : null);
  // Width against height of what the spot is a share of.
  const ratio = product ? product.box.width / product.box.height : own;
  return (
    <ContentLayer
      label={msg('Content of {element}', { element: element.name })}
      box={element.box}
      zoom={zoom}
      onMove={(dx, dy, done) => {
        const from = (begun.current ??= element.spot);
        const k = element.across / element.box.width;
        const spot = { x: held(from.x - dx * k), y: held(from.y - dy * k * ratio) };
        if (!done) return during({ spot });
        begun.current = null;
        commit(msg('Move the content'), { spot });
      }}
      onScale={(times) =>
        commit(msg('How much is shown'), { across: Math.min(1, Math.max(0.03, element.across / times)) })
      }
      onLeave={onLeave}
    />
  );
}
