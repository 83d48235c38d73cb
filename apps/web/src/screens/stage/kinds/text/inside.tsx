import { useEffect, useRef } from 'react';
import type { TextElement } from '@scenograph/core/elements/text/model';
import { useStage } from '../../store';
import type { HandlesProps } from '../kind-ui';
import { useLeaveToContent } from '../../../../ui/return-focus';
import { msg } from '../../../../language/language';

/** Screen pixels that letters are written in, whatever size they come out at. */
const SMALLEST = 13;
const LARGEST = 28;

/**
 * Words written in place: what is written shows in the picture at once. Leaving the field keeps them as one step, Escape gives
 * them up. Placeholders are seen as they are written.
 */
export function TextInside({
  element,
  zoom,
  during,
  commit,
  onLeave,
}: HandlesProps<TextElement> & { onLeave(): void }) {
  useLeaveToContent();
  // In a slot or bound to a variant the words are others; what is written is what the shot has.
  const written = useStage((s) => s.document?.elements.find((e) => e.id === element.id)) as
    TextElement | undefined;
  const field = useRef<HTMLTextAreaElement>(null);
  const first = useRef(written?.text ?? element.text);
  const given = useRef(false);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const { box } = element;
  const size = Math.min(LARGEST, Math.max(SMALLEST, element.size * zoom * 0.8));
  const keep = () => {
    if (given.current) return;
    const text = field.current!.value;
    if (text !== first.current) commit(msg('Change words'), { text });
    onLeave();
  };
  return (
    <textarea
      ref={field}
      aria-label={msg('Words of {element}', { element: element.name })}
      defaultValue={first.current}
      dir="auto"
      className="bg-card text-ink outline-spruce pointer-events-auto absolute resize-none p-1 leading-tight outline-2"
      style={{
        left: box.x * zoom,
        top: box.y * zoom,
        width: Math.max(160, box.width * zoom),
        height: Math.max(3 * size, box.height * zoom),
        fontSize: size,
        textAlign: element.align === 'centre' ? 'center' : element.align,
      }}
      onPointerDown={(e) => e.stopPropagation()}
      onChange={(e) => during({ text: e.target.value })}
      onBlur={keep}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') {
          given.current = true;
          useStage.getState().abandon();
          onLeave();
        } else if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.blur();
      }}
    />
  );
}
