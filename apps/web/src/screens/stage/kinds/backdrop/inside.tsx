import { useEffect } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { useLeaveToContent } from '../../../../ui/return-focus';
import type { HandlesProps } from '../kind-ui';

/**
 * The inside of a mockup are its designs: the chosen one, or the first, gets the keys. Escape comes out; a backdrop without
 * designs has no inside.
 */
export function BackdropInside({ onLeave }: HandlesProps<BackdropElement> & { onLeave(): void }) {
  useLeaveToContent();
  useEffect(() => {
    const designs = [...document.querySelectorAll<SVGPathElement>('[data-design]')];
    const first = designs.find((d) => d.getAttribute('aria-pressed') === 'true') ?? designs[0];
    if (!first) return onLeave();
    first.focus();
    const leave = (e: KeyboardEvent) => {
      if (e.key !== 'Escape') return;
      e.stopPropagation();
      // Leaving it comes out.
      (e.currentTarget as SVGElement).blur();
    };
    const away = (e: FocusEvent) => {
      if (!(e.relatedTarget as Element | null)?.matches('[data-design]')) onLeave();
    };
    for (const design of designs) {
      design.addEventListener('keydown', leave);
      design.addEventListener('focusout', away);
    }
    return () => {
      for (const design of designs) {
        design.removeEventListener('keydown', leave);
        design.removeEventListener('focusout', away);
      }
    };
    // Once, when one goes in.
  }, []);
  return null;
}
